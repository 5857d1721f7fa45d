package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;

/** A tank that runs empty as exp(-t / tau): what differs between its runs is known in closed form. */
class RunComparisonTest {
    private static final Model MODEL = Models.of("""
            part def Tank {
                attribute tau : DurationValue = 10 [s];
                attribute level : LengthValue := 1 [m];
                attribute colour : ScalarValues::Real = 1;
                assert constraint outflow { der(level) == -level / tau }
            }
            part tank : Tank;
            analysis emptying : TimeRun {
                subject :>> system = tank;
                attribute :>> stopTime = 20 [s];
            }
            """);

    private static Model with(Model model, String feature, String value) {
        Element tank = Models.element(model, "Test::Tank");
        Element changed = Models.element(model, "Test::Tank::" + feature);
        Authoring.Proposal proposal = new Authoring(model).value(tank, changed, value);
        return ((EditResult.Applied) model.apply(((Authoring.Proposal.Accepted) proposal).edit())).model();
    }

    private static CaseRun run(Model model) {
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::emptying"), RunControl.NONE);
        assertThat(run.failure()).isNull();
        return run;
    }

    @Test
    void theInputThatDiffersIsNamedAsEachRunReadIt() {
        Model slower = with(MODEL, "tau", "20 [s]");
        List<RunComparison.Differing> inputs = RunComparison.inputs(List.of(
                new RunComparison.Inputs(run(MODEL).fingerprint(), MODEL),
                new RunComparison.Inputs(run(slower).fingerprint(), slower)));
        assertThat(inputs).singleElement().satisfies(differing -> {
            assertThat(differing.id()).isEqualTo(Models.id(MODEL, "Test::Tank::tau"));
            assertThat(differing.texts())
                    .containsExactly(
                            "attribute tau : DurationValue = 10 [s];", "attribute tau : DurationValue = 20 [s];");
        });
    }

    @Test
    void aValueThatOneRunHadFromTheDefinitionStandsBesideTheRedefinitionOfTheOther() {
        Element tank = Models.element(MODEL, "Test::tank");
        Authoring.Proposal proposal =
                new Authoring(MODEL).value(tank, Models.element(MODEL, "Test::Tank::tau"), "5 [s]");
        Model quicker = ((EditResult.Applied) MODEL.apply(((Authoring.Proposal.Accepted) proposal).edit())).model();
        assertThat(RunComparison.inputs(List.of(
                        new RunComparison.Inputs(run(MODEL).fingerprint(), MODEL),
                        new RunComparison.Inputs(run(quicker).fingerprint(), quicker))))
                .singleElement()
                .satisfies(differing -> assertThat(differing.texts())
                        .containsExactly("attribute tau : DurationValue = 10 [s];", "attribute :>> tau = 5 [s];"));
    }

    @Test
    void theSeriesThatPartAreGivenWithTheirCourseAndTheOthersAreNot() {
        Model slower = with(MODEL, "tau", "20 [s]");
        List<RunComparison.Parted> parted =
                RunComparison.series(List.of(run(MODEL).series(), run(slower).series()), UnaryOperator.identity());
        assertThat(parted).singleElement().satisfies(level -> {
            assertThat(level.path()).isEqualTo("tank.level");
            assertThat(level.courses().get(0).last())
                    .isCloseTo(Math.exp(-2), org.assertj.core.data.Offset.offset(1e-6));
            assertThat(level.courses().get(1).last())
                    .isCloseTo(Math.exp(-1), org.assertj.core.data.Offset.offset(1e-6));
            assertThat(level.courses().get(0).most()).isEqualTo(1);
        });
    }

    @Test
    void twoRunsOfTheSameDifferInNothing() {
        RunComparison.Inputs inputs = new RunComparison.Inputs(run(MODEL).fingerprint(), MODEL);
        assertThat(RunComparison.inputs(List.of(inputs, inputs))).isEmpty();
        assertThat(RunComparison.series(List.of(run(MODEL).series(), run(MODEL).series()), UnaryOperator.identity()))
                .isEmpty();
    }

    @Test
    void aSeriesThatOneRunDoesNotHaveComesFirst() {
        CaseRun.Series extra =
                new CaseRun.Series("tank.extra", Models.id(MODEL, "Test::Tank::tau"), "s", new double[] {1, 2});
        List<RunComparison.Parted> parted =
                RunComparison.series(List.of(run(MODEL).series(), List.of(extra)), UnaryOperator.identity());
        assertThat(parted).extracting(RunComparison.Parted::path).contains("tank.extra", "tank.level");
        assertThat(parted.getFirst().courses()).containsNull();
    }

    @Test
    void runsOfDifferentPartsAreComparedByWhatIsWithinEach() {
        assertThat(RunComparison.areOfDifferentParts(List.of(List.of("tank.level"), List.of("tank.tau", "tank.level"))))
                .isFalse();
        assertThat(RunComparison.areOfDifferentParts(List.of(List.of("tank.level"), List.of("used(vat.pump)"))))
                .isTrue();
        assertThat(RunComparison.areOfDifferentParts(List.of(List.of(), List.of("vat.level"))))
                .isFalse();
        assertThat(List.of("vat.lid.angle", "used(vat.pump)", "time").stream().map(RunComparison::within))
                .containsExactly("lid.angle", "used(pump)", "time");
        CaseRun.Series other =
                new CaseRun.Series("vat.level", Models.id(MODEL, "Test::Tank::level"), "m", new double[] {1, 0.5});
        assertThat(RunComparison.series(List.of(run(MODEL).series(), List.of(other)), RunComparison::within))
                .singleElement()
                .satisfies(level -> {
                    assertThat(level.path()).isEqualTo("level");
                    assertThat(level.courses()).doesNotContainNull();
                });
    }
}
