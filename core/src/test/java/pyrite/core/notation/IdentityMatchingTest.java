package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Rank;

/** An edited text that is read back keeps what is still in it: ids, and with them links and history. */
class IdentityMatchingTest {
    private static final String GATE = """
            part def Drive { doc /* Turns the leaf. */ attribute speed : AngularVelocityValue = 0.4 [deg/s]; attribute power : PowerValue; }
            part def Leaf { attribute mass : MassValue = 148 [t]; attribute width : LengthValue = 24 [m]; }
            part def Gate { part drive : Drive; part leaf : Leaf; attribute count : Integer = 1; assert constraint { count == 1 } }
            part gate : Gate;
            part spare : Gate;
            requirement <'R-1'> light { subject g : Gate; require constraint { g.leaf.mass <= 160 [t] } }
            satisfy light by gate;
            // a note
            package Inner { part def Sensor; part one : Sensor; part two : Sensor; }
            """;
    private static final Model MODEL = Models.of(GATE);

    private static String text(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    private static ReadResult readBack(Model model, String text) {
        return NotationReader.readBack(model, model.ownRoots(), new Source("edited", text));
    }

    /** The ids of named elements after an edit of the text, all of which must be sound. */
    private static Map<String, ElementId> after(String from, String to) {
        String text = text(MODEL);
        assertThat(text).contains(from);
        ReadResult reading = readBack(MODEL, text.replace(from, to));
        assertThat(reading.problems()).isEmpty();
        return ids(reading.model());
    }

    private static Map<String, ElementId> ids(Model model) {
        return model.ownElements().stream()
                .filter(e -> model.names().effectiveName(e) != null)
                .collect(Collectors.toMap(model.names()::qualifiedName, Element::id, (a, _) -> a));
    }

    private static ElementId id(String name) {
        return Models.id(MODEL, "Test::" + name);
    }

    @Test
    void whatWasNotEditedChangesNothing() {
        assertThat(readBack(MODEL, text(MODEL)).edit()).isEqualTo(new Edit(List.of(), Set.of()));
    }

    @Test
    void aChangedValueChangesThatElementAlone() {
        ReadResult reading = readBack(MODEL, text(MODEL).replace("= 148 [t]", "= 150 [t]"));
        assertThat(reading.edit().put())
                .singleElement()
                .satisfies(e -> assertThat(e.id()).isEqualTo(id("Leaf::mass")));
        assertThat(reading.edit().remove()).isEmpty();
    }

    @Test
    void aRenameInPlaceKeepsTheElementAndEverythingFollows() {
        Map<String, ElementId> ids = after("Leaf", "Flap");
        assertThat(ids.get("Test::Flap")).isEqualTo(id("Leaf"));
        assertThat(ids.get("Test::Flap::mass")).isEqualTo(id("Leaf::mass"));
    }

    @Test
    void aRenamedLeafBetweenItsNeighboursIsTheSame() {
        assertThat(after("part two : Sensor", "part second : Sensor").get("Test::Inner::second"))
                .isEqualTo(id("Inner::two"));
        assertThat(after("attribute power : PowerValue", "attribute output : PowerValue")
                        .get("Test::Drive::output"))
                .isEqualTo(id("Drive::power"));
    }

    @Test
    void aRequirementIsKnownByItsIdWhateverItsName() {
        Map<String, ElementId> ids = after("requirement <'R-1'> light", "requirement <'R-1'> liftable");
        assertThat(ids.get("Test::liftable")).isEqualTo(id("light"));
    }

    @Test
    void aRenameWhereSomethingIsDeclaredIsMeantWhereItIsUsedToo() {
        ReadResult reading = readBack(
                MODEL,
                text(MODEL)
                        .replace("part leaf : Leaf", "part flap : Leaf")
                        .replace("<'R-1'> light", "<'R-1'> liftable"));
        assertThat(reading.problems()).isEmpty();
        assertThat(text(reading.model())).contains("g.flap.mass <= 160 [t]", "satisfy liftable by gate;");
    }

    @Test
    void aMoveKeepsTheElementWithAllItOwns() {
        String text = text(MODEL);
        int from = text.indexOf("    part def Drive {");
        int to = text.indexOf("    part def Leaf {");
        String drive = text.substring(from, to);
        ReadResult reading = readBack(
                MODEL,
                text.replace(drive, "")
                        .replace("part def Sensor;", "part def Sensor;\n" + drive)
                        .replace(": Drive", ": Inner::Drive"));
        assertThat(reading.problems()).isEmpty();
        assertThat(ids(reading.model()))
                .containsEntry("Test::Inner::Drive", id("Drive"))
                .containsEntry("Test::Inner::Drive::speed", id("Drive::speed"));
    }

    @Test
    void whatIsOwnedBySomethingRemovedIsKeptWhereItMovedTo() {
        String text = text(MODEL);
        int from = text.indexOf("    package Inner {");
        ReadResult reading = readBack(
                MODEL, text.substring(0, from).stripTrailing() + "\n    part def Sensor;\n    part one : Sensor;\n}\n");
        assertThat(reading.problems()).isEmpty();
        assertThat(ids(reading.model()))
                .containsEntry("Test::Sensor", id("Inner::Sensor"))
                .containsEntry("Test::one", id("Inner::one"))
                .doesNotContainKey("Test::Inner");
        assertThat(reading.model().find(id("Inner::two"))).isEmpty();
    }

    @Test
    void anInsertionLeavesItsNeighboursAsTheyAre() {
        ReadResult reading = readBack(
                MODEL, text(MODEL).replace("part spare : Gate;", "part middle : Gate;\n    part spare : Gate;"));
        assertThat(reading.edit().put())
                .singleElement()
                .satisfies(e -> assertThat(e.name()).isEqualTo("middle"));
        assertThat(reading.model().children(id("gate")).isEmpty()).isTrue();
        assertThat(text(reading.model()))
                .contains("part gate : Gate;\n    part middle : Gate;\n    part spare : Gate;");
    }

    @Test
    void aChangeOfOrderMovesAsLittleAsCanBe() {
        String text = text(MODEL)
                .replace("    part spare : Gate;\n", "")
                .replace("    part gate : Gate;", "    part spare : Gate;\n    part gate : Gate;");
        ReadResult reading = readBack(MODEL, text);
        assertThat(reading.edit().put()).hasSize(1);
        assertThat(text(reading.model())).isEqualTo(text);
    }

    @Test
    void whatIsGoneFromTheTextIsRemovedAndWhatStillNeedsItIsNamed() {
        assertThat(readBack(MODEL, text(MODEL).replace("part spare : Gate;", ""))
                        .edit()
                        .remove())
                .containsExactly(id("spare"));
        assertThat(readBack(MODEL, text(MODEL).replace("part gate : Gate;", "")).problems())
                .anySatisfy(problem -> assertThat(problem.message()).contains("there is no 'gate' here"));
    }

    @Test
    void somebodyElsesEditsMeanwhileStay() {
        ReadResult mine = readBack(MODEL, text(MODEL).replace("= 148 [t]", "= 150 [t]"));
        Model theirs = ((EditResult.Applied)
                        MODEL.apply(Edit.put(MODEL.get(id("Drive")).withName("Motor"))))
                .model();
        Model both = ((EditResult.Applied) theirs.apply(mine.edit())).model();
        assertThat(text(both)).contains("part def Motor", "part drive : Motor", "= 150 [t]");
    }

    @Test
    void onePartOfTheModelCanBeReadBackAlone() {
        List<Element> leaf = List.of(MODEL.get(id("Leaf")));
        String text = NotationWriter.write(MODEL, leaf)
                .replace("attribute width", "attribute height : LengthValue;\n    attribute width");
        ReadResult reading = NotationReader.readBack(MODEL, leaf, new Source("leaf", text));
        assertThat(reading.problems()).isEmpty();
        assertThat(reading.edit().put())
                .singleElement()
                .satisfies(e -> assertThat(e.owner()).isEqualTo(id("Leaf")));
        assertThat(reading.model().children(id("Leaf")))
                .extracting(Element::name)
                .containsExactly("mass", "height", "width");
    }

    @Test
    void aTextWithFaultsChangesNothing() {
        ReadResult reading = readBack(MODEL, text(MODEL).replace("part gate : Gate;", "part gate : Gat;"));
        assertThat(reading.problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.message()).contains("did you mean 'Gate'"));
        assertThat(reading.edit()).isEqualTo(new Edit(List.of(), Set.of()));
        assertThat(reading.model()).isSameAs(MODEL);
    }

