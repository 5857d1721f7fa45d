package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * A table of elements with path columns: each column follows links over one or more steps and shows the elements it
 * reaches.
 */
public record TraceTable(List<Column> columns) {
    /** Farther than this no step goes; a model with longer chains of one kind is a circle of trace links. */
    public static final int FARTHEST = 50;

    /**
     * One step of a path: links of a kind in one direction.
     *
     * @param kind the key of a kind of link
     * @param out whether from source to target
     * @param depth the greatest number of repetitions; everything found on the way is included
     */
    public record Step(String kind, boolean out, int depth) {
        /** {@code derive<3}: up to three derivations against their direction; {@code satisfy>}: one satisfaction. */
        static Step parse(String text) {
            int sign = Math.max(text.indexOf('<'), text.indexOf('>'));
            if (sign < 1) {
                throw new IllegalArgumentException("'" + text
                        + "' is no step; a kind of link and its direction are, for instance derive< or satisfy>");
            }
            String depth = text.substring(sign + 1);
            if (!depth.matches("\\d{0,2}|\\*")) {
                throw new IllegalArgumentException("'" + depth + "' is no depth; a number up to 50 or * is");
            }
            int far = depth.isEmpty() ? 1 : depth.equals("*") ? FARTHEST : Math.min(FARTHEST, Integer.parseInt(depth));
            return new Step(text.substring(0, sign), text.charAt(sign) == '>', Math.max(1, far));
        }

        /** What it leads to from an element, nearest first, each with what lies between them. */
        Map<ElementId, List<ElementId>> from(TraceGraph graph, ElementId start) {
            Map<ElementId, List<ElementId>> found = new LinkedHashMap<>();
            List<ElementId> front = List.of(start);
            for (int far = 0; far < depth && !front.isEmpty(); far++) {
                List<ElementId> next = new ArrayList<>();
                for (ElementId id : front) {
                    List<ElementId> between = far == 0 ? List.of() : longer(found.getOrDefault(id, List.of()), id);
                    for (Link link : graph.of(id)) {
                        ElementId other = link.other(id);
                        if (link.kind().key().equals(kind)
                                && (out ? link.source() : link.target()).equals(id)
                                && found.putIfAbsent(other, between) == null) {
                            next.add(other);
                        }
                    }
                }
                front = next;
            }
            return found;
        }

        private static List<ElementId> longer(List<ElementId> way, ElementId id) {
            List<ElementId> longer = new ArrayList<>(way);
            longer.add(id);
            return List.copyOf(longer);
        }

        @Override
        public String toString() {
            return kind + (out ? ">" : "<") + (depth == 1 ? "" : depth == FARTHEST ? "*" : depth);
        }
    }

    /** The rows that a column lets through. */
    public enum Keep {
        ANY,
        WITH,
        WITHOUT,
        FEWER
    }

    /**
     * A path column.
     *
     * @param show what is shown of each element found: empty for its name, {@code text}, or an attribute's name
     * @param keep which rows the table keeps, by what this column finds; {@code FEWER} than {@code least}
     */
    public record Column(List<Step> steps, String show, Keep keep, int least) {
        /**
         * {@code derive<;satisfy<|text|without}: steps, then what is shown, then which rows are kept, with a number for
         * fewer.
         */
        public static Column parse(String text) {
            String[] parts = text.split("\\|", -1);
            List<Step> steps = Arrays.stream(parts[0].split(";"))
                    .filter(each -> !each.isEmpty())
                    .map(Step::parse)
                    .toList();
            if (steps.isEmpty()) {
                throw new IllegalArgumentException("a path column has one step at least");
            }
            String keep = parts.length > 2 ? parts[2] : "";
            int least = keep.startsWith("fewer") && keep.substring(5).matches("\\d{1,3}")
                    ? Integer.parseInt(keep.substring(5))
                    : 1;
            return new Column(
                    steps,
                    parts.length > 1 ? parts[1] : "",
                    switch (keep.replaceAll("\\d", "")) {
                        case "with" -> Keep.WITH;
                        case "without" -> Keep.WITHOUT;
                        case "fewer" -> Keep.FEWER;
                        default -> Keep.ANY;
                    },
                    least);
        }

        boolean keeps(int found) {
            return switch (keep) {
                case ANY -> true;
                case WITH -> found > 0;
                case WITHOUT -> found == 0;
                case FEWER -> found < least;
            };
        }

        /** What its path leads to from an element, each once, nearest first. */
        List<ElementId> from(TraceGraph graph, ElementId start) {
            Set<ElementId> at = new LinkedHashSet<>(List.of(start));
            for (Step step : steps) {
                Set<ElementId> next = new LinkedHashSet<>();
                at.forEach(id -> next.addAll(step.from(graph, id).keySet()));
                at = next;
            }
            return List.copyOf(at);
        }
    }

    /** A row: the element it starts from, and what each column found. */
    public record Row(Element start, List<List<ElementId>> cells) {}

    /** The elements whose rows the columns keep, in their order. Only columns that keep rows out are walked. */
    public List<Element> kept(TraceGraph graph, List<Element> start) {
        List<Column> choosing =
                columns.stream().filter(column -> column.keep() != Keep.ANY).toList();
        return choosing.isEmpty()
                ? start
                : start.stream()
                        .filter(element -> choosing.stream()
                                .allMatch(column -> column.keeps(
                                        column.from(graph, element.id()).size())))
                        .toList();
    }

    /** What all columns find from an element. */
    public Row row(TraceGraph graph, Element start) {
        return new Row(
                start,
                columns.stream().map(column -> column.from(graph, start.id())).toList());
    }
}
