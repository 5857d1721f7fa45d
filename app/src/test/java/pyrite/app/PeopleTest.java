package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Looking after people: adding, shutting out, passwords, tokens, and what is noted about it. */
class PeopleTest extends InProject {
    private static final Pattern SECRET = Pattern.compile("id=\"secret\"[^>]*>([^<]+)<");
    private Session admin;

    @BeforeEach
    void start() throws Exception {
        admin = session("admin", "merrow");
    }

    private Session session(String name, String password) throws Exception {
        return new Session(merrow.address()).signIn(name, password);
    }

    private boolean isIn(Session session) throws Exception {
        return session.get("/projects").body().contains("Merrow surge gate");
    }

    /** Sends a form and gives the page that comes after. */
    private static String send(Session session, String path, String... fields) throws Exception {
        StringBuilder body = new StringBuilder();
        for (int i = 0; i < fields.length; i += 2) {
            body.append(fields[i])
                    .append('=')
                    .append(URLEncoder.encode(fields[i + 1], StandardCharsets.UTF_8))
                    .append('&');
        }
        String token = session.token("/account");
        body.append("_csrf=").append(URLEncoder.encode(token, StandardCharsets.UTF_8));
        return session.post(path, "application/x-www-form-urlencoded", body.toString(), token)
                .body();
    }

    private static String secret(String page) {
        Matcher matcher = SECRET.matcher(page);
        assertThat(matcher.find()).as("a secret is told").isTrue();
        return matcher.group(1);
    }

    @Test
    void whoIsAddedSignsInWithThePasswordThatIsToldOnce() throws Exception {
        String password = secret(send(admin, "/people", "signIn", "ada", "name", "Ada Quill", "role", "VIEWER"));
        assertThat(isIn(session("ada", password))).isTrue();
        assertThat(admin.get("/people").body()).contains("Ada Quill").doesNotContain(password);
        assertThat(send(admin, "/people", "signIn", "ada", "name", "Another", "role", "VIEWER"))
                .contains("somebody signs in as ada already");
        assertThat(send(admin, "/people", "signIn", "Ada!", "name", "Another", "role", "VIEWER"))
                .contains("small letters");
    }

    @Test
    void afterFiveFailuresANameWaitsEvenWithTheRightPassword() throws Exception {
        for (int i = 0; i < 5; i++) {
            assertThat(isIn(session("ines", "wrong"))).isFalse();
        }
        assertThat(isIn(session("ines", "merrow"))).isFalse();
        assertThat(isIn(session("odo", "merrow"))).as("others are not kept out").isTrue();
        assertThat(admin.get("/audit?who=ines").body())
                .contains("failed to sign in", "failed and was locked out", "was kept out");
    }

    @NewProject
    @Test
    void whoIsShutOutIsOutAtOnceAndWhatTheyWroteStaysTheirs() throws Exception {
        merrow.change("drive", "fastSpeed", "0.5 [deg/s]");
        Session ines = session("ines", "merrow");
        assertThat(isIn(ines)).isTrue();
        send(admin, "/people/ines/active", "active", "false");
        assertThat(isIn(ines)).isFalse();
        assertThat(isIn(session("ines", "merrow"))).isFalse();
        assertThat(admin.get("/p/merrow/main/changes").body()).contains("Ines Marl");
        send(admin, "/people/ines/active", "active", "true");
        assertThat(isIn(session("ines", "merrow"))).isTrue();
    }

    @Test
    void anotherRoleCountsFromTheNextSignInAndTheOldSessionEnds() throws Exception {
        Session tam = session("tam", "merrow");
        assertThat(tam.edit("/undo", "").statusCode()).isEqualTo(403);
        send(admin, "/people/tam/role", "role", "ENGINEER");
        assertThat(isIn(tam)).isFalse();
        assertThat(session("tam", "merrow").edit("/undo", "").statusCode()).isEqualTo(200);
    }

    @Test
    void theLastAdministratorStaysOne() throws Exception {
        assertThat(send(admin, "/people/admin/role", "role", "VIEWER")).contains("is the only administrator");
        assertThat(send(admin, "/people/admin/active", "active", "false")).contains("is the only administrator");
        assertThat(isIn(admin)).isTrue();
    }

    @Test
    void aChangedPasswordEndsTheOtherSessionsAndNotThisOne() throws Exception {
        Session here = session("ines", "merrow");
        Session there = session("ines", "merrow");
        assertThat(send(here, "/account/password", "old", "wrong", "replacement", "a longer secret"))
                .contains("the present password is another one");
        assertThat(send(here, "/account/password", "old", "merrow", "replacement", "short"))
                .contains("10 characters or more");
        assertThat(send(here, "/account/password", "old", "merrow", "replacement", "a longer secret"))
                .contains("Your password is changed");
        assertThat(isIn(here)).isTrue();
        assertThat(isIn(there)).isFalse();
        assertThat(isIn(session("ines", "a longer secret"))).isTrue();
        String given = secret(send(admin, "/people/ines/password"));
        assertThat(isIn(here)).isFalse();
        assertThat(isIn(session("ines", given))).isTrue();
    }

    @NewProject
    @Test
    void everythingAboutPeopleIsNotedWithWhoDidIt() throws Exception {
        send(admin, "/people", "signIn", "ada", "name", "Ada Quill", "role", "LEAD");
        send(admin, "/people/ada/role", "role", "VIEWER");
        send(session("odo", "merrow"), "/projects", "name", "Harbour lights");
        assertThat(admin.get("/audit").body())
                .contains("added lead", "made viewer", "began project", "Harbour lights", "127.0.0.1");
    }

    @Test
    void anotherProjectBeginsEmptyUnderAnAddressOfItsOwn() throws Exception {
        Session odo = session("odo", "merrow");
        assertThat(send(odo, "/projects", "name", "Härbour lights")).contains("There are no requirements yet");
        assertThat(send(odo, "/projects", "name", "Harbour lights")).contains("There are no requirements yet");
        assertThat(odo.get("/projects").body()).contains("/p/harbour-lights/main", "/p/harbour-lights-2/main");
        assertThat(send(odo, "/projects", "name", " ")).contains("1 to 120 characters");
        assertThat(odo.get("/").body()).as("the first page is where one left").contains("lights");
    }
}
