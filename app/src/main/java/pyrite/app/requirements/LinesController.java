package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Metadata;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Structuring;
import pyrite.core.specification.TextReplacement;
import pyrite.core.trace.Removal;

/** Receives edits of the lines of a specification: adding, arranging, removing, and attributes of several lines. */
@RestController
@Tag(name = ApiAddress.TRACING)
class LinesController {
    private static final int MOST_LINES = 20_000;
    private static final int LONGEST_TEXT = 100_000;

    private final Workspace workspace;
    private final NewIds newIds;

    LinesController(Workspace workspace, NewIds newIds) {
        this.workspace = workspace;
        this.newIds = newIds;
    }

    /** A line to add behind or below another; {@code type} is requirement, heading or note. */
    record NewLine(
            @NotNull String anchor,
            boolean below,
            @NotNull String type,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @Operation(summary = "Add a requirement, heading or note behind or below another line; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/add", ApiAddress.BRANCH + "/requirements"})
    ResponseEntity<Answer> add(Workspace.Head head, Person person, @Valid @RequestBody NewLine requested) {
        Structuring structuring = new Structuring(head.model());
        Element anchor = head.element(requested.anchor());
        boolean isTop = Specification.of(head.model(), anchor, false).isPresent();
        Structuring.Place place = requested.below() || isTop ? structuring.below(anchor) : structuring.after(anchor);
        String text = requested.text().strip();
        List<Element> made = switch (requested.type()) {
            case "heading" -> List.of(structuring.heading(place, text.isEmpty() ? "Heading" : text));
            case "note" -> List.of(structuring.note(place, text));
            default ->
                structuring.requirement(
                        place, newIds.take(head, place.owner(), 1).getFirst(), text);
        };
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        requested.base(),
                        new Edit(made, Set.of()),
                        person,
                        requested.type() + " " + called(made.getFirst()) + " added"),
                "nothing changed",
                List.of(made.getFirst().id()));
    }

    private static String called(Element made) {
        return made.shortName() != null ? made.shortName() : made.name() != null ? made.name() : "";
    }

    /** Some lines. */
    record Some(
            @NotEmpty @Size(max = MOST_LINES) List<String> ids,
            @PositiveOrZero int base) {
        List<Element> in(Workspace.Head head) {
            return ids.stream().map(head::element).toList();
        }
    }

    /** An arrangement of lines: indent, outdent, up, down; or before, behind or into another line. */
    record Arranged(
            @Valid @NotNull Some lines,
            @NotNull String how,
            @Nullable String target) {}

    @Operation(summary = "Indent, outdent, shift or move lines; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/arrange", ApiAddress.BRANCH + "/requirements/arrange"})
    ResponseEntity<Answer> arrange(Workspace.Head head, Person person, @Valid @RequestBody Arranged requested) {
        Structuring structuring = new Structuring(head.model());
        List<Element> lines = requested.lines().in(head);
        Optional<Edit> edit = switch (requested.how()) {
            case "indent" -> structuring.indent(lines);
            case "outdent" -> structuring.outdent(lines);
            case "up", "down" -> structuring.shift(lines, requested.how().equals("down"));
            default ->
                Optional.of(structuring.moved(
                        lines,
                        place(
                                structuring,
                                requested.how(),
                                head.element(java.util.Objects.requireNonNullElse(requested.target(), "")))));
        };
        if (edit.isEmpty()) {
            return Answer.unprocessable(
                    switch (requested.how()) {
                        case "indent" -> "there is no line before it that could hold it";
                        case "outdent" -> "it stands at the top of its specification";
                        default -> "it is the " + (requested.how().equals("up") ? "first" : "last") + " of its level";
                    });
        }
        return commit(
                head,
                person,
                requested.lines().base(),
                edit.get(),
                what(head.model(), lines)
                        + switch (requested.how()) {
                            case "indent" -> " one level deeper";
                            case "outdent" -> " one level higher";
                            default -> " moved";
                        });
    }

    private static Structuring.Place place(Structuring structuring, String how, Element target) {
        return switch (how) {
            case "before" -> structuring.before(target);
            case "into" -> structuring.below(target);
            default -> structuring.after(target);
        };
    }

    @Operation(summary = "Duplicate lines with what is below them; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/duplicate", ApiAddress.BRANCH + "/requirements/duplicate"})
    ResponseEntity<Answer> duplicate(Workspace.Head head, Person person, @Valid @RequestBody Some requested) {
        Structuring structuring = new Structuring(head.model());
        List<Element> made = new ArrayList<>();
        List<ElementId> tops = new ArrayList<>();
        for (Element line : structuring.tops(requested.in(head))) {
            int requirements = (int) head.model().subtree(line.id()).stream()
                    .filter(Specification::isRequirement)
                    .count();
            Iterator<String> ids = newIds.take(head, line, requirements).iterator();
            List<Element> copies = structuring.duplicate(line, ids::next);
            tops.add(copies.getFirst().id());
            made.addAll(copies);
        }
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        requested.base(),
                        new Edit(made, Set.of()),
                        person,
                        what(head.model(), requested.in(head)) + " duplicated"),
                "nothing changed",
                tops);
    }

    @Operation(summary = "Remove lines with what is below them and with their links; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/remove", ApiAddress.BRANCH + "/requirements/remove"})
    ResponseEntity<Answer> remove(Workspace.Head head, Person person, @Valid @RequestBody Some requested) {
        Removal removal = Removal.of(head.model(), new Structuring(head.model()).tops(requested.in(head)));
        return commit(head, person, requested.base(), removal.edit(), removal.summary());
    }

    /** An attribute value for some requirements; empty removes it. */
    record Valued(
            @Valid @NotNull Some lines,
            @NotNull String attribute,
            @NotNull @Size(max = LONGEST_TEXT) String value) {}

    @Operation(summary = "Set an attribute of requirements; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/attribute", ApiAddress.BRANCH + "/requirements/attribute"})
    ResponseEntity<Answer> attribute(Workspace.Head head, Person person, @Valid @RequestBody Valued requested) {
        Attributes attributes = Attributes.in(head.model());
        List<Element> put = new ArrayList<>();
        Set<ElementId> remove = new HashSet<>();
        List<Element> requirements = requested.lines().in(head).stream()
                .filter(Specification::isRequirement)
                .toList();
        try {
            for (Element requirement : requirements) {
                Attribute attribute = attributes
                        .named(requirement, requested.attribute())
                        .orElseThrow(() -> new IllegalArgumentException(RequirementIds.of(head.model(), requirement)
                                + " has no attribute " + requested.attribute()));
                Edit edit = attributes.set(requirement, attribute, requested.value());
                put.addAll(edit.put());
                remove.addAll(edit.remove());
            }
        } catch (Attributes.ValueFault | IllegalArgumentException fault) {
            return Answer.unprocessable(fault);
        }
        return commit(
                head,
                person,
                requested.lines().base(),
                new Edit(put, remove),
                requested.attribute() + " of " + what(head.model(), requirements) + ": "
                        + (requested.value().isBlank() ? "taken away" : requested.value()));
    }

    /** A phrase to find in requirement texts, and its replacement. */
    record Replaced(
            @Valid @NotNull Some lines,
            @NotEmpty String find,
            @NotNull String replace) {}

    @Operation(summary = "Find and replace in the texts of requirements; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/replace", ApiAddress.BRANCH + "/requirements/replace"})
    ResponseEntity<Answer> replace(Workspace.Head head, Person person, @Valid @RequestBody Replaced requested) {
        TextReplacement replacement =
                TextReplacement.of(head.model(), requested.lines().in(head), requested.find(), requested.replace());
        return commit(head, person, requested.lines().base(), replacement.edit(), replacement.summary());
    }

    /** A specification to create. */
    record NewSpecification(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 40) String prefix,
            @NotNull @Size(max = 40) String level,
            @PositiveOrZero int base) {}

    @Operation(summary = "Create a specification; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/specifications", ApiAddress.BRANCH + "/specifications"})
    ResponseEntity<Answer> begin(Workspace.Head head, Person person, @Valid @RequestBody NewSpecification requested) {
        String prefix = requested.prefix().strip();
        if (requested.name().isBlank() || !prefix.matches("[A-Za-z][A-Za-z0-9_.-]{0,19}")) {
            return Answer.unprocessable(
                    "a specification has a name, and a prefix for its ids that begins with a letter, for instance MG");
        }
        if (Specification.all(head.model()).stream()
                .anyMatch(each -> each.prefix().equals(prefix))) {
            return Answer.unprocessable("the prefix " + prefix + " is that of another specification");
        }
        Element made = Element.of(
                ElementKind.PACKAGE,
                null,
                head.model().rankAtEnd(null),
                requested.name().strip());
        List<Element> all = new ArrayList<>(List.of(made));
        all.addAll(mark(made, prefix, requested.level().strip(), head.model()));
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        requested.base(),
                        new Edit(all, Set.of()),
                        person,
                        "specification " + requested.name().strip() + " begun"),
                "nothing changed",
                List.of(made.id()));
    }

    private static List<Element> mark(Element specification, String prefix, String level, Model model) {
        Element metadata = Element.of(ElementKind.METADATA, specification.id(), Rank.between(null, null), null)
                .with(Property.TYPES, List.of(Reference.to(Metadata.SPECIFICATION)));
        List<Rank> ranks = Rank.after(null, 2);
        return level.isEmpty()
                ? List.of(metadata, Metadata.text(model, metadata, "prefix", prefix, ranks.get(0)))
                : List.of(
                        metadata,
                        Metadata.text(model, metadata, "prefix", prefix, ranks.get(0)),
                        Metadata.text(model, metadata, "level", level, ranks.get(1)));
    }

    private static String what(Model model, List<Element> lines) {
        Element one = lines.getFirst();
        return lines.size() > 1
                ? lines.size() + " lines"
                : Specification.isRequirement(one)
                        ? RequirementIds.of(model, one)
                        : java.util.Objects.requireNonNullElse(model.names().effectiveName(one), "note");
    }

    private ResponseEntity<Answer> commit(Workspace.Head head, Person person, int base, Edit edit, String summary) {
        return Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed");
    }
}
