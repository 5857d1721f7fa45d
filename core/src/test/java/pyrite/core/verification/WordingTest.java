package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WordingTest {
    @ParameterizedTest
    @CsvSource({
        "0, 0 s",
        "50, 50 s",
        "-3.25, -3.25 s",
        "599.5, 599.5 s",
        "600, 10 min",
        "-900, -15 min",
        "5400, 90 min",
        "7199.4, 119.99 min",
        "7200, 2 h",
        "21600, 6 h",
        "100000, 27.7778 h"
    })
    void anInstantIsSaidInTheUnitPeopleWouldSayItIn(double t, String said) {
        assertThat(Wording.instant(t)).isEqualTo(said);
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0",
        "-0.0, 0",
        "1234.56, 1235",
        "0.000123456, 0.0001235",
        "0.0000123456, 0.00001235",
        "12345678, 1.235E+7",
        "1e300, 1E+300",
        "2.5, 2.5",
        "99999, 100000",
        "-0.5, -0.5",
        "NaN, no value",
        "Infinity, ∞",
        "-Infinity, −∞"
    })
    void aNumberHasFourDigitsAndAnExponentOnlyWhereItIsVeryLargeOrSmall(double value, String said) {
        assertThat(Wording.number(value)).isEqualTo(said);
    }
}
