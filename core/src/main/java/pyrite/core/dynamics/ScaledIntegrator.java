package pyrite.core.dynamics;

import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.hipparchus.ode.nonstiff.StepsizeHelper;

/** The Dormand-Prince 8(5,3) method with tolerances that follow the sizes of the states while it runs. */
final class ScaledIntegrator extends DormandPrince853Integrator {
    private final StepsizeHelper tolerances;

    /**
     * @param smallest the smallest step, s
     * @param largest the largest step, s
     * @param first the step to try first, s
     * @param dimension how many states there are
     */
    ScaledIntegrator(double smallest, double largest, double first, int dimension, Nominals nominals) {
        super(smallest, largest, 1, 1);
        this.tolerances = new Tolerances(smallest, largest, dimension, nominals);
        setInitialStepSize(Math.clamp(first, smallest, largest));
    }

    @Override
    protected StepsizeHelper getStepSizeHelper() {
        return tolerances;
    }

    private static final class Tolerances extends StepsizeHelper {
        private final Nominals nominals;

        Tolerances(double smallest, double largest, int dimension, Nominals nominals) {
            super(smallest, largest, 1, 1);
            this.nominals = nominals;
            setMainSetDimension(dimension);
        }

        @Override
        public double getTolerance(int state, double size) {
            return nominals.tolerance(state, size);
        }
    }
}
