package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/** A library of another project is used at a baseline, kept from edits, moved and left. */
@NewProject
class LibrariesTest extends InRequirements {
    private Branch works;

    @BeforeEach
    void makeTheLibrary() {
        works = merrow.bean("branchStore", BranchStore.class).create("works", "Works", "main", "main");
        commit(NotationReader.read(Library.model(), List.of(new Source("works.sysml", """
                        library package Fenders {
                            doc /* What takes the push of a hull. */
                            part def Fender { doc /* Rubber on steel. */ attribute reach : ScalarValues::Real = 2; }
                            part def Dolphin;
                        }
                        """)))
                .edit());
        baseline("A");
    }

    private Workspace workspace() {
        return merrow.bean("workspace", Workspace.class);
    }

    private void commit(Edit edit) {
        assertThat(workspace()
                        .commit(
                                works,
                                workspace().head(works.id()).number(),
                                edit,
                                merrow.bean("personMapper", PersonMapper.class)
                                        .bySignIn("odo")
                                        .orElseThrow(),
                                "edit"))
                .isInstanceOf(Workspace.Commit.Saved.class);
    }

    private void baseline(String name) {
        merrow.bean("baselineMapper", BaselineMapper.class).add(works.id(), number(), name, "", 1, Instant.EPOCH);
    }

    private int number() {
        return workspace().head(works.id()).number();
    }

    private Element inWorks(String name) {
        return workspace().head(works.id()).model().ownElements().stream()
                .filter(element -> name.equals(element.name()))
                .findFirst()
                .orElseThrow();
    }

    private HttpResponse<String> libraries(String act, int number, String more) throws Exception {
        return post(
                "/libraries/" + act,
                "{'project':'%s','number':%d,'base':%d%s}".formatted(works.projectUuid(), number, head(), more));
    }

    private void use() throws Exception {
        assertThat(libraries("use", 1, ",'top':'" + inWorks("Fenders").id() + "'")
                        .body())
                .contains("Fenders of Works used at A");
        assertThat(post(
                                "/element/" + id("Harbour") + "/members",
                                "{'text':'part pier : Fenders::Dolphin;','base':" + head() + "}")
                        .body())
                .contains("\"saved\":true");
    }

    private String page(String path) throws Exception {
        return ines.get(BRANCH + path).body().replaceAll("<[^>]+>", " ").replaceAll("\\s+", " ");
    }

    @Test
    void itIsFoundUsedAndKeptFromEdits() throws Exception {
        assertThat(page("/libraries?q=hull")).contains("Nothing on offer is about “hull”");
        assertThat(page("/libraries?q=rubber"))
                .contains("Fenders 1 definition What takes the push of a hull.", "part def Fender");
        use();
        assertThat(page("/libraries")).contains("Fenders Works A 2 1 the newest baseline");
        assertThat(page("/element/" + id("Fender"))).contains("From Works at A ; it is edited there.");
        HttpResponse<String> refused =
                post("/element/" + id("Fender") + "/members", "{'text':'part bolt;','base':" + head() + "}");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("it belongs to Fenders of Works at A");
        assertThat(libraries("leave", 1, ",'reason':''").body())
                .contains("some of Fenders is used here; replace it first");
        assertThat(ines.get("/p/works/main/element/" + inWorks("Dolphin").id() + "/uses")
                        .body())
                .contains("Merrow surge gate", "Harbour · pier");
    }

    @Test
    void aNewerBaselineIsLookedAtPutOffAndTaken() throws Exception {
        use();
        commit(((Authoring.Proposal.Accepted)
                        new Authoring(workspace().head(works.id()).model())
                                .members(inWorks("Fenders"), "part def Buoy;"))
                .edit());
        baseline("B");
        assertThat(page("/libraries")).contains("B is out", "See what changes");
        assertThat(page("/libraries/move?from=" + works.projectUuid())).contains("Works: A to B", "Buoy added");
        assertThat(libraries("put-off", number(), ",'reason':' '").body()).contains("say in a few words why it waits");
        libraries("put-off", number(), ",'reason':'after the storms'");
        assertThat(page("/libraries")).contains("B is out , put off: after the storms");
        assertThat(libraries("move", number(), ",'reason':''").body())
                .contains("Works moved to B: 1 definition changed");
        assertThat(page("/libraries")).contains("Fenders Works B 3 1 the newest baseline");
    }

    @Test
    void aBaselineWithoutWhatIsUsedIsRefusedByName() throws Exception {
        use();
        commit(Edit.remove(inWorks("Dolphin").id()));
        baseline("B");
        assertThat(page("/libraries/move?from=" + works.projectUuid()))
                .contains("Conflicts", "it uses Fenders::Dolphin, which B no longer has");
        int before = head();
        assertThat(libraries("move", number(), ",'reason':''").body())
                .contains("it uses Fenders::Dolphin, which B no longer has; change that first");
        assertThat(head()).isEqualTo(before);
    }
}
