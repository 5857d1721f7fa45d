package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.model.RequirementIds;

/**
 * The Thread of an element: what it comes from above it, and what realises and verifies it below it. Follows satisfy,
 * verify, typing, ownership and use in expressions.
 */
public record TraceThread(Element element, List<Entry> above, List<Entry> below) {

    /** A neighbour and its relation as seen from the element: "satisfied by", "part of". */
    public record Entry(String relation, Element element) {}

    public static TraceThread of(Model model, Element element) {
        return new Builder(model, element).build();
    }

    /** Who has a need: what its stakeholders are. */
    public static List<Element> wantedBy(Model model, Element need) {
        return model.inheritance().features(need).stream()
                .filter(feature -> feature.kind() == ElementKind.STAKEHOLDER)
                .flatMap(stakeholder -> stakeholder.references(Property.TYPES).stream())
                .map(Reference::target)
                .filter(id -> !model.isLibrary(id))
                .map(model::get)
                .toList();
    }

    private static final class Builder {
        private final Model model;
        private final Element element;
        private final Set<Entry> above = new LinkedHashSet<>();
        private final Set<Entry> below = new LinkedHashSet<>();

        Builder(Model model, Element element) {
            this.model = model;
            this.element = element;
        }

        TraceThread build() {
            switch (element.kind()) {
                case REQUIREMENT, REQUIREMENT_DEFINITION -> requirement();
                case CONCERN, CONCERN_DEFINITION -> need();
                case VERIFICATION, ANALYSIS, VERIFICATION_DEFINITION, ANALYSIS_DEFINITION -> runnable();
                default -> other();
            }
            types();
            owner();
            if (element.kind() == ElementKind.PART || element.kind() == ElementKind.PART_DEFINITION) {
                served(element, new LinkedHashSet<>());
            }
            return new TraceThread(element, List.copyOf(above), List.copyOf(below));
        }

        private void need() {
            linked();
            wantedBy(model, element).forEach(type -> above.add(new Entry("wanted by", type)));
        }

        private void requirement() {
            linked();
            referring(ElementKind.SATISFACTION, Property.TARGET)
                    .filter(satisfaction -> satisfaction.get(Property.NEGATED).orElse(false))
                    .forEach(satisfaction ->
                            satisfier(satisfaction).ifPresent(part -> below.add(new Entry("not satisfied by", part))));
            usagesOf(element).forEach(usage -> below.add(new Entry("used as", usage)));
        }

        /** The links of every kind, what they lead to in the order of the ids. */
        private void linked() {
            Links.in(model).of(element).stream()
                    .filter(link -> !link.source().equals(link.target()))
                    .sorted(Comparator.comparing(
                            link -> RequirementIds.of(model, model.get(link.other(element.id()))),
                            RequirementIds.ORDER))
                    .forEach(link -> (link.below().equals(element.id()) ? above : below)
                            .add(new Entry(link.words(element.id()), model.get(link.other(element.id())))));
        }

        private void runnable() {
            model.inheritance().features(element).stream()
                    .filter(f -> f.kind() == ElementKind.OBJECTIVE)
                    .flatMap(objective -> model.children(objective.id()).stream())
                    .flatMap(child -> child.get(Property.TARGET).stream())
                    .forEach(target -> above.add(new Entry("verifies", model.get(target.target()))));
            model.inheritance().features(element).stream()
                    .filter(f -> f.kind() == ElementKind.SUBJECT)
                    .flatMap(subject -> model.inheritance().value(subject).stream())
                    .flatMap(value -> value.expression() instanceof FeatureReference r
                            ? Stream.of((ElementId) r.last())
                            : Stream.empty())
                    .forEach(system -> below.add(new Entry("runs", model.get(system))));
        }

