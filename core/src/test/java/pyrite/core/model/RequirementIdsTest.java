package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Models;

class RequirementIdsTest {
    @Test
    void anIdIsAPrefixAHyphenAndANumber() {
        assertThat(RequirementIds.parse("MG-12")).contains(new RequirementIds.Numbered("MG", 12));
        assertThat(RequirementIds.parse("MG-SYS-007")).contains(new RequirementIds.Numbered("MG-SYS", 7));
        assertThat(RequirementIds.parse("gate panel-999999999"))
                .contains(new RequirementIds.Numbered("gate panel", 999_999_999));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "-", "-1", "MG-", "MG12", "MG-1a", "MG-1234567890", "MG -1", "MG-١"})
    void everythingElseIsNone(String text) {
        assertThat(RequirementIds.parse(text)).isEmpty();
    }

    @Test
    void numbersCountAsNumbersAndOtherIdsStandFirst() {
        assertThat(Stream.of("MG-10", "N-1", "MG-2", "b", "MG-1", "aa", "MG-02").sorted(RequirementIds.ORDER))
                .containsExactly("b", "aa", "MG-1", "MG-2", "MG-02", "MG-10", "N-1");
    }

    @Test
    void elementsAreSortedByTheIdsTheyHaveOrInherit() {
        Model model = Models.of(
                "requirement def <'R-10'> Late; requirement late : Late; requirement <'R-9'> early; requirement plain;");
        Stream<Element> all = Stream.of("late", "early", "plain").map(name -> Models.element(model, "Test::" + name));
        assertThat(RequirementIds.sorted(model, all))
                .extracting(Element::name)
                .containsExactly("plain", "early", "late");
    }

    @Provide
    Arbitrary<String> ids() {
        return Arbitraries.oneOf(
                Arbitraries.strings().withChars("MG-1 2").ofMaxLength(6),
                Arbitraries.integers().between(0, 30).map(number -> "MG-" + number),
                Arbitraries.strings().alpha().ofMaxLength(3));
    }

    /** Laws of an order: only what is equal is neither before nor after, and what is sorted once stays. */
    @Property(tries = 500)
    void theOrderIsTotal(@ForAll("ids") String a, @ForAll("ids") String b, @ForAll("ids") String c) {
        int ab = RequirementIds.ORDER.compare(a, b);
        assertThat(Integer.signum(RequirementIds.ORDER.compare(b, a))).isEqualTo(-Integer.signum(ab));
        assertThat(ab == 0).isEqualTo(a.equals(b));
        List<String> sorted = Stream.of(a, b, c).sorted(RequirementIds.ORDER).toList();
        assertThat(RequirementIds.ORDER.compare(sorted.getFirst(), sorted.getLast()))
                .isLessThanOrEqualTo(0);
    }
}
