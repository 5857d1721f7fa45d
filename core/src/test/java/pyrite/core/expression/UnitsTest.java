package pyrite.core.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import javax.measure.Unit;
import javax.measure.format.UnitFormat;
import javax.measure.spi.ServiceProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.Validates;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** The units of the library against an independent implementation (JSR 385) and the SI Brochure. */
@Validates(what = "units of the library", against = "the reference implementation of JSR 385; SI Brochure, 9th ed.")
class UnitsTest {
    private static pyrite.core.expression.Unit ours(String symbol) {
        Model model = Models.of("attribute x = 1 [" + (symbol.matches("[Ω%°].*") ? "'" + symbol + "'" : symbol) + "];");
        Element x = Models.element(model, "Test::x");
        Expression.Quantity quantity = (Expression.Quantity)
                x.get(pyrite.core.model.Property.VALUE).orElseThrow().expression();
        return Units.of(quantity.unit(), model.environment());
    }

    @ParameterizedTest
    @CsvSource({
        "m,m",
        "km,km",
        "mg,mg",
        "N,N",
        "kN*m,kN·m",
        "m^3/s,m³/s",
        "Pa,Pa",
        "hPa,hPa",
        "J,J",
        "W,W",
        "V,V",
        "Ω,Ω",
        "F,F",
        "Wb,Wb",
        "T,T",
        "H,H",
        "Hz,Hz",
        "lm,lm",
        "lx,lx",
        "kat,kat",
        "C,C",
        "S,S",
        "kg/m^3,kg/m³",
        "m/s^2,m/s²"
    })
    void factorsAgreeWithTheReferenceImplementation(String symbol, String reference) throws Exception {
        UnitFormat format = ServiceProvider.current().getFormatService().getUnitFormat();
        Unit<?> theirs = format.parse(reference);
        double factor = theirs.getConverterToAny(theirs.getSystemUnit()).convert(1.0);
        assertThat(ours(symbol).factor()).isCloseTo(factor, within(1e-12 * factor));
    }

    @ParameterizedTest
    @CsvSource({
        "min,60",
        "h,3600",
        "d,86400",
        "t,1000",
        "bar,100000",
        "L,0.001",
        "mL,1e-6",
        "kWh,3.6e6",
        "ha,10000",
        "kn,0.5144444444444445",
        "deg,0.017453292519943295",
        "eV,1.602176634e-19",
        "rpm,0.10471975511965977",
        "%,0.01"
    })
    void acceptedUnitsHaveTheFactorsOfTheBrochure(String symbol, double factor) {
        assertThat(ours(symbol).factor()).isCloseTo(factor, within(1e-12 * factor));
    }

    @Test
    void degreesCelsiusCountFromTheIcePoint() {
        assertThat(ours("°C").toSi(20)).isCloseTo(293.15, within(1e-9));
        assertThat(ours("°C").fromSi(273.15)).isCloseTo(0, within(1e-9));
    }

    @Test
    void whatIsNoUnitIsRefusedWithTheNearestOne() {
        assertThat(Models.problemsOf("attribute x = 1 [metr];"))
                .singleElement()
                .asString()
                .contains("there is no unit 'metr'")
                .contains("did you mean 'metre'?");
        assertThat(Models.problemsOf("attribute x = 1 [kkg];"))
                .singleElement()
                .asString()
                .contains("'kkg'");
        assertThat(Models.problemsOf("attribute x = 1 [kmin];"))
                .singleElement()
                .asString()
                .contains("'kmin'");
    }

    @Test
    void theMinuteAndTheMinimumDoNotGetInEachOthersWay() {
        Model model = Models.of("attribute t : TimeValue = min(2 [min], 90 [s]);");
        assertThat(Models.element(model, "Test::t")).isNotNull();
    }
}
