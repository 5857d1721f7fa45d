package pyrite.core.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.hipparchus.fraction.Fraction;
import org.junit.jupiter.api.Test;

class DimensionTest {
    private static Dimension of(int length, int mass, int time) {
        return Dimension.parse("L^" + length + " M^" + mass + " T^" + time);
    }

    @Property
    void dividingUndoesMultiplying(
            @ForAll @IntRange(min = -4, max = 4) int a,
            @ForAll @IntRange(min = -4, max = 4) int b,
            @ForAll @IntRange(min = -4, max = 4) int c) {
        Dimension first = of(a, b, c);
        Dimension second = of(c, a, b);
        assertThat(first.times(second).per(second)).isEqualTo(first);
        assertThat(first.per(first)).isEqualTo(Dimension.ONE);
    }

    @Property
    void whatIsWrittenIsReadAgain(
            @ForAll @IntRange(min = -4, max = 4) int a, @ForAll @IntRange(min = -4, max = 4) int b) {
        Dimension dimension = of(a, b, -a).power(new Fraction(1, 2));
        assertThat(Dimension.parse(dimension.isOne() ? "" : dimension.toString()))
                .isEqualTo(dimension);
    }

    @Test
    void unitsAreWrittenAsPeopleWriteThem() {
        assertThat(Dimension.parse("L^2 M T^-3").unitSymbol()).isEqualTo("kg*m^2/s^3");
        assertThat(Dimension.parse("T^-1").unitSymbol()).isEqualTo("1/s");
        assertThat(Dimension.parse("L T^-2 M^-1").unitSymbol()).isEqualTo("m/(kg*s^2)");
        assertThat(Dimension.ONE.unitSymbol()).isEmpty();
    }

    @Test
    void aFactorThatIsNoneIsNamed() {
        assertThatThrownBy(() -> Dimension.parse("L 2"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("'2'");
    }
}
