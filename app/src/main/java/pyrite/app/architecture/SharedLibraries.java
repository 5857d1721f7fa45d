package pyrite.app.architecture;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import pyrite.app.store.Baseline;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.reuse.Taking;

/** What other projects offer: their library packages at their newest baselines. */
@Component
class SharedLibraries {
    private static final int MOST_PROJECTS = 30;
    private static final int MOST_SHOWN = 200;

    private final Workspace workspace;
    private final BranchStore branches;
    private final BaselineMapper baselines;

    SharedLibraries(Workspace workspace, BranchStore branches, BaselineMapper baselines) {
        this.workspace = workspace;
        this.branches = branches;
        this.baselines = baselines;
    }

    /** A project with library packages at its newest baseline. */
    public record Offer(Branch branch, Baseline baseline, List<OfferedPackage> packages) {}

    public record OfferedPackage(Element top, String doc, boolean isUsed, List<Definition> definitions) {}

    /** @param id is the same in every project that uses it */
    public record Definition(String id, String name, String kind, String doc, String notation) {}

    /** The main branch of a project. */
    Optional<Branch> source(String project) {
        return branches.all().stream()
                .filter(branch -> branch.projectUuid().toString().equals(project))
                .findFirst();
    }

    Optional<Baseline> newest(Branch branch) {
        return baselines.of(branch.id()).stream().findFirst();
    }

    /** @param sought part of a name, a kind or a description; empty for all */
    List<Offer> offers(Workspace.Head head, String sought) {
        String query = sought.toLowerCase(Locale.ROOT);
        List<Offer> offers = new ArrayList<>();
        branches.all().stream()
                .filter(branch -> !branch.projectUuid().equals(head.branch().projectUuid()))
                .limit(MOST_PROJECTS)
                .forEach(branch -> newest(branch).ifPresent(baseline -> {
                    List<OfferedPackage> packages = packages(head.model(), at(branch, baseline.number()), query);
                    if (!packages.isEmpty()) {
                        offers.add(new Offer(branch, baseline, packages));
                    }
                }));
        return offers;
    }

    Model at(Branch branch, int number) {
        return workspace.at(workspace.head(branch.id()), number);
    }

    private static List<OfferedPackage> packages(Model using, Model source, String query) {
        return Taking.offered(source).stream()
                .map(top -> new OfferedPackage(
                        top,
                        source.inheritance().documentation(top),
                        using.has(top.id()),
                        definitions(source, top).stream()
                                .filter(definition -> matches(source, definition, query))
                                .limit(MOST_SHOWN)
                                .map(definition -> definition(source, definition))
                                .toList()))
                .filter(offered -> query.isEmpty() || !offered.definitions().isEmpty())
                .toList();
    }

    private static Definition definition(Model source, Element definition) {
        return new Definition(
                definition.id().toString(),
                new Labels(source).name(definition),
                definition.kind().title(),
                source.inheritance().documentation(definition),
                NotationWriter.write(source, List.of(definition)));
    }

    private static boolean matches(Model source, Element definition, String query) {
        return query.isEmpty()
                || (definition.name() + " "
                                + source.inheritance().documentation(definition) + " "
                                + definition.kind().title())
                        .toLowerCase(Locale.ROOT)
                        .contains(query);
    }

    static List<Element> definitions(Model model, Element top) {
        return model.subtree(top.id()).stream()
                .filter(element -> element.kind().isDefinition() && element.name() != null)
                .toList();
    }
}
