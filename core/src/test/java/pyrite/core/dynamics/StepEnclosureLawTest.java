package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import net.jqwik.api.Assume;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** What bounds say of a stretch of a step holds at every instant of it at which somebody looks. */
class StepEnclosureLawTest {
    private static final Trajectory TRAJECTORY = Runs.run("""
            attribute x : Real := 2;
            attribute v : Real := 0;
            assert constraint { der(x) == v / 1 [s] }
            assert constraint { der(v) == -x / 1 [s] }
            attribute thrust : Real = if x > 1 ? 3 else abs(v);
            attribute level : Real := 1;
            assert constraint { der(level) == thrust / 10 [s] - level / 1 [s] }
            """, 20);
    private static final int VARIABLES = TRAJECTORY.system().flat().variables().size();
    private static final int LOOKS = 12;
    private static final double TIE = 1e-9;

    @Property(tries = 20_000)
    void noValueAndNoSlopeIsOutsideTheBounds(@ForAll long seed) {
        Random random = new Random(seed);
        RandomTerms terms = new RandomTerms(random, VARIABLES);
        Term term = terms.term(random.nextInt(4));
        Stretch stretch = new Stretch(random);
        Enclosure bounds = stretch.enclosure().term(term, stretch.a(), stretch.b());
        double[] t = stretch.instants(random);
        double[] y = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            double[] v = TRAJECTORY.at(stretch.step(), t[i]);
            double instant = t[i];
            // A choice between two sides that are equal is made by rounding.
            Assume.that(terms.relations().stream()
                    .noneMatch(relation -> Math.abs(Terms.margin(relation, instant, v)) <= TIE));
            y[i] = Terms.value(term, t[i], v);
            if (bounds.isBounded()) {
                assertThat(y[i]).as(() -> term + " in " + stretch).isFinite();
                double noise = 1e-12 * (bounds.magnitude() + 1);
                assertThat(bounds.low() - noise <= y[i] && y[i] <= bounds.high() + noise)
                        .as(() -> term + " in " + stretch + " from " + bounds.low() + " to " + bounds.high())
                        .isTrue();
            }
        }
        // An ill-conditioned value, such as arccos(cos(0.001)), is itself known only as well as its bounds at an
        // instant.
        double noise = 1e-11 * (1 + bounds.magnitude()) + 4 * bounds.noise();
        for (int i = 2; i < t.length; i++) {
            if (bounds.isRising()) {
                assertThat(y[i]).as("never falls").isGreaterThanOrEqualTo(y[i - 1] - noise);
            }
            if (bounds.isFalling()) {
                assertThat(y[i]).as("never rises").isLessThanOrEqualTo(y[i - 1] + noise);
            }
            double chord = y[i - 2] + (y[i] - y[i - 2]) * (t[i - 1] - t[i - 2]) / (t[i] - t[i - 2]);
            if (bounds.isConvex() && t[i] > t[i - 2]) {
                assertThat(y[i - 1]).as("convex").isLessThanOrEqualTo(chord + noise);
            }
            if (bounds.isConcave() && t[i] > t[i - 2]) {
                assertThat(y[i - 1]).as("concave").isGreaterThanOrEqualTo(chord - noise);
            }
        }
        assertThat(bounds.isMonotone()).isEqualTo(bounds.isRising() || bounds.isFalling());
    }

    @Property(tries = 20_000)
    void whatIsDecidedIsSoAtEveryInstant(@ForAll long seed) {
        Random random = new Random(seed);
        Condition condition = new RandomTerms(random, VARIABLES).condition(random.nextInt(3));
        Stretch stretch = new Stretch(random);
        Boolean decided = stretch.enclosure().decided(condition, stretch.a(), stretch.b());
        Enclosure margin = stretch.enclosure().margin(condition, stretch.a(), stretch.b());
        for (double t : stretch.instants(random)) {
            double[] v = TRAJECTORY.at(stretch.step(), t);
            boolean holds = Terms.holds(condition, t, v);
            if (decided != null && Math.abs(Terms.margin(condition, t, v)) > TIE) {
                assertThat(holds).as(() -> condition + " in " + stretch).isEqualTo(decided);
            }
            if (margin.isBounded() && margin.low() > 0) {
                assertThat(holds)
                        .as(() -> condition + " has a margin in " + stretch)
                        .isTrue();
            }
            if (margin.isBounded() && margin.high() < 0) {
                assertThat(holds).as(() -> condition + " misses in " + stretch).isFalse();
            }
        }
    }

    /** Bounds that are right and of no use would decide nothing. */
    @Test
    void mostIsDecidedAndMostBoundsAreNarrow() {
        Random random = new Random(1);
        int decided = 0;
        for (int i = 0; i < 2000; i++) {
            Condition condition = new RandomTerms(random, VARIABLES).condition(2);
            Stretch stretch = new Stretch(random);
            decided += stretch.enclosure().decided(condition, stretch.a(), stretch.b()) == null ? 0 : 1;
        }
        assertThat(decided).isGreaterThan(1600);
        Term x = new Term.Variable(Runs.index(TRAJECTORY, "p.x"));
        for (int i = 0; i < 200; i++) {
            Stretch stretch = new Stretch(random);
            Enclosure bounds = stretch.enclosure().term(x, stretch.a(), stretch.b());
            double most = 2 * Math.max(Math.abs(Math.cos(stretch.a())), Math.abs(Math.cos(stretch.b())));
            assertThat(bounds.high() - bounds.low()).isLessThan(2.1 * (stretch.b() - stretch.a()) + 1e-9);
            assertThat(bounds.magnitude()).isLessThan(Math.max(most, 2) + 1e-6);
        }
    }

    /** A stretch of a step, or all of it. */
    private record Stretch(int step, double a, double b) {
        Stretch(Random random) {
            this(random.nextInt(TRAJECTORY.stepCount()), random);
        }

        Stretch(int step, Random random) {
            this(step, TRAJECTORY.step(step), Math.pow(10, -random.nextInt(4)), random.nextDouble());
        }

        private Stretch(int step, Trajectory.Span span, double share, double place) {
            this(
                    step,
                    span.from() + (span.to() - span.from()) * (1 - share) * place,
                    span.from() + (span.to() - span.from()) * ((1 - share) * place + share));
        }

        StepEnclosure enclosure() {
            return TRAJECTORY.enclosure(step);
        }

        double[] instants(Random random) {
            double[] instants = random.doubles(LOOKS, a, b).sorted().toArray();
            instants[0] = a;
            instants[LOOKS - 1] = b;
            return instants;
        }
    }
}
