package pyrite.core.reuse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.Source;
import pyrite.core.reuse.UsedLibrary.Pin;

/** A library of pumps and a project that uses it. */
class UsedLibraryTest {
    private static final String FIRST = """
            library package Fluids { item def Oil; port def Hose { in item oil : Oil; } }
            library package Pumps {
                doc /* What moves oil. */
                private import Fluids::*;
                private import ISQ::*;
                private import SI::*;
                part def Pump { attribute mass : MassValue default 90 [kg]; port outlet : ~Hose; }
                part def HandPump :> Pump;
            }
            package Inner { part def Trial; }
            library package Odd { part trial : Inner::Trial; }
            """;

    private static final Model SOURCE = Models.read(FIRST);
    private static final Pin ONE = new Pin("7f", "Works", "2026.1", 1);
    private static final Pin TWO = new Pin("7f", "Works", "2026.2", 5);

    private static final Model OWN = Models.read("package Gate { part def Frame; part body : Frame; }");

    private static Model applied(Model model, Edit edit) {
        return switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        };
    }

    private static Taking.Result take(Model using, String top) {
        return Taking.take(using, SOURCE, Models.element(SOURCE, top), ONE);
    }

    private static Model using() {
        Model with = applied(OWN, ((Taking.Result.Made) take(OWN, "Pumps")).edit());
        return typed(with, "package Use { private import Pumps::*; part pump : Pump; part hand : HandPump; }");
    }

    private static Model typed(Model model, String text) {
        return applied(model, ((Authoring.Proposal.Accepted) new Authoring(model).packages(text)).edit());
    }

    /** The other project after some edits of its text, its elements being the same. */
    private static Model later(String... changes) {
        String text = FIRST;
        for (int i = 0; i < changes.length; i += 2) {
            assertThat(text).contains(changes[i]);
            text = text.replace(changes[i], changes[i + 1]);
        }
        return applied(
                SOURCE,
                NotationReader.readBack(SOURCE, SOURCE.ownRoots(), new Source("works.sysml", text))
                        .edit());
    }

    @Test
    void aLibraryComesWithWhatItNeedsAndKeepsItsElements() {
        assertThat(take(OWN, "Pumps"))
                .isInstanceOfSatisfying(
                        Taking.Result.Made.class,
                        made -> assertThat(made.packages()).containsExactly("Pumps", "Fluids"));
        Model using = using();
        assertThat(using.get(Models.id(SOURCE, "Pumps::Pump"))).isEqualTo(Models.element(SOURCE, "Pumps::Pump"));
        assertThat(UsedLibrary.all(using))
                .extracting(library -> library.top().name(), UsedLibrary::pin)
                .containsExactly(tuple("Pumps", ONE), tuple("Fluids", ONE));
        assertThat(NotationWriter.write(using, List.of(Models.element(using, "Fluids"))))
                .contains("@Libraries::Used {", "baseline = \"2026.1\";");
    }

    @Test
    void whatCannotBeSharedIsRefused() {
        assertThat(take(OWN, "Odd"))
                .isEqualTo(
                        new Taking.Result.Refused(
                                "it needs 'Inner', which is no library package; only library packages are used by other projects"));
        assertThat(take(Models.read("package Fluids;"), "Pumps"))
                .isEqualTo(new Taking.Result.Refused("there is a package 'Fluids' already; rename one of them"));
        assertThat(take(using(), "Pumps")).isEqualTo(new Taking.Result.Refused("'Pumps' is used here already"));
        assertThat(Taking.take(using(), SOURCE, Models.element(SOURCE, "Pumps"), TWO))
                .isEqualTo(new Taking.Result.Refused("'Pumps' is used at 2026.1; move that to 2026.2 first"));
    }

    private static List<String> guarded(Model before, Edit edit) {
        EditResult.Applied applied = (EditResult.Applied) before.apply(edit);
        return LibraryGuard.check(before, applied.model(), applied.difference()).stream()
                .map(problem -> problem.message())
                .toList();
    }

    @Test
    void itIsEditedInItsOwnProjectOnly() {
        Model using = using();
        Element pump = Models.element(using, "Pumps::Pump");
        assertThat(guarded(using, Edit.put(pump.withName("Other"))))
                .singleElement()
                .asString()
                .startsWith("it belongs to Pumps of Works at 2026.1; change it in that project");
        assertThat(guarded(using, Edit.put(Models.element(using, "Gate::Frame").withOwner(pump.owner(), pump.rank()))))
                .isNotEmpty();
        assertThat(guarded(using, Edit.put(Models.element(using, "Gate::Frame").withName("Other"))))
                .isEmpty();
        assertThat(guarded(using, UsedLibrary.putOff(using, "7f", 5, "after the storm season")))
                .isEmpty();
        Model put = applied(using, UsedLibrary.putOff(using, "7f", 5, "after the storm season"));
        assertThat(guarded(put, UsedLibrary.putOff(put, "7f", 6, "later"))).isEmpty();
        assertThat(UsedLibrary.all(put)).allSatisfy(library -> {
            assertThat(library.putOff()).isEqualTo(5);
            assertThat(library.reason()).isEqualTo("after the storm season");
        });
    }

    @Test
    void aMoveSaysWhatChangesAndIsOneEdit() {
        Model using = using();
        Model later = later(
                "default 90 [kg]",
                "default 80 [kg]",
                "part def HandPump :> Pump;",
                "part def HandPump :> Pump; part def Fan;");
        Moving moving = Moving.of(using, later, TWO);
        assertThat(moving.breaks()).isEmpty();
        assertThat(moving.changes())
                .extracting(
                        Moving.Change::kind,
                        Moving.Change::name,
                        change -> change.uses().stream().map(Element::name).toList())
                .containsExactly(
                        tuple(Moving.Kind.ADDED, "Fan", List.of()),
                        tuple(Moving.Kind.CHANGED, "Pump", List.of("pump")));
        assertThat(guarded(using, moving.edit())).isEmpty();
        Model moved = applied(using, moving.edit());
        assertThat(UsedLibrary.all(moved)).extracting(UsedLibrary::pin).containsOnly(TWO);
        assertThat(Models.element(moved, "Pumps::Fan")).isNotNull();
        assertThat(Moving.of(moved, later, TWO).changes()).isEmpty();
        // And back again: the old baseline is as good as a new one.
        assertThat(NotationWriter.write(
                        applied(moved, Moving.of(moved, SOURCE, ONE).edit()), List.of(Models.element(using, "Gate"))))
                .isEqualTo(NotationWriter.write(using, List.of(Models.element(using, "Gate"))));
    }

    @Test
    void whatIsAtTheNewBaselineAlreadyStaysAsItIs() {
        Model first = applied(OWN, ((Taking.Result.Made) take(OWN, "Fluids")).edit());
        Model later = typed(SOURCE, "library package Seals { part def Seal; }");
        Model using = applied(
                first, ((Taking.Result.Made) Taking.take(first, later, Models.element(later, "Seals"), TWO)).edit());
        Moving moving = Moving.of(using, later, TWO);
        assertThat(guarded(using, moving.edit())).isEmpty();
        Model moved = applied(using, moving.edit());
        assertThat(UsedLibrary.all(moved)).extracting(UsedLibrary::pin).containsOnly(TWO);
        assertThat(moved.get(Models.id(later, "Seals"))).isEqualTo(using.get(Models.id(later, "Seals")));
    }

    @Test
    void aMoveThatTakesAwayWhatIsUsedIsNamed() {
        Moving moving = Moving.of(using(), later("part def HandPump :> Pump;", ""), TWO);
        assertThat(moving.breaks())
                .extracting(each -> each.element().name(), Moving.Break::reason)
                .containsExactly(tuple("hand", "it uses Pumps::HandPump, which 2026.2 no longer has"));
        assertThat(using().apply(moving.edit())).isInstanceOf(EditResult.Refused.class);
    }

    @Test
    void aMoveThatMakesAMisfitIsAFinding() {
        Model using = typed(using(), """
                package Wired { private import Pumps::*; private import Fluids::*;
                    part def Sink { port inlet : Hose; }
                    part def Pair { part pump : Pump; part sink : Sink; connect pump.outlet to sink.inlet; }
                    part pair : Pair; }
                """);
        Moving moving = Moving.of(using, later("port outlet : ~Hose;", "port outlet : Hose;"), TWO);
        assertThat(moving.breaks()).isEmpty();
        assertThat(moving.findings())
                .singleElement()
                .satisfies(finding -> assertThat(finding.sentence()).contains("both receive 'oil'"));
    }

    @Test
    void aMoveThatBreaksALimitIsAVerdict() {
        Model using = typed(using(), """
                package Limited { private import Pumps::*; private import SI::*;
                    requirement light { subject p : Pump; require constraint { p.mass <= 95 [kg] } }
                    satisfy light by Use::pump; }
                """);
        Moving moving = Moving.of(using, later("default 90 [kg]", "default 97 [kg]"), TWO);
        assertThat(moving.turned())
                .singleElement()
                .satisfies(judgement -> assertThat(judgement.reason()).isEqualTo("97 kg, but ≤ 95 kg is required"));
        assertThat(Moving.of(using, later("default 90 [kg]", "default 94 [kg]"), TWO)
                        .turned())
                .isEmpty();
    }
}
