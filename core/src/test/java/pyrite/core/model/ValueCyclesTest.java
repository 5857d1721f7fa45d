package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;

/**
 * Values that rest on themselves: told once for each circle, wherever it is come upon, and as soon in a long one as in
 * a short one.
 */
class ValueCyclesTest {
    /** {@code prefix0} names {@code first}, every other the one before it. */
    private static String chain(String prefix, int length, String first) {
        return IntStream.range(0, length)
                .mapToObj(
                        i -> "attribute " + prefix + i + " : Real = " + (i == 0 ? first : prefix + (i - 1)) + " + 1;\n")
                .collect(Collectors.joining());
    }

    private static List<String> circles(String members) {
        return Models.problemsOf(members);
    }

    @Test
    void whatRestsOnACircleIsNotInIt() {
        assertThat(
                        circles(
                                "attribute a : Real = b; attribute b : Real = a; attribute c : Real = a + b; attribute d : Real = c;"))
                .singleElement()
                .asString()
                .contains("in a circle: a → b → a");
    }

    @Test
    void twoCirclesThroughOneValueAreTold() {
        assertThat(circles("attribute a : Real = b; attribute b : Real = a + c; attribute c : Real = b;"))
                .anyMatch(problem -> problem.contains("a → b → a"))
                .anyMatch(problem -> problem.contains("b → c → b"))
                .hasSize(2);
    }

    @Test
    void theShortestWayRoundIsShown() {
        assertThat(
                        circles(
                                "attribute a : Real = b + d; attribute b : Real = c; attribute c : Real = d; attribute d : Real = a;"))
                .anyMatch(problem -> problem.contains("a → d → a"));
    }

    @Test
    void aCircleOfThousandsIsToldOnceWithItsBeginningAndItsEnd() {
        assertThat(circles(chain("a", 5000, "a4999")))
                .singleElement()
                .asString()
                .contains("in a circle: a0 → a4999 → a4998 → a4997 → "
                        + "a4996 → a4995 → … 4990 more … → a4 → a3 → a2 → a1 → a0");
    }

    /** Each of the thousands leads into the circle and none is in it. */
    @Test
    void thousandsBehindACircleAreNotTold() {
        assertThat(circles("attribute x : Real = y; attribute y : Real = x;" + chain("a", 5000, "x")))
                .singleElement()
                .asString()
                .contains("x → y → x");
    }
}
