package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Redefinitions;
import pyrite.core.model.Reference;

/**
 * The edits people make by typing into a field: each turns text into an edit with a summary, or into located problems.
 */
public final class Authoring {
    private static final Pattern BARE_NUMBER = Pattern.compile("\\s*-?\\d+(\\.\\d+)?([eE][+-]?\\d+)?\\s*");

    private final Model model;

    public Authoring(Model model) {
        this.model = model;
    }

    /** The result of typed text. */
    public sealed interface Proposal {
        /** @param summary says in one line what changes, for the history */
        record Accepted(Edit edit, String summary) implements Proposal {}

        /** The problems, with places in the typed text. */
        record Rejected(List<TextProblem> problems) implements Proposal {}
    }

    /**
     * Gives a feature a value as {@code holder} has it. A feature that the holder inherits is redefined there, so that
     * other usages of the definition keep theirs.
     */
    public Proposal value(Element holder, Element feature, String text) {
        boolean own = holder.id().equals(feature.owner());
        NotationReader.ExpressionReading reading = NotationReader.readExpression(model, holder.id(), text);
        if (reading.expression() == null) {
            return new Proposal.Rejected(reading.problems());
        }
        FeatureValue.Kind kind =
                model.inheritance().value(feature).map(FeatureValue::kind).orElse(FeatureValue.Kind.FIXED);
        Element target = own ? feature : redefinition(holder, feature);
        FeatureValue.Kind given = isGivenBelow(target) ? kind.asDefault() : own ? kind : kind.asGiven();
        Element changed = target.with(Property.VALUE, new FeatureValue(given, reading.expression()));
        List<Element> bound = boundAbove(changed);
        return checked(
                new Edit(
                        Stream.concat(Stream.of(changed), bound.stream().map(Authoring::withDefault))
                                .toList(),
                        Set.of()),
                text,
                unitHint(holder, feature, text),
                nameOf(feature) + " of " + nameOf(holder) + ": " + valueText(holder, feature) + " → " + text.strip()
                        + (bound.isEmpty()
                                ? ""
                                : "; " + bound.stream().map(this::place).collect(Collectors.joining(" and "))
                                        + " it is a default now"));
    }

    /** Whether something that redefines a feature, or would if it were there, has a value of its own. */
    private boolean isGivenBelow(Element feature) {
        Stream<Element> redefining = model.find(feature.id()).isPresent()
                ? model.referrers(feature.id()).stream()
                        .map(model::get)
                        .filter(user -> user.references(Property.REDEFINES).stream()
                                .anyMatch(reference -> reference.target().equals(feature.id())))
                : Redefinitions.nearest(model, Edit.put(feature)).put().stream()
                        .filter(led -> !led.id().equals(feature.id()));
        return redefining.anyMatch(user -> user.get(Property.VALUE).isPresent() || isGivenBelow(user));
    }

    /** What a value takes the place of and what fixes its value, so that it may not. */
    private List<Element> boundAbove(Element changed) {
        return changed.references(Property.REDEFINES).stream()
                .map(reference -> model.get(reference.target()))
                .flatMap(redefined -> model.inheritance().redefined(redefined).stream())
                .distinct()
                .filter(redefined -> !model.isLibrary(redefined.id()))
                .filter(redefined -> redefined
                        .get(Property.VALUE)
                        .filter(value -> !value.kind().isDefault())
                        .isPresent())
                .toList();
    }

    private static Element withDefault(Element element) {
        FeatureValue value = element.get(Property.VALUE).orElseThrow();
        return element.with(Property.VALUE, new FeatureValue(value.kind().asDefault(), value.expression()));
    }

    private String place(Element element) {
        return element.owner() == null ? "at the top" : "in " + nameOf(model.get(element.owner()));
    }

    private Element redefinition(Element holder, Element feature) {
        return new Element(
                ElementId.fresh(),
                feature.kind(),
                holder.id(),
                model.rankAtEnd(holder.id()),
                null,
                null,
                Map.of(Property.REDEFINES, List.of(Reference.to(feature.id()))));
    }

