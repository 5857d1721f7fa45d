package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import pyrite.core.Models;
import pyrite.core.expression.Name;
import pyrite.core.notation.Library;

/** A snapshot that came about by many edits says the same of its elements as one made of them at once. */
class SnapshotLawTest {
    private static final Model START = Models.of("""
            part def Vessel { attribute volume : VolumeValue; part lid[0..2]; }
            part def Tank :> Vessel { attribute :>> volume = 3 [m^3]; attribute level : LengthValue = 1 [m]; }
            part tank : Tank { attribute filled : Real = level / (2 [m]); }
            package Spares { part pump; part hose; }
            part fleet { ref part tanks : Tank[*]; }
            requirement <'R-1'> full { subject t : Tank; require constraint { t.level <= 2 [m] } }
            """);

    @Property(tries = 40)
    void editedStepByStepItIsWhatItWouldBeMadeAtOnce(@ForAll @IntRange(max = 9_999) int seed) {
        Random random = new Random(seed);
        Model model = START;
        for (int step = 0; step < 25; step++) {
            EditResult outcome = model.apply(edit(model, random, step));
            // Asked in between, so that what is remembered has to follow.
            model.ownElements().stream().limit(5).map(Element::id).forEach(model::referrers);
            model.ownElements(ElementKind.PART).count();
            if (outcome instanceof EditResult.Applied applied) {
                model = applied.model();
            }
        }
        assertSame(model, Library.model().with(model.ownElements()));
    }

    private static Edit edit(Model model, Random random, int step) {
        List<Element> own = model.ownElements().stream()
                .sorted(Comparator.comparing(model.names()::qualifiedName).thenComparing(Element::id))
                .toList();
        Element one = own.get(random.nextInt(own.size()));
        Element other = own.get(random.nextInt(own.size()));
        return switch (random.nextInt(6)) {
            case 0, 1 -> Edit.put(Element.of(ElementKind.PART, one.id(), model.rankAtEnd(one.id()), "part" + step));
            case 2 -> Edit.put(one.withOwner(other.id(), model.rankAtEnd(other.id())));
            case 3 -> Edit.put(one.withName("name" + step));
            case 4 ->
                Edit.put(Element.of(ElementKind.PART, one.owner(), Rank.between(null, one.rank()), "typed" + step)
                        .with(
                                pyrite.core.model.Property.TYPES,
                                List.of(Reference.to(
                                        element(START, "Test::Tank").id()))));
            default -> one.owner() == null ? Edit.put(one.withName("top" + step)) : Edit.remove(one.id());
        };
    }

    private static void assertSame(Model edited, Model fresh) {
        assertThat(edited.size()).isEqualTo(fresh.size());
        assertThat(Set.copyOf(edited.ownElements())).isEqualTo(Set.copyOf(fresh.ownElements()));
        assertThat(edited.roots()).isEqualTo(fresh.roots());
        for (Element element : fresh.ownElements()) {
            assertThat(edited.find(element.id())).contains(element);
            assertThat(edited.children(element.id())).isEqualTo(fresh.children(element.id()));
            assertThat(edited.referrers(element.id())).isEqualTo(whoNames(element, fresh));
            assertThat(edited.owners(element)).isEqualTo(fresh.owners(element));
            assertThat(edited.inheritance().features(element))
                    .isEqualTo(fresh.inheritance().features(element));
            assertThat(edited.names().qualifiedName(element))
                    .isEqualTo(fresh.names().qualifiedName(element));
            assertThat(edited.environment().typeOf(element.id()))
                    .isEqualTo(fresh.environment().typeOf(element.id()));
            String name = edited.names().effectiveName(element);
            if (name != null && element.owner() != null) {
                assertThat(edited.names().resolve(Name.of(name), element.owner()))
                        .isEqualTo(fresh.names().resolve(Name.of(name), element.owner()));
            }
        }
        for (ElementKind kind : ElementKind.values()) {
            assertThat(edited.ownElements(kind))
                    .containsExactlyInAnyOrderElementsOf(fresh.ownElements().stream()
                            .filter(element -> element.kind() == kind)
                            .toList());
        }
    }

    /** Gone through all of them, as no page could afford. */
    private static Set<ElementId> whoNames(Element target, Model model) {
        Set<ElementId> found = new HashSet<>();
        model.ownElements().stream()
                .filter(element -> element.outgoing().contains(target.id()))
                .forEach(element -> found.add(element.id()));
        return found;
    }

    /** Removing and adding again what was removed leads back, whatever hung on it. */
    @Property(tries = 30)
    void whatWasRemovedIsPutBackAsItWas(@ForAll @IntRange(max = 9_999) int seed) {
        List<Element> own = new ArrayList<>(START.ownElements());
        own.sort(Comparator.comparing(START.names()::qualifiedName).thenComparing(Element::id));
        Element some = own.get(new Random(seed).nextInt(own.size()));
        List<Element> subtree = START.subtree(some.id());
        switch (START.apply(Edit.remove(some.id()))) {
            case EditResult.Applied(Model without, Difference difference) -> {
                assertThat(difference.changes())
                        .extracting(ElementChange::id)
                        .containsExactlyInAnyOrderElementsOf(
                                subtree.stream().map(Element::id).toList());
                assertThat(without.size()).isEqualTo(START.size() - subtree.size());
                assertSame(((EditResult.Applied) without.apply(new Edit(subtree, Set.of()))).model(), START);
            }
            case EditResult.Refused(List<Problem> problems) -> {
                Set<ElementId> removed =
                        new HashSet<>(subtree.stream().map(Element::id).toList());
                assertThat(problems)
                        .isNotEmpty()
                        .allSatisfy(problem ->
                                assertThat(removed).doesNotContain(Objects.requireNonNull(problem.element())));
            }
        }
    }
}
