package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.notation.NotationWriter;
import pyrite.core.structure.Exposing;
import pyrite.core.structure.PortFace.Way;

/** Makes a port from features of a part: what there is to choose, what would be written, and the edit. */
@RestController
class ExposingController {
    private static final int MOST_OFFERED = 300;

    private final Workspace workspace;

    ExposingController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @param way what is likely: what has a value goes out, what has none comes in */
    record Feature(String id, String name, String kind, String type, String way) {}

    record Definition(String id, String name) {}

    /** What a part has that a port can carry, and the port definitions there are. */
    record Choice(String part, List<Feature> features, List<Definition> definitions) {}

    @GetMapping("/p/{project}/{branch}/element/{id}/exposable.json")
    Choice choice(Workspace.Head head, @PathVariable String id) {
        Model model = head.model();
        Labels labels = new Labels(model);
        Element part = head.element(id);
        return new Choice(
                labels.name(part),
                Exposing.candidates(model, part).stream()
                        .limit(MOST_OFFERED)
                        .map(feature -> new Feature(
                                feature.id().toString(),
                                labels.name(feature),
                                feature.kind().title(),
                                type(model, labels, feature),
                                likely(model, feature).name().toLowerCase(Locale.ROOT)))
                        .toList(),
                model.ownElements(ElementKind.PORT_DEFINITION)
                        .map(definition -> new Definition(definition.id().toString(), labels.name(definition)))
                        .sorted(Comparator.comparing(Definition::name))
                        .limit(MOST_OFFERED)
                        .toList());
    }

    private static String type(Model model, Labels labels, Element feature) {
        return model.inheritance().nearest(feature, Property.TYPES).orElse(List.of()).stream()
                .map(type -> labels.name(type.target()))
                .collect(Collectors.joining(", "));
    }

    private static Way likely(Model model, Element feature) {
        return feature.kind() == ElementKind.ATTRIBUTE
                        && model.inheritance().value(feature).isEmpty()
                ? Way.IN
                : Way.OUT;
    }

    record Exposed(
            @NotNull String id,

            @NotNull @Pattern(regexp = "in|out|inout") String way,

            @NotNull @Size(min = 1, max = 200) String name) {}

    /** @param preview whether only what would be written is asked for */
    record Asked(
            @NotNull @Size(max = MOST_OFFERED) List<@Valid Exposed> features,
            @NotNull @Size(max = 200) String port,
            @Nullable String definition,
            @NotNull @Size(max = 200) String definitionName,
            @Min(1) @Max(1000) int count,
            boolean preview,
            @PositiveOrZero int base) {}

    record Preview(boolean saved, String notation, String message) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/expose")
    ResponseEntity<?> expose(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Asked asked) {
        Exposing.Result result = Exposing.expose(
                head.model(),
                new Exposing.Request(
                        head.element(id),
                        asked.features().stream()
                                .map(feature -> new Exposing.Exposed(
                                        head.element(feature.id()).id(),
                                        Way.valueOf(feature.way().toUpperCase(Locale.ROOT)),
                                        feature.name().strip()))
                                .toList(),
                        asked.port().strip(),
                        asked.definition() == null ? null : head.element(asked.definition()),
                        asked.definitionName().strip(),
                        new Multiplicity(asked.count(), asked.count())));
        return switch (result) {
            case Exposing.Result.Refused(String reason) ->
                asked.preview() ? ResponseEntity.ok(new Preview(false, "", reason)) : Answer.unprocessable(reason);
            case Exposing.Result.Made(Edit edit, ElementId port, String summary) ->
                asked.preview()
                        ? ResponseEntity.ok(new Preview(false, notation(head.model(), edit), ""))
                        : Answer.of(
                                head,
                                workspace.commit(head.branch(), asked.base(), edit, person, summary),
                                "nothing changed",
                                List.of(port));
        };
    }

    /** What an edit adds, each piece under a note that says where. */
    private static String notation(Model model, Edit edit) {
        if (!(model.apply(edit) instanceof EditResult.Applied(Model next, var _))) {
            return "";
        }
        Labels labels = new Labels(next);
        Set<ElementId> added = edit.put().stream().map(Element::id).collect(Collectors.toSet());
        StringBuilder text = new StringBuilder();
        @Nullable ElementId place = null;
        for (Element element : edit.put()) {
            ElementId owner = element.owner();
            if (owner == null || added.contains(owner)) {
                continue;
            }
            if (!owner.equals(place)) {
                text.append(text.isEmpty() ? "" : "\n")
                        .append("// in ")
                        .append(labels.name(owner))
                        .append('\n');
                place = owner;
            }
            text.append(NotationWriter.write(next, List.of(element)));
        }
        return text.toString();
    }
}
