package pyrite.app.element;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.notation.MissingImports;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;
import pyrite.core.notation.TextAssistant;
import pyrite.core.notation.TextProblem;
import pyrite.core.view.FeatureSheet;

/**
 * Edits the text of an element with all it owns. A text is read against the revision it was written from, so that
 * changes by others elsewhere are kept.
 */
@RestController
class NotationController {
    private static final int LONGEST = 12_000_000;
    private static final int MOST_FAULTS = 200;
    private static final Pattern NAME = Pattern.compile("[\\p{L}_][\\p{L}\\p{N}_]*|'[^']+'");

    private final Workspace workspace;

    NotationController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** The text of an element and the revision it was written from. */
    record Text(String text, int base) {}

    /** @param base the revision that the text was written from */
    record Typed(
            @NotNull @Size(max = LONGEST) String text,
            @PositiveOrZero int base) {}

    /** @param at a character offset from 0 */
    record TypedAt(
            @NotNull @Size(max = LONGEST) String text,
            @PositiveOrZero int base,
            @PositiveOrZero int at) {}

    /** @param over whether to overwrite changes by others in the same elements */
    record ToSave(
            @NotNull @Size(max = LONGEST) String text,
            @PositiveOrZero int base,
            boolean over) {}

    /**
     * A fault between two places of the text.
     *
     * @param imports the qualified names one of which would be imported to know the name at fault
     */
    record Fault(int from, int to, int line, String message, List<String> imports) {
        static Fault of(TextProblem problem) {
            return new Fault(
                    problem.span().start(), problem.span().end(), problem.line(), problem.message(), List.of());
        }

        /** With the imports that would mend it, if it is a name that the text does not know. */
        static Fault of(Model model, String text, TextProblem problem) {
            Fault fault = of(problem);
            int end = Math.min(fault.to(), text.length());
            Matcher name = NAME.matcher(text.substring(Math.min(fault.from(), end), end));
            return problem.message().startsWith("there is no '") && name.lookingAt()
                    ? new Fault(
                            fault.from(),
                            fault.to(),
                            fault.line(),
                            fault.message(),
                            MissingImports.of(model, name.group().replace("'", "")))
                    : fault;
        }
    }

    /** The place of an element's declaration. */
    record Place(String id, int from, int to) {}

    /**
     * The result of reading a text.
     *
     * @param faults a limited number of them, and {@code more} that are left out
     * @param hints what is right and may be meant otherwise
     */
    record Checked(List<Fault> faults, int more, List<Fault> hints, List<Place> places) {}

    @GetMapping("/p/{project}/{branch}/element/{id}/notation.json")
    Text text(Workspace.Head head, @PathVariable String id) {
        return new Text(NotationWriter.write(head.model(), List.of(head.element(id))), head.number());
    }

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Read the new text of an element without saving it")
    @Costly
    @PostMapping({
        "/p/{project}/{branch}/element/{id}/notation/check",
        ApiAddress.BRANCH + "/elements/{id}/notation/check"
    })
    Checked check(Workspace.Head head, @PathVariable String id, @Valid @RequestBody Typed typed) {
        ReadResult reading = read(head, id, typed.text(), typed.base());
        List<Fault> faults = reading.problems().stream()
                .limit(MOST_FAULTS)
                .map(problem -> Fault.of(head.model(), typed.text(), problem))
                .toList();
        List<Fault> hints =
                reading.hints().stream().limit(MOST_FAULTS).map(Fault::of).toList();
        return new Checked(faults, reading.problems().size() - faults.size(), hints, places(head.model(), reading));
    }

    /** Of what is in the model already; the rest has no Thread and no box yet. */
    private static List<Place> places(Model model, ReadResult reading) {
        return reading.places().entrySet().stream()
                .filter(entry -> model.has(entry.getKey()))
                .map(entry -> new Place(
                        entry.getKey().toString(),
                        entry.getValue().span().start(),
                        entry.getValue().span().end()))
                .toList();
    }

