package pyrite.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** The packages of core use each other in one direction only, and none of them knows of pages or tables. */
class ArchitectureTest {
    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("pyrite.core");

    @Test
    void packagesHaveNoCircles() {
        slices().matching("pyrite.core.(*)..").should().beFreeOfCycles().check(CORE);
    }

    @Test
    void packagesUseOnlyWhatStandsBelowThem() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("expression")
                .definedBy("pyrite.core.expression..")
                .layer("model")
                .definedBy("pyrite.core.model..")
                .layer("structure")
                .definedBy("pyrite.core.structure..")
                .layer("notation")
                .definedBy("pyrite.core.notation..")
                .layer("history")
                .definedBy("pyrite.core.history..")
                .layer("specification")
                .definedBy("pyrite.core.specification..")
                .layer("trace")
                .definedBy("pyrite.core.trace..")
                .layer("dynamics")
                .definedBy("pyrite.core.dynamics..")
                .layer("execution")
                .definedBy("pyrite.core.execution..")
                .layer("sequence")
                .definedBy("pyrite.core.sequence..")
                .layer("view")
                .definedBy("pyrite.core.view..")
                .layer("verification")
                .definedBy("pyrite.core.verification..")
                .layer("exchange")
                .definedBy("pyrite.core.exchange..")
                .whereLayer("exchange")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("verification")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("view")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("history")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("trace")
                .mayOnlyBeAccessedByLayers("view", "exchange")
                .whereLayer("specification")
                .mayOnlyBeAccessedByLayers("trace", "view", "exchange")
                .whereLayer("dynamics")
                .mayOnlyBeAccessedByLayers("execution", "sequence", "verification", "view")
                .whereLayer("execution")
                .mayOnlyBeAccessedByLayers("sequence", "verification")
                .whereLayer("sequence")
                .mayOnlyBeAccessedByLayers("verification", "view")
                .whereLayer("notation")
                .mayOnlyBeAccessedByLayers("specification", "trace", "sequence", "verification", "view", "exchange")
                .check(CORE);
    }

    @Test
    void coreKnowsNoSpringWebOrSql() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.springframework..", "java.sql..", "jakarta..", "java.net.http..")
                .check(CORE);
    }
}
