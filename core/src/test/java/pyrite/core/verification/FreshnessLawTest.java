package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * Random edits by any construct: where a fresh judgement differs from the one before, the one before counts as stale.
 */
class FreshnessLawTest {
    private static final String TEXT = """
            attribute <fathom> fathomUnit : LengthUnit = 1.8288 [m];
            attribute <dip> dipUnit : LengthUnit = 0.5 [fathom];
            attribute factor : Real = 2;
            attribute share : Real = factor / 4;
            enum def Grade { coarse; fine; }
            calc def Half { in x : Real; return : Real = x * share; }
            calc def Flow { in a : AreaValue; return : VolumeFlowRateValue = Half(0.02) * a / 1 [m^2] * 1 [m^3/s]; }
            constraint def Below { in q : LengthValue; in most : LengthValue; q <= most }
            constraint def Law { in a; in q; in rate; a * rate == -q }
            part def Heavy { attribute weight : MassValue; }
            part def Valve :> Heavy { attribute open : Real default 1; attribute :>> weight default 4 [kg];
                attribute price : Real = 3; attribute grade : Grade = Grade::fine; }
            part def Base :> Heavy { attribute area : AreaValue default 1 [m^2]; part valve : Valve[2]; }
            part def Tank :> Base {
                attribute level : LengthValue default := 1 [m];
                attribute hull : MassValue = 20 [kg];
                attribute load : MassValue;
                attribute outflow : VolumeFlowRateValue = sum(valve.open) * Flow(area);
                assert constraint balance : Law { in a = area; in q = outflow; in rate = der(level); }
            }
            part def Plant :> Heavy {
                part left : Tank;
                part right : Tank { attribute :>> area = 2 [m^2]; attribute :>> level := 2 [dip]; attribute :>> load = 4 [kg]; }
                attribute apart : LengthValue = abs(left.level - right.level);
                attribute seen : LengthValue;
                bind seen = left.level;
            }
            part plant : Plant { part :>> left { part :>> valve { attribute :>> open = 0.5; } } }
            requirement def Kept { subject t : Tank; attribute least : LengthValue default 0.1 [m];
                require constraint { always(t.level >= least) } }
            requirement keeps : Kept { attribute :>> least = 0.05 [fathom]; }
            requirement other { subject t : Tank; attribute most : LengthValue = 3 [m];
                assume constraint { t.area > 0.5 [m^2] } require constraint { Below(t.level, most) } }
            requirement near { subject p : Plant; require constraint { maximum(p.apart) <= 1 [fathom] } require level; }
            requirement level { subject p : Plant; require constraint { p.seen <= 2 [m] } }
            requirement fine { subject v : Valve; require constraint { v.grade == Grade::fine } }
            requirement light { subject t : Tank; require constraint { t.load <= 6 [kg] } }
            requirement lightAll { subject p : Plant; require constraint { p.right.load + p.right.hull <= 30 [kg] } require fine; }
            requirement whole { subject p : Plant; attribute limit : MassValue = 40 [kg];
                require constraint { Budgets::total(p.weight) <= limit } }
            requirement half { subject t : Tank; require constraint { Budgets::total(t.weight) <= 9 [kg] } }
            satisfy whole by plant;
            satisfy half by plant.right;
            satisfy light by plant.right;
            satisfy lightAll by plant;
            satisfy keeps by plant.left;
            satisfy keeps by plant.right;
            satisfy other by plant.right;
            satisfy near by plant;
            satisfy fine by plant.left.valve;
            verification check : SimulatedCheck {
                subject :>> system = plant; attribute :>> stopTime = 10 [s]; attribute :>> tolerance = 1e-8;
                objective { verify keeps; verify other; verify near; verify fine; verify light; }
            }
            """;

    private static final Model MODEL = Models.of(TEXT);
    private static final Map<String, Judgement> BEFORE = judgements(MODEL, RunControl.NONE);

    @Test
    void theModelIsJudged() {
        assertThat(BEFORE.values())
                .extracting(judgement -> judgement.subject() + " " + judgement.verdict() + " " + judgement.reason())
                .hasSize(7)
                .allMatch(said -> said.contains("PASS"));
        assertThat(List.of("whole", "half"))
                .allSatisfy(name -> assertThat(
                                AT_ONCE.get(Models.id(MODEL, "Test::" + name)).judgements())
                        .singleElement()
                        .extracting(Judgement::verdict)
                        .isEqualTo(VerdictKind.PASS));
    }

