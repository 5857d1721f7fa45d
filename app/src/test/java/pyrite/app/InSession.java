package pyrite.app;

import org.junit.jupiter.api.BeforeEach;

/** The demo's project, and Ines who asks it by hand. */
abstract class InSession extends InProject {
    Session ines;

    @BeforeEach
    void signIn() throws Exception {
        ines = new Session(merrow.address()).signIn("ines", "merrow");
    }
}
