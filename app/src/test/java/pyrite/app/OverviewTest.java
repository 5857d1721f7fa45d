package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.app.evidence.CoverageCache;
import pyrite.core.model.Edit;
import pyrite.core.trace.Coverage;

/** The numbers of the first page, and the lists they lead to. */
class OverviewTest extends InSession {
    /** The page without its tags, blanks as single ones. */
    private String words(String path) throws Exception {
        return ines.get("/p/merrow/main/" + path)
                .body()
                .replaceAll("(?s)<head>.*?</head>", "")
                .replaceAll("<[^>]+>", " ")
                .replaceAll("\\s+", " ");
    }

    @Test
    void theDemoHasRealGapsAndNothingJudgedByARunYet() throws Exception {
        assertThat(words("overview"))
                .contains(
                        "10 needs",
                        "75 requirements",
                        "2 fail",
                        "53 without a verdict",
                        "11 not satisfied",
                        "4 asked for by nobody",
                        "0 links need recheck",
                        "9 of 10",
                        "64 of 75",
                        "20 of 75");
    }

    @Test
    void everyNumberLeadsToItsList() throws Exception {
        assertThat(words("requirements/rows.json?show=unsatisfied&count=300"))
                .contains("showsOnTheQuay")
                .doesNotContain("closesInTime");
        assertThat(words("requirements/rows.json?show=passing&count=300"))
                .contains("canBeLifted")
                .doesNotContain("agreesOnLevel");
        assertThat(ines.get("/p/merrow/main/requirements?show=nonsense").statusCode())
                .isEqualTo(404);
    }

    /** A requirement is satisfied, verified or asked for on all pages or on none. */
    @Test
    void theFirstPageAndCoverageCountAlike() throws Exception {
        Coverage coverage = merrow.bean(CoverageCache.class).of(merrow.head());
        List<Coverage.Row> rows = coverage.rows().stream()
                .filter(row -> !row.specification().level().equals("need"))
                .toList();
        int all = rows.stream().mapToInt(Coverage.Row::all).sum();
        String page = words("overview");
        assertThat(page)
                .contains(
                        all + " requirements",
                        all - rows.stream().mapToInt(Coverage.Row::satisfied).sum() + " not satisfied",
                        all - rows.stream().mapToInt(Coverage.Row::verified).sum() + " not verified",
                        rows.stream().mapToInt(Coverage.Row::passing).sum() + " of " + all,
                        coverage.unasked().size() + " asked for by nobody");
        assertThat(words("requirements/rows.json?show=unverified&count=300"))
                .contains("\"requirements\":"
                        + (all - rows.stream().mapToInt(Coverage.Row::verified).sum()));
    }

    @Test
    void aNeedStandsWithWhatAnswersItAndOneWithoutAnAnswerSaysSo() throws Exception {
        assertThat(words("needs"))
                .contains(
                        "Needs 10",
                        "keepsTownDry The quays and the lower streets",
                        "HarbourMaster MG-1 closesInTime",
                        "isQuietAtNight",
                        "no requirement yet");
        assertThat(words("requirements/rows.json?show=unasked&count=300"))
                .contains("showsOnTheQuay")
                .doesNotContain("closesInTime");
    }

    @Test
    void whatOthersChangedIsNewsUntilTheNextVisit() throws Exception {
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("sea").withName("ocean")),
                        merrow.person("odo"),
                        "sea renamed to ocean");
        assertThat(words("overview")).contains("Recent changes 2", "sea renamed to ocean");
    }
}
