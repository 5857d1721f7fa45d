package pyrite.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.Models;
import pyrite.core.exchange.CommitJson.Change;
import pyrite.core.exchange.CommitJson.Fault;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.ManualTest;

class ElementJsonTest {
    private static final Model TANK = Models.of("""
            part def Tank {
                doc /* Holds water. */
                attribute level : LengthValue := 2 [m];
                attribute area : AreaValue = 3 [m^2];
                attribute volume : VolumeValue = level * area;
            }
            part tanks : Tank [2..*];
            """);

    private static Map<String, Object> json(Model model, String name) {
        return new ElementJson(model).write(Models.element(model, name));
    }

    private static Map<ElementId, Element> byId(Model model) {
        return model.ownElements().stream().collect(Collectors.toMap(Element::id, Function.identity()));
    }

    private static Model applied(Model base, List<Change> changes) {
        CommitJson.Read read = CommitJson.read(base, changes);
        assertThat(read.faults()).isEmpty();
        EditResult outcome = base.apply(read.edit());
        assertThat(outcome).isInstanceOf(EditResult.Applied.class);
        return ((EditResult.Applied) outcome).model();
    }

    private static List<Fault> faults(Map<String, Object> payload) {
        return CommitJson.read(TANK, List.of(new Change(null, payload))).faults();
    }

    private static Map<String, Object> part(Object... attributes) {
        Map<String, Object> json = new HashMap<>(Map.of(
                "@type",
                "PartUsage",
                "owner",
                ElementJson.reference(Models.id(TANK, "Test")),
                "declaredName",
                "spare"));
        for (int i = 0; i < attributes.length; i += 2) {
            json.put((String) attributes[i], attributes[i + 1]);
        }
        return json;
    }

    /** Models with every kind of element, from the manual of the notation. */
    @ParameterizedTest
    @MethodSource("pyrite.core.notation.ManualTest#examples")
    void whatIsWrittenAsJsonIsReadAsTheSame(ManualTest.Example example) {
        Model model = example.read();
        ElementJson writer = new ElementJson(model);
        List<Change> changes = model.ownRoots().stream()
                .flatMap(root -> model.subtree(root.id()).stream())
                .map(element -> new Change(element.id(), writer.write(element)))
                .toList();
        Map<ElementId, Element> read = byId(applied(Library.model(), changes));
        byId(model)
                .forEach((id, element) -> assertThat(read.get(id).withOwner(element.owner(), element.rank()))
                        .isEqualTo(element));
        assertThat(read).hasSameSizeAs(model.ownElements());
    }

    @Test
    void everyKindHasAMetaclassOfItsOwn() {
        assertThat(Arrays.stream(ElementKind.values()).map(Metaclass::of)).doesNotHaveDuplicates();
        assertThat(Arrays.stream(ElementKind.values()))
                .allSatisfy(kind -> assertThat(Metaclass.of(kind).kind()).contains(kind));
    }

    @Test
    void attributesHaveTheNamesOfTheStandard() {
        assertThat(json(TANK, "Test::tanks"))
                .containsEntry("@type", "PartUsage")
                .containsEntry("declaredName", "tanks")
                .containsEntry("qualifiedName", "Test::tanks")
                .containsEntry("multiplicity", Map.of("lowerBound", 2, "upperBound", "*"))
                .containsEntry("type", List.of(ElementJson.reference(Models.id(TANK, "Test::Tank"))));
        assertThat(json(TANK, "Test::Tank::volume"))
                .containsEntry("value", Map.of("isInitial", false, "isDefault", false, "expression", "level * area"));
        assertThat(json(TANK, "Test::Tank")).containsEntry("@type", "PartDefinition");
        assertThat((List<?>) json(TANK, "Test::Tank").get("documentation")).hasSize(1);
        assertThat((List<?>) json(TANK, "Test::Tank").get("ownedElement")).hasSize(4);
    }

    @Test
    void newElementsOfOneCommitReferToEachOther() {
        ElementId definition = ElementId.fresh();
        Map<String, Object> owner = ElementJson.reference(Models.id(TANK, "Test"));
        Model after = applied(
                TANK,
                List.of(
                        new Change(null, part("type", List.of(ElementJson.reference(definition)))),
                        new Change(
                                definition, Map.of("@type", "PartDefinition", "owner", owner, "declaredName", "Pump")),
                        new Change(
                                null,
                                Map.of(
                                        "@type",
                                        "AttributeUsage",
                                        "owner",
                                        ElementJson.reference(definition),
                                        "declaredName",
                                        "rate",
                                        "value",
                                        Map.of("expression", "base * 2"))),
                        new Change(
                                null,
                                Map.of(
                                        "@type",
                                        "AttributeUsage",
                                        "owner",
                                        ElementJson.reference(definition),
                                        "declaredName",
                                        "base",
                                        "value",
                                        Map.of("expression", "4")))));
        assertThat(json(after, "Test::Pump::rate"))
                .containsEntry("value", Map.of("isInitial", false, "isDefault", false, "expression", "base * 2"));
    }