    /**
     * Whatever one person does to a model and writes out, reading that back into the model before comes to the same
     * ids.
     */
    @Property(tries = 150)
    void readingBackFollowsAnyEdit(@ForAll long seed) {
        Random random = new Random(seed);
        Model edited = MODEL;
        for (int i = 0; i <= random.nextInt(4); i++) {
            edited = step(edited, random, i);
        }
        ReadResult reading = readBack(MODEL, text(edited));
        assertThat(reading.problems()).isEmpty();
        assertThat(text(reading.model())).isEqualTo(text(edited));
        Map<String, ElementId> requested = ids(edited);
        Map<String, ElementId> found = ids(reading.model());
        requested.forEach((name, id) -> {
            if (MODEL.find(id).isPresent()) {
                assertThat(found).containsEntry(name, id);
            }
        });
    }

    @Property(tries = 100)
    void anyOneThingMayBeRenamedInPlace(@ForAll long seed) {
        List<Element> named = sorted(MODEL.ownElements().stream()
                .filter(e -> e.name() != null && e.owner() != null)
                .toList());
        Element element = named.get(new Random(seed).nextInt(named.size()));
        sameIdsAfter(Edit.put(element.withName("another name")));
    }

    @Property(tries = 100)
    void anyOneThingMayMoveWithAllItOwns(@ForAll long seed) {
        Random random = new Random(seed);
        List<Element> named = sorted(MODEL.ownElements().stream()
                .filter(e -> e.name() != null && e.owner() != null)
                .toList());
        List<Element> owners = sorted(MODEL.ownElements().stream()
                .filter(e -> e.kind().isPackage() || e.kind() == ElementKind.PART_DEFINITION)
                .toList());
        Element element = named.get(random.nextInt(named.size()));
        Element owner = owners.get(random.nextInt(owners.size()));
        sameIdsAfter(Edit.put(element.withOwner(owner.id(), MODEL.rankAtEnd(owner.id()))));
    }

