package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Edit;
import pyrite.core.notation.Authoring;
import pyrite.core.trace.SavedView;

/** Pages of more than fits on one, kept views and what they count, and tables as files. */
class ManyRowsTest extends InSession {
    private static final int NEEDS = 450;
    private static final Pattern TAG = Pattern.compile("class=\"tag\"[^>]*>(X-\\d+)<");

    private void type(String holder, String notation) {
        var proposal = (Authoring.Proposal.Accepted)
                new Authoring(merrow.head().model()).members(merrow.named(holder), notation);
        commit(proposal.edit());
    }

    private void commit(Edit edit) {
        merrow.workspace().commit(merrow.branch(), merrow.head().number(), edit, merrow.person("ines"), "edit");
    }

    private String page(String path) throws Exception {
        return ines.get("/p/merrow/main/" + path).body();
    }

    private static List<String> tags(String html) {
        return TAG.matcher(html).results().map(found -> found.group(1)).toList();
    }

    private void manyNeeds() {
        StringBuilder text = new StringBuilder();
        for (int i = 1; i <= NEEDS; i++) {
            text.append("concern <'X-")
                    .append(i)
                    .append("'> x")
                    .append(i)
                    .append(" { doc /* Thing ")
                    .append(i)
                    .append(". */ }\n");
        }
        type("MerrowNeeds", text.toString());
    }

    @NewProject
    @Test
    void needsAreReadPageByPageInTheOrderOfTheirIds() throws Exception {
        manyNeeds();
        String first = page("needs");
        assertThat(first).contains(">460<", "1 to 200 of 460", "Further rows").doesNotContain("Rows before");
        assertThat(tags(first)).hasSize(190).startsWith("X-1", "X-2").endsWith("X-190");
        String last = page("needs?from=400");
        assertThat(last).contains("401 to 460 of 460", "Rows before").doesNotContain("Further rows");
        assertThat(tags(last)).hasSize(60).startsWith("X-391").endsWith("X-450");
        assertThat(page("needs?from=99999")).contains("460 to 460 of 460");
        assertThat(page("overview")).contains("9 of 460");
    }

    @Test
    void aTraceTableGoesOnWithTheSameQuestion() throws Exception {
        manyNeeds();
        String query = "set=~need&col=" + URLEncoder.encode("frame<||without", StandardCharsets.UTF_8);
        String first = page("trace?" + query);
        assertThat(first).contains("451</span>", "1 to 100 of 451");
        Matcher further =
                Pattern.compile("href=\"([^\"]*from=100)\">Further rows").matcher(first);
        assertThat(further.find()).isTrue();
        assertThat(ines.get(further.group(1).replace("&amp;", "&")).body()).contains("101 to 200 of 451");
    }

    @NewProject
    @Test
    void everyElementIsGivenOnceByTheApiHoweverSmallThePages() throws Exception {
        String token = ines.token("/account");
        var made = ines.post("/account/tokens", "application/x-www-form-urlencoded", "name=pages&days=1", token);
        Matcher secret = Pattern.compile("pyr_[A-Za-z0-9_-]+").matcher(made.body());
        assertThat(secret.find()).isTrue();
        java.util.Set<String> seen = new java.util.HashSet<>();
        String next = commitAddress() + "/elements?page%5Bsize%5D=300";
        int all = 0;
        while (next != null) {
            var answer = ines.get(next);
            Matcher ids =
                    Pattern.compile("\\{\"@id\":\"([0-9a-f-]{36})\",\"@type\"").matcher(answer.body());
            while (ids.find()) {
                all++;
                seen.add(ids.group(1));
            }
            next = answer.headers()
                    .firstValue("Link")
                    .map(link -> link.substring(1, link.indexOf('>')).replace(merrow.address(), ""))
                    .orElse(null);
        }
        assertThat(seen)
                .hasSize(all)
                .hasSize(merrow.head().model().ownElements().size());
    }

    private String commitAddress() {
        return "/api/projects/" + merrow.branch().projectUuid() + "/commits/" + merrow.commitId(1);
    }

    @Test
    void aKeptViewCountsWhatItShows() throws Exception {
        commit(Edit.put(merrow.named("sea").withName("ocean")));
        keep("all drafts", "requirements", "where=status%3Adraft&columns=tag~90%2Ctext");
        keep("unanswered", "trace", "set=~need&col=frame%3C%7C%7Cwithout");
        keep("doubts above", "recheck", "way=up&kind=frame");
        keep("doubts below", "recheck", "way=down&kind=frame");
        keep("of nothing", "trace", "set=00000000-0000-4000-8000-000000000000&col=frame%3C");
        commit(((Authoring.Proposal.Accepted) new Authoring(merrow.head().model())
                        .documentation(merrow.named("warnsInTime"), "It is heard four minutes before."))
                .edit());
        String views = page("views").replaceAll("<[^>]+>", " ").replaceAll("\\s+", " ");
        assertThat(views)
                .containsPattern("all drafts requirements 8 ")
                .containsPattern("unanswered trace table 1 ")
                .containsPattern("doubts above recheck 2 ")
                .containsPattern("doubts below recheck 0 ")
                .containsPattern("of nothing trace table ines");
    }

    private void keep(String name, String page, String query) {
        commit(SavedView.put(merrow.head().model(), new SavedView.Request(name, page, query, "ines", true, true)));
    }

    @NewProject
    @Test
    void tablesAreSentAsFilesWithAllTheirRows() throws Exception {
        manyNeeds();
        var file = ines.get("/p/merrow/main/trace/export.csv?set=~need&col=frame%3C%7C%7Cwithout");
        assertThat(file.headers().firstValue("Content-Disposition")).contains("attachment; filename=\"trace-r2.csv\"");
        assertThat(file.body().lines()).hasSize(452);
        assertThat(page("impact/export.csv?of=MG-1,nothing&depth=1&way=up"))
                .contains("reached,N-1 keepsTownDry,up,1,")
                .doesNotContain("nothing");
        assertThat(page("impact/export.csv?of=").strip()).endsWith("what,element,way,links away,text");
        assertThat(page("recheck/export.csv").strip())
                .endsWith("from,link,to,agreed at,changed end,property,before,after,by,when,kept open because");
    }
}
