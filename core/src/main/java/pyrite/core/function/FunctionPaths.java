package pyrite.core.function;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.function.ExchangeTable.Row;
import pyrite.core.function.ExchangeTable.State;
import pyrite.core.function.FunctionPath.Combined;
import pyrite.core.function.FunctionPath.Stage;
import pyrite.core.function.FunctionPath.Step;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** Reads the function paths of a model and checks them against who performs and exchanges what. */
public final class FunctionPaths {
    static final ElementId PATH = LibraryNames.id("FunctionPaths::FunctionPath");
    static final ElementId STAGES = LibraryNames.id("FunctionPaths::FunctionPath::stages");
    static final ElementId PERFORMER = LibraryNames.id("FunctionPaths::FunctionPath::stages::performer");
    private static final int DEEPEST = Integer.MAX_VALUE;

    private final Model model;
    private final Map<List<ElementId>, ExchangeTable> tables = new HashMap<>();

    public FunctionPaths(Model model) {
        this.model = model;
    }

    /** What says a function path, in the order of the names. */
    public static List<Element> elements(Model model) {
        return model.ownElements(ElementKind.OCCURRENCE)
                .filter(occurrence -> isPath(model, occurrence))
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .toList();
    }

    public static boolean isPath(Model model, Element element) {
        return element.kind() == ElementKind.OCCURRENCE
                && model.inheritance().generals(element).stream()
                        .anyMatch(general -> general.id().equals(PATH));
    }

    public List<FunctionPath> all() {
        return elements(model).stream().map(this::of).toList();
    }

    /** The path as it is in the function for which it holds best. */
    public FunctionPath of(Element path) {
        Element whole = model.get(Objects.requireNonNull(path.owner()));
        return FunctionTree.tops(model).stream()
                .filter(function -> !FunctionTree.of(model, function).top().isLeaf())
                .map(function -> new Reading(path, whole, table(function, whole)).read())
                .min(Comparator.comparingInt(each -> each.faults().size()))
                .orElseGet(() -> new FunctionPath(path, whole, null, List.of(), List.of(), List.of()));
    }

    private ExchangeTable table(Element function, Element whole) {
        return tables.computeIfAbsent(
                List.of(function.id(), whole.id()), _ -> ExchangeTable.of(model, function, whole, DEEPEST));
    }

    /** Of one path against one table. */
    private final class Reading {
        private final Element path;
        private final Element whole;
        private final ExchangeTable table;
        private final Performers performers;

        Reading(Element path, Element whole, ExchangeTable table) {
            this.path = path;
            this.whole = whole;
            this.table = table;
            this.performers = Performers.of(model, table.parts());
        }

        FunctionPath read() {
            List<Stage> stages = stages(path).stream().map(this::stage).toList();
            List<Step> steps = new ArrayList<>();
            List<Stage> narrowed = new ArrayList<>();
            Set<Use> reached = stages.isEmpty() ? Set.of() : stages.getFirst().uses();
            for (int i = 0; i + 1 < stages.size(); i++) {
                Stage from = with(stages.get(i), reached);
                Step step = step(from, stages.get(i + 1));
                steps.add(step);
                narrowed.add(from);
                reached = step.rows().isEmpty()
                        ? stages.get(i + 1).uses()
                        : stages.get(i + 1).uses().stream()
                                .filter(use -> step.rows().stream().anyMatch(row -> isIn(row.to(), use)))
                                .collect(Collectors.toSet());
            }
            if (!stages.isEmpty()) {
                narrowed.add(with(stages.getLast(), reached));
            }
            return new FunctionPath(path, whole, table.functions().top().function(), narrowed, steps, combined(stages));
        }

        private Stage with(Stage stage, Set<Use> uses) {
            return new Stage(stage.element(), stage.definition(), uses, stage.part(), stage.fault());
        }

        private Stage stage(Element element) {
            Element definition = definition(element).orElse(null);
            String name = String.valueOf(model.names().effectiveName(element));
            Part part = part(element).orElse(null);
            if (definition == null) {
                return new Stage(element, null, Set.of(), part, "'" + name + "' names no function");
            }
            Set<Use> uses = table.functions().uses().stream()
                    .filter(use -> model.inheritance().generals(use.function()).contains(definition))
                    .collect(Collectors.toCollection(LinkedHashSet::new));
            if (uses.isEmpty()) {
                String top = String.valueOf(table.functions().top().function().name());
                return new Stage(element, definition, uses, part, definition.name() + " is no longer part of " + top);
            }
            if (part == null) {
                return new Stage(element, definition, uses, null, "");
            }
            Set<Use> performed = uses.stream()
                    .filter(use -> performers(use).anyMatch(each -> each.isIn(part)))
                    .collect(Collectors.toCollection(LinkedHashSet::new));
            return performed.isEmpty()
                    ? new Stage(element, definition, uses, part, moved(definition, uses, part))
                    : new Stage(element, definition, performed, part, "");
        }

        /** Of a function that nobody has as a whole, those who perform what it is made of. */
        private Stream<Part> performers(Use use) {
            Set<Part> known = performers.of(use);
            return known.isEmpty() ? use.inside().stream().flatMap(this::performers) : known.stream();
        }

        private String moved(Element definition, Set<Use> uses, Part part) {
            String now = uses.stream()
                    .flatMap(this::performers)
                    .map(table.parts()::path)
                    .distinct()
                    .sorted()
                    .collect(Collectors.joining(", "));
            return definition.name() + " is performed by " + (now.isEmpty() ? "nobody" : now) + ", not by "
                    + table.parts().path(part);
        }

