package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

class TableImportTest {
    private final Model model = Models.read("""
            package Gate {
                private import Specifications::*;
                @Specification { prefix = "G"; level = "system"; }
                requirement <'G-1'> a { doc /* The gate shall close. */ @Managed { priority = Priority::must; } }
            }""");

    private static List<List<String>> rows(String... rows) {
        return Arrays.stream(rows)
                .map(row ->
                        Arrays.stream(row.split("\\|", -1)).map(String::strip).toList())
                .toList();
    }

    private TableImport.Plan plan(List<List<String>> rows) {
        Structuring.Place place =
                new Structuring(model).below(Specification.all(model).getFirst().element());
        return TableImport.plan(
                model,
                place,
                ColumnGuess.of(model, rows),
                rows,
                count -> IntStream.range(0, count).mapToObj(i -> "G-" + (i + 7)).toList());
    }

    @Test
    void columnsAreKnownByTheirNamesAndRowsChangeOrAdd() {
        TableImport.Plan plan = plan(rows(
                "ID | Requirement | status | colour",
                "G-1 | The gate shall shut. | proposed | red",
                " | The gate shall open. | | "));
        assertThat(plan.problems()).isEmpty();
        assertThat(plan.summary()).isEqualTo("from a table: 1 added, 1 changed; left out: column 4");
        assertThat(plan.changes())
                .extracting(TableImport.Change::row, TableImport.Change::id, TableImport.Change::what)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(2, "G-1", "text"),
                        org.assertj.core.groups.Tuple.tuple(2, "G-1", "status"),
                        org.assertj.core.groups.Tuple.tuple(3, "G-7", "text"));
        Model imported = ((EditResult.Applied) model.apply(plan.edit())).model();
        Element a = imported.ownElements().stream()
                .filter(each -> "G-1".equals(each.shortName()))
                .findFirst()
                .orElseThrow();
        assertThat(imported.inheritance().documentation(a)).isEqualTo("The gate shall shut.");
        assertThat(Attributes.in(imported).value(a, "status")).isEqualTo("proposed");
        assertThat(Attributes.in(imported).value(a, "priority")).isEqualTo("must");
        assertThat(Specification.all(imported).getFirst().requirements(imported))
                .extracting(Element::shortName)
                .containsExactly("G-1", "G-7");
    }

    @Test
    void bareLinesAreTextsAndWhatIsThereAlreadyIsNoChange() {
        assertThat(plan(rows("The gate shall open.", "The gate shall tell.")).added())
                .hasSize(2);
        assertThat(plan(rows("id | text", "G-1 | The gate shall close.")).changes())
                .isEmpty();
    }

    @Test
    void whatIsWrongIsToldByItsRowAndNothingIsLost() {
        TableImport.Plan plan = plan(rows(
                "id | text | status | priority",
                " | Ends /* here */ | | ",
                " | Good. | wrong | high",
                "G-9 | One. | | ",
                "G-9 | Two. | | "));
        assertThat(plan.problems())
                .extracting(TableImport.RowProblem::inWords)
                .containsExactly(
                        "row 2: a text cannot contain '*/', which ends it in the notation",
                        "row 3: status is one of draft, proposed, approved, rejected, postponed, not 'wrong'",
                        "row 3: priority is one of must, should, could, not 'high'",
                        "row 5: the id G-9 stands in another row, too");
    }

    @Test
    void severalAttributesOfANewRowShareTheirMetadata() {
        TableImport.Plan plan =
                plan(rows("text | status | priority | source", "The gate shall open. | proposed | could | study"));
        Model imported = ((EditResult.Applied) model.apply(plan.edit())).model();
        Element made = imported.get(plan.added().getFirst());
        assertThat(Metadata.allOf(imported, made, Metadata.MANAGED)).hasSize(1);
        assertThat(Attributes.in(imported).value(made, "source")).isEqualTo("study");
    }

    @Test
    void namesAndHeadingsComeWithTheRows() {
        TableImport.Plan plan = plan(rows(
                "id | heading | name | text | priority",
                " | | first | The gate shall open.",
                " | Closing | | ",
                "G-1 | | shuts | ",
                " | | soft | The gate shall close softly. | could",
                " | Closing | | The gate shall close in storms.",
                " | Power | saves | The gate shall save power.",
                " | Closing | late | The gate shall close late."));
        assertThat(plan.problems()).isEmpty();
        assertThat(plan.summary()).isEqualTo("from a table: 5 added, 1 changed, 2 headings");
        Model imported = ((EditResult.Applied) model.apply(plan.edit())).model();
        assertThat(Specification.all(imported).getFirst().items(imported))
                .extracting(item -> item.type() + " " + item.element().shortName() + " "
                        + item.element().name())
                .containsExactly(
                        "REQUIREMENT G-1 shuts",
                        "REQUIREMENT G-7 first",
                        "HEADING null Closing",
                        "REQUIREMENT G-8 soft",
                        "REQUIREMENT G-9 null",
                        "REQUIREMENT G-11 late",
                        "HEADING null Power",
                        "REQUIREMENT G-10 saves");
        assertThat(Attributes.in(imported).value(Models.element(imported, "Gate::Closing::soft"), "priority"))
                .isEqualTo("could");
        // A second import finds the headings again.
        List<List<String>> more = rows("heading | text", "Power | The gate shall store power.");
        TableImport.Plan again = TableImport.plan(
                imported,
                new Structuring(imported)
                        .below(Specification.all(imported).getFirst().element()),
                ColumnGuess.of(imported, more),
                more,
                _ -> List.of("G-20"));
        assertThat(again.summary()).isEqualTo("from a table: 1 added");
        Model twice = ((EditResult.Applied) imported.apply(again.edit())).model();
        assertThat(twice.names()
                        .qualifiedName(
                                twice.get(twice.get(again.added().getFirst()).owner())))
                .isEqualTo("Gate::Power");
    }

    /** Headings and names of a large table are found without going through all of it again for each row. */
    @Test
    void aLargeTableHasAHeadingAndANameInEachRow() {
        int size = 20_000;
        List<List<String>> rows = new ArrayList<>(rows("heading | name | text"));
        for (int i = 0; i < size; i++) {
            rows.add(List.of("H" + i / 2, "n" + i, "The gate shall do " + i + "."));
        }
        TableImport.Plan plan = plan(rows);
        assertThat(plan.problems()).isEmpty();
        assertThat(plan.summary()).isEqualTo("from a table: 20000 added, 10000 headings");
        assertThat(model.apply(plan.edit())).isInstanceOf(EditResult.Applied.class);
    }

    @Test
    void aNameThatIsTakenIsToldByItsRow() {
        assertThat(plan(rows(
                                "id | name | heading | text",
                                " | a | | Same as G-1.",
                                " | b | | One.",
                                " | b | | Two.",
                                " | c | a | Three."))
                        .problems())
                .extracting(TableImport.RowProblem::inWords)
                .containsExactly(
                        "row 2: the name 'a' is taken beside it",
                        "row 4: the name 'b' is taken beside it",
                        "row 5: 'a' is the name of a requirement there, so no heading can have it");
    }

    private List<String> guessed(String... rows) {
        return ColumnGuess.of(model, rows(rows)).columns();
    }

    /** Where the first row names nothing, the longest cell is the text, and an id before it the id. */
    @Test
    void withoutNamesTheColumnsAreGuessedByWhatStandsInThem() {
        assertThat(guessed("G-4 | The gate shall hold the water back.")).containsExactly("id", "text");
        assertThat(guessed("north | The gate shall hold the water back. | must"))
                .containsExactly("", "text", "");
        assertThat(ColumnGuess.of(model, rows("The gate shall hold.")).headed()).isFalse();
        assertThat(guessed("Nr | Statement | Priority")).hasSize(3).contains("text", "priority");
    }

    /** Names of columns that nobody knows are still names, where the rows below say far more. */
    @Test
    void aFirstRowOfUnknownNamesIsNoRequirement() {
        List<List<String>> rows = rows(
                "Item | Was gilt | Prio",
                "G-4 | The gate shall hold the water back. | must",
                "G-5 | The gate shall tell how far it has closed. | could");
        assertThat(ColumnGuess.of(model, rows).headed()).isTrue();
        assertThat(ColumnGuess.of(model, rows).columns()).containsExactly("id", "text", "");
        assertThat(guessed("Nr | Wording | State | Prio | Chapter | Title"))
                .containsExactly("id", "text", "", "priority", "heading", "name");
        assertThat(ColumnGuess.of(model, rows("north | open", "south | shut")).headed())
                .isFalse();
    }

    @Test
    void columnsThatMeanNothingHereAreNamed() {
        TableImport.Plan plan =
                plan(rows("text | colour | status | weight", "The gate shall open. | red | proposed | "));
        assertThat(plan.leftOut()).containsExactly(2);
        assertThat(plan.summary()).isEqualTo("from a table: 1 added; left out: column 2");
        assertThat(plan(rows("The gate shall tell.")).summary()).isEqualTo("from a table: 1 added");
    }

    @Test
    void emptyRowsAreLeftOutAndShortOnesAreTakenAsFarAsTheyGo() {
        TableImport.Plan plan = plan(rows("id | text | status", " | | proposed", " | The gate shall open.", "G-1"));
        assertThat(plan.problems()).isEmpty();
        assertThat(plan.added()).hasSize(1);
        assertThat(plan.changed()).isZero();
        assertThat(plan.summary()).isEqualTo("from a table: 1 added");
        assertThat(plan(rows("id | text", " | ")).summary()).isEqualTo("from a table: nothing new");
    }

    @Test
    void aTextComesToARequirementThatHadNone() {
        Model bare = Models.read("package Gate { private import Specifications::*; @Specification { prefix = \"G\"; "
                + "level = \"system\"; } requirement <'G-1'> a { attribute depth = 3; } }");
        Structuring.Place place =
                new Structuring(bare).below(Specification.all(bare).getFirst().element());
        List<List<String>> rows = rows("id | text", "G-1 | The gate shall close.");
        TableImport.Plan plan = TableImport.plan(bare, place, ColumnGuess.of(bare, rows), rows, _ -> List.of());
        Model imported = ((EditResult.Applied) bare.apply(plan.edit())).model();
        assertThat(imported.inheritance()
                        .documentation(imported.ownElements().stream()
                                .filter(each -> "G-1".equals(each.shortName()))
                                .findFirst()
                                .orElseThrow()))
                .isEqualTo("The gate shall close.");
    }

    @Test
    void whatIsPutBetweenTwoStandsBetweenThem() {
        Model two = Models.read(
                "package Gate { private import Specifications::*; @Specification { prefix = \"G\"; level = \"system\"; }"
                        + " requirement <'G-1'> a { doc /* One. */ } requirement <'G-2'> b { doc /* Two. */ } }");
        Element first = two.ownElements().stream()
                .filter(each -> "G-1".equals(each.shortName()))
                .findFirst()
                .orElseThrow();
        List<List<String>> rows = rows("id | text", "G-5 | Between.", "G-6 | Also between.");
        TableImport.Plan plan = TableImport.plan(
                two, new Structuring(two).after(first), ColumnGuess.of(two, rows), rows, _ -> List.of());
        Model imported = ((EditResult.Applied) two.apply(plan.edit())).model();
        assertThat(Specification.all(imported).getFirst().requirements(imported))
                .extracting(Element::shortName)
                .containsExactly("G-1", "G-5", "G-6", "G-2");
    }

    @Test
    void inASpecificationOfNeedsRowsBecomeNeeds() {
        Model needs = Models.read(
                "package Needs { private import Specifications::*; @Specification { prefix = \"N\"; level = \"need\"; } }");
        Structuring.Place place =
                new Structuring(needs).below(Specification.all(needs).getFirst().element());
        List<List<String>> rows = rows("id | text", "N-1 | I want to pass at night.");
        Model imported = ((EditResult.Applied)
                        needs.apply(TableImport.plan(needs, place, ColumnGuess.of(needs, rows), rows, _ -> List.of())
                                .edit()))
                .model();
        assertThat(imported.ownElements(pyrite.core.model.ElementKind.CONCERN))
                .extracting(Element::shortName)
                .containsExactly("N-1");
    }
}
