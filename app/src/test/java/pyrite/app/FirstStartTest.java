package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.jupiter.api.parallel.Resources;

/** Without demo data the first start tells one password, once, and an empty project stands ready. */
@ResourceLock(Resources.SYSTEM_OUT)
class FirstStartTest {
    private static final Pattern PASSWORD = Pattern.compile("sign in as admin with the password (\\S+)");

    private static String printedBy(Runnable work) {
        PrintStream before = System.out;
        ByteArrayOutputStream printed = new ByteArrayOutputStream();
        System.setOut(new PrintStream(printed, true, StandardCharsets.UTF_8));
        try {
            work.run();
        } finally {
            System.setOut(before);
        }
        return printed.toString(StandardCharsets.UTF_8);
    }

    @Test
    void theFirstStartTellsAPasswordThatWorksAndIsNotKeptReadable(@TempDir Path data) throws Exception {
        Application[] started = new Application[1];
        Matcher told = PASSWORD.matcher(printedBy(() -> started[0] = new Application(data, false)));
        try (Application application = started[0]) {
            assertThat(told.find()).isTrue();
            Session admin = new Session(application.address()).signIn("admin", told.group(1));
            assertThat(admin.get("/").body()).contains("First project", "There are no requirements yet");
            assertThat(new Session(application.address())
                            .signIn("admin", "merrow")
                            .get("/")
                            .body())
                    .contains("Sign in");
            assertThat(new Session(application.address())
                            .signIn("ines", "merrow")
                            .get("/")
                            .body())
                    .contains("Sign in");
        }
        assertThat(Files.readString(data.resolve("pyrite.mv.db"), StandardCharsets.ISO_8859_1))
                .doesNotContain(told.group(1));
        assertThat(printedBy(() -> new Application(data, false).close())).doesNotContain("password");
    }

    @Test
    void aModelCanBeBegunInTheEmptyProject(@TempDir Path data) throws Exception {
        Application[] started = new Application[1];
        Matcher told = PASSWORD.matcher(printedBy(() -> started[0] = new Application(data, false)));
        assertThat(told.find()).isTrue();
        try (Application application = started[0]) {
            Session admin = new Session(application.address()).signIn("admin", told.group(1));
            assertThat(admin.get("/p/project/main/architecture").body())
                    .contains("data-empty=\"true\"", "package Harbour");
            assertThat(admin.type("/p/project/main", "/members", "subject gate", 0)
                            .body())
                    .contains("at the top stands what a package may own");
            assertThat(admin.type("/p/project/main", "/members", "package Gate { requirement <'R-1'> closes; }", 0)
                            .body())
                    .contains("\"saved\":true", "package Gate added");
            assertThat(admin.get("/p/project/main/requirements/rows.json").body())
                    .contains("R-1", "closes");
        }
    }
}
