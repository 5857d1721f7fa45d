package pyrite.core.function;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import pyrite.core.function.ExchangeTable.Row;
import pyrite.core.function.ExchangeTable.State;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Edit;
import pyrite.core.model.EditSequence;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.structure.Flows;
import pyrite.core.structure.SendingPort;
import pyrite.core.structure.Wiring;

/**
 * Makes what carries an exchange that no connection carries: a port at what sends, its conjugate at what receives,
 * ports at the borders between, the connection, and the flow on it. Several rows are wired one after the other, so that
 * what the first made serves the next; all of it is one edit.
 */
public final class WireUp {
    private final Element whole;
    private final EditSequence edits;
    private final List<String> summaries = new ArrayList<>();

    private WireUp(Model model, Element whole) {
        this.edits = new EditSequence(model);
        this.whole = whole;
    }

    /**
     * @param additions what is added, as notation, by the name of what it is added to
     * @param summaries a sentence for each step
     */
    public record Proposal(Edit edit, List<Addition> additions, List<String> summaries) {}

    /** @param place the name of what it is added to */
    public record Addition(String place, String notation) {}

    /** @throws IllegalArgumentException with the reason if a row cannot be wired */
    public static Proposal of(ExchangeTable table, List<Row> rows) {
        Model before = table.model();
        WireUp wiring = new WireUp(before, table.parts().whole());
        for (Row row : rows) {
            if (row.state() != State.UNWIRED) {
                throw new IllegalArgumentException(
                        table.name(row) + " from " + table.functions().path(row.from()) + " to "
                                + table.functions().path(row.to()) + " is " + reason(row));
            }
            wiring.wire(row);
        }
        Edit edit = wiring.edits.edit();
        return new Proposal(edit, wiring.additions(before, edit), wiring.summaries);
    }

    private static String reason(Row row) {
        return switch (row.state()) {
            case WIRED -> "carried already";
            case WITHIN -> "exchanged within one part; nothing has to carry it";
            case NOBODY -> "performed by nobody at one end; give both functions to parts first";
            case UNWIRED -> "not carried";
        };
    }

    private void wire(Row row) {
        Part sender = Objects.requireNonNull(row.sender());
        Part receiver = Objects.requireNonNull(row.receiver());
        Element item = row.item();
        Model model = edits.model();
        if (item == null) {
            throw new IllegalArgumentException("nothing says what goes from '"
                    + model.names().effectiveName(row.from().function()) + "' to '"
                    + model.names().effectiveName(row.to().function())
                    + "'; give its flow or its parameters a type");
        }
        SendingPort.Made sending = SendingPort.of(edits.model(), sender.element(), item);
        apply(sending.edit(), sending.summary());
        List<ElementId> from = way(sender);
        from.add(sending.port());
        Wiring.Result result = Wiring.connect(edits.model(), from, way(receiver));
        if (result instanceof Wiring.Result.Several(List<Wiring.Pair> pairs)) {
            result = Wiring.connect(
                    edits.model(), pairs.getFirst().one(), pairs.getFirst().other());
        }
        switch (result) {
            case Wiring.Result.Made(Edit edit, ElementId connector, String summary) -> {
                apply(edit, summary);
                apply(Flows.make(edits.model(), edits.model().get(connector)), "");
            }
            case Wiring.Result.Refused(String reason) -> throw new IllegalArgumentException(reason);
            case Wiring.Result.Several _ ->
                throw new IllegalArgumentException("several ports fit; connect them by hand");
        }
    }

    /** From the whole on, as a drawing of it names things. */
    private List<ElementId> way(Part part) {
        List<ElementId> way = new ArrayList<>(List.of(whole.id()));
        way.addAll(part.way());
        return way;
    }

    private void apply(Edit edit, String summary) {
        if (edit.put().isEmpty()) {
            return;
        }
        edits.then(edit);
        if (!summary.isEmpty()) {
            summaries.add(summary);
        }
    }

    private List<Addition> additions(Model before, Edit edit) {
        Set<ElementId> made = edit.touched();
        Model model = edits.model();
        return edit.put().stream()
                .filter(element ->
                        element.owner() != null && !made.contains(element.owner()) && !before.has(element.id()))
                .map(element -> new Addition(
                        Objects.requireNonNullElse(
                                model.names().effectiveName(model.get(Objects.requireNonNull(element.owner()))), ""),
                        NotationWriter.write(model, List.of(element)).strip()))
                .toList();
    }
}
