package pyrite.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Queries of the Systems Modeling API (clause 7.1.4). */
class QueryTest {
    private static final Model MODEL = Models.of("""
            part def Sluice { attribute width : LengthValue = 4 [m]; abstract part gate[2]; }
            part def LongSluice :> Sluice;
            part north : Sluice;
            part south : LongSluice;
            part <'S-3'> middle : Sluice;
            """);

    private static List<Object> names(Query query) {
        return query.on(MODEL).stream().map(json -> json.get("declaredName")).toList();
    }

    private static Map<String, Object> primitive(String property, String operator, @Nullable Object value) {
        Map<String, Object> constraint = new java.util.HashMap<>(
                Map.of("@type", "PrimitiveConstraint", "property", property, "operator", operator));
        constraint.put("value", value);
        return constraint;
    }

    private static Map<String, Object> composite(String operator, Object... parts) {
        return Map.of("@type", "CompositeConstraint", "operator", operator, "constraint", Arrays.asList(parts));
    }

    private static List<Object> where(Object constraint) {
        return names(Query.read(Map.of("where", constraint, "orderBy", List.of("declaredName"))));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "declaredName      | = | north        | north",
                "declaredName      | > | north        | south width",
                "declaredShortName | = | S-3          | middle",
                "@type             | < | AttributeZ   | width",
                "qualifiedName     | = | Test::Sluice::gate | gate",
                "declaredName      | = | nothing      | ",
                "noSuchAttribute   | = | north        | "
            })
    void anAttributeIsComparedWithAValue(String property, String operator, String value, @Nullable String names) {
        List<Object> found = where(primitive(property, operator, value));
        assertThat(found).containsExactlyElementsOf(names == null ? List.of() : List.of(names.split(" ")));
    }

    @Test
    void aListOfReferencesHoldsWhereOneOfThemIsTheElement() {
        Map<String, Object> sluice = ElementJson.reference(Models.id(MODEL, "Test::Sluice"));
        assertThat(where(primitive("type", "=", sluice))).containsExactly("middle", "north");
        assertThat(where(primitive(
                        "type", "in", List.of(sluice, ElementJson.reference(Models.id(MODEL, "Test::LongSluice"))))))
                .containsExactly("middle", "north", "south");
    }

    @Test
    void whatIsLackingAndWhatIsNotSoCanBeAskedFor() {
        Map<String, Object> parts = primitive("@type", "=", "PartUsage");
        Map<String, Object> named = primitive("declaredShortName", "=", null);
        Map<String, Object> other = new java.util.HashMap<>(named);
        other.put("inverse", true);
        assertThat(where(composite("and", parts, named))).containsExactly("gate", "north", "south");
        assertThat(where(composite("and", parts, other))).containsExactly("middle");
        assertThat(where(primitive("isAbstract", "=", true))).containsExactly("gate");
    }

    @Test
    void constraintsAreJoinedAndNested() {
        Object north = primitive("declaredName", "=", "north");
        Object south = primitive("declaredName", "=", "south");
        assertThat(where(composite("or", north, south))).containsExactly("north", "south");
        assertThat(where(composite("and", north, south))).isEmpty();
        assertThat(where(composite("or", composite("and", north, south), composite("or", south))))
                .containsExactly("south");
    }

    @Test
    void aScopeLimitsWhereIsLooked() {
        String north = Models.id(MODEL, "Test::north").toString();
        assertThat(names(Query.read(Map.of("scope", List.of(north))))).containsExactly("north");
        assertThat(names(Query.read(Map.of("scope", List.of(Map.of("@id", north))))))
                .containsExactly("north");
        assertThat(names(Query.read(Map.of("scope", List.of(ElementId.fresh().toString())))))
                .isEmpty();
    }

    @Test
    void onlyTheAttributesAskedForAreGivenWithIdAndType() {
        assertThat(Query.read(Map.of("select", List.of("declaredName", "owner")))
                        .on(MODEL))
                .allSatisfy(json -> assertThat(json.keySet())
                        .contains("@id", "@type")
                        .isSubsetOf("@id", "@type", "declaredName", "owner"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "PrimitiveConstraint | like | a PrimitiveConstraint has a property, the operator =, in, < or >",
                "CompositeConstraint | xor  | a CompositeConstraint has the operator and or or",
                "CompositeConstraint | and  | a list called constraint"
            })
    void whatIsNoConstraintIsExplained(String type, String operator, String message) {
        assertThatThrownBy(() -> Query.read(
                        Map.of("where", Map.of("@type", type, "operator", operator, "property", "declaredName"))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(message);
    }

    @Test
    void manyValuesAreAskedForAtOnceButNotManyConstraints() {
        List<String> values = IntStream.range(0, 300_000).mapToObj(i -> "x" + i).collect(Collectors.toList());
        values.add("north");
        assertThat(names(Query.read(Map.of(
                        "where",
                        Map.of(
                                "@type", "PrimitiveConstraint",
                                "property", "declaredName",
                                "operator", "in",
                                "value", values)))))
                .containsExactly("north");
        assertThatThrownBy(() -> Query.read(Map.of(
                        "where",
                        Map.of(
                                "@type",
                                "CompositeConstraint",
                                "operator",
                                "or",
                                "constraint",
                                Collections.nCopies(
                                        300, Map.of("property", "declaredName", "operator", "=", "value", "a"))))))
                .hasMessageContaining("a query has at most 200 constraints");
        assertThatThrownBy(() -> Query.read(
                        Map.of("where", Map.of("property", "declaredName", "operator", "<", "value", values))))
                .hasMessageContaining("at most 10 values");
    }

    @Test
    void aConstraintIsAnObjectAndThePageAfterAnUnknownElementIsRefused() {
        assertThatThrownBy(() -> Query.read(Map.of("where", "declaredName = north")))
                .hasMessageContaining("a constraint is an object");
        assertThatThrownBy(() -> Query.read(Map.of("where", composite("and", "north"))))
                .hasMessageContaining("a constraint is an object");
        Query byName = Query.read(Map.of("orderBy", List.of("declaredName")));
        assertThatThrownBy(() -> byName.on(MODEL, ElementId.fresh(), 3))
                .hasMessageContaining("is not among what the query finds");
    }

    /** However large the pages are, one after the other they are the whole, in any order that is asked for. */
    @Property(tries = 60)
    void pagesJoinIntoTheWhole(@ForAll @IntRange(min = 1, max = 20) int most, @ForAll @IntRange(max = 3) int order) {
        List<String> by = List.of(
                        List.<String>of(),
                        List.of("declaredName"),
                        List.of("@type", "declaredName"),
                        List.of("multiplicity"))
                .get(order);
        Query query = Query.read(Map.of("orderBy", by));
        List<Object> joined = new ArrayList<>();
        ElementId after = null;
        for (List<Map<String, Object>> page = query.on(MODEL, null, most);
                !page.isEmpty();
                page = query.on(MODEL, after, most)) {
            assertThat(page).hasSizeLessThanOrEqualTo(most);
            page.forEach(json -> joined.add(json.get("@id")));
            after = ElementId.parse((String) joined.getLast());
        }
        assertThat(joined)
                .isEqualTo(query.on(MODEL).stream().map(json -> json.get("@id")).toList())
                .doesNotHaveDuplicates()
                .hasSize(MODEL.ownElements().size());
    }
}
