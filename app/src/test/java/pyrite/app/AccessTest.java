package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;

/** What people may do over HTTP, asked by hand and not through the pages. */
class AccessTest {
    private static final Pattern TOKEN = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"|csrf-token\" content=\"([^\"]+)\"");
    private static Application application;

    @BeforeAll
    static void start() {
        application = Application.inNewFolder();
    }

    @AfterAll
    static void stop() {
        application.close();
    }

    /** A session with its cookies. */
    private static final class Session {
        private final HttpClient client = HttpClient.newBuilder().cookieHandler(new CookieManager())
                .followRedirects(HttpClient.Redirect.NORMAL).build();

        HttpResponse<String> get(String path) throws IOException, InterruptedException {
            return client.send(HttpRequest.newBuilder(URI.create(application.address() + path)).build(),
                    HttpResponse.BodyHandlers.ofString());
        }

        HttpResponse<String> post(String path, String type, String body, String token) throws IOException, InterruptedException {
            return client.send(HttpRequest.newBuilder(URI.create(application.address() + path)).header("Content-Type", type)
                    .header("X-CSRF-TOKEN", token).POST(HttpRequest.BodyPublishers.ofString(body)).build(),
                    HttpResponse.BodyHandlers.ofString());
        }

        Session signIn(String name, String password) throws IOException, InterruptedException {
            String token = token(get("/sign-in").body());
            post("/sign-in", "application/x-www-form-urlencoded", "username=" + name + "&password="
                    + URLEncoder.encode(password, StandardCharsets.UTF_8) + "&_csrf=" + URLEncoder.encode(token, StandardCharsets.UTF_8), token);
            return this;
        }

        HttpResponse<String> edit(String path, String text) throws IOException, InterruptedException {
            String token = token(get("/p/merrow/main/requirements").body());
            return post("/p/merrow/main" + path, "application/json", "{\"text\":\"" + text + "\",\"base\":1}", token);
        }
    }

    private static String token(String page) {
        Matcher matcher = TOKEN.matcher(page);
        return matcher.find() ? matcher.group(1) != null ? matcher.group(1) : matcher.group(2) : "";
    }

    private static Element named(String name) {
        return application.bean(Workspace.class).head("merrow", "main").model().ownElements().stream()
                .filter(e -> name.equals(e.name())).findFirst().orElseThrow();
    }

    @Test
    void whoIsNotSignedInSeesTheSignInPageAndNothingElse() throws Exception {
        assertThat(new Session().get("/p/merrow/main/requirements").body()).contains("Sign in").doesNotContain("closesInTime");
        assertThat(new Session().get("/p/merrow/main/find?q=gate").body()).doesNotContain("barrier");
        assertThat(new Session().signIn("ines", "wrong").get("/p/merrow/main/requirements").body()).contains("Sign in");
    }

    @Test
    void aViewerLooksButCannotChangeByHand() throws Exception {
        Session tam = new Session().signIn("tam", "merrow");
        String page = tam.get("/p/merrow/main/element/" + named("closesInTime").id()).body();
        assertThat(page).contains("closed within 10 minutes").doesNotContain("data-edit");
        assertThat(tam.edit("/element/" + named("closesInTime").id() + "/text", "x").statusCode()).isEqualTo(403);
        assertThat(tam.edit("/element/" + named("closingCheck").id() + "/start", "").statusCode()).isEqualTo(403);
        assertThat(tam.edit("/undo", "").statusCode()).isEqualTo(403);
        assertThat(tam.get("/actuator/metrics").statusCode()).isEqualTo(403);
    }

    @Test
    void anEngineerIsToldWhereAnEditIsWrong() throws Exception {
        Session ines = new Session().signIn("ines", "merrow");
        String path = "/element/" + named("drive").id() + "/value/" + named("fastSpeed").id();
        HttpResponse<String> refused = ines.edit(path, "1 [m] + 2 [kg]");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("a quantity in m and a quantity in kg cannot be added", "\"column\":1");
        assertThat(ines.edit(path, "0.5 [deg/s]").body()).contains("\"saved\":true", "\"revision\":\"r2\"");
        assertThat(ines.edit("/element/" + named("drive").id() + "/text", "a".repeat(100_001)).statusCode()).isEqualTo(400);
        assertThat(ines.edit("/element/not-an-id/text", "x").statusCode()).isIn(400, 404);
        assertThat(ines.edit("/undo", "").body()).contains("undone: fastSpeed of drive");
    }

    @Test
    void aPostWithoutTheTokenOfThePageIsRefused() throws Exception {
        Session ines = new Session().signIn("ines", "merrow");
        assertThat(ines.post("/p/merrow/main/undo", "application/json", "{}", "made-up").statusCode()).isEqualTo(403);
    }

    @Test
    void hostileTextIsShownAsText() throws Exception {
        Session ines = new Session().signIn("ines", "merrow");
        ines.edit("/element/" + named("agreesOnLevel").id() + "/text", "<script>alert(1)</script>");
        HttpResponse<String> page = ines.get("/p/merrow/main/requirements");
        assertThat(page.body()).contains("&lt;script&gt;").doesNotContain("<script>alert");
        assertThat(page.headers().firstValue("Content-Security-Policy").orElse("")).contains("default-src 'self'");
        ines.edit("/undo", "");
    }

    @Test
    void whatDoesNotExistIsSaidSo() throws Exception {
        Session ines = new Session().signIn("ines", "merrow");
        assertThat(ines.get("/p/merrow/main/element/123").statusCode()).isEqualTo(404);
        assertThat(ines.get("/p/nothing/main/requirements").statusCode()).isEqualTo(404);
        assertThat(ines.get("/p/merrow/main/runs/999").statusCode()).isEqualTo(404);
    }
}
