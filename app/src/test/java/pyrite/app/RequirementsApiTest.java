package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import pyrite.app.recheck.Rechecks;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.ExternalReference;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Links;

/** What the server takes and refuses, whatever a page would have checked before. */
class RequirementsApiTest extends InRequirements {
    private HttpResponse<String> file(String path, String name, String content, String... fields)
            throws IOException, InterruptedException {
        StringBuilder body = new StringBuilder("--x\r\nContent-Disposition: form-data; name=\"file\"; filename=\""
                + name + "\"\r\nContent-Type: text/html\r\n\r\n" + content + "\r\n");
        for (int i = 0; i < fields.length; i += 2) {
            body.append("--x\r\nContent-Disposition: form-data; name=\"")
                    .append(fields[i])
                    .append("\"\r\n\r\n")
                    .append(fields[i + 1])
                    .append("\r\n");
        }
        return ines.post(
                BRANCH + path,
                "multipart/form-data; boundary=x",
                body.append("--x--\r\n").toString(),
                token);
    }

    @NewProject
    @Test
    void anIdIsNeverGivenTwiceWhateverBecomesOfItsRequirement() throws Exception {
        String add = "{'anchor':'" + id("closesInTime") + "','below':false,'type':'requirement','text':'x','base':";
        assertThat(post("/requirements/add", add + head() + "}").body()).contains("requirement MG-25 added");
        String made = merrow.head().model().ownElements().stream()
                .filter(each -> "MG-25".equals(each.shortName()))
                .findFirst()
                .orElseThrow()
                .id()
                .toString();
        assertThat(post("/requirements/remove", "{'ids':['" + made + "'],'base':" + head() + "}")
                        .body())
                .contains("MG-25 removed");
        merrow.restart();
        ines = new Session(merrow.address()).signIn("ines", "merrow");
        token = ines.token(BRANCH + "/requirements");
        assertThat(post("/requirements/add", add + head() + "}").body()).contains("requirement MG-26 added");
        assertThat(post("/undo", "{}").body()).contains("undone");
        assertThat(post("/requirements/add", add + head() + "}").body()).contains("requirement MG-27 added");
    }

    @NewProject
    @Test
    void manyWhoAddAtOnceGetDifferentIds() throws Exception {
        try (ExecutorService writers = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<Integer>> all = IntStream.range(0, 12)
                    .mapToObj(_ -> writers.submit(() -> post(
                                    "/requirements/add",
                                    "{'anchor':'" + id("closesInTime")
                                            + "','below':false,'type':'requirement','text':'x','base':1}")
                            .statusCode()))
                    .toList();
            for (Future<Integer> each : all) {
                assertThat(each.get()).isEqualTo(200);
            }
        }
        assertThat(merrow.head().model().ownElements().stream()
                        .map(Element::shortName)
                        .filter(each -> each != null && each.startsWith("MG-")))
                .hasSize(36)
                .doesNotHaveDuplicates();
    }

    @Test
    void twoWhoMoveTheSameLineAreToldAndNothingIsLost() throws Exception {
        String move = "{'lines':{'ids':['" + id("closesInTime") + "'],'base':1},'how':'into','target':'";
        String water = merrow.head().model().ownElements().stream()
                .filter(each -> "Water".equals(each.name()))
                .findFirst()
                .orElseThrow()
                .id()
                .toString();
        String upkeep = merrow.head().model().ownElements().stream()
                .filter(each -> "Upkeep".equals(each.name()))
                .findFirst()
                .orElseThrow()
                .id()
                .toString();
        assertThat(post("/requirements/arrange", move + water + "'}").statusCode())
                .isEqualTo(200);
        HttpResponse<String> second = post("/requirements/arrange", move + upkeep + "'}");
        assertThat(second.statusCode()).isEqualTo(409);
        assertThat(second.body()).contains("somebody has changed closesInTime");
        assertThat(post(
                                "/requirements/arrange",
                                "{'lines':{'ids':['" + water + "'],'base':" + head() + "},'how':'into','target':'"
                                        + id("closesInTime") + "'}")
                        .statusCode())
                .isEqualTo(422);
    }

    @Test
    void theStatusGoesItsCourse() throws Exception {
        String set = "{'lines':{'ids':['" + id("showsOnTheQuay") + "'],'base':1},'attribute':'status','value':'%s'}";
        assertThat(post("/requirements/attribute", set.formatted("approved")).body())
                .contains("the status goes from draft to proposed or postponed, not to approved");
        assertThat(post("/requirements/attribute", set.formatted("proposed")).statusCode())
                .isEqualTo(200);
        assertThat(post("/requirements/attribute", set.formatted("good")).body())
                .contains("one of draft, proposed, approved, rejected, postponed");
        Model model = merrow.head().model();
        assertThat(Attributes.in(model).value(merrow.named("showsOnTheQuay"), "status"))
                .isEqualTo("proposed");
    }

