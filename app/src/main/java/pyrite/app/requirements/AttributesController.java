package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Workspace;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.AttributeEditing;

/** Adds requirement attributes to the project. */
@RestController
class AttributesController {
    private final Workspace workspace;

    AttributesController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** What a number may measure. */
    @GetMapping("/p/{project}/{branch}/requirements/quantities.json")
    List<String> quantities(Workspace.Head head) {
        return AttributeEditing.quantities(head.model());
    }

    /**
     * An attribute to add.
     *
     * @param type text, number, choice, date, person or truth
     * @param quantity the quantity that a number measures; empty for a plain number
     * @param choices separated by commas
     */
    record NewAttribute(
            @NotNull @Size(max = 60) String name,
            @NotNull String type,
            @NotNull String quantity,
            @NotNull @Size(max = 1000) String choices,
            boolean required,
            @NotNull @Size(max = 200) String byDefault,
            @PositiveOrZero int base) {

        Optional<Attribute.Type> kind() {
            return Arrays.stream(Attribute.Type.values())
                    .filter(each -> each.name().toLowerCase(Locale.ROOT).equals(type))
                    .findFirst();
        }

        AttributeEditing.Request requested(Attribute.Type kind) {
            List<String> offered = kind == Attribute.Type.CHOICE
                    ? Arrays.stream(choices.split(","))
                            .map(String::strip)
                            .filter(each -> !each.isEmpty())
                            .toList()
                    : List.of();
            return new AttributeEditing.Request(
                    name, kind, kind == Attribute.Type.NUMBER ? quantity : "", offered, required, byDefault);
        }
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "Add an attribute to the requirements of the project; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/attributes", ApiAddress.BRANCH + "/requirements/attributes"})
    ResponseEntity<Answer> add(Workspace.Head head, Person person, @Valid @RequestBody NewAttribute requested) {
        Optional<Attribute.Type> kind = requested.kind();
        if (kind.isEmpty()) {
            return Answer.unprocessable(
                    "'" + requested.type() + "' is no type; text, number, choice, date, person and truth are");
        }
        AttributeEditing.Proposal proposal = new AttributeEditing(head.model()).add(requested.requested(kind.get()));
        return proposal.problem().isEmpty()
                ? Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                requested.base(),
                                proposal.edit(),
                                person,
                                "attribute " + requested.name().strip() + " added"),
                        "nothing changed")
                : Answer.unprocessable(proposal.problem());
    }
}
