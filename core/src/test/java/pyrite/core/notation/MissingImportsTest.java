package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class MissingImportsTest {
    private static final Model MODEL = Models.of("""
            package Drives { part def Pump { part def Inner; } part def 'Gear Box'; }
            package Spares { part def Pump; }
            """);

    @Test
    void whatStandsInAPackageCanBeImported() {
        assertThat(MissingImports.of(MODEL, "Pump")).containsExactly("Test::Drives::Pump", "Test::Spares::Pump");
        assertThat(MissingImports.of(MODEL, "Gear Box")).containsExactly("Test::Drives::'Gear Box'");
        assertThat(MissingImports.of(MODEL, "MassValue")).contains("ISQ::MassValue");
    }

    @Test
    void aUnitWithAPrefixComesWithAllOfSi() {
        assertThat(MissingImports.of(MODEL, "kWh")).containsExactly("SI::*");
        assertThat(MissingImports.of(MODEL, "kkg")).isEmpty();
        assertThat(Models.tryRead("package A { attribute e = 3 [kWh]; }").problems())
                .extracting(TextProblem::message)
                .containsExactly("there is no unit 'kWh' here; 'private import SI::*;' brings it");
        assertThat(Models.tryRead("package A { attribute e = 3 [nonsenses]; }").problems())
                .extracting(TextProblem::message)
                .containsExactly("there is no unit 'nonsenses'; units come with 'private import SI::*;'");
    }

    @Test
    void whatStandsInADefinitionOrNowhereCannot() {
        assertThat(MissingImports.of(MODEL, "Inner")).isEmpty();
        assertThat(MissingImports.of(MODEL, "Nothing")).isEmpty();
    }
}
