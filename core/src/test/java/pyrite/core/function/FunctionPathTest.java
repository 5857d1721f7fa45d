package pyrite.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.expression.Operator;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.NotationWriter;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.StaticJudgement;
import pyrite.core.verification.VerdictKind;

/** Paths through three functions, broken in each way that they can be. */
class FunctionPathTest {
    private static final String HEAD = """
            private import ISQ::*; private import SI::*; private import ScalarValues::*;
            private import NumericalFunctions::*;
            item def Level; item def Order;
            action def Watch { out item level : Level; attribute time : DurationValue = 2 [s]; }
            action def Choose { in item level : Level; out item order : Order; attribute time : DurationValue = 3 [s]; }
            action def Move { in item order : Order; }
            port def LevelOut { out item level : Level; } port def LevelIn { in item level : Level; }
            action def Close {
                action watch : Watch; action choose : Choose; action move : Move;
                flow of Level from watch.level to choose.level;
                flow of Order from choose.order to move.order;
            }
            """;
    private static final String PARTS = """
            part def Sensor { perform action watch : Watch; port level : LevelOut; }
            part def Controller { perform action choose : Choose; port level : LevelIn; }
            part def Drive { perform action move : Move; attribute time : DurationValue = 40 [s]; }
            part def Spare;
            """;
    private static final String GATE = """
            part def Gate {
                part sensor : Sensor; part controller : Controller; part drive : Drive; part spare : Spare;
                connect sensor.level to controller.level;
                connect controller to drive;
                occurrence closing : FunctionPaths::FunctionPath {
                    ref action watch[1] : Watch :> stages { ref part :>> performer = sensor; }
                    ref action choose[1] : Choose :> stages { ref part :>> performer = controller; }
                    ref action move[1] : Move :> stages { ref part :>> performer = drive; }
                    attribute time : DurationValue = sum((watch.time, choose.time, move.performer.time));
                }
            }
            """;

    private Model model = Model.EMPTY;

    private FunctionPath path(String text) {
        model = Models.of(text);
        return path();
    }

    private FunctionPath path() {
        return new FunctionPaths(model).all().getFirst();
    }

    private void apply(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(Models.tryRead(text).problems()).as(text).isEmpty();
    }

    @Test
    void aPathHoldsIfItsFunctionsArePerformedAndExchangeSomethingThatIsCarried() {
        FunctionPath path = path(HEAD + PARTS + GATE);
        assertThat(path.faults()).isEmpty();
        assertThat(path.stages()).hasSize(3);
        assertThat(path.marked().stream()
                        .map(id -> model.names().effectiveName(model.get(id)))
                        .filter(name -> name != null)
                        .collect(Collectors.toSet()))
                .containsExactlyInAnyOrder("watch", "choose", "move", "sensor", "controller", "drive");
    }

    @Test
    void aPathSaysWhyItIsBroken() {
        assertThat(path(HEAD
                                + PARTS.replace("perform action choose : Choose; ", "")
                                        .replace(
                                                "part def Spare;", "part def Spare { perform action choose : Choose; }")
                                + GATE)
                        .faults())
                .containsExactly("Choose is performed by spare, not by controller");
        assertThat(path(HEAD + PARTS.replace("perform action choose : Choose; ", "") + GATE)
                        .faults())
                .containsExactly("Choose is performed by nobody, not by controller");
        assertThat(path(HEAD.replace("flow of Order from choose.order to move.order;", "") + PARTS + GATE)
                        .faults())
                .containsExactly("nothing goes from Choose to Move");
        assertThat(path(HEAD + PARTS + GATE.replace("connect controller to drive;", ""))
                        .faults())
                .containsExactly("no connection carries Order from controller to drive");
        assertThat(path(HEAD.replace("action move : Move;", "")
                                        .replace("flow of Order from choose.order to move.order;", "")
                                + PARTS
                                + GATE)
                        .faults())
                .containsExactly("Move is no longer part of Close");
        assertThat(path(HEAD + PARTS + GATE.replace(", choose.time", "")).faults())
                .containsExactly("'time' leaves out choose");
    }

