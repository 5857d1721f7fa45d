package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Span;
import pyrite.core.expression.Unit;

/** The table of kinds and the small values around elements keep what they promise. */
class KindsTest {
    @Test
    void everyDeclaredKindIsFoundByItsKeyword() {
        Arrays.stream(ElementKind.values())
                .filter(kind -> kind.isDefinition() || kind.isUsage())
                .forEach(kind -> assertThat(ElementKind.declaredBy(kind.keyword(), kind.isDefinition()))
                        .contains(kind));
        assertThat(ElementKind.declaredBy("subject", true)).isEmpty();
    }

    @Test
    void definitionsTakeNoValueAndUsagesDo() {
        assertThat(ElementKind.PART_DEFINITION.takes(Property.VALUE)).isFalse();
        assertThat(ElementKind.PART.takes(Property.VALUE)).isTrue();
        assertThat(ElementKind.SATISFACTION.takes(Property.BY)).isTrue();
        assertThat(ElementKind.DOCUMENTATION.takes(Property.RESULT)).isFalse();
    }

    @Test
    void whatMayOwnWhatFollowsTheBody() {
        assertThat(ElementKind.PACKAGE.mayOwn(ElementKind.PART)).isTrue();
        assertThat(ElementKind.PART.mayOwn(ElementKind.PACKAGE)).isFalse();
        assertThat(ElementKind.REQUIREMENT.mayOwn(ElementKind.SUBJECT)).isTrue();
        assertThat(ElementKind.OBJECTIVE.mayOwn(ElementKind.VERIFIED_REQUIREMENT))
                .isTrue();
        assertThat(ElementKind.DOCUMENTATION.mayOwn(ElementKind.COMMENT)).isFalse();
        assertThat(ElementKind.values())
                .allMatch(kind -> kind.body() == ElementKind.Body.NONE
                        || kind.body() == ElementKind.Body.BRANCHES
                        || kind.mayOwn(ElementKind.DOCUMENTATION));
    }

    @Test
    void titlesCarryTheRightArticle() {
        assertThat(ElementKind.ATTRIBUTE.titleWithArticle()).isEqualTo("an attribute");
        assertThat(ElementKind.PART_DEFINITION.titleWithArticle()).isEqualTo("a part definition");
    }

    @Test
    void aMultiplicityIsWrittenAsShortAsItCanBe() {
        assertThat(new Multiplicity(2, 2)).hasToString("2");
        assertThat(new Multiplicity(0, Multiplicity.MANY)).hasToString("*");
        assertThat(new Multiplicity(1, Multiplicity.MANY)).hasToString("1..*");
        assertThatThrownBy(() -> new Multiplicity(3, 2)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Multiplicity(-1, 2)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void anElementIsChangedByMakingAnother() {
        Element element = Element.of(ElementKind.PART, ElementId.fresh(), new Rank("i"), "a");
        Element other = element.with(Property.TEXT, "x");
        assertThat(element.get(Property.TEXT)).isEmpty();
        assertThat(other.get(Property.TEXT)).contains("x");
        assertThat(other.with(Property.TEXT, "x")).isSameAs(other);
        assertThat(other.with(Property.TEXT, null)).isEqualTo(element);
        assertThatThrownBy(() -> element.properties().put(Property.TEXT, "y"))
                .isInstanceOf(UnsupportedOperationException.class);
    }

    @Test
    void aDifferenceHasNoEmptyChangesAndTurnsAround() {
        Element a = Element.of(ElementKind.PACKAGE, null, new Rank("i"), "a");
        Difference difference = new Difference(List.of(new ElementChange(a, a), new ElementChange(null, a)));
        assertThat(difference.changes()).hasSize(1);
        assertThat(difference.inverse().inverse()).isEqualTo(difference);
        assertThat(Edit.of(difference.inverse())).isEqualTo(Edit.remove(a.id()));
        assertThatThrownBy(() -> new ElementChange(null, null)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new ElementChange(a, Element.of(ElementKind.PART, null, new Rank("i"), "b")))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void libraryIdsAreTheSameEverywhere() {
        assertThat(ElementId.ofLibrary("SI::metre"))
                .isEqualTo(ElementId.ofLibrary("SI::metre"))
                .isNotEqualTo(ElementId.ofLibrary("SI::second"));
        assertThatThrownBy(() -> ElementId.parse("no id")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void spansRunForwardAndUnitsArePositive() {
        assertThat(new Span(1, 2)).isEqualTo(new Span(5, 9));
        assertThat(new Span(3, 4).to(new Span(8, 9)).end()).isEqualTo(9);
        assertThatThrownBy(() -> new Span(3, 2)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Unit(0, 0, Dimension.ONE)).isInstanceOf(IllegalArgumentException.class);
    }
}