        private void other() {
            linked();
            usagesOf(element).forEach(usage -> below.add(new Entry("used as", usage)));
            users().forEach(user -> {
                if (user.kind() == ElementKind.SUBJECT) {
                    caseAround(user).ifPresent(check -> below.add(new Entry("run by", check)));
                } else if (user.kind().family() == ElementKind.Family.REQUIREMENT) {
                    requirementAround(user).ifPresent(r -> above.add(new Entry("limited by", r)));
                } else if (user.kind() == ElementKind.ASSERTED_CONSTRAINT || user.kind() == ElementKind.ATTRIBUTE) {
                    below.add(new Entry("used in", user));
                }
            });
            model.children(element.id()).stream()
                    .filter(child -> child.kind() == ElementKind.PART)
                    .forEach(part -> below.add(new Entry("has part", part)));
        }

        /** The requirements that are satisfied by something this element is a part of, however far up. */
        private void served(Element part, Set<Element> seen) {
            if (!seen.add(part) || part.kind() != ElementKind.PART && part.kind() != ElementKind.PART_DEFINITION) {
                return;
            }
            model.referrers(part.id()).stream()
                    .map(model::get)
                    .filter(e -> e.kind() == ElementKind.SATISFACTION
                            && !e.get(Property.NEGATED).orElse(false))
                    .filter(e -> !part.equals(element)
                            && e.get(Property.BY)
                                    .filter(by -> by.target().equals(part.id()))
                                    .isPresent())
                    .flatMap(e -> e.get(Property.TARGET).stream())
                    .map(target -> model.get(target.target()))
                    .sorted(Comparator.comparing(r -> RequirementIds.of(model, r), RequirementIds.ORDER))
                    .filter(r ->
                            above.stream().noneMatch(entry -> entry.element().equals(r)))
                    .forEach(r -> above.add(new Entry("serves", r)));
            usagesOf(part).forEach(usage -> served(usage, seen));
            if (part.owner() != null) {
                served(model.get(part.owner()), seen);
            }
        }

        private void types() {
            element.references(Property.TYPES).stream()
                    .map(Reference::target)
                    .filter(id -> !model.isLibrary(id))
                    .map(model::get)
                    .forEach(type -> above.add(new Entry("defined by", type)));
        }

        private void owner() {
            if (element.owner() != null) {
                Element owner = model.get(element.owner());
                above.add(new Entry(owner.kind().isPackage() ? "in package" : "part of", owner));
            }
        }

        private Stream<Element> referring(ElementKind kind, Property<Reference> property) {
            return model.referrers(element.id()).stream()
                    .map(model::get)
                    .filter(e -> e.kind() == kind)
                    .filter(e -> e.get(property)
                            .filter(r -> r.chain().contains(element.id()))
                            .isPresent());
        }

        private Stream<Element> users() {
            return model.referrers(element.id()).stream()
                    .map(model::get)
                    .filter(user -> user.get(Property.RESULT).isPresent()
                            || user.get(Property.VALUE).isPresent());
        }

        private List<Element> usagesOf(Element definition) {
            return definition.kind().isDefinition()
                    ? new ArrayList<>(model.referrers(definition.id()).stream()
                            .map(model::get)
                            .filter(e -> e.references(Property.TYPES).stream()
                                    .anyMatch(t -> t.target().equals(definition.id())))
                            .filter(e -> e.kind() == ElementKind.PART || e.kind() == ElementKind.REQUIREMENT)
                            .toList())
                    : List.of();
        }

        private Optional<Element> satisfier(Element satisfaction) {
            return satisfaction
                    .get(Property.BY)
                    .map(Reference::target)
                    .or(() -> Optional.ofNullable(satisfaction.owner()))
                    .flatMap(model::find);
        }

        private Optional<Element> caseAround(Element inside) {
            return model.owners(inside).stream().filter(e -> e.kind().isCase()).findFirst();
        }

        private Optional<Element> requirementAround(Element inside) {
            return model.owners(inside).stream()
                    .filter(e -> e.kind() == ElementKind.REQUIREMENT || e.kind() == ElementKind.REQUIREMENT_DEFINITION)
                    .findFirst();
        }
    }
}