    private String valueText(Element holder, Element feature) {
        return model.inheritance()
                .value(feature)
                .map(value -> NotationWriter.expression(model, value.expression(), holder.id()))
                .orElse("no value");
    }

    /** Gives a constraint another condition. */
    public Proposal condition(Element constraint, String text) {
        NotationReader.ExpressionReading reading = NotationReader.readExpression(model, constraint.id(), text);
        return reading.expression() == null
                ? new Proposal.Rejected(reading.problems())
                : checked(
                        Edit.put(constraint.with(Property.RESULT, reading.expression())),
                        text,
                        "",
                        nameOf(constraint) + " of " + ownerOf(constraint) + " changed to " + text.strip());
    }

    private String ownerOf(Element element) {
        Element owner = element.owner() == null ? null : model.get(element.owner());
        return owner == null ? "the model" : Objects.requireNonNullElseGet(owner.shortName(), () -> nameOf(owner));
    }

    /** People leave out units or take the wrong one; the value as it is now shows a right one. */
    private String unitHint(Element holder, Element feature, String text) {
        String symbol = new DisplayUnits(model).of(feature).symbol();
        if (symbol.isEmpty()) {
            return "";
        }
        if (BARE_NUMBER.matcher(text).matches()) {
            return "; write the unit with it, for instance " + text.strip() + " [" + symbol + "]";
        }
        return model.inheritance().value(feature).isEmpty()
                ? "; it is measured in " + symbol
                : "; now it is " + valueText(holder, feature);
    }

    /** Gives an element its documentation, or takes it away if the text is empty. */
    public Proposal documentation(Element element, String text) {
        String normal = BlockText.normal(text).stripLeading();
        if (!BlockText.isWritable(normal)) {
            return rejected(
                    text, text.indexOf("*/"), "documentation cannot contain '*/', which ends it in the notation");
        }
        if (element.kind() == ElementKind.COMMENT) {
            return normal.isEmpty()
                    ? removal(element)
                    : checked(Edit.put(element.with(Property.TEXT, normal)), text, "", "note changed");
        }
        Optional<Element> current = model.inheritance().documentationOf(element);
        String summary = "text of " + nameOf(element) + " changed";
        if (normal.isEmpty()) {
            return current.<Proposal>map(doc -> checked(Edit.remove(doc.id()), text, "", summary))
                    .orElseGet(() -> new Proposal.Accepted(new Edit(List.of(), Set.of()), summary));
        }
        Element doc = current.orElseGet(
                        () -> Element.of(ElementKind.DOCUMENTATION, element.id(), firstRank(element), null))
                .with(Property.TEXT, normal);
        return checked(Edit.put(doc), text, "", summary);
    }

    private Rank firstRank(Element owner) {
        List<Element> children = model.children(owner.id());
        return Rank.between(
                null, children.isEmpty() ? null : children.getFirst().rank());
    }

    /**
     * Moves an element with all it owns into another owner, or to another place in its own.
     *
     * @param owner null for the top of the model
     * @param before what it is to stand before; null to stand at the end
     */
    public Proposal move(Element element, @Nullable Element owner, @Nullable Element before) {
        ElementId to = owner == null ? null : owner.id();
        List<Element> others = (owner == null ? model.ownRoots() : model.children(owner.id()))
                .stream().filter(each -> !each.equals(element)).toList();
        int place = before == null ? -1 : others.indexOf(before);
        Rank after = place > 0 ? others.get(place - 1).rank() : null;
        Rank rank = before != null && place >= 0
                ? Rank.between(after, before.rank())
                : Rank.between(others.isEmpty() ? null : others.getLast().rank(), null);
        return checked(
                Edit.put(element.withOwner(to, rank)),
                "",
                "",
                nameOf(element)
                        + (Objects.equals(to, element.owner()) ? " put elsewhere" : " moved")
                        + (owner == null ? " to the top" : " in " + nameOf(owner)));
    }

    public Proposal name(Element element, String text) {
        String name = text.strip();
        if (name.isEmpty()) {
            return rejected(text, 0, "a name is not empty");
        }
        return checked(Edit.put(element.withName(name)), text, "", nameOf(element) + " renamed to " + name);
    }