    private static List<Element> sorted(List<Element> elements) {
        return elements.stream()
                .sorted(java.util.Comparator.comparing(MODEL.names()::qualifiedName))
                .toList();
    }

    /** Writes the model out after an edit, if the edit is sound, and reads it back into the model before. */
    private static void sameIdsAfter(Edit edit) {
        if (MODEL.apply(edit) instanceof EditResult.Applied(Model edited, var _)) {
            ReadResult reading = readBack(MODEL, text(edited));
            assertThat(reading.problems()).isEmpty();
            assertThat(Set.copyOf(reading.model().ownElements().stream()
                            .map(Element::id)
                            .toList()))
                    .isEqualTo(Set.copyOf(
                            edited.ownElements().stream().map(Element::id).toList()));
            assertThat(ids(reading.model())).isEqualTo(ids(edited));
        }
    }

    /** One step: an insertion, a change of order, or a rename of something that differs from its siblings. */
    private static Model step(Model model, Random random, int number) {
        List<Element> owners = model.ownElements().stream()
                .filter(e -> model.children(e.id()).size() > 1)
                .sorted(java.util.Comparator.comparing(Element::id))
                .toList();
        Element owner = owners.get(random.nextInt(owners.size()));
        List<Element> siblings = model.children(owner.id());
        Edit edit = switch (random.nextInt(3)) {
            case 0 ->
                Edit.put(Element.of(
                        owner.kind().isPackage() ? ElementKind.ITEM_DEFINITION : ElementKind.ITEM,
                        owner.id(),
                        between(siblings, random.nextInt(siblings.size())),
                        "new" + number));
            case 1 -> {
                List<Element> shuffled = new ArrayList<>(siblings);
                Collections.shuffle(shuffled, random);
                List<Rank> ranks = siblings.stream().map(Element::rank).toList();
                yield new Edit(
                        java.util.stream.IntStream.range(0, ranks.size())
                                .mapToObj(i -> shuffled.get(i).withOwner(owner.id(), ranks.get(i)))
                                .toList(),
                        Set.of());
            }
            default -> Edit.put(model.get(id("Leaf::mass")).withName("mass" + number));
        };
        return model.apply(edit) instanceof EditResult.Applied(Model next, var _) ? next : model;
    }

    private static Rank between(List<Element> siblings, int index) {
        return Rank.between(
                siblings.get(index).rank(),
                index + 1 < siblings.size() ? siblings.get(index + 1).rank() : null);
    }

    @Test
    void ofManyRanksALongestRisingRowIsKept() {
        List<Rank> ranks = List.of("5", "2", "8", "3", "6", "9", "1").stream()
                .map(Rank::new)
                .toList();
        assertThat(Ranks.longestRising(new ArrayList<>(ranks)).stream().filter(java.util.Objects::nonNull))
                .extracting(Rank::digits)
                .containsExactly("2", "3", "6", "9");
    }
}