    private static final List<String> VALUES = List.of(
            "3",
            "0.25",
            "true",
            "factor",
            "2 [m]",
            "1 [dip]",
            "4 [m^2]",
            "Grade::coarse",
            "time / 1 [s]",
            "Half(3)",
            "8 [kg]",
            "1 / 0",
            "-5");
    private static final List<String> MEMBERS = List.of(
            "assume constraint { 1 > 2 }",
            "require constraint { 1 > 2 }",
            "attribute extra : Real = 7",
            "attribute extra : MassValue = 7 [s]",
            "attribute :>> hull = 7 [kg]",
            "attribute :>> load = 9 [kg]",
            "attribute :>> weight = 7 [kg]",
            "attribute weight : MassValue = 7 [kg]",
            "part spare : Valve",
            "part heavy :> Heavy",
            "attribute :>> load = 9",
            "attribute :>> price = 4",
            "attribute hull : LengthValue = 2 [m]",
            "attribute :>> area = 3 [m^2]",
            "attribute :>> level := 4 [m]",
            "attribute :>> open = 0.1",
            "attribute :>> least = 0.9 [m]",
            "attribute :>> stopTime = 3 [s]",
            "part :>> valve[3]",
            "attribute grade : Grade = Grade::coarse",
            "assert constraint { der(level) == 0 [m/s] }",
            "bind level = area",
            "satisfy keeps by plant.left",
            "not satisfy keeps by plant.left",
            "subject t : Valve",
            "verify keeps",
            "in x : Real",
            "return : Real = 4",
            "calc def Half { in x : Real; return : Real = x * 3; }",
            "attribute factor : Real = 9");

    private static final RandomEdits EDITS = new RandomEdits(MODEL, VALUES, MEMBERS);

    private static Map<String, Judgement> judgements(Model model, RunControl control) {
        Map<String, Judgement> byPlace = new TreeMap<>();
        Element check = model.ownElements().stream()
                .filter(e -> e.kind() == ElementKind.VERIFICATION)
                .findFirst()
                .orElse(null);
        if (check != null) {
            CaseRun.of(model, check, control)
                    .judgements()
                    .forEach(judgement -> byPlace.put(judgement.requirement() + " " + judgement.subject(), judgement));
        }
        return byPlace;
    }

    /** Some edits make a run long. It is cancelled, and says nothing then. */
    private static RunControl patience() {
        long end = System.nanoTime() + 1_000_000_000L;
        return new RunControl() {
            @Override
            public boolean isCancelled() {
                return System.nanoTime() > end;
            }
        };
    }

    @Property(tries = 1500)
    void aJudgementThatAFreshOneContradictsIsStale(@ForAll long seed) {
        Random random = new Random(seed);
        Edit edit = EDITS.next(random);
        if (edit == null || !(MODEL.apply(edit) instanceof EditResult.Applied(Model after, var difference))) {
            return;
        }
        Map<String, Judgement> now = judgements(after, patience());
        if (now.values().stream().anyMatch(judgement -> judgement.reason().startsWith("cancelled"))) {
            return;
        }
        BEFORE.forEach((place, before) -> {
            if (before.fingerprint().changedIn(after).isEmpty()) {
                assertThat(now.containsKey(place) ? said(now.get(place)) : "nothing")
                        .as(() -> before.subject() + " after " + difference.changes())
                        .isEqualTo(said(before));
            }
        });
    }

    private static final Map<ElementId, StaticJudgement> AT_ONCE = atOnce(MODEL);

    private static Map<ElementId, StaticJudgement> atOnce(Model model) {
        return model.ownElements(ElementKind.REQUIREMENT)
                .collect(Collectors.toMap(Element::id, requirement -> StaticJudgement.of(model, requirement)));
    }

    @Property(tries = 1500)
    void aJudgementWithoutARunThatAFreshOneContradictsIsStale(@ForAll long seed) {
        Edit edit = EDITS.next(new Random(seed));
        if (edit == null || !(MODEL.apply(edit) instanceof EditResult.Applied(Model after, var difference))) {
            return;
        }
        Set<ElementId> alterable = Fingerprint.alterableBy(difference.changes(), after);
        AT_ONCE.forEach((requirement, before) -> {
            boolean holds = before.holdsIn(after);
            if (before.isApartFrom(alterable)) {
                assertThat(holds).as(() -> "after " + difference.changes()).isTrue();
            }
            if (holds) {
                assertThat(said(StaticJudgement.of(after, after.get(requirement))))
                        .as(() -> "after " + difference.changes())
                        .isEqualTo(said(before));
            }
        });
    }

    private static List<String> said(StaticJudgement judgement) {
        return judgement.judgements().stream().map(FreshnessLawTest::said).toList();
    }

    private static String said(Judgement judgement) {
        return judgement.verdict() + " " + judgement.margin() + " " + judgement.worstInstant() + " "
                + judgement.firstViolation() + " " + judgement.reason();
    }
}
