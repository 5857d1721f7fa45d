package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Validates;

/** Textbook systems with units, against their closed solutions, conserved quantities and published values. */
class KnownSolutionsTest {
    private static final double G = 9.81;

    @Test
    @Validates(
            what = "level of a draining tank",
            against = "closed form after Torricelli: the root of the level falls linearly",
            within = "1e-7 m")
    void aTankDrainsAsTorricelliSaysAndIsEmptyAtItsTime() {
        // sqrt(h) falls linearly: h = (sqrt(h0) - a/A sqrt(g/2) t)^2.
        Trajectory trajectory = Runs.run("""
                attribute level : LengthValue := 2 [m];
                attribute area : AreaValue = 3 [m^2];
                attribute hole : AreaValue = 0.02 [m^2];
                assert constraint outflow { area * der(level) == if level > \
                0 [m] ? -(hole * sqrt(2 * 9.81 [m/s^2] * level)) else 0 [m^3/s] }
                """, 60);
        double rate = 0.02 / 3 * Math.sqrt(G / 2);
        for (double t = 0; t <= 60; t += 7) {
            assertThat(Runs.at(trajectory, "p.level", t)).isCloseTo(Math.pow(Math.sqrt(2) - rate * t, 2), within(1e-7));
        }
    }

    @Test
    @Validates(what = "logistic growth", against = "closed form after Verhulst", within = "1e-4 of 1000")
    void aLogisticPopulationFollowsVerhulst() {
        Trajectory trajectory = Runs.run(
                "attribute n : Real := 10; assert constraint growth { der(n) == 0.3 [1/s] * n * (1 - n / 1000) }", 40);
        for (double t = 0; t <= 40; t += 3) {
            assertThat(Runs.at(trajectory, "p.n", t)).isCloseTo(1000 / (1 + 99 * Math.exp(-0.3 * t)), within(1e-4));
        }
    }

    /** Damping ratios below, at and above one. */
    @ParameterizedTest
    @CsvSource({"0.2", "1", "1.6"})
    @Validates(
            what = "damped oscillator, below, at and above the critical damping",
            against = "closed forms",
            within = "1e-6 of the amplitude")
    void aDampedOscillatorMovesAsItsDampingRatioSays(double zeta) {
        Trajectory trajectory = Runs.run("""
                attribute x : LengthValue := 1 [m];
                attribute v : SpeedValue := 0 [m/s];
                attribute zeta : Real = %s;
                assert constraint motion { der(x) == v and der(v) == -4 [1/s^2] * x - 2 * zeta * 2 [1/s] * v }
                """.formatted(zeta), 8);
        for (double t = 0; t <= 8; t += 0.7) {
            assertThat(Runs.at(trajectory, "p.x", t)).isCloseTo(damped(zeta, 2, t), within(1e-6));
        }
    }

    private static double damped(double zeta, double omega, double t) {
        if (zeta == 1) {
            return (1 + omega * t) * Math.exp(-omega * t);
        }
        if (zeta < 1) {
            double own = omega * Math.sqrt(1 - zeta * zeta);
            return Math.exp(-zeta * omega * t) * (Math.cos(own * t) + zeta * omega / own * Math.sin(own * t));
        }
        double root = omega * Math.sqrt(zeta * zeta - 1);
        double fast = -zeta * omega - root;
        double slow = -zeta * omega + root;
        return (slow * Math.exp(fast * t) - fast * Math.exp(slow * t)) / (slow - fast);
    }

    @Test
    @Validates(what = "charging capacitor", against = "closed form 1 − exp(−t/RC)", within = "1e-7")
    void aCapacitorChargesToSixtyThreePercentInOneTimeConstant() {
        Trajectory trajectory = Runs.run("""
                attribute voltage : ElectricPotentialValue := 0 [V];
                attribute resistance : ResistanceValue = 10 ['kΩ'];
                attribute capacitance : CapacitanceValue = 100 ['µF'];
                assert constraint charge { resistance * capacitance * der(voltage) == 5 [V] - voltage }
                """, 5);
        assertThat(Runs.at(trajectory, "p.voltage", 1)).isCloseTo(5 * (1 - Math.exp(-1)), within(1e-7));
        assertThat(Runs.at(trajectory, "p.voltage", 5)).isCloseTo(5 * (1 - Math.exp(-5)), within(1e-7));
    }

    @Test
    @Validates(what = "predator and prey", against = "the invariant of Lotka and Volterra", within = "1e-5")
    void predatorAndPreyKeepLotkasAndVolterrasInvariant() {
        Trajectory trajectory = Runs.run("""
                attribute prey : Real := 10;
                attribute hunters : Real := 5;
                assert constraint lives {
                    der(prey) == 1.1 [1/s] * prey - 0.4 [1/s] * prey * hunters and der(hunters) == 0.1 [1/s] * prey * \
                hunters - 0.4 [1/s] * hunters
                }
                """, 60);
        double first = invariant(10, 5);
        for (double t = 0; t <= 60; t += 2.3) {
            assertThat(invariant(Runs.at(trajectory, "p.prey", t), Runs.at(trajectory, "p.hunters", t)))
                    .isCloseTo(first, within(1e-5));
        }
    }