    /** Adds packages at the top of the model by lines of notation. */
    public Proposal packages(String text) {
        return members(null, text, "type a package, for instance: package Harbour");
    }

    /** Adds members by lines of notation, as if they stood at the end of the owner's body. */
    public Proposal members(Element owner, String text) {
        return members(owner, text, "type one declaration, for instance: part pump : HydraulicPump");
    }

    /**
     * Adds a constraint to a requirement.
     *
     * @param condition an expression, read as if it stood in the requirement
     */
    public Proposal constraint(Element requirement, boolean isAssumed, String condition) {
        return ifReadable(
                requirement,
                condition,
                () -> members(
                        requirement, (isAssumed ? "assume" : "require") + " constraint { " + condition.strip() + " }"));
    }

    /**
     * Adds an attribute with a value.
     *
     * @param type the name of its definition; empty to leave it to the value
     */
    public Proposal attribute(Element owner, String name, String type, String value) {
        if (name.isBlank()) {
            return rejected(name, 0, "a name is not empty");
        }
        String typing = type.isBlank() ? "" : " : " + type.strip();
        return ifReadable(
                owner,
                value,
                () -> members(
                        owner, "attribute " + NotationWriter.quoted(name.strip()) + typing + " = " + value.strip()));
    }

    /** What is wrong with an expression is said of it alone, not of the line that is made with it. */
    private Proposal ifReadable(Element scope, String expression, Supplier<Proposal> proposal) {
        NotationReader.ExpressionReading reading = NotationReader.readExpression(model, scope.id(), expression);
        return reading.expression() == null ? new Proposal.Rejected(reading.problems()) : proposal.get();
    }

    private Proposal members(@Nullable Element owner, String text, String example) {
        ElementId ownerId = owner == null ? null : owner.id();
        ReadResult reading = NotationReader.readMembers(model, ownerId, new Source("", closed(text)));
        if (!reading.isGood()) {
            return new Proposal.Rejected(reading.problems());
        }
        List<String> added = reading.read().stream()
                .filter(e -> Objects.equals(ownerId, e.owner()))
                .map(e -> e.kind().title() + Objects.requireNonNullElse(prefixed(e.name()), ""))
                .toList();
        return added.isEmpty()
                ? rejected(text, 0, example)
                : new Proposal.Accepted(
                        reading.edit(),
                        String.join(", ", added) + " added" + (owner == null ? "" : " to " + nameOf(owner)));
    }

    /** A line that was typed, with the semicolon it may lack; what is missing of a body is told as it is. */
    public static String closed(String text) {
        String typed = text.strip();
        boolean isOpen = typed.chars().filter(c -> c == '{').count()
                > typed.chars().filter(c -> c == '}').count();
        return isOpen || typed.endsWith(";") || typed.endsWith("}") || typed.endsWith("*/") ? text : text + ";";
    }

    private static @Nullable String prefixed(@Nullable String name) {
        return name == null ? null : " " + name;
    }

    /** Removes an element with all it owns. */
    public Proposal removal(Element element) {
        int more = model.subtree(element.id()).size() - 1;
        return checked(
                Edit.remove(element.id()),
                "",
                "",
                nameOf(element) + " removed"
                        + (more == 0 ? "" : " with " + more + (more == 1 ? " element" : " elements") + " it owns"));
    }

    private Proposal checked(Edit asked, String text, String hint, String summary) {
        Edit edit = Redefinitions.nearest(model, asked);
        return switch (model.apply(edit)) {
            case EditResult.Applied _ -> new Proposal.Accepted(edit, summary);
            case EditResult.Refused(var problems) -> {
                Source typed = new Source("", text);
                List<TextProblem> located = new ArrayList<>();
                problems.forEach(problem -> located.add(typed.problem(problem.span(), problem.message() + hint)));
                yield new Proposal.Rejected(located);
            }
        };
    }

    private static Proposal rejected(String text, int at, String message) {
        return new Proposal.Rejected(List.of(
                new Source("", text).problem(new Span(Math.max(at, 0), Math.max(at, 0)), message)));
    }

    private String nameOf(Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }
}
