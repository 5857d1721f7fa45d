package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import pyrite.core.consolidation.Feature.Parameter;

/**
 * A parameter of the one definition that several become.
 *
 * @param sources what it is made of, at most one of each
 * @param isOptional whether it may be left out: {@code [0..1]}
 */
public record United(String name, List<Parameter> sources, boolean isOptional) {
    public United {
        sources = List.copyOf(sources);
    }

    /**
     * The parameters of all: those whose direction and type agree are one, those of equal name first. What not all have
     * is optional.
     */
    public static List<United> of(List<Feature> features) {
        List<List<Parameter>> united = new ArrayList<>();
        for (Feature feature : features) {
            List<List<Parameter>> free = new ArrayList<>(united);
            List<Parameter> left = new ArrayList<>(feature.parameters());
            take(left, free, true);
            take(left, free, false);
            left.forEach(parameter -> united.add(new ArrayList<>(List.of(parameter))));
        }
        return united.stream()
                .map(sources -> new United(
                        sources.getFirst().name(),
                        sources,
                        sources.size() < features.size() || sources.stream().anyMatch(Parameter::isOptional)))
                .sorted(Comparator.comparing(
                        each -> each.sources().getFirst().direction().equals("out")))
                .toList();
    }

    private static void take(List<Parameter> left, List<List<Parameter>> free, boolean byName) {
        for (Parameter parameter : List.copyOf(left)) {
            free.stream()
                    .filter(sources -> sources.getFirst().fits(parameter)
                            && (!byName
                                    || Unifying.key(sources.getFirst().name()).equals(Unifying.key(parameter.name()))))
                    .findFirst()
                    .ifPresent(sources -> {
                        sources.add(parameter);
                        free.remove(sources);
                        left.remove(parameter);
                    });
        }
    }
}
