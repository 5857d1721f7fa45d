package pyrite.core.verification;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationWriter;

/** The differences between runs, in their inputs and in their results. */
public final class RunComparison {
    /** Rounding in the integrator is no difference; relative to the larger of two ranges. */
    private static final double SAME = 1e-9;

    /** The part in a path such as {@code gate.leaf.angle} or {@code used(gate.pump)}. */
    private static final Pattern ROOT = Pattern.compile("^(\\w+\\()?([^.(]+)\\.");

    private RunComparison() {}

    /** The fingerprint of a run and the snapshot it was computed from. */
    public record Inputs(Fingerprint fingerprint, Model model) {}

    /**
     * An element that at least two runs read in different states.
     *
     * @param texts its declaration in each run, in the order of the runs; if a run did not read it, that of what it
     *     redefines, and null if that was not read either
     */
    public record Differing(ElementId id, List<@Nullable String> texts) {}

    /** The elements that differ, owners that differ only by what they own left out where that is shown itself. */
    public static List<Differing> inputs(List<Inputs> runs) {
        Set<ElementId> read = new LinkedHashSet<>();
        runs.forEach(run -> read.addAll(run.fingerprint().hashes().keySet()));
        List<Differing> differing = read.stream()
                .filter(id -> runs.stream()
                                .map(run -> run.fingerprint().hashes().get(id))
                                .distinct()
                                .count()
                        > 1)
                .map(id -> new Differing(id, texts(id, runs)))
                .toList();
        Set<ElementId> owners = new HashSet<>();
        differing.forEach(each -> runs.forEach(
                run -> run.model().find(each.id()).map(Element::owner).ifPresent(owners::add)));
        return differing.stream()
                .filter(each -> !isSame(each.texts()) || !owners.contains(each.id()))
                .toList();
    }

    private static boolean isSame(List<@Nullable String> texts) {
        return texts.stream().distinct().count() == 1;
    }

    private static List<@Nullable String> texts(ElementId id, List<Inputs> runs) {
        List<ElementId> redefined = runs.stream()
                .flatMap(run -> run.model().find(id).stream())
                .flatMap(element -> element.references(Property.REDEFINES).stream())
                .map(Reference::target)
                .toList();
        List<@Nullable String> texts = new ArrayList<>();
        runs.forEach(run -> texts.add(Stream.concat(Stream.of(id), redefined.stream())
                .filter(run.fingerprint().hashes()::containsKey)
                .flatMap(read -> run.model().find(read).stream())
                .findFirst()
                .map(element -> NotationWriter.declaration(run.model(), element))
                .orElse(null)));
        return texts;
    }

    /**
     * The range and last value of a series in one run, in its display unit. Values negligible against the range count
     * as zero.
     */
    public record Course(double least, double most, double last) {
        private static final double NOTHING = 1e-6;

        public Course {
            double size = Math.max(Math.abs(least), Math.abs(most)) * NOTHING;
            least = Math.abs(least) < size ? 0 : least;
            most = Math.abs(most) < size ? 0 : most;
            last = Math.abs(last) < size ? 0 : last;
        }

        static Course of(double[] values) {
            double least = Double.POSITIVE_INFINITY;
            double most = Double.NEGATIVE_INFINITY;
            for (double value : values) {
                least = Math.min(least, value);
                most = Math.max(most, value);
            }
            return new Course(least, most, values[values.length - 1]);
        }

        /**
         * How far two courses are apart, relative to the larger of their ranges or, where nothing varies, of their
         * values.
         */
        double distance(Course other) {
            double apart = Math.max(
                    Math.abs(last - other.last), Math.max(Math.abs(least - other.least), Math.abs(most - other.most)));
            double range = Math.max(most - least, other.most - other.least);
            double scale = range > 0 ? range : Math.max(Math.abs(last), Math.abs(other.last));
            return apart == 0 ? 0 : apart / scale;
        }
    }

    /** A series that differs between at least two runs; null where a run has no such series. */
    public record Parted(String path, String unit, List<@Nullable Course> courses, double distance) {}

    /** Whether runs are of parts with different names, by the paths of what each recorded. */
    public static boolean areOfDifferentParts(List<? extends Collection<String>> paths) {
        return paths.stream()
                        .flatMap(run -> run.stream().limit(1))
                        .map(path -> ROOT.matcher(path))
                        .filter(Matcher::find)
                        .map(root -> root.group(2))
                        .distinct()
                        .count()
                > 1;
    }

    /** A path in a part that runs, without the name of the part: by that, runs of different parts are compared. */
    public static String within(String path) {
        return ROOT.matcher(path).replaceFirst("$1");
    }

    /**
     * The series that differ, those that differ most first.
     *
     * @param within what a path is compared by
     */
    public static List<Parted> series(List<List<CaseRun.Series>> runs, UnaryOperator<String> within) {
        List<Map<String, CaseRun.Series>> byPath =
                runs.stream().map(run -> byPath(run, within)).toList();
        Set<String> paths = new LinkedHashSet<>();
        byPath.forEach(run -> paths.addAll(run.keySet()));
        return paths.stream()
                .map(path -> parted(
                        path,
                        byPath.stream()
                                .<CaseRun.@Nullable Series>map(run -> run.get(path))
                                .toList()))
                .filter(parted -> parted.distance() > SAME)
                .sorted(Comparator.comparingDouble(Parted::distance).reversed().thenComparing(Parted::path))
                .toList();
    }

    private static Map<String, CaseRun.Series> byPath(List<CaseRun.Series> run, UnaryOperator<String> within) {
        return run.stream()
                .filter(series -> series.values().length > 0)
                .collect(Collectors.toMap(
                        series -> within.apply(series.path()), series -> series, (a, _) -> a, LinkedHashMap::new));
    }

    private static Parted parted(String path, List<CaseRun.@Nullable Series> runs) {
        List<@Nullable Course> courses = new ArrayList<>();
        runs.forEach(series -> courses.add(series == null ? null : Course.of(series.values())));
        String unit = runs.stream()
                .filter(Objects::nonNull)
                .findFirst()
                .map(CaseRun.Series::unit)
                .orElse("");
        double distance = IntStream.range(0, courses.size())
                .boxed()
                .flatMap(i -> IntStream.range(0, i).mapToObj(k -> distance(courses.get(i), courses.get(k))))
                .max(Comparator.naturalOrder())
                .orElse(0.0);
        return new Parted(path, unit, courses, distance);
    }

    private static double distance(@Nullable Course one, @Nullable Course other) {
        return one == null || other == null ? (one == other ? 0 : Double.POSITIVE_INFINITY) : one.distance(other);
    }
}
