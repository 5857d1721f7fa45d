package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What people may do over HTTP, asked by hand and not through the pages. */
class AccessTest {
    private static Merrow merrow;

    @BeforeAll
    static void start() {
        merrow = new Merrow();
    }

    @AfterAll
    static void stop() {
        merrow.close();
    }

    private static Session session() {
        return new Session(merrow.address());
    }

    @Test
    void whoIsNotSignedInSeesTheSignInPageAndNothingElse() throws Exception {
        assertThat(session().get("/p/merrow/main/requirements").body())
                .contains("Sign in")
                .doesNotContain("closesInTime");
        assertThat(session().get("/p/merrow/main/find?q=gate").body()).doesNotContain("barrier");
        assertThat(session()
                        .signIn("ines", "wrong")
                        .get("/p/merrow/main/requirements")
                        .body())
                .contains("Sign in");
    }

    /** However many ask: nothing is kept of somebody who is not signed in; after signing in they are led on. */
    @Test
    void nobodyHasASessionBeforeSigningIn() throws Exception {
        for (String path : java.util.List.of("/", "/sign-in", "/p/merrow/main/requirements?show=failing")) {
            assertThat(session().get(path).previousResponse())
                    .as(path)
                    .satisfies(first -> first.ifPresent(
                            response -> assertThat(response.headers().allValues("set-cookie"))
                                    .noneMatch(cookie -> cookie.startsWith("JSESSIONID"))));
            assertThat(session().get(path).headers().allValues("set-cookie"))
                    .noneMatch(cookie -> cookie.startsWith("JSESSIONID"));
        }
        Session ines = session();
        ines.get("/p/merrow/main/requirements?show=failing");
        ines.signIn("ines", "merrow");
        assertThat(ines.get("/p/merrow/main/overview").statusCode()).isEqualTo(200);
    }

