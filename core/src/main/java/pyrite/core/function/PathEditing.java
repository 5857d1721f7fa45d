package pyrite.core.function;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Span;
import pyrite.core.function.FunctionPath.Stage;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * Makes function paths and the attributes that combine those of their functions.
 *
 * <p>All throw an {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class PathEditing {
    private final Model model;

    public PathEditing(Model model) {
        this.model = model;
    }

    /** How the attributes of the functions on a way become that of the path. */
    public enum Combination {
        SUM("adds up", "sum"),
        PRODUCT("multiplies", "product"),
        LEAST("the least counts", "min"),
        MOST("the greatest counts", "max");

        private final String title;
        private final String function;

        Combination(String title, String function) {
            this.title = title;
            this.function = function;
        }

        public String title() {
            return title;
        }
    }

    /** @param part who performs it; null if nobody does */
    public record Wish(Use use, @Nullable Part part) {}

    /** @param whole what the parts are parts of, which gets the path */
    public Edit make(Element whole, String name, String text, List<Wish> wishes) {
        if (name.isBlank()) {
            throw new IllegalArgumentException("give the path a name");
        }
        if (wishes.size() < 2) {
            throw new IllegalArgumentException("a path leads through at least two functions");
        }
        if (model.names().member(whole.id(), name.strip()).isPresent()) {
            throw new IllegalArgumentException(
                    "'" + whole.name() + "' has something named '" + name.strip() + "' already");
        }
        Element path = Element.of(ElementKind.OCCURRENCE, whole.id(), model.rankAtEnd(whole.id()), name.strip())
                .with(Property.TYPES, List.of(Reference.to(FunctionPaths.PATH)));
        List<Element> put = new ArrayList<>(List.of(path));
        List<Rank> ranks = Rank.after(null, wishes.size() + 1);
        if (!text.isBlank()) {
            put.add(Element.of(ElementKind.DOCUMENTATION, path.id(), ranks.getFirst(), null)
                    .with(Property.TEXT, text.strip()));
        }
        Set<String> names = new HashSet<>();
        for (int i = 0; i < wishes.size(); i++) {
            put.addAll(stage(path, ranks.get(i + 1), wishes.get(i), names));
        }
        return new Edit(put, Set.of());
    }

    private List<Element> stage(Element path, Rank rank, Wish wish, Set<String> names) {
        Element definition = definition(wish.use());
        String name = Names.free(names, lower(String.valueOf(definition.name())));
        names.add(name);
        Element stage = Element.of(ElementKind.ACTION, path.id(), rank, name)
                .with(Property.REFERENTIAL, true)
                .with(Property.TYPES, List.of(Reference.to(definition.id())))
                .with(Property.SPECIALIZES, List.of(Reference.to(FunctionPaths.STAGES)))
                // Without it, a stage would have the open multiplicity of what it subsets.
                .with(Property.MULTIPLICITY, Multiplicity.ONE);
        if (wish.part() == null || wish.part().way().isEmpty()) {
            return List.of(stage);
        }
        Element performer = Element.of(ElementKind.PART, stage.id(), Rank.between(null, null), null)
                .with(Property.REFERENTIAL, true)
                .with(Property.REDEFINES, List.of(Reference.to(FunctionPaths.PERFORMER)))
                .with(
                        Property.VALUE,
                        new FeatureValue(
                                FeatureValue.Kind.FIXED,
                                new FeatureReference(List.copyOf(wish.part().way()), Span.NONE)));
        return List.of(stage, performer);
    }

    private Element definition(Use use) {
        return model.inheritance().generals(use.function()).stream()
                .filter(general -> general.kind() == ElementKind.ACTION_DEFINITION && !model.isLibrary(general.id()))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("'"
                        + model.names().effectiveName(use.function())
                        + "' has no action definition; give it one, so that a path can name it"));
    }

    /**
     * Gives a path an attribute, or says anew what it combines: that of each function on the way that has one of the
     * name, else of the part that performs it.
     */
    public Edit combine(FunctionPath path, String name, Combination combination) {
        FunctionPaths paths = new FunctionPaths(model);
        List<List<ElementId>> ways = path.stages().stream()
                .flatMap(stage -> paths.carrier(stage, name).stream())
                .toList();
        if (ways.isEmpty()) {
            throw new IllegalArgumentException(
                    "neither the functions on this path nor the parts that perform them have an attribute '" + name
                            + "'");
        }
        Element attribute = model.children(path.path().id()).stream()
                .filter(child -> child.kind() == ElementKind.ATTRIBUTE && name.equals(child.name()))
                .findFirst()
                .orElseGet(() -> Element.of(
                        ElementKind.ATTRIBUTE,
                        path.path().id(),
                        model.rankAtEnd(path.path().id()),
                        name));
        if (attribute.references(Property.TYPES).isEmpty()) {
            attribute = attribute.with(Property.TYPES, types(ways));
        }
        List<Expression> values = ways.stream()
                .map(way -> (Expression) new FeatureReference(List.copyOf(way), Span.NONE))
                .toList();
        Expression all = values.size() == 1 ? values.getFirst() : new Expression.Sequence(values, Span.NONE);
        Expression value = new Expression.Invocation(
                LibraryNames.id("NumericalFunctions::" + combination.function), List.of(all), Span.NONE);
        return Edit.put(attribute.with(Property.VALUE, new FeatureValue(FeatureValue.Kind.FIXED, value)));
    }

    private List<Reference> types(List<List<ElementId>> ways) {
        return ways.stream()
                .map(way -> model.inheritance()
                        .nearest(model.get(way.getLast()), Property.TYPES)
                        .orElse(List.of()))
                .filter(types -> !types.isEmpty())
                .findFirst()
                .orElse(List.of());
    }

    /**
     * The names of attributes with values that functions on a path or their performers have, those that most have
     * first.
     */
    public List<String> attributes(FunctionPath path) {
        Map<String, Long> counts = path.stages().stream()
                .flatMap(stage -> Stream.concat(
                                names(stage.element()),
                                stage.part() == null
                                        ? Stream.of()
                                        : names(stage.part().element()))
                        .distinct())
                .collect(Collectors.groupingBy(name -> name, TreeMap::new, Collectors.counting()));
        return counts.entrySet().stream()
                .sorted(Map.Entry.<String, Long>comparingByValue().reversed())
                .map(Map.Entry::getKey)
                .toList();
    }

    private Stream<String> names(Element of) {
        return model.inheritance().features(of).stream()
                .filter(feature -> feature.kind() == ElementKind.ATTRIBUTE
                        && !model.isLibrary(feature.id())
                        && model.inheritance().value(feature).isPresent())
                .map(feature -> model.names().effectiveName(feature))
                .filter(Objects::nonNull);
    }

    /** The stages of the one path that lie within those of another, in its order; what is missing is said. */
    public static List<String> unrealised(FunctionPath whole, FunctionPath parts) {
        List<String> missing = new ArrayList<>();
        int at = 0;
        for (Stage stage : whole.stages()) {
            int found = at;
            while (found < parts.stages().size() && !isWithin(parts.stages().get(found), stage)) {
                found++;
            }
            if (found == parts.stages().size()) {
                missing.add(String.valueOf(stage.element().name()));
            } else {
                at = found + 1;
            }
        }
        return missing;
    }

    private static boolean isWithin(Stage inner, Stage outer) {
        return inner.uses().stream()
                .anyMatch(use -> outer.uses().stream()
                        .anyMatch(around -> use.way().size() >= around.way().size()
                                && use.way().subList(0, around.way().size()).equals(around.way())));
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }
}