    private static double invariant(double prey, double hunters) {
        return 0.1 * prey - 0.4 * Math.log(prey) + 0.4 * hunters - 1.1 * Math.log(hunters);
    }

    @Test
    @Validates(
            what = "orbit of a planet",
            against = "angular momentum, energy, the third law of Kepler",
            within = "1e-5")
    void aPlanetKeepsItsAngularMomentumItsEnergyAndKeplersThirdLaw() {
        // An ellipse with half axis 1/(2 - v^2) about a centre of strength 1 comes back after 2 pi a^1.5.
        double v = 1.2;
        double axis = 1 / (2 - v * v);
        double period = 2 * Math.PI * Math.pow(axis, 1.5);
        Trajectory trajectory = Runs.run("""
                attribute x : Real := 1;
                attribute y : Real := 0;
                attribute u : Real := 0;
                attribute w : Real := 1.2;
                attribute cube : Real = (x^2 + y^2)^1.5;
                assert constraint motion {
                    der(x) == u / 1 [s] and der(y) == w / 1 [s] and der(u) == -x / cube / 1 [s] and der(w) == -y / cube / 1 [s]
                }
                """, period);
        assertThat(Runs.at(trajectory, "p.x", period)).isCloseTo(1, within(1e-5));
        assertThat(Runs.at(trajectory, "p.y", period)).isCloseTo(0, within(1e-5));
        for (double t = 0; t <= period; t += period / 13) {
            double x = Runs.at(trajectory, "p.x", t);
            double y = Runs.at(trajectory, "p.y", t);
            double momentum = x * Runs.at(trajectory, "p.w", t) - y * Runs.at(trajectory, "p.u", t);
            assertThat(momentum).isCloseTo(1.2, within(1e-6));
        }
    }

    @Test
    @Validates(what = "period of a pendulum", against = "series of the period in the amplitude", within = "1e-7")
    void aPendulumIsSlowerTheFartherItSwings() {
        Trajectory trajectory = Runs.run("""
                attribute angle : AngularMeasureValue := 0.1 [rad];
                attribute rate : AngularVelocityValue := 0 [rad/s];
                attribute length : LengthValue = 2 [m];
                assert constraint swing { der(angle) == rate and der(rate) == -(9.81 [m/s^2] / length) * sin(angle) * 1 [rad] }
                """, 3);
        // A pendulum's period for an amplitude of 0.1 rad: 2 pi sqrt(l/g) (1 + a^2/16 + 11 a^4/3072), to 1e-9.
        double period = 2 * Math.PI * Math.sqrt(2 / G) * (1 + 0.01 / 16 + 11 * 1e-4 / 3072);
        assertThat(Runs.at(trajectory, "p.angle", period)).isCloseTo(0.1, within(1e-7));
        assertThat(Runs.at(trajectory, "p.angle", period / 2)).isCloseTo(-0.1, within(1e-7));
    }

    @Test
    @Validates(what = "room with heating", against = "closed form of first order", within = "1e-6 K")
    void aRoomWarmsTowardsWhatItsHeatingCouldReach() {
        Trajectory trajectory = Runs.run("""
                attribute inside : Real := 20;
                attribute heating : Real := 1;
                assert constraint heat { der(inside) == (if heating > 0.5 ? 40 - inside else 10 - inside) / 100 [s] }
                assert constraint hold { der(heating) == 0 [1/s] }
                """, 30);
        assertThat(Runs.at(trajectory, "p.inside", 30)).isCloseTo(40 - 20 * Math.exp(-0.3), within(1e-6));
    }

    @Test
    @Validates(what = "two masses between three springs", against = "their normal modes", within = "1e-6")
    void massesOnSpringsSwingInTheirNormalModes() {
        // Two equal masses between three equal springs: in phase at sqrt(k/m), against each other at sqrt(3 k/m).
        Trajectory trajectory = Runs.run("""
                attribute a : Real := 1;
                attribute b : Real := 0;
                attribute da : Real := 0;
                attribute db : Real := 0;
                assert constraint motion {
                    der(a) == da / 1 [s] and der(b) == db / 1 [s] and der(da) == (b - 2 * a) / 1 [s] and der(db) == (a - 2 * b) / 1 [s]
                }
                """, 20);
        for (double t = 0; t <= 20; t += 1.3) {
            assertThat(Runs.at(trajectory, "p.a", t))
                    .isCloseTo((Math.cos(t) + Math.cos(Math.sqrt(3) * t)) / 2, within(1e-6));
            assertThat(Runs.at(trajectory, "p.b", t))
                    .isCloseTo((Math.cos(t) - Math.cos(Math.sqrt(3) * t)) / 2, within(1e-6));
        }
    }
}
