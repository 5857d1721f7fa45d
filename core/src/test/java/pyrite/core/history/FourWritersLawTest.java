package pyrite.core.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Rank;
import pyrite.core.specification.Metadata;

/**
 * Four people edit one model, each looking at some earlier state of it: whatever was acknowledged is there at the end,
 * unless somebody who had seen it changed, removed or took it back.
 */
class FourWritersLawTest {
    private static final Model START = Models.of("""
            package Heads { package One { part a; part b; } package Two { part c; part d { doc /* about */ } } }
            requirement def <'R'> Kept; requirement <'R-1'> r1; requirement <'R-2'> r2;
            """);

    /** A branch with the rules of a commit, in memory. */
    private static final class Line {
        final List<Model> states = new ArrayList<>(List.of(START));
        final List<Difference> changes = new ArrayList<>();

        Model head() {
            return states.getLast();
        }

        /** Whether it was acknowledged. */
        boolean commit(int base, Edit edit) {
            return Collision.of(head(), since(base), edit).isEmpty() && write(edit);
        }

        Set<ElementId> since(int revision) {
            Set<ElementId> since = new HashSet<>();
            changes.subList(revision, changes.size())
                    .forEach(difference -> difference.changes().forEach(change -> since.add(change.id())));
            return since;
        }

        boolean write(Edit edit) {
            if (head().apply(Placing.apart(head(), edit)) instanceof EditResult.Applied(Model after, var difference)
                    && !difference.isEmpty()) {
                states.add(after);
                changes.add(difference);
                return true;
            }
            return false;
        }
    }

    /** What somebody was told is saved. */
    private record Acknowledged(int revision, int base, Difference difference, int undoes) {}