    @Test
    void theHistoryOfARequirementHasTheChangesOfItsText() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        String path = "/element/" + merrow.named("measuresWell").id();
        ines.edit(path + "/text", "The gate shall measure levels within 0.02 m.");
        assertThat(ines.get("/p/merrow/main" + path).body()).contains("text of measuresWell changed");
    }

    @Test
    void whatIsTooLongIsRefusedWithTheLimit() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        HttpResponse<String> refused =
                ines.edit("/element/" + merrow.named("closesInTime").id() + "/name", "n".repeat(300_000));
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("'text' has at most", "characters, but this has 300,000");
    }

    @Test
    void aViewerLooksButCannotChangeByHand() throws Exception {
        Session tam = session().signIn("tam", "merrow");
        String page = tam.get(
                        "/p/merrow/main/element/" + merrow.named("closesInTime").id())
                .body();
        assertThat(page).contains("closed within 10 minutes").doesNotContain("data-edit=");
        assertThat(tam.edit("/element/" + merrow.named("closesInTime").id() + "/text", "x")
                        .statusCode())
                .isEqualTo(403);
        assertThat(tam.edit("/element/" + merrow.named("closingCheck").id() + "/start", "")
                        .statusCode())
                .isEqualTo(403);
        assertThat(tam.edit("/undo", "").statusCode()).isEqualTo(403);
        assertThat(tam.get("/actuator/metrics").statusCode()).isEqualTo(403);
    }

    @Test
    void anEngineerIsToldWhereAnEditIsWrong() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        String path = "/element/" + merrow.named("drive").id() + "/value/"
                + merrow.named("fastSpeed").id();
        HttpResponse<String> refused = ines.edit(path, "1 [m] + 2 [kg]");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("a quantity in m and a quantity in kg cannot be added", "\"column\":1");
        assertThat(ines.edit(path, "0.5 [deg/s]").body()).contains("\"saved\":true", "\"revision\":\"r2\"");
        assertThat(ines.edit("/element/" + merrow.named("drive").id() + "/text", "a".repeat(100_001))
                        .statusCode())
                .isEqualTo(400);
        assertThat(ines.edit("/element/not-an-id/text", "x").statusCode()).isIn(400, 404);
        assertThat(ines.edit("/undo", "").body()).contains("undone: fastSpeed of drive");
    }

    @Test
    void aPostWithoutTheTokenOfThePageIsRefused() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        assertThat(ines.post("/p/merrow/main/undo", "application/json", "{}", "made-up")
                        .statusCode())
                .isEqualTo(403);
    }

    @Test
    void hostileTextIsShownAsText() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        ines.edit("/element/" + merrow.named("agreesOnLevel").id() + "/text", "<script>alert(1)</script>");
        HttpResponse<String> page = ines.get("/p/merrow/main/requirements?as=document");
        assertThat(page.body()).contains("&lt;script&gt;").doesNotContain("<script>alert");
        assertThat(page.headers().firstValue("Content-Security-Policy").orElse(""))
                .contains("default-src 'self'");
        ines.edit("/undo", "");
    }

    /** The policy forbids scripts and styles within pages, so a page that had some would not work; none has. */
    @Test
    void noPageCarriesScriptsOrStylesOfItsOwn() throws Exception {
        Session admin = session().signIn("admin", "merrow");
        String element = "/p/merrow/main/element/" + merrow.named("drive").id();
        for (String path : java.util.List.of(
                "/sign-in",
                "/p/merrow/main/overview",
                "/p/merrow/main/needs",
                "/p/merrow/main/requirements",
                "/p/merrow/main/requirements?as=document",
                "/p/merrow/main/coverage",
                "/p/merrow/main/trace",
                "/p/merrow/main/impact?of=MG-1",
                "/p/merrow/main/rules",
                "/p/merrow/main/recheck",
                "/p/merrow/main/architecture",
                "/p/merrow/main/runs",
                "/p/merrow/main/changes",
                element,
                element + "/general?split=on",
                element + "/notation",
                "/people",
                "/audit",
                "/account",
                "/projects",
                "/api/docs")) {
            HttpResponse<String> page = admin.get(path);
            assertThat(page.headers().firstValue("Content-Security-Policy").orElse(""))
                    .as(path)
                    .contains("default-src 'self'")
                    .doesNotContain("unsafe");
            assertThat(page.body())
                    .as(path)
                    .doesNotContainPattern("<script(?![^>]*src=)")
                    .doesNotContainPattern("<style[ >]")
                    .doesNotContainPattern("<[a-z][^>]* style=")
                    .doesNotContainPattern("<[a-z][^>]* on[a-z]+=");
        }
    }

    @Test
    void whatIsLookedForComesBestMatchFirst() throws Exception {
        Session tam = session().signIn("tam", "merrow");
        assertThat(tam.get("/p/merrow/main/find?q=MG-9").body())
                .startsWith("[{\"label\":\"MG-9 withstandsDesignStorm\"");
        assertThat(tam.get("/p/merrow/main/find?q=gate").body()).contains("SurgeGate", "\"label\":\"gate\"");
        assertThat(tam.get("/p/merrow/main/find?q=").body()).isEqualTo("[]");
        assertThat(tam.get("/p/merrow/main/find?q=%3Cscript%3E").body()).isEqualTo("[]");
    }

    @Test
    void aBodyLargerThanAnyThatHasAUseIsTurnedAway() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        String token = ines.token("/p/merrow/main/requirements");
        assertThat(ines.post(
                                "/p/merrow/main/members",
                                "application/json",
                                "{\"text\":\"" + "a".repeat(17_000_000) + "\",\"base\":1}",
                                token)
                        .statusCode())
                .isEqualTo(413);
    }

    @Test
    void whatDoesNotExistIsSaidSo() throws Exception {
        Session ines = session().signIn("ines", "merrow");
        assertThat(ines.get("/p/merrow/main/element/123").statusCode()).isEqualTo(404);
        assertThat(ines.get("/p/nothing/main/requirements").statusCode()).isEqualTo(404);
        assertThat(ines.get("/p/merrow/main/runs/999").statusCode()).isEqualTo(404);
    }
}
