package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * A port as its surroundings see it: what goes in and out by name. A conjugated port has the features of its definition
 * with in and out exchanged (SysML 2.0, 7.12.2).
 *
 * @param features those of nested ports by their path, {@code hose.oil}
 * @param isWhole whether these are all; ports within ports may be more than there is time for
 */
public record PortFace(List<Feature> features, boolean isWhole) {
    /** So many features and nested ports are looked at; a port that contains itself has no end. */
    private static final int MOST = 1000;

    private static final int DEEPEST = 50;

    /** Where a feature goes, seen from outside the part that has the port. */
    public enum Way {
        IN("receives"),
        OUT("sends"),
        INOUT("exchanges"),
        /** Nothing goes either way: both ends have the same. */
        NONE("has");

        private final String verb;

        Way(String verb) {
            this.verb = verb;
        }

        public String verb() {
            return verb;
        }

        static Way of(Optional<String> direction) {
            return switch (direction.orElse("")) {
                case "in" -> IN;
                case "out" -> OUT;
                case "inout" -> INOUT;
                default -> NONE;
            };
        }

        Way conjugated(boolean isConjugated) {
            return switch (this) {
                case IN -> isConjugated ? OUT : IN;
                case OUT -> isConjugated ? IN : OUT;
                case INOUT, NONE -> this;
            };
        }

        public boolean sends() {
            return this == OUT || this == INOUT;
        }

        public boolean receives() {
            return this == IN || this == INOUT;
        }

        /** Whether what goes this way at one end can go that way at the other. */
        boolean meets(Way other) {
            return switch (this) {
                case IN -> other == OUT || other == INOUT;
                case OUT -> other == IN || other == INOUT;
                case INOUT -> other != NONE;
                case NONE -> other == NONE;
            };
        }
    }

    /** A feature of a port, under the name by which the other end must have it. */
    public record Feature(String name, Element element, Way way) {}

    public PortFace {
        features = List.copyOf(features);
    }

    /** Whether it says enough to be compared with another. */
    public boolean isComparable() {
        return isWhole && !features.isEmpty();
    }

    /** The face of a port usage. */
    public static PortFace of(Model model, Element port) {
        Collector collector = new Collector(model);
        collector.collect(port, "", false, 0);
        return new PortFace(collector.features, collector.looked <= MOST);
    }

    /** The same seen from the other side. */
    PortFace conjugated() {
        return new PortFace(
                features.stream()
                        .map(feature -> new Feature(
                                feature.name(), feature.element(), feature.way().conjugated(true)))
                        .toList(),
                isWhole);
    }

    /** Where everything goes that it carries; INOUT where that differs. */
    public Way way() {
        List<Way> ways = features.stream()
                .map(Feature::way)
                .filter(way -> way != Way.NONE)
                .distinct()
                .toList();
        return ways.isEmpty() ? Way.NONE : ways.size() == 1 ? ways.getFirst() : Way.INOUT;
    }

    public Optional<Feature> named(String name) {
        return features.stream().filter(feature -> feature.name().equals(name)).findFirst();
    }

    private static final class Collector {
        private final Model model;
        private final List<Feature> features = new ArrayList<>();
        private int looked;

        Collector(Model model) {
            this.model = model;
        }

        void collect(Element port, String path, boolean isConjugated, int depth) {
            boolean byType = isConjugated(model, port);
            for (Element feature : model.inheritance().features(port)) {
                String name = model.names().effectiveName(feature);
                if (name == null || model.isLibrary(feature.id())) {
                    continue;
                }
                looked = depth > DEEPEST ? MOST + 1 : looked + 1;
                if (looked > MOST) {
                    return;
                }
                boolean exchanged = isConjugated != (byType && isOfDefinition(model, feature));
                if (feature.kind() == ElementKind.PORT) {
                    collect(feature, path + name + ".", exchanged, depth + 1);
                } else if (carries(feature.kind())) {
                    Way way = Way.of(model.inheritance().nearest(feature, Property.DIRECTION));
                    features.add(new Feature(path + name, feature, way.conjugated(exchanged)));
                }
            }
        }
    }

    private static boolean carries(ElementKind kind) {
        return switch (kind) {
            case ATTRIBUTE, ITEM, PART, REFERENCE, ENUMERATION, ACTION -> true;
            default -> false;
        };
    }

    /** Whether the nearest typing of a port is by a conjugated definition. */
    private static boolean isConjugated(Model model, Element port) {
        return model.inheritance().generals(port).stream()
                .filter(general -> general.kind() == ElementKind.PORT
                        && !general.references(Property.TYPES).isEmpty())
                .findFirst()
                .flatMap(typed -> typed.get(Property.CONJUGATED))
                .orElse(false);
    }

    /** What a usage adds itself is written as it is; only what comes from the definition is exchanged. */
    private static boolean isOfDefinition(Model model, Element feature) {
        return feature.owner() != null && model.get(feature.owner()).kind().isDefinition();
    }
}
