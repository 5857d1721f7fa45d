package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Outcome;

class TableImportTest {
    private final Model model = Models.read("""
            package Gate {
                private import Specifications::*;
                @Specification { prefix = "G"; level = "system"; }
                requirement <'G-1'> a { doc /* The gate shall close. */ @Managed { priority = Priority::must; } }
            }""");

    private static List<List<String>> rows(String... rows) {
        return Arrays.stream(rows).map(row -> Arrays.stream(row.split("\\|", -1)).map(String::strip).toList()).toList();
    }

    private TableImport.Plan plan(List<List<String>> rows) {
        Structuring.Place place = new Structuring(model).below(Specification.all(model).getFirst().element());
        return TableImport.plan(model, place, TableImport.guess(model, rows), rows, count -> IntStream.range(0, count).mapToObj(i -> "G-" + (i + 7)).toList());
    }

    @Test
    void columnsAreKnownByTheirNamesAndRowsChangeOrAdd() {
        TableImport.Plan plan = plan(rows("ID | Requirement | status | colour", "G-1 | The gate shall shut. | proposed | red", " | The gate shall open. | | "));
        assertThat(plan.problems()).isEmpty();
        assertThat(plan.summary()).isEqualTo("from a table: 1 added, 1 changed");
        assertThat(plan.changes()).extracting(TableImport.Change::row, TableImport.Change::id, TableImport.Change::what).containsExactly(
                org.assertj.core.groups.Tuple.tuple(2, "G-1", "text"), org.assertj.core.groups.Tuple.tuple(2, "G-1", "status"), org.assertj.core.groups.Tuple.tuple(3, "G-7", "text"));
        Model imported = ((Outcome.Applied) model.apply(plan.edit())).model();
        Element a = imported.ownElements().stream().filter(each -> "G-1".equals(each.shortName())).findFirst().orElseThrow();
        assertThat(imported.inheritance().documentation(a)).isEqualTo("The gate shall shut.");
        assertThat(Attributes.in(imported).value(a, "status")).isEqualTo("proposed");
        assertThat(Attributes.in(imported).value(a, "priority")).isEqualTo("must");
        assertThat(Specification.all(imported).getFirst().requirements(imported)).extracting(Element::shortName).containsExactly("G-1", "G-7");
    }

    @Test
    void bareLinesAreTextsAndWhatIsThereAlreadyIsNoChange() {
        assertThat(plan(rows("The gate shall open.", "The gate shall tell.")).added()).hasSize(2);
        assertThat(plan(rows("id | text", "G-1 | The gate shall close.")).changes()).isEmpty();
    }

    @Test
    void whatIsWrongIsToldByItsRowAndNothingIsLost() {
        TableImport.Plan plan = plan(rows("id | text | status | priority", " | Ends /* here */ | | ", " | Good. | wrong | high", "G-9 | One. | | ", "G-9 | Two. | | "));
        assertThat(plan.problems()).extracting(TableImport.RowProblem::inWords).containsExactly(
                "row 2: a text cannot contain '*/', which ends it in the notation",
                "row 3: status is one of draft, proposed, approved, rejected, postponed, not 'wrong'",
                "row 3: priority is one of must, should, could, not 'high'",
                "row 5: the id G-9 stands in another row, too");
    }

    @Test
    void severalAttributesOfANewRowShareTheirMetadata() {
        TableImport.Plan plan = plan(rows("text | status | priority | source", "The gate shall open. | proposed | could | study"));
        Model imported = ((Outcome.Applied) model.apply(plan.edit())).model();
        Element made = imported.get(plan.added().getFirst());
        assertThat(Metadata.allOf(imported, made, Metadata.MANAGED)).hasSize(1);
        assertThat(Attributes.in(imported).value(made, "source")).isEqualTo("study");
    }
}
