package pyrite.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
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
 * Equations of three kinds, as notation that is compiled and as a Java loop, both with the same integrator, tolerance
 * and largest step. The goal is a ratio of 1.3 at the most; the compiled side also keeps every step's interpolation and
 * looks for values that are not finite.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 5, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms2g", "-Xss4m"})
public class Integration {
    private static final double STOP = 200;
    private static final double TOLERANCE = 1e-6;

    /** What is integrated: coupled pendulums, a rod of cells that warms up, or oscillators apart from each other. */
    @Param({"PENDULUMS", "ROD", "OSCILLATORS"})
    public Kind kind = Kind.PENDULUMS;

    private Problem equations = new Pendulums();
    private SortedSystem system = equations.system();

    /** The kinds of equations. */
    public enum Kind {
        PENDULUMS,
        ROD,
        OSCILLATORS
    }

    @Setup
    public void choose() {
        equations = switch (kind) {
            case PENDULUMS -> new Pendulums();
            case ROD -> new Rod();
            case OSCILLATORS -> new Oscillators();
        };
        system = equations.system();
    }

    @Benchmark
    public double compiledModel() {
        return Simulation.run(system, RunSettings.of(0, STOP).withTolerance(TOLERANCE), RunControl.NONE)
                .stop();
    }

    @Benchmark
    public double handWritten() {
        double[] start = equations.start();
        double[] absolute = new double[start.length];
        double[] relative = new double[start.length];
        java.util.Arrays.fill(relative, TOLERANCE);
        for (int i = 0; i < start.length; i++) {
            absolute[i] = TOLERANCE * Math.max(Math.abs(start[i]), 1e-3);
        }
        return new DormandPrince853Integrator(1e-14 * STOP, 0.02 * STOP, absolute, relative)
                .integrate(equations, new ODEState(0, start), STOP)
                .getTime();
    }

    /** The same equations in the notation and by hand. */
    private abstract static class Problem implements OrdinaryDifferentialEquation {
        abstract String members();

        abstract double[] start();

        @Override
        public int getDimension() {
            return start().length;
        }

        SortedSystem system() {
            String text = "package P {\nprivate import ScalarValues::*; private import ISQ::*; private import SI::*;"
                    + " private import Dynamics::*;\npart p {\n" + members() + "}\n}\n";
            Model model = NotationReader.read(Library.model(), List.of(new Source("bench", text)))
                    .model();
            Element part = model.ownElements().stream()
                    .filter(e -> "p".equals(e.name()))
                    .findFirst()
                    .orElseThrow();
            Flattening flattening = new Flattening(model);
            flattening.root(part);
            return Sorting.sort(flattening.system());
        }

        static String each(int count, IntFunction<String> members) {
            return IntStream.range(0, count).mapToObj(members).collect(Collectors.joining());
        }
    }

    /** Twenty coupled, damped pendulums. */
    private static final class Pendulums extends Problem {
        private static final int COUNT = 20;

        @Override
        String members() {
            return each(COUNT, i -> """
                    attribute a%d : Real := %d;
                    attribute v%d : FrequencyValue := 0 [1/s];
                    assert constraint law%d { der(a%d) == v%d and der(v%d) == -(sin(a%d)) * 9.81 [1/s^2]
                        + (%s - 2 * a%d + %s) * 4 [1/s^2] - v%d * 0.01 [1/s] }
                    """.formatted(
                            i,
                            i == 0 ? 1 : 0,
                            i,
                            i,
                            i,
                            i,
                            i,
                            i,
                            i == 0 ? "0" : "a" + (i - 1),
                            i,
                            i == COUNT - 1 ? "0" : "a" + (i + 1),
                            i));
        }

        @Override
        double[] start() {
            double[] start = new double[2 * COUNT];
            start[0] = 1;
            return start;
        }

        @Override
        public double[] computeDerivatives(double t, double[] y) {
            double[] derivatives = new double[y.length];
            for (int i = 0; i < COUNT; i++) {
                double left = i == 0 ? 0 : y[i - 1];
                double right = i == COUNT - 1 ? 0 : y[i + 1];
                derivatives[i] = y[COUNT + i];
                derivatives[COUNT + i] = -Math.sin(y[i]) * 9.81 + (left - 2 * y[i] + right) * 4 - y[COUNT + i] * 0.01;
            }
            return derivatives;
        }
    }

    /** Heat goes through a rod of 200 cells from a hot end. */
    private static final class Rod extends Problem {
        private static final int COUNT = 200;

        @Override
        String members() {
            return each(
                    COUNT,
                    i ->
                            "attribute x%d : Real := 20; assert constraint law%d { der(x%d) == (%s - 2 * x%d + %s) * 4 [1/s] }\n"
                                    .formatted(
                                            i,
                                            i,
                                            i,
                                            i == 0 ? "100" : "x" + (i - 1),
                                            i,
                                            "x" + Math.min(i + 1, COUNT - 1)));
        }

        @Override
        double[] start() {
            double[] start = new double[COUNT];
            java.util.Arrays.fill(start, 20);
            return start;
        }

        @Override
        public double[] computeDerivatives(double t, double[] y) {
            double[] derivatives = new double[COUNT];
            for (int i = 0; i < COUNT; i++) {
                double left = i == 0 ? 100 : y[i - 1];
                double right = y[Math.min(i + 1, COUNT - 1)];
                derivatives[i] = (left - 2 * y[i] + right) * 4;
            }
            return derivatives;
        }
    }

    /** Fifty oscillators, each a little faster than the one before. */
    private static final class Oscillators extends Problem {
        private static final int COUNT = 50;

        @Override
        String members() {
            return each(COUNT, i -> """
                    attribute x%d : Real := 1;
                    attribute v%d : FrequencyValue := 0 [1/s];
                    assert constraint law%d { der(x%d) == v%d and der(v%d) == -x%d * %s [1/s^2] }
                    """.formatted(i, i, i, i, i, i, i, stiffness(i)));
        }

        private static double stiffness(int i) {
            return 1 + 0.125 * i;
        }

        @Override
        double[] start() {
            double[] start = new double[2 * COUNT];
            java.util.Arrays.fill(start, 0, COUNT, 1);
            return start;
        }

        @Override
        public double[] computeDerivatives(double t, double[] y) {
            double[] derivatives = new double[y.length];
            for (int i = 0; i < COUNT; i++) {
                derivatives[i] = y[COUNT + i];
                derivatives[COUNT + i] = -y[i] * stiffness(i);
            }
            return derivatives;
        }
    }
}
