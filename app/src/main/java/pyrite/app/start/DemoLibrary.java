package pyrite.app.start;

import java.time.InstantSource;
import java.util.List;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.reuse.Taking;
import pyrite.core.reuse.UsedLibrary;

/** The library of the harbour works as a project of its own, with two baselines; the gate uses some of the first. */
final class DemoLibrary {
    private static final List<String> FILES =
            List.of("hydraulics", "power", "sensing", "control", "structure", "functions");

    private final Workspace workspace;
    private final BranchStore branches;
    private final BaselineMapper baselines;
    private final InstantSource clock;
    private final Person odo;
    private final Person ines;

    DemoLibrary(
            Workspace workspace,
            BranchStore branches,
            PersonMapper people,
            BaselineMapper baselines,
            InstantSource clock) {
        this.workspace = workspace;
        this.branches = branches;
        this.baselines = baselines;
        this.clock = clock;
        this.odo = people.bySignIn("odo").orElseThrow();
        this.ines = people.bySignIn("ines").orElseThrow();
    }

    void write(Branch gate) {
        Branch works = branches.create("harbour-works", "Harbour works library", "main", "main");
        workspace.commit(
                works,
                0,
                NotationReader.read(
                                Library.model(),
                                FILES.stream()
                                        .map(name -> FirstStart.example("works", name))
                                        .toList())
                        .edit(),
                odo,
                "Harbour works library, first model");
        baseline(works, "2026.1", "First issue.");
        use(gate, works, "WorksSensing");
        use(gate, works, "WorksPower");
        type(gate, ines, "MerrowHarbour::Harbour", "part reserve : WorksPower::DieselSet;");
        type(gate, ines, "MerrowHarbour::Harbour", "part pierLevel : WorksSensing::RadarLevel;");
        value(works, "WorksSensing::RadarLevel", "range", "25 [m]");
        value(works, "WorksPower::DieselSet", "mass", "1950 [kg]");
        type(works, odo, "WorksPower", "part def FuelCell :> Component { attribute :>> mass default 320 [kg]; }");
        baseline(works, "2026.2", "A radar that reaches farther, a heavier diesel set, a fuel cell.");
    }

    private void baseline(Branch works, String name, String note) {
        baselines.add(works.id(), workspace.head(works.id()).number(), name, note, odo.id(), clock.instant());
    }

    private void use(Branch gate, Branch works, String name) {
        Workspace.Head head = workspace.head(gate.id());
        Workspace.Head source = workspace.head(works.id());
        UsedLibrary.Pin pin =
                new UsedLibrary.Pin(works.projectUuid().toString(), works.projectName(), "2026.1", source.number());
        if (Taking.take(head.model(), source.model(), named(source.model(), name), pin)
                instanceof Taking.Result.Made made) {
            workspace.commit(
                    gate,
                    head.number(),
                    made.edit(),
                    odo,
                    name + " of " + works.projectName() + " used at " + pin.baseline());
        }
    }

    private void type(Branch branch, Person author, String owner, String text) {
        DemoHistory.typed(workspace, branch, author, model -> new Authoring(model).members(named(model, owner), text));
    }

    private void value(Branch works, String definition, String attribute, String text) {
        DemoHistory.typed(workspace, works, odo, model -> {
            Element holder = named(model, definition);
            return new Authoring(model)
                    .value(
                            holder,
                            model.children(holder.id()).stream()
                                    .filter(child ->
                                            attribute.equals(model.names().effectiveName(child)))
                                    .findFirst()
                                    .orElseThrow(),
                            text);
        });
    }

    private static Element named(Model model, String name) {
        return model.ownElements().stream()
                .filter(element -> name.equals(model.names().qualifiedName(element)))
                .findFirst()
                .orElseThrow();
    }
}
