package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Edit;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The API as a script uses it, with a token and without a session. */
class ApiTest extends InProject {
    private static final Pattern BLOCK = Pattern.compile("```sh\n(.*?)```", Pattern.DOTALL);
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private String token(String person) throws Exception {
        return new Session(merrow.address()).signIn(person, "merrow").tokenForScripts();
    }

    private HttpResponse<String> ask(String token, String path, String body) throws IOException, InterruptedException {
        return ask(token, body == null ? "GET" : "POST", "/projects" + path, body == null ? "" : body);
    }

    private HttpResponse<String> ask(String token, String method, String path, String body)
            throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(URI.create(merrow.address() + "/api" + path))
                .header("Authorization", "Bearer " + token)
                .header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(body))
                .build();
        return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
    }

    private JsonNode json(String token, String path) throws Exception {
        return JSON.readTree(ask(token, path, null).body());
    }

    private String project() {
        return "/" + merrow.branch().projectUuid();
    }

    /** One block of the page, with what its answer has in it. */
    private record Example(String commands, List<String> answers) {
        static Example of(String block) {
            List<String> answers = block.lines()
                    .filter(line -> line.startsWith("#> "))
                    .map(line -> line.substring(3))
                    .toList();
            return new Example(block, answers);
        }
    }

    private static List<Example> examples() throws IOException {
        List<Example> examples = new ArrayList<>();
        Matcher matcher = BLOCK.matcher(Files.readString(Path.of("../docs/api.md")));
        while (matcher.find()) {
            examples.add(Example.of(matcher.group(1)));
        }
        assertThat(examples).hasSizeGreaterThan(10);
        return examples;
    }

    @NewProject
    @Test
    void theExamplesOfTheManualAnswerAsItSays() throws Exception {
        List<Example> examples = examples();
        StringBuilder script = new StringBuilder("set -u\n");
        examples.forEach(example -> script.append(example.commands()).append("\necho; echo '=== next'\n"));
        ProcessBuilder builder = new ProcessBuilder("bash", "-c", script.toString()).redirectErrorStream(true);
        builder.environment().put("ADDRESS", merrow.address());
        builder.environment().put("TOKEN", token("ines"));
        builder.environment().put("ADMIN", token("admin"));
        Process process = builder.start();
        String output = new String(process.getInputStream().readAllBytes());
        assertThat(process.waitFor(1, TimeUnit.MINUTES)).isTrue();
        String[] parts = output.split("=== next\n");
        for (int i = 0; i < examples.size(); i++) {
            assertThat(parts[i])
                    .as(examples.get(i).commands())
                    .contains(examples.get(i).answers());
        }
    }

    @NewProject
    @Test
    void allElementsComePageByPageOnceEach() throws Exception {
        assertThat(idsOfAllPages(project() + "/commits/" + merrow.commitId(1) + "/elements?page%5Bsize%5D=50"))
                .doesNotHaveDuplicates()
                .hasSameSizeAs(merrow.head().model().ownElements());
    }

    private List<String> idsOfAllPages(String first) throws Exception {
        String token = token("tam");
        String path = first;
        List<String> ids = new ArrayList<>();
        while (path != null) {
            HttpResponse<String> answer = ask(token, path, null);
            JSON.readTree(answer.body()).forEach(each -> ids.add(each.get("@id").asString()));
            path = answer.headers()
                    .firstValue("Link")
                    .map(link -> link.replaceFirst("<.*?/api/projects(.*)>; rel=\"next\"", "$1"))
                    .orElse(null);
        }
        return ids;
    }

    @NewProject
    @Test
    void allCommitsComePageByPageNewestFirst() throws Exception {
        for (int i = 0; i < 6; i++) {
            merrow.change("drive", "fastSpeed", "0." + (i + 3) + " [deg/s]");
        }
        List<String> numbered = new ArrayList<>();
        for (int number = merrow.head().number(); number > 0; number--) {
            numbered.add(merrow.commitId(number));
        }
        assertThat(idsOfAllPages(project() + "/commits?page%5Bsize%5D=3"))
                .hasSize(7)
                .isEqualTo(numbered);
    }

    @NewProject
    @Test
    void anElementIsReadAsAnyCommitLeftIt() throws Exception {
        String token = token("tam");
        merrow.change("drive", "fastSpeed", "0.5 [deg/s]");
        String path = "/elements/" + merrow.named("barrier").id();
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        2,
                        Edit.put(merrow.named("barrier").withName("dam")),
                        merrow.person("ines"),
                        "renamed");
        assertThat(json(token, project() + "/commits/" + merrow.commitId(1) + path)
                        .get("declaredName")
                        .asString())
                .isEqualTo("barrier");
        assertThat(json(token, project() + "/commits/" + merrow.commitId(3) + path)
                        .get("declaredName")
                        .asString())
                .isEqualTo("dam");
    }

    @NewProject
    @Test
    void aCommitOnAnOldCommitIsRefusedWithTheirsIfSomebodyChangedTheSame() throws Exception {
        String token = token("ines");
        var barrier = merrow.named("barrier");
        JsonNode before = json(token, project() + "/commits/" + merrow.commitId(1) + "/elements/" + barrier.id());
        merrow.workspace()
                .commit(merrow.branch(), 1, Edit.put(barrier.withName("dam")), merrow.person("odo"), "renamed");
        String mine = before.toString().replace("\"declaredName\":\"barrier\"", "\"declaredName\":\"weir\"");
        String body = "{\"previousCommit\":{\"@id\":\"" + merrow.commitId(1)
                + "\"},\"change\":[{\"identity\":{\"@id\":\"" + barrier.id() + "\"},\"payload\":" + mine + "}]}";
        HttpResponse<String> refused = ask(token, project() + "/commits", body);
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.body()).contains("\"declaredName\":\"dam\"");
        HttpResponse<String> saved =
                ask(token, project() + "/commits", body.replace(merrow.commitId(1), merrow.commitId(2)));
        assertThat(saved.statusCode()).isEqualTo(201);
        assertThat(merrow.named("weir").id()).isEqualTo(barrier.id());
        assertThat(merrow.named("weir")).isEqualTo(barrier.withName("weir"));
    }

    @Test
    void theTextOfAnElementLeavesWhatOthersAddedSince() throws Exception {
        String token = token("ines");
        String hinge = merrow.named("Hinge").id().toString();
        String address = project() + "/branches/" + merrow.branch().uuid() + "/notation";
        String body = "{\"element\":\"" + hinge
                + "\",\"text\":\"part def Hinge { doc /* Greased. */ attribute diameter = 1; "
                + "attribute greaseInterval : TimeValue = 2000 [h]; }\"";
        HttpResponse<String> blind = ask(token, address, body + "}");
        assertThat(blind.statusCode()).isEqualTo(400);
        assertThat(blind.body()).contains("say with previousCommit");
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(pyrite.core.model.Element.of(
                                pyrite.core.model.ElementKind.PART,
                                merrow.named("Hinge").id(),
                                merrow.head()
                                        .model()
                                        .rankAtEnd(merrow.named("Hinge").id()),
                                "bush")),
                        merrow.person("odo"),
                        "a bush");
        assertThat(ask(token, address, body + ",\"previousCommit\":{\"@id\":\"" + merrow.commitId(1) + "\"}}")
                        .statusCode())
                .isEqualTo(201);
        assertThat(merrow.named("bush").owner().toString()).isEqualTo(hinge);
    }

    @Test
    void aTokenDoesWhatItsPersonMayUntilItIsTakenBack() throws Exception {
        String viewer = token("tam");
        assertThat(ask(viewer, project() + "/commits", "{\"change\":[]}").statusCode())
                .isEqualTo(403);
        assertThat(ask(viewer, "", "{\"name\":\"x\"}").statusCode()).isEqualTo(403);
        assertThat(ask(token("odo"), "", "{\"name\":\"Harbour lights\"}").statusCode())
                .isEqualTo(201);
        assertThat(ask(token("odo"), "", "{\"name\":\" \"}").statusCode()).isEqualTo(400);
        Session tam = new Session(merrow.address()).signIn("tam", "merrow");
        Matcher remove = Pattern.compile("/account/tokens/\\d+/remove")
                .matcher(tam.get("/account").body());
        assertThat(remove.find()).isTrue();
        tam.post(remove.group(), "application/x-www-form-urlencoded", "", tam.token("/account"));
        assertThat(ask(viewer, "", null).statusCode()).isEqualTo(401);
    }

    /** A session each would fill the memory of a server that scripts ask all day. */
    @Test
    void aTokenNeedsNoSessionAndMakesNoFurtherTokens() throws Exception {
        String token = token("ines");
        assertThat(ask(token, "", null).headers().firstValue("Set-Cookie")).isEmpty();
        assertThat(ask(token, project() + "/query-results", "{}").headers().firstValue("Set-Cookie"))
                .isEmpty();
        HttpRequest account = HttpRequest.newBuilder(URI.create(merrow.address() + "/account/tokens"))
                .header("Authorization", "Bearer " + token)
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString("name=more&days=300"))
                .build();
        assertThat(HttpClient.newHttpClient()
                        .send(account, HttpResponse.BodyHandlers.ofString())
                        .statusCode())
                .isEqualTo(403);
    }

    @NewProject
    @Test
    void anAdministratorsScriptLooksAfterPeople() throws Exception {
        String admin = token("admin");
        HttpResponse<String> added =
                ask(admin, "POST", "/people", "{\"signIn\":\"ada\",\"name\":\"Ada Quill\",\"role\":\"viewer\"}");
        assertThat(added.statusCode()).isEqualTo(201);
        String password = JSON.readTree(added.body()).get("password").asString();
        Session ada = new Session(merrow.address()).signIn("ada", password);
        assertThat(ada.edit("/undo", "").statusCode()).isEqualTo(403);
        assertThat(ask(admin, "PUT", "/people/ada", "{\"role\":\"engineer\"}").body())
                .contains("\"role\":\"engineer\",\"active\":true");
        assertThat(ada.get("/projects").body())
                .as("the session of the old role has ended")
                .doesNotContain("Merrow surge gate");
        String other = JSON.readTree(
                        ask(admin, "POST", "/people/ada/password", "").body())
                .get("password")
                .asString();
        assertThat(new Session(merrow.address())
                        .signIn("ada", other)
                        .edit("/undo", "")
                        .statusCode())
                .isEqualTo(200);
        assertThat(JSON.readTree(ask(admin, "GET", "/audit?who=ada", "").body()).findValuesAsString("act"))
                .contains("added viewer", "made engineer", "gave a new password to");
        assertThat(ask(admin, "GET", "/people", "").body())
                .contains("Ada Quill")
                .doesNotContain("assword", "$2");
    }

    @Test
    void whatCannotBeAboutPeopleIsRefusedWithWhatWouldBeRight() throws Exception {
        String admin = token("admin");
        assertThat(ask(admin, "POST", "/people", "{\"signIn\":\"ines\",\"name\":\"Another\",\"role\":\"viewer\"}")
                        .body())
                .contains("somebody signs in as ines already");
        assertThat(ask(admin, "POST", "/people", "{\"signIn\":\"ada\",\"name\":\"Ada\",\"role\":\"captain\"}")
                        .body())
                .contains("'captain' is no role; one is viewer, engineer, lead, administrator");
        assertThat(ask(admin, "POST", "/people", "{\"signIn\":\"ada\"}").statusCode())
                .isEqualTo(400);
        assertThat(ask(admin, "PUT", "/people/nobody", "{\"active\":false}").statusCode())
                .isEqualTo(404);
        assertThat(ask(admin, "PUT", "/people/admin", "{\"active\":false}").body())
                .contains("is the only administrator");
        assertThat(ask(token("odo"), "GET", "/people", "").statusCode()).isEqualTo(403);
        assertThat(ask(token("odo"), "GET", "/audit", "").statusCode()).isEqualTo(403);
    }

    @Test
    void aQueryIsAnsweredPageByPage() throws Exception {
        String token = token("tam");
        String query = "{\"where\":{\"property\":\"@type\",\"operator\":\"=\",\"value\":[\"RequirementUsage\"]},"
                + "\"orderBy\":[\"declaredShortName\"]}";
        List<String> ids = new ArrayList<>();
        String path = project() + "/query-results?page%5Bsize%5D=7";
        while (path != null) {
            HttpResponse<String> answer = ask(token, path, query);
            JSON.readTree(answer.body())
                    .forEach(element -> ids.add(element.get("declaredShortName").asString("~")));
            path = answer.headers()
                    .firstValue("Link")
                    .map(link -> link.replaceFirst("<.*?/api/projects(.*)>; rel=\"next\"", "$1"))
                    .orElse(null);
        }
        assertThat(ids)
                .isSorted()
                .hasSizeGreaterThan(20)
                .hasSize(JSON.readTree(ask(token, project() + "/query-results?page%5Bsize%5D=5000", query)
                                .body())
                        .size());
    }

    @Test
    void theDescriptionNamesEveryAddressAndNothingOfPeople() throws Exception {
        Session tam = new Session(merrow.address()).signIn("tam", "merrow");
        assertThat(tam.get("/api/openapi.json").body())
                .contains(
                        "/api/projects/{projectId}/commits/{commitId}/elements/{elementId}/relationships",
                        "/api/projects/{projectId}/query-results",
                        "/api/projects/{projectId}/branches/{branchId}/verdicts",
                        "/api/projects/{projectId}/branches/{branchId}/rechecks/confirm",
                        "/api/projects/{projectId}/tags/{tagId}",
                        "/api/projects/{projectId}/branches/{branchId}/elements/{id}/restore",
                        "/api/people/{signIn}")
                .doesNotContain("passwordHash");
    }

    @Test
    void whatCannotBeReadIsSaid() throws Exception {
        String token = token("ines");
        assertThat(ask(token, project() + "/commits", "{\"change\": 1").body()).contains("the body cannot be read");
        assertThat(ask(token, "/nonsense/branches", null).body()).contains("ids are UUIDs");
        assertThat(ask(token, project() + "/query-results", "{\"where\":{\"operator\":\"like\"}}")
                        .body())
                .contains("the operator =, in");
        assertThat(ask(token, project() + "/commits/" + merrow.branch().uuid() + "/elements", null)
                        .body())
                .contains("there is no commit");
    }

    private String branch() {
        return project() + "/branches/" + merrow.branch().uuid();
    }

    /** The numbers of the page: CoverageTest and the laws of the questions say that they are right. */
    @Test
    void aScriptIsToldWhatIsCoveredAndWhatIsNot() throws Exception {
        JsonNode coverage = json(token("tam"), branch() + "/coverage");
        JsonNode needs = coverage.get("specifications").get(0);
        assertThat(needs.get("specification").get("name").asString()).isEqualTo("MerrowNeeds");
        assertThat(needs.get("requirements").asInt()).isEqualTo(10);
        assertThat(needs.get("derived").asInt()).isEqualTo(9);
        assertThat(coverage.get("unasked").findValuesAsString("id"))
                .hasSize(4)
                .allMatch(id -> id.matches("[A-Z]+-\\d+"));
        assertThat(coverage.get("gaps").isEmpty()).isFalse();
    }

    @Test
    void impactAndTraceTableAreAskedForByIdsAndPaths() throws Exception {
        String token = token("tam");
        JsonNode impact = json(token, branch() + "/impact?of=MG-1,nowhere&way=up&depth=1");
        assertThat(impact.get("unknown").toString()).isEqualTo("[\"nowhere\"]");
        assertThat(impact.get("reached").get(0).get("links").asInt()).isZero();
        impact.get("reached")
                .forEach(reached -> assertThat(reached.get("links").asInt()).isBetween(-1, 0));
        JsonNode trace = json(token, branch() + "/trace?set=~need&col=frame%3C&count=2&from=1");
        assertThat(trace.get("total").asInt()).isEqualTo(10);
        assertThat(trace.get("rows").size()).isEqualTo(2);
        assertThat(trace.get("rows").get(0).get("start").get("id").asString()).isEqualTo("N-2");
        assertThat(trace.get("rows").get(0).get("cells").get(0).size()).isEqualTo(5);
        assertThat(ask(token, branch() + "/trace?set=~need&col=frame", null).statusCode())
                .isEqualTo(400);
    }

    @Test
    void aScriptSettlesWhatAChangeHasPutInDoubt() throws Exception {
        String token = token("ines");
        assertThat(json(token, branch() + "/rechecks").isEmpty()).isTrue();
        merrow.change("closesInTime", "within", "9 [min]");
        JsonNode doubt = json(token, branch() + "/rechecks").get(0);
        assertThat(doubt.get("changes").get(0).toString()).contains("10 [min]", "9 [min]", "\"revision\":2");
        String body = "{\"links\":[\"" + doubt.get("link").asString() + "\"],\"note\":\"asked\",\"base\":2}";
        int before = json(token, branch() + "/rechecks").size();
        assertThat(ask(token("tam"), branch() + "/rechecks/confirm", body).statusCode())
                .isEqualTo(403);
        assertThat(ask(token, branch() + "/rechecks/keep", body).statusCode()).isEqualTo(200);
        assertThat(json(token, branch() + "/rechecks?seen=kept")
                        .get(0)
                        .get("keptOpen")
                        .asString())
                .isEqualTo("asked");
        assertThat(ask(token, branch() + "/rechecks/confirm", body.replace("\"base\":2", "\"base\":3"))
                        .statusCode())
                .isEqualTo(200);
        assertThat(json(token, branch() + "/rechecks").size()).isEqualTo(before - 1);
        assertThat(json(token, branch() + "/coverage?at=1").isEmpty()).isFalse();
    }

    @Test
    void aBaselineIsATagAndATagABaseline() throws Exception {
        String token = token("ines");
        String tag = "{\"name\":\"Board review\",\"taggedCommit\":{\"@id\":\"" + merrow.commitId(1) + "\"}}";
        HttpResponse<String> made = ask(token, project() + "/tags", tag);
        assertThat(made.statusCode()).isEqualTo(201);
        assertThat(ask(token, project() + "/tags", tag).body())
                .contains("there is a baseline called Board review already");
        JsonNode read = JSON.readTree(made.body());
        assertThat(json(token, project() + "/tags/" + read.get("@id").asString()))
                .isEqualTo(read);
        assertThat(new Session(merrow.address())
                        .signIn("tam", "merrow")
                        .get("/p/merrow/main/baselines")
                        .body())
                .contains("Board review");
        assertThat(ask(token("tam"), project() + "/tags", tag.replace("Board", "Other"))
                        .statusCode())
                .isEqualTo(403);
        assertThat(ask(
                                token,
                                project() + "/tags",
                                tag.replace(
                                                merrow.commitId(1),
                                                merrow.branch().uuid().toString())
                                        .replace("Board", "Other"))
                        .statusCode())
                .isEqualTo(404);
    }
}