    @NewProject
    @Test
    void rulesHoldOverNotationToo() throws Exception {
        HttpResponse<String> refused = ines.type(
                BRANCH,
                "/element/" + id("MerrowRules") + "/members",
                "dependency from MerrowNeeds::keepsTownDry to MerrowNeeds::keepsTownDry",
                1);
        assertThat(refused.body()).contains("N-1 cannot be linked with itself");
        assertThat(head()).isEqualTo(1);
    }

    @NewProject
    @Test
    void aHeadingGoesWithItsRequirementsAndLinksAndComesBackWithThem() throws Exception {
        String closing = merrow.head().model().ownElements().stream()
                .filter(each -> "Closing".equals(each.name()))
                .findFirst()
                .orElseThrow()
                .id()
                .toString();
        int before = merrow.head().model().size();
        assertThat(post("/requirements/remove", "{'ids':['" + closing + "'],'base':1}")
                        .body())
                .containsPattern("Closing removed with 5 requirements and \\d+ links");
        assertThat(post("/undo", "{}").statusCode()).isEqualTo(200);
        Model model = merrow.head().model();
        assertThat(model.size()).isEqualTo(before);
        assertThat(Links.in(model).of(merrow.named("closesInTime"))).hasSize(8);
    }

    @NewProject
    @Test
    void aTableIsLookedAtBeforeItIsTaken() throws Exception {
        String spec = id("MerrowLeafRequirements");
        String csv =
                "id,text,status\nLF-1,The leaf shall weigh no more than 149 t.,\n,The leaf shall be blue.,proposed\n";
        assertThat(file("/requirements/import/preview", "in.csv", csv, "spec", spec)
                        .body())
                .contains("\"added\":1", "\"changed\":1", "The leaf shall weigh no more than 150 t.", "149 t");
        assertThat(head()).isEqualTo(1);
        assertThat(file(
                                "/requirements/import",
                                "in.csv",
                                csv,
                                "spec",
                                spec,
                                "columns",
                                "id,text,status",
                                "headed",
                                "true",
                                "base",
                                "1")
                        .body())
                .contains("1 added, 1 changed");
        assertThat(merrow.head().model().ownElements()).anyMatch(each -> "LF-9".equals(each.shortName()));
        assertThat(file("/requirements/import/preview", "in.csv", "a\n\"b", "spec", spec)
                        .body())
                .contains("a quote is not closed");
        assertThat(file("/requirements/import/preview", "in.csv", "text\n" + "x\n".repeat(200_000), "spec", spec)
                        .body())
                .contains("more than 20000 rows; divide it");
    }

    @Test
    void whatIsShownIsExportedAndHarmless() throws Exception {
        post(
                "/requirements/add",
                "{'anchor':'" + id("closesInTime") + "','below':false,'type':'requirement','text':'=cmd()','base':1}");
        String csv = ines.get(BRANCH + "/requirements/export.csv?q=MG-").body();
        assertThat(csv)
                .contains(
                        "MG-1,1 Closing,closesInTime,The gate shall be closed within 10 minutes of the warning.,approved,must,test",
                        "'=cmd()")
                .doesNotContain("HU-1");
        assertThat(ines.get(BRANCH
                                + "/requirements/export.csv?q=MG-2&columns=tag~76,attribute%3Apriority,links,nothing")
                        .body())
                .contains("id,section,priority,links", "MG-2,1 Closing,must,answers N-5; ")
                .doesNotContain("land");
        assertThat(ines.get(BRANCH + "/requirements/export.xlsx").body()).startsWith("PK");
        assertThat(ines.get(BRANCH + "/trace/export.csv?set=~need&col=frame%3C").body())
                .contains("N-1 keepsTownDry,", "MG-1 closesInTime");
        assertThat(ines.get(BRANCH + "/coverage/export.csv").body()).contains("MG-20 showsOnTheQuay,unasked");
        assertThat(ines.get(BRANCH + "/matrix/export.csv?rows=~system&columns=~need&kind=frame")
                        .body())
                .contains("leads to");
        assertThat(ines.get(BRANCH + "/trace?set=~need&col=nonsense").statusCode())
                .isEqualTo(400);
    }

