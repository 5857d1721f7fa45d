package pyrite.app;

import java.nio.file.Path;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.app.workspace.Workspace.Commit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;

/** A running application with the demo project, and the short ways to it that tests take. */
final class Merrow implements AutoCloseable {
    private final Application application = Application.inNewFolder();

    /** Stops the program and starts it again on the same data. */
    void restart() {
        application.close();
        application.start();
    }

    <T> T bean(Class<T> type) {
        return application.bean(type);
    }

    <T> T bean(String name, Class<T> type) {
        return application.bean(name, type);
    }

    String address() {
        return application.address();
    }

    Path data() {
        return application.data();
    }

    Workspace workspace() {
        return bean(Workspace.class);
    }

    Workspace.Head head() {
        return workspace().head("merrow", "main");
    }

    Branch branch() {
        return head().branch();
    }

    Person person(String signIn) {
        return bean(PersonMapper.class).bySignIn(signIn).orElseThrow();
    }

    /** The element of a name; the subjects of requirements, which are called like what they look at, are not meant. */
    Element named(String name) {
        return head().model().ownElements().stream()
                .filter(e -> name.equals(e.name()) && e.kind() != ElementKind.SUBJECT)
                .findFirst()
                .orElseThrow();
    }

    /** The name by which other programs know a revision. */
    String commitId(int number) {
        return bean(BranchStore.class)
                .revision(branch(), number)
                .orElseThrow()
                .uuid()
                .toString();
    }

    /** Adds members to an element, as Ines would by typing them. */
    Commit add(String holder, String members) {
        Workspace.Head head = head();
        Authoring.Proposal.Accepted accepted =
                (Authoring.Proposal.Accepted) new Authoring(head.model()).members(named(holder), members);
        return workspace().commit(head.branch(), head.number(), accepted.edit(), person("ines"), accepted.summary());
    }

    /** Gives a feature another value, as Ines would by typing it. */
    Commit change(String holder, String feature, String text) {
        Workspace.Head head = head();
        Model model = head.model();
        Element changed = model.inheritance().features(named(holder)).stream()
                .filter(e -> feature.equals(model.names().effectiveName(e)))
                .findFirst()
                .orElseThrow();
        Authoring.Proposal.Accepted accepted =
                (Authoring.Proposal.Accepted) new Authoring(model).value(named(holder), changed, text);
        return workspace().commit(head.branch(), head.number(), accepted.edit(), person("ines"), accepted.summary());
    }

    @Override
    public void close() {
        application.close();
    }
}