    @Property(tries = 800)
    void nothingAcknowledgedIsLostToSomebodyWhoHadNotSeenIt(@ForAll long seed) {
        Random random = new Random(seed);
        Line line = new Line();
        List<Acknowledged> all = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            int last = line.changes.size();
            int base = Math.max(0, last - random.nextInt(6));
            int undone = random.nextInt(6) == 0 && !all.isEmpty() ? random.nextInt(all.size()) : -1;
            boolean saved = undone >= 0
                    ? Revert.on(
                                            line.head(),
                                            all.get(undone).difference().inverse(),
                                            line.since(all.get(undone).revision()))
                                    instanceof Revert.Possible(Edit edit)
                            && line.write(edit)
                    : line.commit(base, edit(line.states.get(base), random));
            if (saved) {
                all.add(new Acknowledged(
                        line.changes.size(), undone >= 0 ? last : base, line.changes.getLast(), undone));
            }
        }
        for (Acknowledged each : all) {
            each.difference()
                    .changes()
                    .forEach(change -> assertThat(isThereOrKnowinglyChanged(each, change, all))
                            .as(() -> change + " of r" + each.revision() + " among "
                                    + all.stream().map(Objects::toString).collect(Collectors.joining("\n")))
                            .isTrue());
        }
        assertSound(line.head());
    }

    /** Followed from revision to revision: whoever touched it next had seen it, or took it back by name. */
    private static boolean isThereOrKnowinglyChanged(Acknowledged of, ElementChange change, List<Acknowledged> all) {
        for (Acknowledged later : all) {
            boolean touches = later.revision() > of.revision()
                    && later.difference().changes().stream()
                            .anyMatch(other -> other.id().equals(change.id()));
            if (touches) {
                return later.base() >= of.revision();
            }
        }
        return true;
    }

    /** No two siblings have one place, and nothing is said twice that is said once. */
    private static void assertSound(Model model) {
        Map<@Nullable ElementId, List<Element>> byOwner = model.ownElements().stream()
                .collect(Collectors.groupingBy(element -> Objects.requireNonNullElse(element.owner(), element.id())));
        byOwner.forEach((_, siblings) -> {
            assertThat(siblings.stream().map(Element::rank)).doesNotHaveDuplicates();
            assertThat(siblings.stream().filter(element -> element.kind() == ElementKind.DOCUMENTATION))
                    .hasSizeLessThanOrEqualTo(1);
        });
    }

    private static Edit edit(Model seen, Random random) {
        List<Element> own = seen.ownElements().stream()
                .filter(element -> element.kind() != ElementKind.DOCUMENTATION)
                .sorted(java.util.Comparator.comparing(Element::id))
                .toList();
        Element one = own.get(random.nextInt(own.size()));
        Element other = own.get(random.nextInt(own.size()));
        return switch (random.nextInt(6)) {
            case 0 -> one.owner() == null ? Edit.put(one.withName("top")) : removal(seen, one);
            case 1 ->
                Edit.put(Element.of(ElementKind.PART, one.id(), seen.rankAtEnd(one.id()), "p" + random.nextInt(1000)));
            case 2 -> text(seen, one, random);
            case 3 -> Edit.put(one.withName("n" + random.nextInt(1000)));
            case 4 -> Edit.put(one.withOwner(other.id(), seen.rankAtEnd(other.id())));
            default -> between(seen, one, random);
        };
    }

    private static Edit removal(Model seen, Element one) {
        Set<ElementId> all = new HashSet<>();
        seen.subtree(one.id()).forEach(each -> all.add(each.id()));
        return new java.util.Random(one.id().hashCode()).nextBoolean()
                ? Edit.remove(one.id())
                : new Edit(List.of(), all);
    }

    /** The first text of an element, or another one. */
    private static Edit text(Model seen, Element one, Random random) {
        String text = "text " + random.nextInt(1000);
        return Edit.put(seen.inheritance()
                .documentationOf(one)
                .filter(doc -> one.id().equals(doc.owner()))
                .orElseGet(() -> Element.of(ElementKind.DOCUMENTATION, one.id(), Rank.between(null, null), null))
                .with(pyrite.core.model.Property.TEXT, text));
    }

    /** Something new right behind an element. */
    private static Edit between(Model seen, Element one, Random random) {
        List<Element> siblings = one.owner() == null ? seen.ownRoots() : seen.children(one.owner());
        int at = siblings.indexOf(one);
        Rank rank = Rank.between(
                one.rank(), at + 1 < siblings.size() ? siblings.get(at + 1).rank() : null);
        return Edit.put(Element.of(
                one.owner() == null ? ElementKind.PACKAGE : ElementKind.PART,
                one.owner(),
                rank,
                "q" + random.nextInt(1000)));
    }

    @Test
    void aRemovalDoesNotTakeAlongWhatOthersPutBelow() {
        Line line = new Line();
        Element heading = Models.element(START, "Test::Heads::One");
        Element added = Element.of(ElementKind.PART, heading.id(), START.rankAtEnd(heading.id()), "new");
        assertThat(line.commit(0, Edit.put(added))).isTrue();
        assertThat(Collision.of(line.head(), List.of(added.id()), Edit.remove(Models.id(START, "Test::Heads"))))
                .containsExactly(added.id());
        assertThat(line.commit(1, Edit.remove(heading.id()))).isTrue();
    }

    @Test
    void undoingTheAddingOfAPackageDoesNotTakeAlongWhatOthersPutIntoIt() {
        Line line = new Line();
        Element made = Element.of(ElementKind.PACKAGE, null, START.rankAtEnd(null), "Made");
        line.commit(0, Edit.put(made));
        Element added = Element.of(ElementKind.PART, made.id(), Rank.between(null, null), "new");
        line.commit(1, Edit.put(added));
        assertThat(Revert.on(line.head(), line.changes.getFirst().inverse(), line.since(1)))
                .isEqualTo(new Revert.Overtaken(List.of(added.id())));
    }

    @Test
    void theSameFirstThingIsSaidOnce() {
        ElementId r1 = Models.id(START, "Test::r1");
        for (Edit first : List.of(
                Edit.put(Element.of(ElementKind.DOCUMENTATION, r1, Rank.between(null, null), null)
                        .with(pyrite.core.model.Property.TEXT, "one")),
                Edit.put(Element.of(ElementKind.SUBJECT, r1, Rank.between(null, null), null)),
                Edit.put(Element.of(
                                ElementKind.SATISFACTION,
                                Models.id(START, "Test"),
                                START.rankAtEnd(Models.id(START, "Test")),
                                null)
                        .with(pyrite.core.model.Property.TARGET, pyrite.core.model.Reference.to(r1))
                        .with(
                                pyrite.core.model.Property.BY,
                                pyrite.core.model.Reference.to(Models.id(START, "Test::Heads::One::a")))))) {
            Line line = new Line();
            assertThat(line.commit(0, first)).as(first.toString()).isTrue();
            Element again = first.put().getFirst();
            Edit second = Edit.put(new Element(
                    ElementId.fresh(), again.kind(), again.owner(), again.rank(), null, null, again.properties()));
            assertThat(line.commit(0, second)).as(first.toString()).isFalse();
        }
    }

    /**
     * Of the metadata of an element only its attributes are said once; references and waivers are as many as one likes.
     */
    @Test
    void otherMetadataMayBeAddedByTwoAtOnce() {
        ElementId r1 = Models.id(START, "Test::r1");
        for (ElementId type : List.of(Metadata.MANAGED, Metadata.REFERENCE)) {
            Line line = new Line();
            for (boolean first : List.of(true, false)) {
                Element metadata = Element.of(ElementKind.METADATA, r1, Rank.between(null, null), null)
                        .with(pyrite.core.model.Property.TYPES, List.of(pyrite.core.model.Reference.to(type)));
                assertThat(line.commit(0, Edit.put(metadata))).isEqualTo(first || !type.equals(Metadata.MANAGED));
            }
        }
    }

    @Test
    void twoAtOnePlaceComeOneBehindTheOther() {
        Line line = new Line();
        Element one = Models.element(START, "Test::Heads::One");
        Element a = Models.element(START, "Test::Heads::One::a");
        Element b = Models.element(START, "Test::Heads::One::b");
        Rank rank = Rank.between(a.rank(), b.rank());
        for (String name : List.of("first", "second", "third")) {
            assertThat(line.commit(0, Edit.put(Element.of(ElementKind.PART, one.id(), rank, name))))
                    .isTrue();
        }
        assertThat(line.head().children(one.id()))
                .extracting(Element::name)
                .containsExactly("a", "first", "third", "second", "b");
        assertThat(line.head().children(one.id()))
                .extracting(Element::rank)
                .isSorted()
                .doesNotHaveDuplicates();
    }
}
