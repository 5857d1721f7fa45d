package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/** The kinds of wording that ISO/IEC/IEEE 29148:2018, 5.2.7, advises against, each with a sentence that has it. */
class WordingCheckTest {
    private static List<String> findings(String text) {
        return WordingCheck.of(text, false).stream()
                .map(finding -> finding.rule().key() + (finding.words().isEmpty() ? "" : ": " + finding.words()))
                .toList();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            The gate shall close quickly after the warning.                    | vague: quickly
            The siren shall sound for adequate time.                           | vague: adequate
            The log shall hold faults, alarms, etc.                            | unbounded: etc
            The drive shall stop if possible.                                  | escape: if possible
            The drive should stop on the order.                                | no-shall
            The gate shall rise when it has power.                             | pronoun: it
            The gate shall sound siren and/or horn.                            | and-or: and/or
            The alarm shall be raised.                                         | passive: shall be raised
            The gate shall close within the agreed span of the harbour order.  | no-value: within
            The gate shall close within 10 of the warning.                     | no-unit: 10
            The water shall stand at least below the sill.                     | no-value: at least
            The crew shall grease the hinge often.                             | escape: often
            The gate shall close, and the siren shall stop.                    | several: shall
            """)
    void eachRuleFindsWhatItIsFor(String text, String finding) {
        assertThat(findings(text)).contains(finding);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            The gate shall close within 10 min of the warning.
            The leaf shall touch the stop at no more than 0.02 m/s.
            The battery shall hold at least a fifth of its capacity.
            The leaf shall be raised by two cylinders.
            The controller shall send its state each 2 s.
            The closed leaf shall stand 7.3 m high at least.
            One pump shall raise the leaf at half the speed at least.
            The cylinders shall stay a tenth below their rated pressure.
            The hinge shall need grease no more often than each 1500 h of use.
            Six hours after the warning nothing of the channel shall be open.
            """)
    void aSentenceThatSaysWhatCanBeMeasuredIsLeftAlone(String text) {
        assertThat(findings(text)).isEmpty();
    }

    @Test
    void aFindingHasItsPlaceAndItsReason() {
        WordingCheck.Finding finding =
                WordingCheck.of("The gate shall close quickly.", false).getFirst();
        assertThat(finding.span().start()).isEqualTo(21);
        assertThat(finding.span().end()).isEqualTo(28);
        assertThat(finding.rule().why()).isNotEmpty();
    }

    @Test
    void aNeedIsToldInSomebodysOwnWords() {
        assertThat(WordingCheck.of("They want it to be quick, and/or cheap.", true))
                .extracting(WordingCheck.Finding::rule)
                .containsExactly(WordingCheck.Rule.AND_OR);
    }

    @Test
    void aWaiverIsKeptWithItsReasonAndTakenAway() {
        Model model = Models.of("requirement <'R'> r { doc /* It is closed. */ }");
        Element r = model.ownElements().stream()
                .filter(each -> each.kind() == ElementKind.REQUIREMENT)
                .findFirst()
                .orElseThrow();
        Model waived = ((EditResult.Applied)
                        model.apply(Waivers.put(model, r, WordingCheck.Rule.PRONOUN.key(), "the gate is meant")))
                .model();
        assertThat(Waivers.of(waived, waived.get(r.id()))).containsExactly(Map.entry("pronoun", "the gate is meant"));
        Model back = ((EditResult.Applied)
                        waived.apply(Waivers.put(waived, waived.get(r.id()), WordingCheck.Rule.PRONOUN.key(), "")))
                .model();
        assertThat(Waivers.of(back, back.get(r.id()))).isEmpty();
    }

    @Test
    void tenThousandWordsAreLookedAtAtOnce() {
        assertThat(WordingCheck.of(
                        "The gate shall be closed within the order of the day and shall be ".repeat(2000), false))
                .isNotEmpty();
    }
}