    @Test
    void nullRemovesAnElementWithAllItOwns() {
        Model after = applied(
                TANK,
                List.of(
                        new Change(Models.id(TANK, "Test::tanks"), null),
                        new Change(Models.id(TANK, "Test::Tank"), null)));
        assertThat(after.ownElements()).noneMatch(element -> "level".equals(element.name()));
    }

    @Test
    void whatIsWrongIsSaidWithTheAttributeAndWhatWouldBeRight() {
        assertThat(faults(Map.of("declaredName", "x"))).singleElement().satisfies(fault -> {
            assertThat(fault.attribute()).isEqualTo("@type");
            assertThat(fault.message()).contains("PartUsage");
        });
        assertThat(faults(part("@type", "Pump")).getFirst().message()).contains("no metaclass 'Pump'");
        assertThat(faults(part("colour", "red")).getFirst().message())
                .contains("a part has no attribute 'colour'", "multiplicity");
        assertThat(faults(part("multiplicity", Map.of("lowerBound", 3, "upperBound", 1)))
                        .getFirst()
                        .message())
                .contains("from 3 to 1");
        assertThat(faults(part("isAbstract", "yes")).getFirst().message()).contains("true or false");
        assertThat(faults(part("type", "Tank")).getFirst().message()).contains("list of references");
        assertThat(faults(part("type", List.of(Map.of("@id", "nonsense"))))
                        .getFirst()
                        .message())
                .contains("no UUID");
        assertThat(faults(part("value", Map.of("expression", "1 +"))).getFirst().message())
                .contains("column");
        assertThat(faults(part("value", Map.of("expression", "nowhere")))
                        .getFirst()
                        .message())
                .contains("there is no 'nowhere'");
        assertThat(CommitJson.read(TANK, List.of(new Change(ElementId.fresh(), null)))
                        .faults()
                        .getFirst()
                        .message())
                .contains("none with this id");
    }

    /** An attribute of a part as it is sent, and what is said of it. */
    private static List<Object[]> wrongAttributes() {
        return List.of(new Object[][] {
            {"declaredName", 7, "this is a text, not 7"},
            {"owner", "Test", "this is an object, not Test"},
            {"owner", Map.of("id", "x"), "a reference is an object with an @id"},
            {"value", "12 [m]", "this is an object"},
            {"value", Map.of("isInitial", true), "a value is an object with an expression in the notation"},
            {"value", Map.of("expression", 12), "this is a text, not 12"},
            {"multiplicity", "2", "this is an object, not 2"},
            {"multiplicity", Map.of("lowerBound", "two", "upperBound", 3), "a multiplicity is {"},
            {"multiplicity", Map.of("lowerBound", 1, "upperBound", "many"), "a multiplicity is {"},
            {"type", List.of("Tank"), "this is an object, not Tank"},
            {"type", List.of(Map.of("chainingFeature", List.of("level"))), "this is an object, not level"},
            {"@id", "7", "'7' is no UUID"}
        });
    }

    @ParameterizedTest
    @MethodSource("wrongAttributes")
    void eachWrongAttributeIsTold(String attribute, Object value, String message) {
        assertThat(faults(part(attribute, value))).singleElement().satisfies(fault -> {
            assertThat(fault.attribute()).isEqualTo(attribute);
            assertThat(fault.message()).contains(message);
        });
    }

    @Test
    void aPayloadIsOfTheElementItIsGivenFor() {
        ElementId one = ElementId.fresh();
        Change change = new Change(ElementId.fresh(), part("@id", one.toString()));
        assertThat(CommitJson.read(TANK, List.of(change)).faults().getFirst().message())
                .contains("another id than the identity it is given for");
        Model made = applied(TANK, List.of(new Change(null, part("@id", one.toString()))));
        assertThat(made.get(one).name()).isEqualTo("spare");
    }

    @Test
    void anElementThatStaysWithItsOwnerKeepsItsPlaceAndNewOnesComeBehind() {
        ElementId tank = Models.id(TANK, "Test::Tank");
        Map<String, Object> same = new HashMap<>(json(TANK, "Test::Tank"));
        same.put("declaredName", "Vessel");
        Model after = applied(
                TANK,
                List.of(
                        new Change(tank, same),
                        new Change(null, part()),
                        new Change(null, part("declaredName", "second"))));
        assertThat(after.children(Models.id(after, "Test")).stream()
                        .map(Element::name)
                        .filter(name -> name != null)
                        .toList())
                .containsExactly("Vessel", "tanks", "spare", "second");
        assertThat(after.get(tank).rank()).isEqualTo(TANK.get(tank).rank());
    }

