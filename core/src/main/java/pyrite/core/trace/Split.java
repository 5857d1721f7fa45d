package pyrite.core.trace;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Structuring;

/**
 * Splits a requirement that states several things. The first part stays the requirement it was; the others follow it
 * with ids of their own, each with the links chosen for it.
 */
public final class Split {
    private static final Pattern SENTENCE = Pattern.compile("(?<=[.;])\\s+(?=\\p{Lu})");
    private static final Pattern AND_SHALL =
            Pattern.compile(",?\\s+and\\s+(?=(?:\\S+\\s+){0,6}?shall\\b)", Pattern.CASE_INSENSITIVE);
    private static final Pattern AND = Pattern.compile(",?\\s+and\\s+", Pattern.CASE_INSENSITIVE);
    private static final Pattern BEGINNING = Pattern.compile("^(.*?\\bshall(?: not)?)\\s+", Pattern.CASE_INSENSITIVE);

    private Split() {}

    /**
     * What a text may be split into: its sentences, its parts with a 'shall' of their own, or what one 'shall' joins by
     * 'and'.
     */
    public static List<String> propose(String text) {
        List<String> parts = new ArrayList<>();
        for (String sentence : SENTENCE.split(text.strip())) {
            for (String part : AND_SHALL.split(sentence)) {
                parts.add(sentence(part));
            }
        }
        if (parts.size() > 1) {
            return parts;
        }
        var beginning = BEGINNING.matcher(text.strip());
        String[] joined = beginning.find() ? AND.split(text.strip().substring(beginning.end()), 2) : new String[0];
        return joined.length == 2
                ? List.of(
                        sentence(beginning.group(1) + " " + joined[0]), sentence(beginning.group(1) + " " + joined[1]))
                : parts;
    }

    private static String sentence(String part) {
        String stripped = part.strip().replaceAll("[;,]$", "");
        String begun =
                stripped.isEmpty() ? stripped : Character.toUpperCase(stripped.charAt(0)) + stripped.substring(1);
        return begun.endsWith(".") ? begun : begun + ".";
    }

    /** A part with the links it keeps. */
    public record Part(String text, Set<Link> links) {}

    /** @param refused why the links cannot be made; empty if they can */
    public record Proposal(Edit edit, List<ElementId> made, String refused) {}

    /**
     * @param parts two or more, the first of which the requirement becomes
     * @param ids for the others
     */
    public static Proposal of(Model model, Element requirement, List<Part> parts, List<String> ids) {
        List<Element> put = new ArrayList<>();
        List<Element> others = new ArrayList<>();
        Structuring structuring = new Structuring(model);
        Structuring.Place place = structuring.after(requirement);
        Rank last = requirement.rank();
        for (int i = 1; i < parts.size(); i++) {
            last = Rank.between(
                    last, place.before() == null ? null : place.before().rank());
            Element made = new Element(
                    ElementId.fresh(),
                    requirement.kind(),
                    requirement.owner(),
                    last,
                    name(model, requirement, i),
                    ids.get(i - 1),
                    java.util.Map.of());
            others.add(made);
            put.add(made);
            List<Element> attributes = Attributes.copied(model, requirement, made.id());
            Rank first = attributes.isEmpty() ? null : attributes.getFirst().rank();
            put.add(Element.of(ElementKind.DOCUMENTATION, made.id(), Rank.between(null, first), null)
                    .with(Property.TEXT, parts.get(i).text()));
            put.addAll(attributes);
        }
        Element doc = model.inheritance()
                .documentationOf(requirement)
                .orElseGet(() -> Element.of(
                        ElementKind.DOCUMENTATION,
                        requirement.id(),
                        Rank.between(
                                null,
                                model.children(requirement.id()).stream()
                                        .findFirst()
                                        .map(Element::rank)
                                        .orElse(null)),
                        null));
        put.add(doc.with(Property.TEXT, parts.getFirst().text()));
        Linking linking = new Linking(model);
        Set<Link> removed = new LinkedHashSet<>(Links.in(model).of(requirement));
        removed.removeAll(parts.getFirst().links());
        Edit unlinked = linking.remove(List.copyOf(removed));
        put.addAll(unlinked.put());
        // Links of the new parts are looked at in a model that has them.
        Linking there = new Linking(model.with(put));
        List<Linking.Request> requests = new ArrayList<>();
        for (int i = 1; i < parts.size(); i++) {
            Element made = others.get(i - 1);
            parts.get(i)
                    .links()
                    .forEach(link -> requests.add(
                            link.source().equals(requirement.id())
                                    ? new Linking.Request(link.kind(), made, model.get(link.target()))
                                    : new Linking.Request(link.kind(), model.get(link.source()), made)));
        }
        Linking.Proposal linked = there.make(requests);
        put.addAll(linked.edit().put());
        return new Proposal(
                new Edit(put, new HashSet<>(unlinked.remove())),
                others.stream().map(Element::id).toList(),
                linked.refused().stream().findFirst().orElse(""));
    }

    /** Parts of a requirement that has a name go by it and a number. */
    private static @Nullable String name(Model model, Element requirement, int part) {
        if (requirement.name() == null) {
            return null;
        }
        Set<String> taken = model.children(Objects.requireNonNull(requirement.owner())).stream()
                .map(model.names()::effectiveName)
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
        int number = 1;
        for (int left = part; ; number++) {
            if (!taken.contains(requirement.name() + "_" + (number + 1)) && --left == 0) {
                return requirement.name() + "_" + (number + 1);
            }
        }
    }
}
