package pyrite.app;

import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.TestInfo;
import org.junit.jupiter.api.TestMethodOrder;

/**
 * The demo's project. Starting the program takes longer than most tests, so the tests of a class share one, except
 * those with {@link NewProject}.
 */
@TestMethodOrder(NewProject.Last.class)
abstract class InProject {
    private static @Nullable Merrow opened;

    Merrow merrow;

    @BeforeEach
    void openProject(TestInfo test) {
        if (opened == null
                || test.getTestMethod().orElseThrow().isAnnotationPresent(NewProject.class)
                || test.getTestClass().orElseThrow().isAnnotationPresent(NewProject.class)) {
            openNewProject();
        }
        merrow = opened;
    }

    void openNewProject() {
        closeProject();
        opened = new Merrow();
        merrow = opened;
    }

    @AfterAll
    static void closeProject() {
        if (opened != null) {
            opened.close();
            opened = null;
        }
    }
}
