package pyrite.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.exchange.Relationships.Direction;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * What leads from where to where, for each kind of relationship the standard's API asks for (Systems Modeling API,
 * 7.1.3).
 */
class RelationshipsTest {
    private static final Model MODEL = Models.read(
            """
            package Store { part def Valve; }
            package Plant {
                private import Store::*;
                alias Closer for Valve;
                port def Flange { out attribute level; }
                part def Tank { port outlet : Flange; attribute volume; }
                part def Pump { port inlet : Flange; action fill; }
                part tank : Tank;
                part pump : Pump;
                connection line connect tank.outlet to pump.inlet;
                allocation placed allocate tank to pump;
                bind tank.volume = spare;
                attribute spare;
                action run { action open; action shut; first open then shut; flow from open.full to shut.full; }
                dependency from tank to pump;
                requirement tight;
                satisfy tight by tank;
                part keeper { satisfy tight; }
                verification tested { objective { verify tight; } }
                state def Life { state young; state old; transition ageing first young then old; }
                view overview { expose Store; }
            }
            """.replace("action open; action shut;", "action open { out item full; } action shut { in item full; }"));
    private final Relationships relationships = new Relationships(MODEL);

    private static List<String> names(List<ElementId> ids) {
        return ids.stream()
                .map(MODEL::get)
                .map(element -> element.name() == null ? element.kind().keyword() : element.name())
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "IMPORT | Plant | Store",
                "ALIAS | Plant | Valve",
                "CONNECTION | outlet | inlet",
                "ALLOCATION | tank | pump",
                "BINDING | volume | spare",
                "SUCCESSION | open | shut",
                "FLOW | full | full",
                "DEPENDENCY | tank | pump",
                "VERIFIED_REQUIREMENT | objective | tight",
                "TRANSITION | young | old",
                "EXPOSURE | overview | Store"
            })
    void aRelationshipLeadsFromItsSourceToItsTarget(ElementKind kind, String source, String target) {
        Element relationship = MODEL.ownElements(kind)
                .filter(each -> kind != ElementKind.IMPORT
                        || MODEL.get(each.owner()).name().equals("Plant"))
                .findFirst()
                .orElseThrow();
        assertThat(names(relationships.sources(relationship))).containsExactly(source);
        assertThat(names(relationships.targets(relationship))).containsExactly(target);
    }

    @Test
    void whatSatisfiesIsNamedOrIsWhereItStands() {
        assertThat(MODEL.ownElements(ElementKind.SATISFACTION)
                        .map(each -> names(relationships.sources(each)).getFirst()))
                .containsExactlyInAnyOrder("tank", "keeper");
        assertThat(MODEL.ownElements(ElementKind.SATISFACTION)
                        .flatMap(each -> names(relationships.targets(each)).stream()))
                .containsOnly("tight");
    }

    @Test
    void anElementIsAskedWhatLeadsToItOrFromItOrBoth() {
        ElementId tank = Models.id(MODEL, "Plant::tank");
        assertThat(relationships.of(tank, Direction.OUT))
                .extracting(Element::kind)
                .containsExactlyInAnyOrder(ElementKind.ALLOCATION, ElementKind.DEPENDENCY, ElementKind.SATISFACTION);
        assertThat(relationships.of(tank, Direction.IN)).isEmpty();
        assertThat(relationships.of(Models.id(MODEL, "Plant::tight"), Direction.IN))
                .extracting(Element::kind)
                .containsExactlyInAnyOrder(
                        ElementKind.SATISFACTION, ElementKind.SATISFACTION, ElementKind.VERIFIED_REQUIREMENT);
        ElementId pump = Models.id(MODEL, "Plant::pump");
        assertThat(relationships.of(pump, Direction.BOTH))
                .isEqualTo(relationships.of(pump, Direction.IN))
                .hasSize(2);
    }

    @Test
    void whatRelatesNothingHasNoEnds() {
        Element tank = Models.element(MODEL, "Plant::tank");
        assertThat(relationships.sources(tank)).isEmpty();
        assertThat(relationships.targets(tank)).isEmpty();
    }
}
