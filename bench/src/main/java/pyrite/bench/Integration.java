package pyrite.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.SortedSystem;
import pyrite.core.dynamics.Sorting;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * Twenty coupled, damped pendulums over 200 s: the model as notation, compiled, against the same equations as a Java
 * loop, both with the same integrator, tolerances and largest step. The goal is a ratio of 1.3 at the most; the
 * compiled side also keeps every step's interpolation and looks for values that are not finite.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 8, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms2g", "-Xss4m"})
public class Integration {
    private static final int PENDULUMS = 20;
    private static final double STOP = 200;
    private static final double TOLERANCE = 1e-6;

    private final SortedSystem system = system();

    private static SortedSystem system() {
        StringBuilder text = new StringBuilder(
                "package P {\nprivate import ScalarValues::*; private import ISQ::*; private import SI::*;"
                        + " private import Dynamics::*;\npart p {\n");
        for (int i = 0; i < PENDULUMS; i++) {
            String left = i == 0 ? "0" : "angle" + (i - 1);
            String right = i == PENDULUMS - 1 ? "0" : "angle" + (i + 1);
            text.append("attribute angle")
                    .append(i)
                    .append(" : Real := ")
                    .append(i == 0 ? "1" : "0")
                    .append(";\n")
                    .append("attribute speed")
                    .append(i)
                    .append(" : FrequencyValue := 0 [1/s];\n")
                    .append("assert constraint law")
                    .append(i)
                    .append(" { der(angle")
                    .append(i)
                    .append(") == speed")
                    .append(i)
                    .append(" and der(speed")
                    .append(i)
                    .append(") == -(sin(angle")
                    .append(i)
                    .append(")) * 9.81 [1/s^2] + (")
                    .append(left)
                    .append(" - 2 * angle")
                    .append(i)
                    .append(" + ")
                    .append(right)
                    .append(") * 4 [1/s^2] - speed")
                    .append(i)
                    .append(" * 0.01 [1/s] }\n");
        }
        Model model = NotationReader.read(
                        Library.model(),
                        List.of(new Source("bench", text.append("}\n}\n").toString())))
                .model();
        Element part = model.ownElements().stream()
                .filter(e -> "p".equals(e.name()))
                .findFirst()
                .orElseThrow();
        Flattening flattening = new Flattening(model);
        flattening.root(part);
        return Sorting.sort(flattening.system());
    }

    @Benchmark
    public double compiledModel() {
        return Simulation.run(system, RunSettings.of(0, STOP).withTolerance(TOLERANCE), RunControl.NONE)
                .stop();
    }

    @Benchmark
    public double handWritten() {
        double[] start = new double[2 * PENDULUMS];
        start[0] = 1;
        double[] absolute = new double[start.length];
        double[] relative = new double[start.length];
        java.util.Arrays.fill(relative, TOLERANCE);
        for (int i = 0; i < start.length; i++) {
            absolute[i] = TOLERANCE * Math.max(Math.abs(start[i]), 1e-3);
        }
        return new DormandPrince853Integrator(1e-14 * STOP, 0.02 * STOP, absolute, relative)
                .integrate(new ByHand(), new ODEState(0, start), STOP)
                .getTime();
    }

    private static final class ByHand implements OrdinaryDifferentialEquation {
        @Override
        public int getDimension() {
            return 2 * PENDULUMS;
        }

        @Override
        public double[] computeDerivatives(double t, double[] y) {
            double[] derivatives = new double[y.length];
            for (int i = 0; i < PENDULUMS; i++) {
                double left = i == 0 ? 0 : y[i - 1];
                double right = i == PENDULUMS - 1 ? 0 : y[i + 1];
                derivatives[i] = y[PENDULUMS + i];
                derivatives[PENDULUMS + i] =
                        -Math.sin(y[i]) * 9.81 + (left - 2 * y[i] + right) * 4 - y[PENDULUMS + i] * 0.01;
            }
            return derivatives;
        }
    }
}
