package pyrite.app;

import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;

/** The demo's project, new for each test. */
abstract class InProject {
    Merrow merrow;

    @BeforeEach
    void openProject() {
        merrow = new Merrow();
    }

    @AfterEach
    void closeProject() {
        merrow.close();
    }
}
