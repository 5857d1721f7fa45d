package pyrite.core.specification;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Name;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.NotationWriter;

/**
 * Adds requirement attributes to a project. They are features of the project's own definition, which specialises
 * {@code Managed} and is created with the first of them; the values of a choice are an enumeration within it.
 */
public final class AttributeEditing {
    private static final String PACKAGE = "RequirementAttributes";
    private static final String DEFINITION = "ProjectAttributes";
    private static final String QUANTITIES = "ISQ";
    private static final String VALUE = "Value";

    private final Model model;

    public AttributeEditing(Model model) {
        this.model = model;
    }

    /**
     * The attribute to add.
     *
     * @param quantity the quantity that a number measures, named as in {@link #quantities}; empty for a plain number
     * @param choices the values of a choice
     * @param byDefault the value that holds where none is given, as typed; empty for none
     */
    public record Request(
            String name,
            Attribute.Type type,
            String quantity,
            List<String> choices,
            boolean required,
            String byDefault) {}

    /** @param problem why it cannot be done; empty if it can */
    public record Proposal(Edit edit, String problem) {
        private static Proposal refused(String problem) {
            return new Proposal(new Edit(List.of(), Set.of()), problem);
        }
    }

    /** The quantities a number may measure: Length, Mass, Time and what else the library defines. */
    public static List<String> quantities(Model model) {
        return model.children(LibraryNames.id(QUANTITIES)).stream()
                .map(Element::name)
                .filter(name -> name != null && name.endsWith(VALUE))
                .map(name -> name.substring(0, name.length() - VALUE.length()))
                .sorted()
                .toList();
    }

    public Proposal add(Request requested) {
        String name = requested.name().strip();
        if (name.isEmpty()) {
            return Proposal.refused("an attribute has a name");
        }
        if (Attributes.in(model).all().stream().anyMatch(each -> each.name().equals(name))) {
            return Proposal.refused("there is an attribute called " + name + " already");
        }
        if (requested.type() == Attribute.Type.CHOICE && requested.choices().size() < 2) {
            return Proposal.refused("a choice offers two values at least, for instance low, high");
        }
        if (Set.copyOf(requested.choices()).size() < requested.choices().size()) {
            return Proposal.refused("each value of a choice is offered once");
        }
        if (requested.type() == Attribute.Type.NUMBER
                && !requested.quantity().isEmpty()
                && !quantities(model).contains(requested.quantity())) {
            return Proposal.refused("'" + requested.quantity() + "' is no quantity; Mass or Length is");
        }
        if (requested.required() && !requested.byDefault().isBlank()) {
            return Proposal.refused("what holds by default need not be given; leave out one of the two");
        }
        String text = notation(name, requested);
        Authoring authoring = new Authoring(model);
        Optional<Element> own = own();
        Authoring.Proposal proposal = own.isPresent()
                ? authoring.members(own.get(), text)
                : authoring.packages("package " + PACKAGE + " { metadata def " + DEFINITION
                        + " :> Specifications::Managed { " + text + " } }");
        return switch (proposal) {
            case Authoring.Proposal.Accepted(Edit edit, String _) -> new Proposal(edit, "");
            case Authoring.Proposal.Rejected(var problems) ->
                Proposal.refused(problems.getFirst().message());
        };
    }

    /** The definition of the project that new attributes go to. */
    private Optional<Element> own() {
        return Metadata.withSpecialisations(model, Metadata.MANAGED).stream()
                .filter(id -> !model.isLibrary(id))
                .map(model::get)
                .findFirst();
    }

    private static String notation(String name, Request requested) {
        String quoted = Name.quoted(name);
        String choices = Name.quoted(name + " choice");
        String before = requested.type() != Attribute.Type.CHOICE
                ? ""
                : "enum def " + choices + " { "
                        + requested.choices().stream()
                                .map(each -> "enum " + Name.quoted(each) + ";")
                                .collect(Collectors.joining(" "))
                        + " } ";
        String type = switch (requested.type()) {
            case TEXT -> "ScalarValues::String";
            case TRUTH -> "ScalarValues::Boolean";
            case DATE -> "Specifications::Date";
            case PERSON -> "Specifications::Person";
            case CHOICE -> choices;
            case NUMBER ->
                requested.quantity().isEmpty()
                        ? "ScalarValues::Real"
                        : QUANTITIES + "::" + requested.quantity() + VALUE;
        };
        String given = requested.byDefault().strip();
        String byDefault = given.isEmpty()
                ? ""
                : " default "
                        + switch (requested.type()) {
                            case TEXT, DATE, PERSON ->
                                NotationWriter.expression(Model.EMPTY, new StringLiteral(given, Span.NONE), null);
                            case CHOICE -> choices + "::" + Name.quoted(given);
                            case TRUTH -> given.equals("yes") ? "true" : given.equals("no") ? "false" : given;
                            case NUMBER -> given;
                        };
        return before + "attribute " + quoted + (requested.required() || !given.isEmpty() ? "" : "[0..1]") + " : "
                + type + byDefault + ";";
    }
}
