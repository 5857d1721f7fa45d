package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.behavior.StepGraph;
import pyrite.core.consolidation.Feature.Parameter;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Redirection;
import pyrite.core.model.Reference;

/**
 * Makes one definition of several: what refers to one of them refers to the one that stays, parameters that fit each
 * other become one, and the names that go are kept as aliases where they stood.
 */
final class Unifying {
    private final Model model;
    private final Element lead;
    private final List<Element> others;
    private final Map<ElementId, ElementId> to = new HashMap<>();
    private final Map<ElementId, Element> put = new LinkedHashMap<>();
    private final Set<ElementId> removed = new LinkedHashSet<>();

    private Unifying(Model model, Element lead, List<Element> others) {
        this.model = model;
        this.lead = lead;
        this.others = others;
    }

    /** @param parameters what the one definition has, each made of those that are given for it, the kept one first */
    static Edit of(Model model, Element lead, List<Element> others, String name, List<United> parameters) {
        return new Unifying(model, lead, others).unify(name, parameters);
    }

    private Edit unify(String name, List<United> parameters) {
        for (Element other : others) {
            if (model.inheritance().generals(other).contains(lead)
                    || model.inheritance().generals(lead).contains(other)) {
                throw new IllegalArgumentException("'" + other.name() + "' and '" + lead.name()
                        + "' are a general and a special one; they stay two");
            }
            to.put(other.id(), lead.id());
        }
        unite(parameters);
        others.forEach(this::moveInside);
        documents();
        rename(name);
        redirect();
        return new Edit(List.copyOf(put.values()), removed);
    }

    private void unite(List<United> parameters) {
        Rank last = model.rankAtEnd(lead.id());
        Set<String> names = new HashSet<>();
        Set<Element> all = parameters.stream()
                .flatMap(united -> united.sources().stream())
                .map(Parameter::element)
                .collect(Collectors.toSet());
        model.inheritance().features(lead).stream()
                .filter(feature -> !all.contains(feature) && !model.isLibrary(feature.id()))
                .forEach(feature -> names.add(String.valueOf(model.names().effectiveName(feature))));
        for (United united : parameters) {
            Parameter kept = united.sources().stream()
                    .filter(source -> lead.id().equals(source.element().owner()))
                    .findFirst()
                    .orElse(united.sources().getFirst());
            united.sources().stream()
                    .map(Parameter::element)
                    .filter(source -> !source.equals(kept.element()) && isOwn(source))
                    .forEach(source -> {
                        to.put(source.id(), kept.element().id());
                        removed.add(source.id());
                    });
            Element element = kept.element();
            if (isOwn(element)) {
                if (!lead.id().equals(element.owner())) {
                    element = element.withOwner(lead.id(), last);
                    last = Rank.between(last, null);
                }
                put(optional(element.withName(Names.free(names, united.name())), united.isOptional()));
            }
            names.add(String.valueOf(put.getOrDefault(element.id(), element).name()));
        }
    }

    /** Inherited parameters stay where they are. */
    private boolean isOwn(Element parameter) {
        return lead.id().equals(parameter.owner())
                || others.stream().anyMatch(other -> other.id().equals(parameter.owner()));
    }

    private static Element optional(Element parameter, boolean isOptional) {
        boolean wasOptional = parameter
                .get(Property.MULTIPLICITY)
                .filter(multiplicity -> multiplicity.lower() == 0)
                .isPresent();
        if (isOptional == wasOptional) {
            return parameter;
        }
        int upper =
                parameter.get(Property.MULTIPLICITY).map(Multiplicity::upper).orElse(1);
        return parameter.with(
                Property.MULTIPLICITY,
                isOptional ? new Multiplicity(0, upper) : upper == 1 ? null : new Multiplicity(1, upper));
    }

    /** What else a definition is made of moves into the one that stays. */
    private void moveInside(Element other) {
        List<Element> inside = inside(other);
        if (inside.stream().anyMatch(Unifying::isBody) && inside(lead).stream().anyMatch(Unifying::isBody)) {
            throw new IllegalArgumentException("both '" + lead.name() + "' and '" + other.name()
                    + "' say what they are made of; take that out of one of them first");
        }
        Rank last = lastIn(lead);
        for (Element child : inside) {
            if (!isThere(other, child)) {
                last = Rank.between(last, null);
                put(child.withOwner(lead.id(), last));
            }
        }
    }

    private static boolean isBody(Element child) {
        return StepGraph.isStep(child.kind()) || child.kind().isFlow() || child.kind() == ElementKind.BINDING;
    }

