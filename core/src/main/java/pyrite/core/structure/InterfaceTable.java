package pyrite.core.structure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Reference;

/**
 * Who talks to whom: the connections, interfaces and flows of a part or package with what they carry and whether it
 * fits.
 */
public record InterfaceTable(List<Row> rows) {
    private static final Set<ElementKind> CONNECTORS =
            Set.of(ElementKind.CONNECTION, ElementKind.INTERFACE, ElementKind.FLOW, ElementKind.SUCCESSION_FLOW);

    /**
     * An end of a connection.
     *
     * @param party the path of the part that talks, {@code powerUnit.pump}; empty where it is the holder's own port
     * @param port the name of the port or feature there; empty where the part itself is connected
     * @param element the last element of the path
     */
    public record End(String party, String port, Element element) {}

    /**
     * Something that is carried.
     *
     * @param forth whether it goes from the first end to the second
     * @param back whether it goes from the second to the first; neither where both only have the same
     */
    public record Carried(String name, boolean forth, boolean back) {
        /** {@code oil →}, {@code ← pressure}, {@code telegram ↔}. */
        public String words() {
            return forth && back ? name + " ↔" : forth ? name + " →" : back ? "← " + name : name;
        }
    }

    /**
     * A connection of two ends.
     *
     * @param holder what the connection stands in
     * @param type the definition of the connection or interface; null if it has none
     * @param isCompared whether both ends are ports that say what they carry; of others nothing is known
     */
    public record Row(
            Element connector,
            Element holder,
            @Nullable Element type,
            End one,
            End other,
            List<Carried> carried,
            boolean isCompared,
            List<Fit.Misfit> misfits) {
        public boolean fits() {
            return isCompared && misfits.isEmpty();
        }
    }

    public InterfaceTable {
        rows = List.copyOf(rows);
    }

    /**
     * Of a package: what stands in it at any depth. Of a part or definition: its own and inherited connections, and
     * those inside its parts' own bodies.
     */
    public static InterfaceTable of(Model model, Element holder) {
        Stream<Element> inherited =
                holder.kind().isPackage() ? Stream.of() : model.inheritance().features(holder).stream();
        return of(
                model,
                Stream.concat(inherited, model.subtree(holder.id()).stream())
                        .filter(element -> CONNECTORS.contains(element.kind()))
                        .distinct());
    }

    /** Of the whole model. */
    public static InterfaceTable of(Model model) {
        return of(model, model.ownElements(CONNECTORS));
    }

    private static InterfaceTable of(Model model, Stream<Element> connectors) {
        return new InterfaceTable(connectors
                .flatMap(connector -> row(model, connector).stream())
                .sorted(Comparator.comparing((Row row) -> model.names().qualifiedName(row.holder()))
                        .thenComparing(row -> row.one().party())
                        .thenComparing(row -> row.other().party())
                        .thenComparing(row -> row.connector().rank()))
                .toList());
    }

    private static Optional<Row> row(Model model, Element connector) {
        List<Reference> targets = ConnectorEnds.of(model, connector);
        if (targets.size() != 2 || connector.owner() == null || isWithinBehavior(model, connector)) {
            return Optional.empty();
        }
        return Optional.of(new Row(
                connector,
                model.get(connector.owner()),
                model.inheritance().generals(connector).stream()
                        .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                        .findFirst()
                        .orElse(null),
                end(model, targets.getFirst().chain()),
                end(model, targets.getLast().chain()),
                carried(model, connector),
                faces(model, connector).stream().filter(PortFace::isComparable).count() == 2,
                Fit.of(model, connector)));
    }

    /** Flows between functions or steps say what is exchanged, and not between whom. */
    private static boolean isWithinBehavior(Model model, Element connector) {
        return connector.owner() != null && model.get(connector.owner()).kind().tellsWhatHappens();
    }

    /** The party is the way up to the last part; what follows is its port or feature. */
    private static End end(Model model, List<ElementId> chain) {
        int parts = 0;
        while (parts < chain.size()
                && model.find(chain.get(parts))
                        .filter(step -> step.kind() == ElementKind.PART || step.kind() == ElementKind.REFERENCE)
                        .isPresent()) {
            parts++;
        }
        return new End(
                path(model, chain.subList(0, parts)),
                path(model, chain.subList(parts, chain.size())),
                model.get(chain.getLast()));
    }

    private static String path(Model model, List<ElementId> chain) {
        return chain.stream()
                .map(id -> model.environment().nameOf((Referent) id))
                .collect(Collectors.joining("."));
    }

    private static List<PortFace> faces(Model model, Element connector) {
        return connector.kind().isFlow() ? List.of() : Fit.faces(model, connector);
    }

    /** What the ports have in common; of a flow what it says it carries. */
    public static List<Carried> carried(Model model, Element connector) {
        if (connector.kind().isFlow()) {
            return model.children(connector.id()).stream()
                    .filter(child -> child.kind() == ElementKind.PAYLOAD)
                    .flatMap(payload -> model.inheritance().generals(payload).stream())
                    .filter(general -> general.kind().isDefinition())
                    .limit(1)
                    .map(type -> new Carried(String.valueOf(model.names().effectiveName(type)), true, false))
                    .toList();
        }
        List<PortFace> faces = faces(model, connector);
        if (faces.size() != 2) {
            return List.of();
        }
        List<Carried> carried = new ArrayList<>();
        Pairs pairs = Pairs.of(model, connector);
        for (PortFace.Feature feature : faces.getFirst().features()) {
            pairs.second(feature, faces.getLast())
                    .ifPresent(met -> carried.add(new Carried(
                            feature.name().equals(met.name()) ? feature.name() : feature.name() + " = " + met.name(),
                            feature.way().sends() && met.way().receives(),
                            feature.way().receives() && met.way().sends())));
        }
        return carried;
    }

    /** The parties in the order in which they first appear. */
    public List<String> parties() {
        Set<String> parties = new LinkedHashSet<>();
        rows.forEach(row -> {
            parties.add(row.one().party());
            parties.add(row.other().party());
        });
        return List.copyOf(parties);
    }

    /**
     * The rows from one party to another as an N² chart shows them: in the row of whoever sends, in the column of
     * whoever receives; what only connects stands in the row of the first end.
     */
    public Map<String, Map<String, List<Row>>> chart() {
        Map<String, Map<String, List<Row>>> chart = new LinkedHashMap<>();
        rows.forEach(row -> {
            boolean back = row.carried().stream().anyMatch(Carried::back);
            boolean forth = !back || row.carried().stream().anyMatch(Carried::forth);
            if (forth) {
                cell(chart, row.one().party(), row.other().party()).add(row);
            }
            if (back) {
                cell(chart, row.other().party(), row.one().party()).add(row);
            }
        });
        return chart;
    }

    private static List<Row> cell(Map<String, Map<String, List<Row>>> chart, String from, String to) {
        return chart.computeIfAbsent(from, _ -> new LinkedHashMap<>()).computeIfAbsent(to, _ -> new ArrayList<>());
    }
}