    @Test
    void aQueryChoosesByAttributesAndGivesThoseAskedFor() {
        Query query = Query.read(Map.of(
                "select",
                List.of("declaredName"),
                "where",
                Map.of(
                        "@type",
                        "CompositeConstraint",
                        "operator",
                        "and",
                        "constraint",
                        List.of(
                                Map.of(
                                        "@type",
                                        "PrimitiveConstraint",
                                        "property",
                                        "@type",
                                        "operator",
                                        "=",
                                        "value",
                                        List.of("AttributeUsage")),
                                Map.of(
                                        "@type",
                                        "PrimitiveConstraint",
                                        "property",
                                        "owner",
                                        "operator",
                                        "=",
                                        "value",
                                        List.of(ElementJson.reference(Models.id(TANK, "Test::Tank")))),
                                Map.of(
                                        "@type",
                                        "PrimitiveConstraint",
                                        "property",
                                        "declaredName",
                                        "operator",
                                        "=",
                                        "value",
                                        "area",
                                        "inverse",
                                        true)))));
        assertThat(query.on(TANK))
                .extracting(json -> json.get("declaredName"))
                .containsExactlyInAnyOrder("level", "volume");
        assertThat(query.on(TANK))
                .allSatisfy(json -> assertThat(json).containsOnlyKeys("@id", "@type", "declaredName"));
        assertThatThrownBy(() -> Query.read(Map.of("where", Map.of("operator", "like"))))
                .hasMessageContaining("the operator =, in, < or >");
    }

    private static List<Object> names(Query query, @Nullable ElementId after, int most) {
        return query.on(TANK, after, most).stream()
                .map(json -> json.get("declaredName"))
                .toList();
    }

    /** In the order of names, then of ids; what has no name comes last. */
    @Test
    void aQueryIsOrderedAndAnsweredPageByPage() {
        Query byName = Query.read(Map.of(
                "orderBy",
                List.of("@type", "declaredName"),
                "select",
                List.of("declaredName"),
                "where",
                Map.of("property", "@type", "operator", "in", "value", List.of("AttributeUsage", "PartDefinition"))));
        assertThat(names(byName, null, 100)).containsExactly("area", "level", "volume", "Tank");
        assertThat(names(byName, null, 2)).containsExactly("area", "level");
        assertThat(names(byName, Models.id(TANK, "Test::Tank::level"), 2)).containsExactly("volume", "Tank");
        assertThat(names(byName, Models.id(TANK, "Test::Tank"), 2)).isEmpty();
        assertThatThrownBy(() -> names(byName, Models.id(TANK, "Test::tanks"), 2))
                .hasMessageContaining("begin with the first page");
        Query byId = Query.read(Map.of());
        List<Object> all = new ArrayList<>();
        ElementId last = null;
        for (List<Map<String, Object>> page = byId.on(TANK, null, 3); !page.isEmpty(); page = byId.on(TANK, last, 3)) {
            page.forEach(json -> all.add(json.get("@id")));
            last = ElementId.parse((String) page.getLast().get("@id"));
        }
        assertThat(all).hasSameSizeAs(TANK.ownElements()).doesNotHaveDuplicates();
        assertThat(byId.on(TANK)).extracting(json -> json.get("@id")).isEqualTo(all);
    }

    @Test
    void relationshipsAreFoundFromBothEnds() {
        Model model = Models.of("""
                requirement needed;
                part def Tank;
                part tank : Tank { satisfy needed; }
                part sink;
                dependency from tank to sink;
                connect tank to sink;
                """);
        Relationships relationships = new Relationships(model);
        assertThat(relationships.of(Models.id(model, "Test::tank"), Relationships.Direction.OUT))
                .extracting(Element::kind)
                .containsExactlyInAnyOrder(ElementKind.SATISFACTION, ElementKind.DEPENDENCY, ElementKind.CONNECTION);
        assertThat(relationships.of(Models.id(model, "Test::needed"), Relationships.Direction.IN))
                .extracting(Element::kind)
                .containsExactly(ElementKind.SATISFACTION);
        assertThat(relationships.of(Models.id(model, "Test::sink"), Relationships.Direction.OUT))
                .isEmpty();
        assertThat(relationships.of(Models.id(model, "Test::sink"), Relationships.Direction.BOTH))
                .hasSize(2);
    }
}
