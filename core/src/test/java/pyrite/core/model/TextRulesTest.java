package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Models;

class TextRulesTest {
    @ParameterizedTest
    @ValueSource(strings = {"\0", "\u0007", "\u001B", "\uD83D", "\uDE00\uD83D", "\uFFFF"})
    void aTextWithACharacterThatNobodyCanSeeIsRefusedWithItsPlace(String character) {
        Model model = Models.of("part gate { doc /* A gate. */ }");
        Element gate = Models.element(model, "Test::gate");
        Element doc = model.children(gate.id()).getFirst();
        EditResult refused =
                model.apply(Edit.put(doc.with(pyrite.core.model.Property.TEXT, "A" + character + " gate.")));
        assertThat(((EditResult.Refused) refused).problems().getFirst().message())
                .isEqualTo("its text has a character that no text may hold, U+%04X behind 'A'; remove it"
                        .formatted((int) character.charAt(0)));
        assertThat(model.apply(Edit.put(gate.withName("a" + character)))).isInstanceOf(EditResult.Refused.class);
    }

    /** Against the clause: a code point is Char if it is one of its ranges. */
    @Property
    void whatIsForbiddenIsWhatXmlForbids(@ForAll String text) {
        int expected = -1;
        for (int i = 0; i < text.length() && expected < 0; ) {
            int point = text.codePointAt(i);
            boolean isChar = point == 0x9
                    || point == 0xA
                    || point == 0xD
                    || point >= 0x20 && point <= 0xD7FF
                    || point >= 0xE000 && point <= 0xFFFD
                    || point >= 0x10000;
            expected = isChar ? -1 : i;
            i += Character.charCount(point);
        }
        assertThat(TextRules.firstForbidden(text).orElse(-1)).isEqualTo(expected);
    }

    @Test
    void signsOfEveryScriptAreAllowed() {
        assertThat(TextRules.firstForbidden("Tor zu – 門 🌊\n\t")).isEmpty();
    }
}