    @Test
    void aScriptIsNoAddressAndAFileIsOnlyGivenBack() throws Exception {
        String element = "/element/" + id("closesInTime");
        assertThat(post(
                                element + "/references",
                                "{'address':'javascript:alert(1)','description':'x','incoming':true,'base':1}")
                        .body())
                .contains("one begins with http://, https:// or mailto:");
        assertThat(post(
                                element + "/references",
                                "{'address':'https://harbour.example/study','description':'Flood study','incoming':true,'base':1}")
                        .statusCode())
                .isEqualTo(200);
        assertThat(file(element + "/attachments", "study.html", "<script>alert(1)</script>", "base", "2")
                        .statusCode())
                .isEqualTo(200);
        // A drawing with a script in it is a file like any other, and no picture that pages show.
        file(
                element + "/attachments",
                "mark.svg",
                "<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>",
                "base",
                "3");
        List<ExternalReference> references = ExternalReference.of(merrow.head().model(), merrow.named("closesInTime"));
        String mark = references.getLast().address().substring(ExternalReference.FILES.length());
        assertThat(ines.get(BRANCH + "/pictures/" + mark).statusCode()).isEqualTo(404);
        assertThat(ines.get(BRANCH + "/attachments/" + mark).headers().map())
                .containsEntry("content-type", List.of("application/octet-stream"))
                .hasEntrySatisfying(
                        "content-disposition", how -> assertThat(how.getFirst()).startsWith("attachment;"));
        assertThat(ines.get(BRANCH + element).body())
                .contains("https://harbour.example/study", "Flood study", "study.html")
                .doesNotContain("<script>alert");
        String file = ExternalReference.of(merrow.head().model(), merrow.named("closesInTime")).stream()
                .filter(ExternalReference::isFile)
                .findFirst()
                .orElseThrow()
                .address();
        HttpResponse<String> answer = ines.get(BRANCH + "/" + file);
        assertThat(answer.headers().firstValue("Content-Disposition").orElse(""))
                .startsWith("attachment")
                .contains("study.html");
        assertThat(answer.headers().firstValue("Content-Type").orElse("")).isEqualTo("application/octet-stream");
        assertThat(ines.get(BRANCH + "/" + file.replace("attachments", "pictures"))
                        .statusCode())
                .isEqualTo(404);
    }

    @NewProject
    @Test
    void aRevisionIsNamedABaselineAndComparedWith() throws Exception {
        assertThat(post("/baselines", "{'number':1,'name':'Review','note':''}").statusCode())
                .isEqualTo(200);
        assertThat(post("/baselines", "{'number':1,'name':'Review','note':''}").body())
                .contains("there is a baseline called Review already");
        assertThat(post("/baselines", "{'number':9,'name':'Later','note':''}").body())
                .contains("there is no revision r9 yet");
        ines.edit(
                "/element/" + id("closesInTime") + "/text",
                "The gate shall be closed within 9 minutes of the warning.");
        String spec = id("MerrowRequirements");
        assertThat(ines.get(BRANCH + "/baselines?spec=" + spec).body().replaceAll("\\s+>", ">"))
                .contains("Review (r1)", "<del>10</del><ins>9</ins>");
        HttpResponse<String> page = ines.get(BRANCH + "/baselines?spec=" + spec + "&as=file");
        assertThat(page.headers().firstValue("Content-Disposition").orElse("")).contains("comparison-r1-r2.html");
        assertThat(page.body().replaceAll("\\s+>", ">"))
                .contains("<style>", "Review (r1)", "<ins>9</ins>")
                .doesNotContain("<script", "<link");
    }

    @NewProject
    @Test
    void aWindowOfTheGridKnowsWhereAnElementIs() throws Exception {
        String window = ines.get(BRANCH + "/requirements/rows.json?count=20&around=" + id("isPaintedWhite"))
                .body();
        assertThat(window)
                .contains("LF-8")
                .containsPattern("\"requirements\":85")
                .containsPattern("\"index\":9\\d")
                .containsPattern("\"spine\":\"h[hrn]+\"");
        assertThat(ines.get(BRANCH + "/requirements/rows.json?group=status&where=priority:must")
                        .body())
                .contains("approved · ");
        assertThat(ines.get(BRANCH + "/requirements/rows.json?sort=-id&q=MG-2").body())
                .containsPattern("(?s)MG-24.*MG-2\"");
    }

    @Test
    void whatNeedsRecheckIsKnownAgainAfterARestart(@TempDir Path folder) {
        try (Application withHistory = Application.withHistory(folder)) {
            var head = withHistory.bean(pyrite.app.workspace.Workspace.class).head("merrow", "main");
            List<String> doubts = doubts(withHistory, head);
            assertThat(doubts)
                    .anyMatch(each -> each.contains("text"))
                    .anyMatch(each -> each.contains("constraint"))
                    .hasSizeGreaterThanOrEqualTo(5);
            withHistory.close();
            withHistory.start();
            assertThat(doubts(
                            withHistory,
                            withHistory
                                    .bean(pyrite.app.workspace.Workspace.class)
                                    .head("merrow", "main")))
                    .isEqualTo(doubts);
        }
    }

