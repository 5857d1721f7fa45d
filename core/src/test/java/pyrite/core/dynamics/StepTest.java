package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.hipparchus.ode.sampling.ODEStateInterpolator;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Validates;

/** A step that was put away, in memory or in a file, says what the integrator said. */
class StepTest {
    @ParameterizedTest
    @ValueSource(longs = {0, 400, 1 << 20})
    @Validates(
            what = "steps of a long run, in memory and in a file",
            against = "the interpolation of the integrator",
            within = "1e-13")
    void aCompactStepHasTheSameStates(long bytesInMemory) {
        StepShelf shelf = new StepShelf(bytesInMemory);
        DormandPrince853Integrator integrator = new DormandPrince853Integrator(1e-9, 1, 1e-8, 1e-8);
        Random random = new Random(1);
        integrator.addStepHandler(interpolator -> compare(interpolator, shelf, random));
        integrator.integrate((OrdinaryDifferentialEquation) new Swing(), new ODEState(0, new double[] {3, 0, 1e6}), 20);
        assertThat(shelf.fileBytes() > 0).isEqualTo(bytesInMemory < 1000);
    }

    private static void compare(ODEStateInterpolator interpolator, StepShelf shelf, Random random) {
        double from = interpolator.getPreviousState().getTime();
        double to = interpolator.getCurrentState().getTime();
        Step step = new Step(from, to, interpolator, 3, new boolean[0], 0);
        step.compact(shelf);
        for (int i = 0; i < 20; i++) {
            double t = from + random.nextDouble() * (to - from);
            double[] expected = interpolator.getInterpolatedState(t).getPrimaryState();
            for (int k = 0; k < 3; k++) {
                assertThat(step.at(t)[k]).isCloseTo(expected[k], within(1e-13 * (1 + Math.abs(expected[k]))));
            }
        }
    }

    private static final class Swing implements OrdinaryDifferentialEquation {
        @Override
        public int getDimension() {
            return 3;
        }

        @Override
        public double[] computeDerivatives(double t, double[] y) {
            return new double[] {y[1], -Math.sin(y[0]), -y[2]};
        }
    }
}
