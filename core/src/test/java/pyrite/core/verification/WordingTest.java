package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Unit;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.ElementId;

class WordingTest {
    private static final DisplayUnit MINUTE = new DisplayUnit("min", new Unit(60, 0, Dimension.parse("T")));

    @ParameterizedTest
    @CsvSource({"0,0", "1234.56,1235", "0.000123456,0.0001235", "12345678,1.235E+7", "-2.5,-2.5", "100,100"})
    void numbersHaveFourDigits(double value, String text) {
        assertThat(Wording.number(value)).isEqualTo(text);
    }

    @Test
    void whatIsNoNumberIsSaidSo() {
        assertThat(Wording.number(Double.NaN)).isEqualTo("no value");
        assertThat(Wording.number(Double.NEGATIVE_INFINITY)).isEqualTo("−∞");
    }

    @Test
    void comparisonsSayWhatIsRequiredWhereItIsNotMet() {
        assertThat(Wording.comparison(480, Operator.LESS_OR_EQUAL, 600, MINUTE, true)).isEqualTo("8 min ≤ 10 min");
        assertThat(Wording.comparison(660, Operator.LESS_OR_EQUAL, 600, MINUTE, false)).isEqualTo("11 min, but ≤ 10 min is required");
    }

    @Test
    void headingsWithCommasAreQuotedInTables() {
        StringWriter out = new StringWriter();
        SeriesTable.write(new double[] {0, 1}, List.of(
                new CaseRun.Series("a,b", ElementId.ofLibrary("x"), "m", new double[] {1, 2}),
                new CaseRun.Series("c", ElementId.ofLibrary("x"), "", new double[] {3, 4})), new PrintWriter(out));
        assertThat(out.toString()).isEqualTo("time [s],\"a,b [m]\",c\n0.0,1.0,3.0\n1.0,2.0,4.0\n");
    }

    @Test
    void marginsOfDifferentDimensionsAreWeighedByTheirSize() {
        Margin small = new Margin(1, 1000, Dimension.parse("M"), DisplayUnit.coherent(Dimension.parse("M")));
        Margin large = new Margin(0.5, 1, Dimension.parse("L"), DisplayUnit.coherent(Dimension.parse("L")));
        Assessment a = new Assessment(true, small, null, null, "a");
        Assessment b = new Assessment(true, large, null, null, "b");
        Assessment fails = new Assessment(false, large.negated(), null, null, "c");
        assertThat(Assessment.weaker(a, b)).isEqualTo(a);
        assertThat(Assessment.stronger(a, b)).isEqualTo(b);
        assertThat(Assessment.weaker(a, fails)).isEqualTo(fails);
        assertThat(Assessment.stronger(a, fails)).isEqualTo(a);
    }
}