    /** A member that the one that stays has by the same name is one with it, if both say the same. */
    private boolean isThere(Element other, Element child) {
        Element known = child.name() == null
                ? null
                : inside(lead).stream()
                        .filter(each -> child.name().equals(each.name()))
                        .findFirst()
                        .orElse(null);
        if (known == null) {
            return false;
        }
        if (known.kind() != child.kind() || !known.properties().equals(child.properties())) {
            throw new IllegalArgumentException("'" + lead.name() + "' and '" + other.name()
                    + "' have different members named '" + child.name() + "'; rename or remove one first");
        }
        to.put(child.id(), known.id());
        removed.add(child.id());
        return true;
    }

    private List<Element> inside(Element definition) {
        return model.children(definition.id()).stream()
                .filter(child -> child.kind() != ElementKind.DOCUMENTATION
                        && !put.containsKey(child.id())
                        && !removed.contains(child.id()))
                .toList();
    }

    private Rank lastIn(Element owner) {
        return put.values().stream()
                .filter(element -> owner.id().equals(element.owner()))
                .map(Element::rank)
                .reduce(model.rankAtEnd(owner.id()), (one, other) -> one.compareTo(other) > 0 ? one : other);
    }

    /** What another one says of itself and this does not is kept as a further paragraph. */
    private void documents() {
        List<String> texts = new ArrayList<>();
        String own = model.inheritance().documentation(lead);
        if (!own.isBlank()) {
            texts.add(own.strip());
        }
        others.stream()
                .map(other -> model.inheritance().documentation(other).strip())
                .filter(text -> !text.isEmpty() && !texts.contains(text))
                .forEach(texts::add);
        if (texts.isEmpty() || texts.equals(List.of(own.strip()))) {
            return;
        }
        Element documentation = model.children(lead.id()).stream()
                .filter(child -> child.kind() == ElementKind.DOCUMENTATION)
                .findFirst()
                .orElseGet(
                        () -> Element.of(ElementKind.DOCUMENTATION, lead.id(), Rank.between(lastIn(lead), null), null));
        put(documentation.with(Property.TEXT, String.join("\n\n", texts)));
    }

    /** A name that is remembered already and is taken up again needs its alias no more. */
    private void rename(String name) {
        model.children(Objects.requireNonNull(lead.owner(), "what is found stands in a package")).stream()
                .filter(child -> name.equals(child.name()) && isNameOf(model, child, lead, others))
                .forEach(alias -> removed.add(alias.id()));
        put(lead.withName(name));
        others.forEach(other -> {
            removed.add(other.id());
            remember(other, name);
        });
        remember(lead, name);
    }

    /** Whether it is an alias for one of those that become one. */
    static boolean isNameOf(Model model, Element alias, Element lead, List<Element> others) {
        return alias.kind() == ElementKind.ALIAS
                && alias.get(Property.TARGET)
                        .flatMap(target -> model.find(target.target()))
                        .filter(meant -> meant.equals(lead) || others.contains(meant))
                        .isPresent();
    }

    /** An alias where the name stood; none where the one that stays has this name and place. */
    private void remember(Element old, String name) {
        String was = old.name();
        boolean isThere = Objects.equals(old.owner(), lead.owner()) && name.equals(was);
        if (was == null || old.owner() == null || isThere) {
            return;
        }
        put(Element.of(ElementKind.ALIAS, old.owner(), Rank.between(lastIn(model.get(old.owner())), null), was)
                .with(Property.TARGET, Reference.to(lead.id())));
    }

    private void redirect() {
        Redirection redirection = new Redirection(to);
        Set<ElementId> referring = new LinkedHashSet<>();
        to.keySet().forEach(old -> referring.addAll(model.referrers(old)));
        put.keySet().forEach(referring::add);
        for (ElementId id : referring) {
            Element element = put.containsKey(id) ? put.get(id) : model.find(id).orElse(null);
            if (element != null && !isRemoved(element)) {
                put(redirection.of(element));
            }
        }
    }

    private boolean isRemoved(Element element) {
        return removed.contains(element.id())
                || model.has(element.id())
                        && !put.containsKey(element.id())
                        && model.owners(element).stream().anyMatch(owner -> removed.contains(owner.id()));
    }

    private void put(Element element) {
        put.put(element.id(), element);
    }

    /** The same name however it is written. */
    static String key(String name) {
        return name.toLowerCase(Locale.ROOT);
    }
}
