package pyrite.core.function;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * Who exchanges what: for each way that something goes from one function to another, the parts that perform the two,
 * and the connections between them that can carry it. It is derived from the flows and from who performs what, so it
 * follows every change of either.
 *
 * @param rows in the order of the functions; one for each pair of performers
 * @param idle connections between parts of the whole that carry none of what the functions exchange
 */
public record ExchangeTable(Model model, FunctionTree functions, PartTree parts, List<Row> rows, List<Idle> idle) {
    /**
     * @param item the type of what goes; null if nothing is said of it
     * @param fromPart the part that sends, at the chosen level; null if nobody performs the function
     * @param sender the part that performs the function, however deep it is
     * @param carriedBy the connections between the two parts that can carry it
     */
    public record Row(
            Use from,
            Element sent,
            Use to,
            Element received,
            @Nullable Element item,
            List<Element> flows,
            @Nullable Part fromPart,
            @Nullable Part toPart,
            @Nullable Part sender,
            @Nullable Part receiver,
            List<Element> carriedBy) {
        /** Whether both functions are performed within the same part, so that nothing has to carry it to another. */
        public boolean isWithin() {
            return fromPart != null && fromPart.equals(toPart);
        }

        public State state() {
            return sender == null || receiver == null
                    ? State.NOBODY
                    : isWithin() ? State.WITHIN : carriedBy.isEmpty() ? State.UNWIRED : State.WIRED;
        }
    }

    /** How far an exchange is provided for. */
    public enum State {
        WIRED("carried"),
        UNWIRED("by no connection"),
        WITHIN("within one part"),
        NOBODY("performed by nobody");

        private final String title;

        State(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** A connection that carries nothing of what is exchanged, and what it joins. */
    public record Idle(Element connector, Part one, Part other) {}

    public ExchangeTable {
        rows = List.copyOf(rows);
        idle = List.copyOf(idle);
    }

    /**
     * @param function the whole function
     * @param whole the part whose parts perform it
     * @param level how deep in the whole the parts are that the rows name; 1 for the parts directly in it
     */
    public static ExchangeTable of(Model model, Element function, Element whole, int level) {
        FunctionTree functions = FunctionTree.of(model, function);
        PartTree parts = PartTree.of(model, whole);
        Performers performers = Performers.of(model, parts);
        Carriers carriers = new Carriers(model, parts);
        Map<Use, Set<Part>> known = new LinkedHashMap<>();
        List<Row> rows = new ArrayList<>();
        Set<Element> used = new HashSet<>();
        for (FlowWays.Way way : FlowWays.of(model, functions)) {
            Set<Part> senders = known.computeIfAbsent(way.from(), performers::of);
            Set<Part> receivers = known.computeIfAbsent(way.to(), performers::of);
            for (Part sender : orNobody(senders)) {
                for (Part receiver : orNobody(receivers)) {
                    List<Element> carriedBy = sender == null || receiver == null || sender.equals(receiver)
                            ? List.of()
                            : carriers.between(sender, receiver, way);
                    used.addAll(carriedBy);
                    rows.add(new Row(
                            way.from(),
                            way.sent(),
                            way.to(),
                            way.received(),
                            way.item(),
                            way.carriers(),
                            sender == null ? null : sender.at(level),
                            receiver == null ? null : receiver.at(level),
                            sender,
                            receiver,
                            carriedBy));
                }
            }
        }
        rows.sort(Comparator.comparing((Row row) -> functions.path(row.from()))
                .thenComparing(row -> functions.path(row.to())));
        return new ExchangeTable(model, functions, parts, rows, carriers.idle(used));
    }

    private static List<@Nullable Part> orNobody(Set<Part> parts) {
        List<@Nullable Part> each = new ArrayList<>(parts);
        if (each.isEmpty()) {
            each.add(null);
        }
        return each;
    }

    /** The name of what goes: that of its type, else of the parameter that it comes from. */
    public String name(Row row) {
        Element named = row.item() == null ? row.sent() : row.item();
        return Objects.requireNonNullElse(
                model.names().effectiveName(named), named.kind().title());
    }

    public long count(State state) {
        return rows.stream().filter(row -> row.state() == state).count();
    }
}
