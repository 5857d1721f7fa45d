package pyrite.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** The packages of the application use each other in one direction only, and only one of them knows of tables. */
class ArchitectureTest {
    private static final JavaClasses APP = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("pyrite.app");

    @Test
    void packagesHaveNoCycles() {
        slices().matching("pyrite.app.(*)..").should().beFreeOfCycles().check(APP);
    }

    @Test
    void onlyTheStoreKnowsOfTables() {
        noClasses()
                .that()
                .resideOutsideOfPackages("pyrite.app.store..", "pyrite.app.start..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.apache.ibatis..", "java.sql..", "javax.sql..", "org.h2..")
                .check(APP);
    }

    @Test
    void theSharedPackagesKnowNoStation() {
        noClasses()
                .that()
                .resideInAnyPackage("pyrite.app.workspace..", "pyrite.app.store..", "pyrite.app.security..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "pyrite.app.overview..",
                        "pyrite.app.needs..",
                        "pyrite.app.requirements..",
                        "pyrite.app.links..",
                        "pyrite.app.recheck..",
                        "pyrite.app.architecture..",
                        "pyrite.app.element..",
                        "pyrite.app.runs..",
                        "pyrite.app.changes..",
                        "pyrite.app.projects..",
                        "pyrite.app.api..",
                        "pyrite.app.evidence..")
                .check(APP);
    }
}
