package pyrite.app.start;

import java.time.InstantSource;
import java.util.List;
import java.util.function.Function;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.trace.SavedView;

/** The edits of the demo's people after its model was loaded, so that the demo has a history. */
final class DemoHistory {
    private final Workspace workspace;
    private final PersonMapper people;
    private final BaselineMapper baselines;
    private final InstantSource clock;

    DemoHistory(Workspace workspace, PersonMapper people, BaselineMapper baselines, InstantSource clock) {
        this.workspace = workspace;
        this.people = people;
        this.baselines = baselines;
        this.clock = clock;
    }

    void write(Branch main) {
        Person ines = people.bySignIn("ines").orElseThrow();
        Person odo = people.bySignIn("odo").orElseThrow();
        baselines.add(main.id(), 1, "System review", "As the harbour board saw it.", odo.id(), clock.instant());
        // A need changed above, a limit in the middle, a text below: three causes for looking at links again.
        edit(
                main,
                odo,
                authoring(
                        model -> id(model, "N-4"),
                        (authoring, need) -> authoring.documentation(
                                need, "A storm that takes the power for a day must not take the gate.")));
        edit(
                main,
                ines,
                authoring(
                        model -> member(model, id(model, "MG-15"), "least"),
                        (authoring, least) -> authoring.value(least.holder(), least.feature(), "550 [m]")));
        edit(
                main,
                ines,
                authoring(
                        model -> id(model, "HU-9"),
                        (authoring, requirement) -> authoring.documentation(
                                requirement, "A tray under the power unit shall hold 550 L of oil.")));
        Workspace.Head head = workspace.head(main.id());
        Edit view = SavedView.put(
                head.model(),
                new SavedView.Request(
                        "Needs down to the design",
                        "trace",
                        "set=~need&col=frame%3C%7C%7C&col=frame%3C%3Bderive%3C%7C%7C&col=frame%3C%3Bderive%3C%3Bsatisfy%3C%7C%7C",
                        odo.signIn(),
                        true,
                        false));
        workspace.commit(main, head.number(), view, odo, "view Needs down to the design saved");
        head = workspace.head(main.id());
        Edit gaps =
                SavedView.put(head.model(), new SavedView.Request("Gaps", "coverage", "", ines.signIn(), true, true));
        workspace.commit(main, head.number(), gaps, ines, "view Gaps saved");
    }

    /** A feature in the context of an element. */
    private record Held(Element holder, Element feature) {}

    private interface Typing<T> {
        Authoring.Proposal propose(Authoring authoring, T what);
    }

    private static <T> Function<Model, Authoring.Proposal> authoring(Function<Model, T> what, Typing<T> typing) {
        return model -> typing.propose(new Authoring(model), what.apply(model));
    }

    private void edit(Branch branch, Person author, Function<Model, Authoring.Proposal> typed) {
        typed(workspace, branch, author, typed);
    }

    /** Commits what somebody of the demo types. */
    static void typed(Workspace workspace, Branch branch, Person author, Function<Model, Authoring.Proposal> typed) {
        Workspace.Head head = workspace.head(branch.id());
        switch (typed.apply(head.model())) {
            case Authoring.Proposal.Accepted(Edit edit, String summary) ->
                workspace.commit(branch, head.number(), edit, author, summary);
            case Authoring.Proposal.Rejected(var problems) ->
                throw new IllegalStateException("the demo's history does not fit its model: " + problems.getFirst());
        }
    }

    private static Element id(Model model, String id) {
        return model.ownElements(ElementKind.REQUIREMENTS)
                .filter(element -> id.equals(element.shortName()))
                .findFirst()
                .orElseThrow();
    }

    private static Held member(Model model, Element holder, String name) {
        return new Held(
                holder,
                List.copyOf(model.children(holder.id())).stream()
                        .filter(child -> name.equals(child.name()))
                        .findFirst()
                        .orElseThrow());
    }
}