    private static List<String> doubts(Application application, pyrite.app.workspace.Workspace.Head head) {
        return application.bean(Rechecks.class).all(head).stream()
                .map(doubt -> doubt.link().carrier() + " " + doubt.since() + " " + doubt.changes())
                .sorted()
                .toList();
    }

    @Test
    void specificationsHavePrefixesOfTheirOwn() throws Exception {
        assertThat(post("/requirements/specifications", "{'name':'Again','prefix':'MG','level':'','base':1}")
                        .body())
                .contains("the prefix MG is that of another specification");
        assertThat(post("/requirements/specifications", "{'name':'Panel','prefix':'9','level':'','base':1}")
                        .body())
                .contains("begins with a letter");
        assertThat(post("/requirements/specifications", "{'name':'Panel','prefix':'QP','level':'subsystem','base':1}")
                        .statusCode())
                .isEqualTo(200);
        assertThat(Specification.all(merrow.head().model()))
                .extracting(Specification::prefix)
                .contains("QP");
    }

    @NewProject
    @Test
    void anAttributeIsOfATypeThereIsAndHasANameOfItsOwn() throws Exception {
        String add =
                "{'name':'%s','type':'%s','quantity':'%s','choices':'%s','required':false,'byDefault':'%s','base':1}";
        assertThat(post("/requirements/attributes", add.formatted("risk", "colour", "", "", ""))
                        .body())
                .contains("'colour' is no type; text, number, choice");
        assertThat(post("/requirements/attributes", add.formatted("status", "text", "", "", ""))
                        .body())
                .contains("there is an attribute called status already");
        assertThat(post("/requirements/attributes", add.formatted("risk", "choice", "", "low", ""))
                        .statusCode())
                .isEqualTo(422);
        assertThat(head()).isEqualTo(1);
        assertThat(post("/requirements/attributes", add.formatted("largest mass", "number", "Mass", "", "2 [SI::t]"))
                        .body())
                .contains("attribute largest mass added");
        assertThat(ines.get(BRANCH + "/requirements/quantities.json").body()).contains("Mass", "Power");
        Model model = merrow.head().model();
        assertThat(Attributes.in(model).value(merrow.named("closesInTime"), "largest mass"))
                .startsWith("2");
        assertThat(post(
                                "/requirements/attribute",
                                "{'lines':{'ids':['" + id("closesInTime")
                                        + "'],'base':2},'attribute':'largest mass','value':'3 m'}")
                        .statusCode())
                .isEqualTo(422);
        assertThat(post("/undo", "{}").body()).contains("undone");
        assertThat(Attributes.in(merrow.head().model()).all())
                .extracting(each -> each.name())
                .doesNotContain("largest mass");
    }

    @NewProject
    @Test
    void whatIsAskedForAnAttributeMayStandInAFilterAnOrderAndAGroup() throws Exception {
        assertThat(ines.get(BRANCH + "/requirements/rows.json?where=status:draft&count=300")
                        .body())
                .contains("\"requirements\":8")
                .contains("MG-20")
                .doesNotContain("MG-1\"");
        assertThat(ines.get(BRANCH + "/requirements/rows.json?sort=-id&count=1").body())
                .contains("\"N-10\"");
        assertThat(ines.get(BRANCH + "/requirements/rows.json?group=priority&count=300")
                        .body())
                .contains("must · ", "should · ");
        assertThat(ines.get(BRANCH + "/requirements/rows.json?q=siren&count=300")
                        .body())
                .contains("MG-15")
                .doesNotContain("MG-20");
        assertThat(ines.get(BRANCH + "/requirements/rows.json?count=-5").statusCode())
                .isEqualTo(200);
        assertThat(ines.get(BRANCH + "/requirements/rows.json?spec=00000000-0000-4000-8000-000000000000")
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void aLinkShowsTheNoteOfItsOwnAndNotTheTextOfWhatItLeadsTo() throws Exception {
        pyrite.app.links.ElementLinks links = merrow.bean("elementLinks", pyrite.app.links.ElementLinks.class);
        assertThat(links.of(merrow.head(), merrow.named("closesInTime")))
                .hasSize(8)
                .allSatisfy(seen -> assertThat(seen.note()).isEmpty());
    }
}
