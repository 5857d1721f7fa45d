package pyrite.core.view;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.expression.Expression;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Span;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * The tree of the parts of something, each with chosen attributes and their sums, as {@code Budgets::total} has them. A
 * part with a value states it for all of it; one without has the sum of its parts, each as often as its multiplicity
 * says.
 *
 * @param columns the units of the chosen attributes by their names, in the order asked for
 * @param offered the names of all attributes with numbers in the tree, with the number of parts that have them
 * @param left the number of rows left out
 */
public record PartsTable(List<Row> rows, Map<String, DisplayUnit> columns, Map<String, Integer> offered, int left) {
    private static final int MOST_ROWS = 2_000;
    private static final int MOST_INSTANCES = 20_000;
    private static final int DEEPEST = 20;

    /**
     * A part of the tree.
     *
     * @param path the names from the root, which has none
     * @param count how many there are in all; empty if there is no end to them or they are too many to count
     * @param cells by the names of the columns
     */
    public record Row(
            Element feature,
            @Nullable Element type,
            String name,
            int depth,
            String path,
            String multiplicity,
            Optional<Integer> count,
            Map<String, Cell> cells) {}

    /**
     * What a part adds.
     *
     * @param each the value of one piece; null if they differ or the part has no such attribute of its own
     * @param sum of all pieces, in the unit of the column; null if nothing in it has a value
     * @param isSummed whether the sum is that of the parts within
     * @param isPartial whether something within has the attribute and no value that could be computed
     */
    public record Cell(@Nullable Double each, @Nullable Double sum, boolean isSummed, boolean isPartial) {}

    public PartsTable {
        rows = List.copyOf(rows);
    }

    public static PartsTable of(Model model, Element root, List<String> names) {
        return new Builder(model, names).build(root);
    }

    /** A sum of some pieces, SI. */
    private record Sum(double value, boolean isAny, boolean isPartial) {
        static final Sum NONE = new Sum(0, false, false);

        Sum plus(Sum other) {
            return new Sum(value + other.value, isAny || other.isAny, isPartial || other.isPartial);
        }
    }

    private static final class Builder {
        private final Model model;
        private final List<String> names;
        private final Flattening flattening;
        private final DisplayUnits units;
        private final List<Row> rows = new ArrayList<>();
        private final Map<String, DisplayUnit> columns = new LinkedHashMap<>();
        private final Map<String, Integer> offered = new TreeMap<>();
        private int instances;
        private int left;

        Builder(Model model, List<String> names) {
            this.model = model;
            this.names = names;
            this.flattening = Flattening.asNeeded(model);
            this.units = new DisplayUnits(model);
        }

        PartsTable build(Element root) {
            List<Instance> one;
            try {
                one = List.of(flattening.root(root));
            } catch (ModelFault _) {
                one = List.of();
            }
            add(root, one, 0, "");
            return new PartsTable(rows, inOrder(), offered, left);
        }

        private Map<String, DisplayUnit> inOrder() {
            Map<String, DisplayUnit> ordered = new LinkedHashMap<>();
            names.forEach(name -> {
                DisplayUnit unit = columns.get(name);
                if (unit != null) {
                    ordered.put(name, unit);
                }
            });
            return ordered;
        }

        /** The row of a part and those of its parts; hands back what the pieces of it add up to, one by one. */
        private Map<String, List<Sum>> add(Element part, List<Instance> pieces, int depth, String path) {
            int place = rows.size();
            Map<String, Element> attributes = attributes(part);
            attributes.keySet().forEach(name -> offered.merge(name, 1, Integer::sum));
            names.forEach(name -> {
                Element attribute = attributes.get(name);
                if (attribute != null) {
                    columns.computeIfAbsent(name, _ -> units.of(attribute));
                }
            });
            boolean isShown = place < MOST_ROWS;
            if (isShown) {
                rows.add(row(part, pieces, depth, path, Map.of()));
            } else {
                left++;
            }
            Map<String, List<Sum>> within = depth < DEEPEST ? within(part, pieces, depth, path) : Map.of();
            Map<String, List<Sum>> sums = new HashMap<>();
            Map<String, Cell> cells = new HashMap<>();
            for (String name : names) {
                Element attribute = attributes.get(name);
                boolean isSummed = attribute == null || within.containsKey(name) && !isFixed(attribute);
                List<Sum> own = attribute == null || isSummed
                        ? within.getOrDefault(name, List.of())
                        : pieces.stream().map(piece -> value(attribute, piece)).toList();
                sums.put(name, own);
                cells.put(name, cell(name, own, isSummed));
            }
            if (isShown) {
                rows.set(place, row(part, pieces, depth, path, cells));
            }
            return sums;
        }