    @Test
    void waysAreFoundAlongWhatIsExchangedAndBecomePaths() {
        model = Models.of(HEAD + PARTS + GATE);
        ExchangeTable table =
                ExchangeTable.of(model, Models.element(model, "Test::Close"), Models.element(model, "Test::Gate"), 9);
        PathProposals proposals = PathProposals.of(table, 1);
        FunctionTree.Use from = table.functions().top().inside().getFirst();
        FunctionTree.Use to = table.functions().top().inside().getLast();
        List<List<PathProposals.Place>> ways = proposals.between(from, to);
        assertThat(ways).hasSize(1);
        assertThat(ways.getFirst().stream().map(place -> table.functions().path(place.use())))
                .containsExactly("watch", "choose", "move");
        PathEditing editing = new PathEditing(model);
        List<PathEditing.Wish> wishes = ways.getFirst().stream()
                .map(place -> new PathEditing.Wish(place.use(), place.part()))
                .toList();
        assertThatThrownBy(() -> editing.make(Models.element(model, "Test::Gate"), "closing", "", wishes))
                .hasMessage("'Gate' has something named 'closing' already");
        apply(editing.make(Models.element(model, "Test::Gate"), "second", "From level to motion.", wishes));
        FunctionPath made = new FunctionPaths(model).all().getLast();
        assertThat(made.faults()).isEmpty();
        assertThat(new PathEditing(model).attributes(made)).containsExactly("time");
        apply(new PathEditing(model).combine(made, "time", PathEditing.Combination.SUM));
        assertThat(NotationWriter.write(model, List.of(Models.element(model, "Test::Gate::second"))))
                .contains(
                        "ref action watch[1] : Watch :> stages {",
                        "ref part :>> performer = sensor;",
                        "attribute time : DurationValue = sum((watch.time, choose.time, move.performer.time));");
        assertThatThrownBy(() -> new PathEditing(model).combine(made, "loss", PathEditing.Combination.SUM))
                .hasMessageContaining("have an attribute 'loss'");
    }

    @Test
    void aPathOfTheWholeIsRealisedByOneThroughItsFunctions() {
        model = Models.of(HEAD + PARTS + GATE + """
                action def Protect { action close : Close; }
                """);
        FunctionPath path = path();
        assertThat(PathEditing.unrealised(path, path)).isEmpty();
        FunctionPath shorter =
                new FunctionPath(path.path(), path.whole(), null, path.stages().subList(0, 2), List.of(), List.of());
        assertThat(PathEditing.unrealised(path, shorter)).containsExactly("move");
    }

    /** 2 s + 3 s + 40 s. */
    @Test
    void aRequirementOnAPathIsJudgedByWhatItsFunctionsAddUpTo() {
        model = Models.of(HEAD + PARTS + GATE + """
                requirement inTime { subject gate : Gate; require constraint { gate.closing.time <= 50 [s] } }
                part gate : Gate;
                satisfy inTime by gate;
                """);
        StaticJudgement judged = StaticJudgement.of(model, Models.element(model, "Test::inTime"));
        assertThat(judged.judgements())
                .extracting(judgement -> judgement.verdict() + " "
                        + Objects.requireNonNull(judgement.margin()).si())
                .containsExactly("PASS 5.0");
        apply(((Authoring.Proposal.Accepted) new Authoring(model)
                        .value(
                                Models.element(model, "Test::Drive"),
                                Models.element(model, "Test::Drive::time"),
                                "46 [s]"))
                .edit());
        assertThat(judged.holdsIn(model)).isFalse();
        assertThat(StaticJudgement.of(model, Models.element(model, "Test::inTime"))
                        .judgements())
                .extracting(Judgement::verdict)
                .containsExactly(VerdictKind.FAIL);
    }

    @Test
    void aLimitBecomesARequirementThatThePartSatisfiesWhichSatisfiesOthers() {
        model = Models.of(HEAD + PARTS + GATE + """
                package Wishes { requirement <'R-1'> inTime { subject gate : Gate; } }
                part gate : Gate;
                satisfy Wishes::inTime by gate;
                """);
        FunctionPath path = path();
        PathRequirement.Wish wish = new PathRequirement.Wish(
                path.combined().getFirst().attribute(),
                Operator.LESS_OR_EQUAL,
                "50 [s]",
                Models.element(model, "Test::Wishes"),
                "R-2",
                "The leaf shall move in time.");
        apply(PathRequirement.make(model, path, wish));
        assertThat(NotationWriter.write(model, List.of(Models.element(model, "Test::Wishes"))))
                .contains(
                        "requirement <'R-2'>",
                        "The leaf shall move in time.",
                        "subject gate : Gate;",
                        "require constraint { gate.closing.time <= 50 [s] }");
        Element made = PathRequirement.on(model, path.path()).getFirst();
        assertThat(StaticJudgement.of(model, made).judgements())
                .extracting(Judgement::verdict)
                .containsExactly(VerdictKind.PASS);
        assertThatThrownBy(() -> PathRequirement.make(
                        model,
                        path,
                        new PathRequirement.Wish(
                                wish.attribute(), Operator.LESS_OR_EQUAL, "50 [", wish.specification(), "R-3", "x")))
                .hasMessageStartingWith("the limit '50 ['");
    }
}
