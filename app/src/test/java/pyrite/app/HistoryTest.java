package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.app.store.BranchStore;
import pyrite.app.workspace.Workspace.Commit;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Reading the past and bringing it back, on a real database and over HTTP. */
@NewProject
class HistoryTest extends InSession {
    private void commit(Edit edit, String summary) {
        assertThat(merrow.workspace()
                        .commit(merrow.branch(), merrow.head().number(), edit, merrow.person("odo"), summary))
                .isInstanceOf(Commit.Saved.class);
    }

    private String page(String path) throws Exception {
        return ines.get("/p/merrow/main/" + path).body();
    }

    private String restore(Element element, int number, boolean whole) throws Exception {
        return ines.post(
                        "/p/merrow/main/element/" + element.id() + "/restore",
                        "application/json",
                        "{\"number\":" + number + ",\"whole\":" + whole + "}",
                        ines.token("/p/merrow/main/requirements"))
                .body();
    }

    private static Set<Element> elements(Model model) {
        return Set.copyOf(model.ownElements());
    }

    @Test
    void everyRevisionIsReadExactlyAsItWas() {
        Set<Element> first = elements(merrow.head().model());
        commit(Edit.put(merrow.named("Hinge").withName("Pivot")), "renamed");
        commit(Edit.remove(merrow.named("tideRun").id()), "removed");
        Set<Element> third = elements(merrow.head().model());
        IntStream.range(0, 12)
                .forEach(i -> commit(
                        Edit.put(merrow.named("canBeLifted")
                                .withName("canBeLifted")
                                .with(pyrite.core.model.Property.NOTES, "note " + i)),
                        "note"));
        assertThat(elements(merrow.workspace().at(merrow.head(), 1))).isEqualTo(first);
        assertThat(elements(merrow.workspace().at(merrow.head(), 3))).isEqualTo(third);
        assertThat(elements(merrow.workspace().at(merrow.head(), 0))).isEmpty();
        merrow.restart();
        assertThat(elements(merrow.workspace().at(merrow.head(), 3))).isEqualTo(third);
    }

    @Test
    void theDifferenceBetweenTwoRevisionsIsWhatIsDifferentInTheEnd() {
        Element hinge = merrow.named("Hinge");
        commit(Edit.put(hinge.withName("Pivot")), "renamed");
        commit(Edit.put(hinge.withName("Hinge")), "renamed back");
        commit(Edit.put(hinge.withName("Axle")), "renamed again");
        BranchStore store = merrow.bean(BranchStore.class);
        assertThat(store.difference(merrow.branch(), 1, 3).isEmpty()).isTrue();
        Difference difference = store.difference(merrow.branch(), 1, 4);
        assertThat(difference.changes()).singleElement().satisfies(change -> {
            assertThat(change.before()).isEqualTo(hinge);
            assertThat(change.after()).isEqualTo(hinge.withName("Axle"));
        });
    }

    @Test
    void aPageOfThePastSaysSoLeadsOnInThePastAndOffersNoEditing() throws Exception {
        String hinge = merrow.named("Hinge").id().toString();
        commit(Edit.put(merrow.named("Hinge").withName("Pivot")), "renamed to Pivot");
        assertThat(page("element/" + hinge + "?at=1"))
                .contains(
                        "You are reading r1",
                        "Merrow surge gate, first model",
                        ">Hinge<",
                        "?at=1",
                        "data-restore=\"whole\"")
                .doesNotContain("data-edit", "data-quick-add");
        assertThat(page("element/" + hinge)).contains(">Pivot<").doesNotContain("You are reading");
        assertThat(page("changes/between?from=1"))
                .contains("renamed to Pivot", "element differs", "part def Hinge", "part def Pivot");
        assertThat(ines.get("/p/merrow/main/overview?at=7").statusCode()).isEqualTo(404);
        assertThat(ines.get("/p/merrow/main/overview?at=x").body()).contains("is no number of a revision");
        Session tam = new Session(merrow.address()).signIn("tam", "merrow");
        assertThat(tam.get("/p/merrow/main/element/" + hinge + "?at=1").body()).doesNotContain("data-restore");
    }

    @Test
    void verdictsOfThePastAreThoseThatWereThereThen() throws Exception {
        merrow.change("leaf", "mass", "170 [t]");
        assertThat(page("requirements/rows.json?show=failing")).contains("canBeLifted");
        assertThat(page("requirements/rows.json?show=failing&at=1")).doesNotContain("canBeLifted");
        assertThat(page("requirements?at=1")).contains("/p/merrow/main/coverage?at=1");
    }

    @Test
    void whatWasRemovedComesBackWithItsIdsItsPartsAndItsHistory() throws Exception {
        Element check = merrow.named("closingCheck");
        Set<Element> before = elements(merrow.head().model());
        commit(Edit.remove(check.id()), "check removed");
        assertThat(restore(check, 1, true))
                .contains("\"saved\":true", "closingCheck restored as of r1 with all it owned");
        assertThat(elements(merrow.head().model())).isEqualTo(before);
        assertThat(page("element/" + check.id())).contains("History (3)");
        assertThat(ines.edit("/undo", "").body()).contains("undone: closingCheck restored");
        assertThat(merrow.head().model().has(check.id())).isFalse();
    }

    @Test
    void whatCannotComeBackSaysWhy() throws Exception {
        Element check = merrow.named("closingCheck");
        Element objective = merrow.head().model().children(check.id()).getLast();
        commit(Edit.remove(check.id()), "check removed");
        assertThat(restore(objective, 1, true))
                .contains("it stood in closingCheck, which is gone too; restore that first");
        assertThat(restore(merrow.named("Hinge"), 1, true)).contains("it is as it was then");
        assertThat(restore(merrow.named("Hinge"), 99, true)).contains("there is no revision r99");
    }

    @Test
    void manyRevisionsAreListedPageByPage() throws Exception {
        Element hinge = merrow.named("Hinge");
        IntStream.range(0, 210).forEach(i -> commit(Edit.put(hinge.withName("Hinge" + i)), "name " + i));
        assertThat(page("changes"))
                .contains("211", "name 209", "Older revisions", "upTo=11")
                .doesNotContain(">name 5<");
        assertThat(page("changes?upTo=11")).contains(">name 5<", "first model").doesNotContain("name 209");
    }
}
