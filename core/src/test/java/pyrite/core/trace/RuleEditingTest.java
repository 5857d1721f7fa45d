package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.trace.RuleEditing.Request;

class RuleEditingTest {
    private static final Model BARE = Models.read("package Gate { requirement <'G-1'> a; }");

    private static String text(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    @Test
    void aFirstRuleMakesThePackageOfRulesAndFurtherOnesGoIntoIt() {
        Model one = Harbour.applied(
                BARE,
                new RuleEditing(BARE)
                        .put(null, new Request("derive", " subsystem ", "system", 1, 2, "text"))
                        .edit());
        Model two = Harbour.applied(
                one,
                new RuleEditing(one)
                        .put(null, new Request("derive", "system", "need", 0, 0, ""))
                        .edit());
        assertThat(text(two))
                .containsOnlyOnce("package LinkRules")
                .contains("deriveRule", "deriveRule2", "'from' = \"subsystem\";", "leastFrom = 1;", "leastTo = 2;");
        assertThat(two.ownRoots()).hasSize(2);
        assertThat(Models.read(text(two)).ownElements()).hasSameSizeAs(two.ownElements());
    }

    @Test
    void aRuleOfTheProjectIsWrittenAnew() {
        Model one = Harbour.applied(
                BARE,
                new RuleEditing(BARE)
                        .put(null, new Request("derive", "subsystem", "system", 1, 0, ""))
                        .edit());
        var rule = Models.element(one, "LinkRules::deriveRule");
        Model two = Harbour.applied(
                one,
                new RuleEditing(one)
                        .put(rule, new Request("derive", "system", "need", 0, 3, ""))
                        .edit());
        assertThat(two.has(rule.id())).isTrue();
        assertThat(text(two))
                .contains("'from' = \"system\";", "'to' = \"need\";", "leastTo = 3;")
                .doesNotContain("subsystem", "leastFrom", "deriveRule2");
    }

    @Test
    void aKindOfLinkIsAddedAndHasBothItsWords() {
        Model model = Harbour.applied(
                BARE,
                new RuleEditing(BARE).kind("conflicts", "conflicts with", "").edit());
        LinkKind kind = LinkKind.named(model, "conflicts").orElseThrow();
        assertThat(kind.forward()).isEqualTo("conflicts with");
        assertThat(kind.backward()).isEqualTo("conflicts with");
        Model more = Harbour.applied(
                model,
                new RuleEditing(model).kind("fixes", "fixes", "is fixed by").edit());
        assertThat(LinkKind.named(more, "fixes").orElseThrow().backward()).isEqualTo("is fixed by");
        assertThat(new RuleEditing(more)
                        .put(null, new Request("fixes", "system", "need", 0, 0, ""))
                        .problem())
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "nothing | system | need | there is no kind of link called nothing",
                "derive  | ''     | need | a rule says what a link may lead from and to",
                "derive  | system | ' '  | a rule says what a link may lead from and to"
            })
    void aRuleThatSaysTooLittleIsRefused(String kind, String from, String to, String problem) {
        RuleEditing.Proposal proposal = new RuleEditing(BARE).put(null, new Request(kind, from, to, 0, 0, ""));
        assertThat(proposal.problem()).contains(problem);
        assertThat(proposal.edit().put()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "derive    | is fine | a key of letters and digits that no other has",
                "two words | is fine | a key of letters and digits that no other has",
                "2nd       | is fine | a key of letters and digits that no other has",
                "conflicts | ' '     | say how the one end is to the other"
            })
    void aKindThatCannotBeToldApartIsRefused(String key, String forward, String problem) {
        assertThat(new RuleEditing(BARE).kind(key, forward, "").problem()).contains(problem);
    }
}
