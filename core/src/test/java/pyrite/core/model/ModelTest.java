package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.notation.NotationWriter;

class ModelTest {
    private static final Model TWO_PARTS = Models.of("""
            part def Pump { attribute mass : MassValue = 3 [kg]; }
            part pump : Pump;
            attribute total : MassValue = pump.mass;
            """);

    private static EditResult.Applied applied(Model model, Edit edit) {
        return (EditResult.Applied) model.apply(edit);
    }

    private static List<Problem> refused(Model model, Edit edit) {
        return ((EditResult.Refused) model.apply(edit)).problems();
    }

    private static String text(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    /** Adding, moving to another place and removing parts in any order, then taking every difference back. */
    @Property(tries = 60)
    void everyDifferenceCanBeTakenBackExactly(
            @ForAll @Size(min = 1, max = 12) List<@IntRange(min = 0, max = 999) Integer> steps) {
        Model model = TWO_PARTS;
        ElementId owner = element(model, "Test").id();
        List<Model> states = new java.util.ArrayList<>(List.of(model));
        List<Difference> differences = new java.util.ArrayList<>();
        for (int step : steps) {
            List<Element> parts = model.children(owner).stream()
                    .filter(e -> e.kind() == ElementKind.PART && !"pump".equals(e.name()))
                    .toList();
            Element some = parts.isEmpty() ? null : parts.get(step % parts.size());
            Edit edit = some == null || step % 3 == 0
                    ? Edit.put(Element.of(ElementKind.PART, owner, model.rankAtEnd(owner), "part" + differences.size()))
                    : step % 3 == 1
                            ? Edit.remove(some.id())
                            : Edit.put(some.withName("moved" + differences.size())
                                    .withOwner(
                                            owner,
                                            Rank.between(
                                                    null,
                                                    model.children(owner)
                                                            .getFirst()
                                                            .rank())));
            EditResult.Applied outcome = applied(model, edit);
            model = outcome.model();
            differences.add(outcome.difference());
            states.add(model);
        }
        for (int i = differences.size() - 1; i >= 0; i--) {
            model = model.replay(differences.get(i).inverse());
            assertThat(Set.copyOf(model.ownElements()))
                    .isEqualTo(Set.copyOf(states.get(i).ownElements()));
            assertThat(text(model)).isEqualTo(text(states.get(i)));
        }
    }

    @Test
    void anEditLeavesTheSnapshotItWasMadeOnAsItWas() {
        String before = text(TWO_PARTS);
        Element pump = element(TWO_PARTS, "Test::pump");
        EditResult.Applied outcome = applied(TWO_PARTS, Edit.put(pump.withName("mainPump")));
        assertThat(text(TWO_PARTS)).isEqualTo(before);
        assertThat(outcome.difference().changes())
                .singleElement()
                .satisfies(change -> assertThat(change.before()).isEqualTo(pump));
    }

    @Test
    void aRenameIsFollowedByEverythingThatRefers() {
        EditResult.Applied outcome =
                applied(TWO_PARTS, Edit.put(element(TWO_PARTS, "Test::pump").withName("mainPump")));
        assertThat(text(outcome.model())).contains("attribute total : MassValue = mainPump.mass;");
    }

    @Test
    void whatIsInUseIsNotRemovedAndTheUserIsNamed() {
        assertThat(refused(
                        TWO_PARTS, Edit.remove(element(TWO_PARTS, "Test::pump").id())))
                .singleElement()
                .satisfies(problem -> assertThat(problem.message()).contains("Test::total uses Test::pump"));
    }

    @Test
    void removingTakesWhatIsOwnedWithIt() {
        Model model = Models.of("part def Pump { attribute mass : MassValue = 3 [kg]; doc /* A pump. */ }");
        EditResult.Applied outcome =
                applied(model, Edit.remove(element(model, "Test::Pump").id()));
        assertThat(outcome.difference().changes()).hasSize(3).allMatch(change -> change.after() == null);
        assertThat(outcome.model().size()).isEqualTo(model.size() - 3);
    }

    @Test
    void aChangeThatBreaksSomethingElsewhereIsRefused() {
        Element mass = element(TWO_PARTS, "Test::Pump::mass");
        Element asLength = mass.with(
                        pyrite.core.model.Property.TYPES, List.of(Reference.to(LibraryNames.id("ISQ::LengthValue"))))
                .with(pyrite.core.model.Property.VALUE, null);
        assertThat(refused(TWO_PARTS, Edit.put(asLength)))
                .extracting(Problem::message)
                .anyMatch(message -> message.contains("'total' is a quantity in kg, but its value is a quantity in m"));
    }

    @Test
    void theLibraryCannotBeEdited() {
        Element metre = TWO_PARTS.get(LibraryNames.id("SI::metre"));
        assertThat(refused(TWO_PARTS, Edit.put(metre.withName("yard"))))
                .extracting(Problem::message)
                .containsExactly(
                        "this belongs to the library, which is the same in every project and cannot be edited");
    }

    @Test
    void anEmptyEditMakesNoDifference() {
        assertThat(applied(TWO_PARTS, Edit.put(element(TWO_PARTS, "Test::pump")))
                        .difference()
                        .isEmpty())
                .isTrue();
    }

    @Test
    void referrersAreKeptUpToDate() {
        ElementId pump = element(TWO_PARTS, "Test::pump").id();
        Element total = element(TWO_PARTS, "Test::total");
        assertThat(TWO_PARTS.referrers(pump)).containsExactly(total.id());
        Model without = applied(TWO_PARTS, Edit.put(total.with(pyrite.core.model.Property.VALUE, null)))
                .model();
        assertThat(without.referrers(pump)).isEmpty();
    }

    @Test
    void childrenStandInTheOrderOfTheirRanks() {
        Model model = Models.of("part a; part b; part c;");
        Element a = element(model, "Test::a");
        Element c = element(model, "Test::c");
        Model moved = applied(model, Edit.put(a.withOwner(a.owner(), Rank.between(c.rank(), null))))
                .model();
        assertThat(moved.children(element(model, "Test").id()).stream()
                        .filter(e -> e.kind() == ElementKind.PART)
                        .map(Element::name))
                .containsExactly("b", "c", "a");
    }

    @Test
    void keysOfPropertiesAreAllDifferent() {
        assertThat(new TreeSet<>(List.of("types", "value", "result")))
                .allMatch(key -> pyrite.core.model.Property.withKey(key) != null);
        assertThat(pyrite.core.model.Property.withKey("nothing")).isNull();
    }

    @Test
    void nothingIsMovedIntoWhatItOwns() {
        Model model = Models.of("package Outer { package Inner { part p; } }");
        Element outer = element(model, "Test::Outer");
        Element inner = element(model, "Test::Outer::Inner");
        assertThat(refused(model, Edit.put(outer.withOwner(inner.id(), outer.rank()))))
                .singleElement()
                .satisfies(problem -> assertThat(problem.message())
                        .isEqualTo("an element cannot be owned by itself or by what it owns"));
        assertThat(refused(model, Edit.put(outer.withOwner(outer.id(), outer.rank()))))
                .isNotEmpty();
        assertThat(applied(model, Edit.put(inner.withOwner(outer.owner(), inner.rank())))
                        .model())
                .isNotNull();
    }
}