    private ReadResult read(Workspace.Head head, String id, String text, int base) {
        Workspace.Head then = workspace.asOf(head, base);
        return NotationReader.readBack(then.model(), List.of(then.element(id)), new Source("", text));
    }

    /** The names that fit at a place, most likely first. */
    record Proposals(List<TextAssistant.Proposal> proposals) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/notation/complete")
    Proposals complete(Workspace.Head head, @PathVariable String id, @Valid @RequestBody TypedAt typed) {
        return new Proposals(
                assistant(workspace.asOf(head, typed.base()), id, typed.text()).proposals(typed.at()));
    }

    /** The names that fit at a place of a line that is to be added to an element. */
    @PostMapping("/p/{project}/{branch}/element/{id}/members/complete")
    Proposals completeMember(Workspace.Head head, @PathVariable String id, @Valid @RequestBody TypedAt typed) {
        return new Proposals(TextAssistant.forMember(
                head.model(),
                head.element(id).id(),
                typed.text(),
                Math.min(typed.at(), typed.text().length())));
    }

    /** The meaning of a name: its declaration, documentation, value and location. */
    record Meaning(
            String id,
            String kind,
            String name,
            String declaration,
            String documentation,
            String value,
            int from,
            String address) {}

    @Costly
    @PostMapping("/p/{project}/{branch}/element/{id}/notation/meaning")
    ResponseEntity<Meaning> meaning(Workspace.Head head, @PathVariable String id, @Valid @RequestBody TypedAt typed) {
        Workspace.Head then = workspace.asOf(head, typed.base());
        TextAssistant assistant = assistant(then, id, typed.text());
        return assistant
                .meaning(typed.at())
                .map(element ->
                        ResponseEntity.ok(meaning(head, then.model(), element, assistant.placeOf(element.id()))))
                .orElseGet(() -> ResponseEntity.noContent().build());
    }

    private static TextAssistant assistant(Workspace.Head then, String id, String text) {
        return new TextAssistant(
                then.model(),
                text,
                NotationReader.placesIn(then.model(), List.of(then.element(id)), new Source("", text)));
    }

    private static Meaning meaning(Workspace.Head head, Model model, Element element, Optional<Span> place) {
        return new Meaning(
                element.id().toString(),
                element.kind().title(),
                new Labels(model).name(element),
                NotationWriter.head(model, element),
                model.inheritance().documentation(element),
                value(model, element),
                place.map(Span::start).orElse(-1),
                head.address("element/" + element.id()));
    }

    /** What the value of a feature comes to in its owner, with its unit; empty where it varies or has none. */
    private static String value(Model model, Element element) {
        Element owner = element.owner() == null ? null : model.get(element.owner());
        boolean fixed = element.get(Property.VALUE)
                .filter(value -> value.kind() == FeatureValue.Kind.FIXED)
                .isPresent();
        if (owner == null || !fixed || model.isLibrary(element.id())) {
            return "";
        }
        return FeatureSheet.of(model, owner).attributes().stream()
                .filter(attribute -> attribute.feature().equals(element))
                .findFirst()
                .map(attribute -> attribute.computed() != null
                        ? new Labels(model).number(attribute.computed()) + " "
                                + attribute.unit().symbol()
                        : Objects.requireNonNullElse(attribute.result(), ""))
                .orElse("")
                .strip();
    }

    /** The text in canonical form, or the faults that prevent it. */
    record Formatted(@Nullable String text, List<Fault> faults) {}

    @Costly
    @PostMapping("/p/{project}/{branch}/element/{id}/notation/format")
    Formatted format(Workspace.Head head, @PathVariable String id, @Valid @RequestBody Typed typed) {
        ReadResult reading = read(head, id, typed.text(), typed.base());
        if (!reading.isGood()) {
            return new Formatted(
                    null,
                    reading.problems().stream()
                            .limit(MOST_FAULTS)
                            .map(Fault::of)
                            .toList());
        }
        List<Element> top = top(reading);
        return new Formatted(NotationWriter.write(reading.model(), top), List.of());
    }