        private boolean isFixed(Element attribute) {
            return model.inheritance()
                    .value(attribute)
                    .filter(value -> !value.kind().isInitial())
                    .isPresent();
        }

        private Cell cell(String name, List<Sum> own, boolean isSummed) {
            Sum all = own.stream().reduce(Sum.NONE, Sum::plus);
            DisplayUnit unit = columns.get(name);
            boolean areAlike = !isSummed && !own.isEmpty() && own.stream().allMatch(own.getFirst()::equals);
            return new Cell(
                    areAlike && own.getFirst().isAny() && unit != null
                            ? unit.unit().fromSi(own.getFirst().value())
                            : null,
                    all.isAny() && unit != null ? unit.unit().fromSi(all.value()) : null,
                    isSummed,
                    all.isPartial());
        }

        private Row row(Element part, List<Instance> pieces, int depth, String path, Map<String, Cell> cells) {
            return new Row(
                    part,
                    model.inheritance().generals(part).stream()
                            .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                            .findFirst()
                            .orElse(null),
                    name(part),
                    depth,
                    path,
                    depth == 0 ? "" : model.inheritance().multiplicity(part).toString(),
                    pieces.isEmpty() ? Optional.empty() : Optional.of(pieces.size()),
                    cells);
        }

        /** The sums of the parts of each piece. */
        private Map<String, List<Sum>> within(Element part, List<Instance> pieces, int depth, String path) {
            Map<String, Sum[]> sums = new HashMap<>();
            for (Element inner : parts(part)) {
                List<List<Instance>> inPieces =
                        pieces.stream().map(piece -> inside(inner, piece)).toList();
                List<Instance> all = inPieces.stream().flatMap(List::stream).toList();
                Map<String, List<Sum>> found =
                        add(inner, all, depth + 1, path.isEmpty() ? name(inner) : path + "." + name(inner));
                found.forEach((name, values) -> {
                    Sum[] each = sums.computeIfAbsent(name, _ -> {
                        Sum[] none = new Sum[pieces.size()];
                        Arrays.fill(none, Sum.NONE);
                        return none;
                    });
                    int at = 0;
                    for (int i = 0; i < inPieces.size(); i++) {
                        for (int k = 0; k < inPieces.get(i).size() && at < values.size(); k++) {
                            each[i] = each[i].plus(values.get(at++));
                        }
                    }
                });
            }
            Map<String, List<Sum>> lists = new HashMap<>();
            sums.forEach((name, each) -> lists.put(name, List.of(each)));
            return lists;
        }

        private List<Element> parts(Element part) {
            return model.inheritance().features(part).stream()
                    .filter(feature -> feature.kind() == ElementKind.PART
                            && !feature.get(Property.REFERENTIAL).orElse(false)
                            && !model.isLibrary(feature.id()))
                    .sorted(Comparator.comparing((Element feature) -> !part.id().equals(feature.owner())))
                    .toList();
        }

        private List<Instance> inside(Element inner, Instance piece) {
            if (instances >= MOST_INSTANCES) {
                return List.of();
            }
            try {
                List<Instance> found = flattening.instances(reference(inner.id()), piece);
                instances += found.size();
                return found;
            } catch (FaultException | ModelFault _) {
                return List.of();
            }
        }

        private Sum value(Element attribute, Instance piece) {
            try {
                return flattening
                        .constant(reference(attribute.id()), piece)
                        .map(si -> new Sum(si, true, false))
                        .orElse(new Sum(0, false, true));
            } catch (FaultException | ModelFault _) {
                return new Sum(0, false, true);
            }
        }

        private static Expression.FeatureReference reference(ElementId feature) {
            return new Expression.FeatureReference(List.of(feature), Span.NONE);
        }

        /** The attributes with numbers, by name. */
        private Map<String, Element> attributes(Element part) {
            Map<String, Element> found = new HashMap<>();
            for (Element feature : model.inheritance().features(part)) {
                String name =
                        feature.kind() == ElementKind.ATTRIBUTE ? model.names().effectiveName(feature) : null;
                if (name != null
                        && !model.isLibrary(feature.id())
                        && model.environment().typeOf(feature.id()) instanceof Type.Number) {
                    found.putIfAbsent(name, feature);
                }
            }
            return found;
        }

        private String name(Element element) {
            return model.names().nameOrKind(element);
        }
    }
}