        private Step step(Stage from, Stage to) {
            List<Row> between = table.rows().stream()
                    .filter(row -> from.uses().stream().anyMatch(use -> isIn(row.from(), use))
                            && to.uses().stream().anyMatch(use -> isIn(row.to(), use)))
                    .toList();
            if (!from.fault().isEmpty() || !to.fault().isEmpty()) {
                return new Step(between, "");
            }
            if (between.isEmpty()) {
                return new Step(between, "nothing goes from " + name(from) + " to " + name(to));
            }
            List<Row> byThese = between.stream()
                    .filter(row -> isBy(row.sender(), from.part()) && isBy(row.receiver(), to.part()))
                    .toList();
            List<Row> carried =
                    byThese.stream().filter(row -> row.state() != State.UNWIRED).toList();
            return carried.isEmpty()
                    ? new Step(
                            byThese.isEmpty() ? between : byThese,
                            "no connection carries " + table.name(between.getFirst()) + " from " + place(from) + " to "
                                    + place(to))
                    : new Step(carried, "");
        }

        private boolean isBy(@Nullable Part performer, @Nullable Part meant) {
            return meant == null || performer != null && performer.isIn(meant);
        }

        private String name(Stage stage) {
            return String.valueOf(Objects.requireNonNull(stage.definition()).name());
        }

        private String place(Stage stage) {
            return stage.part() == null ? name(stage) : table.parts().path(stage.part());
        }

        private Optional<Part> part(Element stage) {
            return performerValue(stage).flatMap(reference -> {
                List<ElementId> way = new ArrayList<>();
                Element at = whole;
                for (Object each : reference.chain()) {
                    Element next = each instanceof ElementId id
                            ? model.inheritance()
                                    .effective(at, id)
                                    .or(() -> model.find(id))
                                    .orElse(null)
                            : null;
                    if (next == null) {
                        return Optional.empty();
                    }
                    way.add(next.id());
                    at = next;
                }
                return Optional.ofNullable(table.parts().get(way));
            });
        }
    }

    private static boolean isIn(Use use, Use around) {
        return use.way().size() >= around.way().size()
                && use.way().subList(0, around.way().size()).equals(around.way());
    }

    /** The stages in their order. */
    List<Element> stages(Element path) {
        return model.children(path.id()).stream()
                .filter(child -> child.kind() == ElementKind.ACTION
                        && model.inheritance().generals(child).stream()
                                .anyMatch(general -> general.id().equals(STAGES)))
                .toList();
    }

    private Optional<Element> definition(Element stage) {
        return model.inheritance().generals(stage).stream()
                .filter(general -> general.kind() == ElementKind.ACTION_DEFINITION && !model.isLibrary(general.id()))
                .findFirst();
    }

    private Optional<Element> performer(Element stage) {
        return model.children(stage.id()).stream()
                .filter(child -> child.references(Property.REDEFINES).stream()
                        .anyMatch(redefined -> redefined.target().equals(PERFORMER)))
                .findFirst();
    }

    private Optional<FeatureReference> performerValue(Element stage) {
        return performer(stage)
                .flatMap(performer -> performer.get(Property.VALUE))
                .map(FeatureValue::expression)
                .filter(FeatureReference.class::isInstance)
                .map(FeatureReference.class::cast);
    }

    /** An attribute of the path with a value, and the stages that it should name and does not. */
    private List<Combined> combined(List<Stage> stages) {
        Element path = stages.isEmpty()
                ? null
                : model.get(Objects.requireNonNull(stages.getFirst().element().owner()));
        if (path == null) {
            return List.of();
        }
        return model.children(path.id()).stream()
                .filter(child -> child.kind() == ElementKind.ATTRIBUTE && child.name() != null)
                .map(attribute -> new Combined(attribute, left(attribute, stages)))
                .toList();
    }

    private List<String> left(Element attribute, List<Stage> stages) {
        Expression value =
                attribute.get(Property.VALUE).map(FeatureValue::expression).orElse(null);
        if (value == null) {
            return List.of();
        }
        Set<ElementId> named = new HashSet<>();
        value.forEachReferent(referent -> {
            if (referent instanceof ElementId id) {
                named.add(id);
            }
        });
        boolean combines =
                stages.stream().anyMatch(stage -> named.contains(stage.element().id()));
        return stages.stream()
                .filter(stage -> combines
                        && !named.contains(stage.element().id())
                        && carrier(stage, String.valueOf(attribute.name())).isPresent())
                .map(stage -> String.valueOf(model.names().effectiveName(stage.element())))
                .toList();
    }

    /** The way from the path to the attribute of a name: of the function, or else of the part that performs it. */
    Optional<List<ElementId>> carrier(Stage stage, String name) {
        Optional<Element> own = attribute(stage.element(), name);
        if (own.isPresent()) {
            return Optional.of(List.of(stage.element().id(), own.get().id()));
        }
        return Optional.ofNullable(stage.part())
                .flatMap(part -> attribute(part.element(), name))
                .flatMap(attribute -> performer(stage.element())
                        .map(performer -> List.of(stage.element().id(), performer.id(), attribute.id())));
    }

    private Optional<Element> attribute(Element of, String name) {
        return model.inheritance().features(of).stream()
                .filter(feature -> feature.kind() == ElementKind.ATTRIBUTE
                        && !model.isLibrary(feature.id())
                        && name.equals(model.names().effectiveName(feature)))
                .findFirst();
    }
}