    /** The elements at the top of a text. */
    private static List<Element> top(ReadResult reading) {
        Set<ElementId> read = reading.read().stream().map(Element::id).collect(Collectors.toSet());
        return reading.read().stream()
                .filter(element -> element.owner() == null || !read.contains(element.owner()))
                .map(element -> reading.model().get(element.id()))
                .toList();
    }

    /** An element that somebody else changed meanwhile, in both versions; empty where one removed it. */
    record Disputed(String name, String theirs, String yours) {}

    /** The result of saving. */
    record Saved(boolean saved, String message, List<Fault> faults, List<Disputed> disputed) {}

    @Costly
    @PostMapping("/p/{project}/{branch}/element/{id}/notation")
    ResponseEntity<Saved> save(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody ToSave typed) {
        ReadResult reading = read(head, id, typed.text(), typed.base());
        if (!reading.isGood()) {
            List<Fault> faults = reading.problems().stream()
                    .limit(MOST_FAULTS)
                    .map(Fault::of)
                    .toList();
            return ResponseEntity.status(HttpStatus.UNPROCESSABLE_CONTENT)
                    .body(new Saved(
                            false,
                            "Not saved: line " + faults.getFirst().line() + ": "
                                    + faults.getFirst().message(),
                            faults,
                            List.of()));
        }
        Labels labels = new Labels(head.model());
        String summary = "text of " + labels.name(head.element(id)) + ": " + changes(reading);
        Workspace.Commit commit = workspace.commit(
                head.branch(), typed.over() ? head.number() : typed.base(), reading.edit(), person, summary);
        return switch (commit) {
            case Workspace.Commit.Saved(var revision) ->
                ResponseEntity.ok(new Saved(true, "Saved · " + revision.label(), List.of(), List.of()));
            case Workspace.Commit.Nothing() ->
                ResponseEntity.ok(new Saved(false, "Nothing to save", List.of(), List.of()));
            case Workspace.Commit.Refused(var problems) ->
                refused(
                        problems.stream()
                                .map(problem -> ReadResult.locate(problem, reading.places()))
                                .filter(Objects::nonNull)
                                .map(Fault::of)
                                .toList(),
                        problems.getFirst().message());
            case Workspace.Commit.Overtaken(List<ElementId> elements, var _, Model theirs) ->
                ResponseEntity.status(HttpStatus.CONFLICT)
                        .body(new Saved(
                                false,
                                "Somebody has changed the same elements since",
                                List.of(),
                                elements.stream()
                                        .map(each -> disputed(theirs, reading.model(), each))
                                        .toList()));
        };
    }

    private static String changes(ReadResult reading) {
        int put = reading.edit().put().size();
        int removed = reading.edit().remove().size();
        return put + (put == 1 ? " element" : " elements") + " written"
                + (removed == 0 ? "" : ", " + removed + " removed");
    }

    private static ResponseEntity<Saved> refused(List<Fault> faults, String message) {
        return ResponseEntity.status(HttpStatus.UNPROCESSABLE_CONTENT)
                .body(new Saved(
                        false,
                        "Not saved, because of what others have changed meanwhile: " + message,
                        faults,
                        List.of()));
    }

    private static Disputed disputed(Model theirs, Model yours, ElementId id) {
        String name = theirs.find(id)
                .map(new Labels(theirs)::name)
                .or(() -> yours.find(id).map(new Labels(yours)::name))
                .orElse("an element");
        return new Disputed(name, shown(theirs, id), shown(yours, id));
    }

    private static String shown(Model model, ElementId id) {
        return model.find(id)
                .map(element -> NotationWriter.head(model, element)
                        + element.get(Property.TEXT)
                                .map(text -> " /* " + text + " */")
                                .orElse(""))
                .orElse("");
    }
}
