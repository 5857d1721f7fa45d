package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Rank;
import pyrite.core.notation.Library;
import pyrite.core.view.Outline.Line;

class OutlineTest {
    private static final Model MODEL = Models.read("""
            package Harbour {
                part def Pump { attribute flow1 : ScalarValues::Real = 2; port inlet; }
                part def Tank;
                requirement <'R-1'> dry { subject town; require constraint { 1 < 2 } }
                part pumps : Pump [2];
                part : Tank;
            }
            package Town { part pumphouse; }
            """);
    private static final Outline OUTLINE = new Outline(MODEL);

    private static List<String> names(List<Line> lines) {
        return lines.stream()
                .map(line -> ". ".repeat(line.depth()) + line.name())
                .toList();
    }

    @Test
    void aLevelHasWhatPeopleLookForInTheOrderOfTheModel() {
        assertThat(names(OUTLINE.below(null))).containsExactly("Harbour", "Town");
        assertThat(names(OUTLINE.below(Models.id(MODEL, "Harbour"))))
                .containsExactly(". Pump", ". Tank", ". R-1 dry", ". pumps");
        assertThat(names(OUTLINE.below(Models.id(MODEL, "Harbour::Pump")))).containsExactly(". . flow1", ". . inlet");
    }

    @Test
    void aLineSaysItsKindTypeAndWhetherAnythingIsBelow() {
        Line pump = OUTLINE.below(Models.id(MODEL, "Harbour")).getFirst();
        assertThat(pump.keyword()).isEqualTo("part def");
        assertThat(pump.leaf()).isFalse();
        assertThat(pump.strong()).isTrue();
        Line pumps = OUTLINE.below(Models.id(MODEL, "Harbour")).getLast();
        assertThat(pumps.type()).isEqualTo("[2] : Pump");
        assertThat(pumps.leaf()).isTrue();
        assertThat(OUTLINE.below(Models.id(MODEL, "Harbour")).get(2).leaf())
                .as("subject and constraint are on the requirement's own page")
                .isTrue();
    }

    @Test
    void whatMatchesStandsBelowItsOwnersWhichAreToldApart() {
        Outline.Found found = OUTLINE.find("PUMP", null, 10);
        assertThat(names(found.lines())).containsExactly("Harbour", ". Pump", ". pumps", "Town", ". pumphouse");
        assertThat(found.lines()).extracting(Line::match).containsExactly(false, true, true, false, true);
        assertThat(found.matches()).isEqualTo(3);
        assertThat(names(OUTLINE.find("r-1", null, 10).lines()))
                .as("by the short name too")
                .containsExactly("Harbour", ". R-1 dry");
    }

    @Test
    void oneKindIsShownAloneAndCounted() {
        assertThat(names(OUTLINE.find("", ElementKind.PART, 10).lines()))
                .containsExactly("Harbour", ". pumps", "Town", ". pumphouse");
        assertThat(names(OUTLINE.find("tank", ElementKind.PART, 10).lines())).isEmpty();
        assertThat(OUTLINE.kinds())
                .containsEntry(ElementKind.PART, 2)
                .containsEntry(ElementKind.PART_DEFINITION, 2)
                .doesNotContainKey(ElementKind.SUBJECT);
    }

    @Test
    void ofVeryManyTheFirstAreGivenAndAllAreCounted() {
        Element big = Element.of(ElementKind.PACKAGE, null, Library.model().rankAtEnd(null), "Big");
        List<Element> all = new ArrayList<>(List.of(big));
        Rank.after(null, 3000)
                .forEach(rank -> all.add(Element.of(ElementKind.PART, big.id(), rank, "unit" + all.size())));
        Model model = ((EditResult.Applied) Library.model().apply(new Edit(all, Set.of()))).model();
        Outline.Found found = new Outline(model).find("unit", null, 100);
        assertThat(found.matches()).isEqualTo(3000);
        assertThat(found.lines()).hasSize(101);
        assertThat(new Outline(model).below(big.id())).hasSize(3000);
    }

    @Test
    void aPackageWithRequirementIdsOfItsOwnIsCalledASpecification() {
        Model model =
                Models.read("package Needs { private import Specifications::*; @Specification { prefix = \"N\"; } "
                        + "concern <'N-1'> dry; } package Gate;");
        assertThat(new Outline(model).below(null))
                .extracting(Line::keyword)
                .containsExactly("specification", "package");
    }
}
