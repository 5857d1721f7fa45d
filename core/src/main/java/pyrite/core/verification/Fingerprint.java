package pyrite.core.verification;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.ElementKind.Family;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.StoredExpression;

/**
 * Everything a result was computed from: for each element read, a hash of its relevant content. Names, notes and
 * documentation are left out, because results do not depend on them; the list of members is included, except attributes
 * that hold a plain number, which count only where something refers to them.
 */
public record Fingerprint(SortedMap<ElementId, String> hashes) {
    /** Of the rules by which results are computed. Another one makes all results stale. */
    private static final String VERSION = "7 ";

    public static final Fingerprint NONE = new Fingerprint(new TreeMap<>());

    public Fingerprint {
        hashes = java.util.Collections.unmodifiableSortedMap(new TreeMap<>(hashes));
    }

    /**
     * @param read what was read; attributes that it refers to count as read too, such as units and what they are made
     *     of
     */
    public static Fingerprint of(Model model, Collection<ElementId> read) {
        TreeMap<ElementId, String> hashes = new TreeMap<>();
        Deque<ElementId> open = new ArrayDeque<>(read);
        while (!open.isEmpty()) {
            ElementId id = open.pop();
            if (!model.isLibrary(id) && hashes.putIfAbsent(id, hash(model, id)) == null) {
                model.find(id)
                        .ifPresent(element -> element.outgoing().stream()
                                .filter(target -> model.find(target)
                                        .filter(e -> e.kind() == ElementKind.ATTRIBUTE)
                                        .isPresent())
                                .forEach(open::push));
            }
        }
        return new Fingerprint(hashes);
    }

    /** Without the attributes of parts that nothing read refers to. */
    Fingerprint withoutSpare(Model model) {
        TreeMap<ElementId, String> rest = new TreeMap<>(hashes);
        rest.keySet().removeAll(SpareAttributes.among(model, hashes.keySet()));
        return new Fingerprint(rest);
    }

    public Fingerprint and(Fingerprint other) {
        TreeMap<ElementId, String> all = new TreeMap<>(hashes);
        all.putAll(other.hashes);
        return new Fingerprint(all);
    }

    /** What was read beside what another result read. */
    public Fingerprint without(Fingerprint other) {
        TreeMap<ElementId, String> rest = new TreeMap<>(hashes);
        rest.entrySet().removeAll(other.hashes.entrySet());
        return new Fingerprint(rest);
    }

    /** The elements that differ in another snapshot from what was read; none: the result still holds. */
    public List<ElementId> changedIn(Model model) {
        return hashes.entrySet().stream()
                .filter(entry -> !hash(model, entry.getKey()).equals(entry.getValue()))
                .map(Map.Entry::getKey)
                .toList();
    }

    /**
     * The elements whose hash some changes can alter; that of all others stays.
     *
     * @param after the snapshot after the changes
     */
    public static Set<ElementId> alterableBy(Collection<ElementChange> changes, Model after) {
        Set<ElementId> alterable = new HashSet<>();
        changes.forEach(change -> Stream.of(Optional.ofNullable(change.before()), Optional.ofNullable(change.after()))
                .flatMap(Optional::stream)
                .forEach(element -> {
                    alterable.add(element.id());
                    if (element.owner() != null) {
                        alterable.add(element.owner());
                        addOwnerOfAttribute(after, element.owner(), alterable);
                    }
                    if (element.kind() == ElementKind.ATTRIBUTE) {
                        addOwnersOfRedefinitions(after, element.id(), alterable);
                    }
                    if (element.kind() == ElementKind.SATISFACTION) {
                        element.get(Property.TARGET).ifPresent(requirement -> alterable.addAll(requirement.chain()));
                    }
                }));
        return alterable;
    }

    /** What an attribute owns tells whether it holds a plain number. */
    private static void addOwnerOfAttribute(Model model, ElementId id, Set<ElementId> owners) {
        model.find(id)
                .filter(owner -> owner.kind() == ElementKind.ATTRIBUTE)
                .map(Element::owner)
                .ifPresent(owners::add);
    }

    /** A redefinition without a type of its own has that of the attribute, by which its value fits or not. */
    private static void addOwnersOfRedefinitions(Model model, ElementId attribute, Set<ElementId> owners) {
        Deque<ElementId> open = new ArrayDeque<>(List.of(attribute));
        Set<ElementId> seen = new HashSet<>();
        while (!open.isEmpty()) {
            ElementId redefined = open.pop();
            model.referrers(redefined).stream()
                    .map(model::get)
                    .filter(user -> user.references(Property.REDEFINES).stream()
                            .anyMatch(reference -> reference.target().equals(redefined)))
                    .filter(user -> user.owner() != null && seen.add(user.id()))
                    .forEach(user -> {
                        owners.add(user.owner());
                        open.push(user.id());
                    });
        }
    }

    /** Whether nothing that was read is among some elements. */
    public boolean isApartFrom(Set<ElementId> elements) {
        for (ElementId read : hashes.keySet()) {
            if (elements.contains(read)) {
                return false;
            }
        }
        return true;
    }

    private static String hash(Model model, ElementId id) {
        return model.derived(Hashes.class, _ -> new Hashes())
                .byId
                .computeIfAbsent(
                        id,
                        _ -> model.find(id)
                                .map(element -> digest(content(model, element)))
                                .orElse("gone"));
    }

    /** What was hashed in a snapshot; all verdicts of a project rest on much the same. */
    private static final class Hashes {
        private final Map<ElementId, String> byId = new ConcurrentHashMap<>();
    }

    private static String content(Model model, Element element) {
        StringBuilder content = new StringBuilder(VERSION).append(element.kind().name());
        element.properties().forEach((property, value) -> {
            if (!isRemark(property)) {
                content.append('\n').append(property.key()).append('=').append(text(value));
            }
        });
        model.children(element.id()).stream()
                .filter(child -> counts(child.kind()))
                .forEach(child -> content.append(member(model, child)));
        if (element.kind() == ElementKind.REQUIREMENT) {
            model.referrers(element.id()).stream()
                    .filter(id -> satisfies(model.get(id), element))
                    .sorted()
                    .forEach(id -> content.append("\nsatisfied ").append(id));
        }
        return content.toString();
    }

    private static boolean satisfies(Element one, Element requirement) {
        return one.kind() == ElementKind.SATISFACTION
                && one.get(Property.TARGET)
                        .filter(target -> target.target().equals(requirement.id()))
                        .isPresent();
    }

    /** A plain number that replaces another counts by what it replaces, and by its value only where that was read. */
    private static String member(Model model, Element child) {
        if (!SpareAttributes.isPlain(model, child)) {
            return "\n" + child.id();
        }
        List<Reference> redefined = child.references(Property.REDEFINES);
        return redefined.isEmpty() ? "" : "\n" + child.id() + " plain " + text(redefined);
    }

    private static boolean isRemark(Property<?> property) {
        return property == Property.NOTES
                || property == Property.TRAILING_NOTE
                || property == Property.SPELLINGS
                || property == Property.VISIBILITY
                || property == Property.MARKS;
    }

    private static boolean counts(ElementKind kind) {
        return kind.isUsage()
                        && (kind.family() == Family.STRUCTURE
                                || kind.family() == Family.ANALYSIS
                                || kind.family() == Family.BEHAVIOR)
                        && !kind.isCase()
                || kind.family() == Family.BEHAVIOR && !kind.isDefinition()
                || kind == ElementKind.BINDING
                || kind == ElementKind.OBJECTIVE
                || kind == ElementKind.VERIFIED_REQUIREMENT
                || kind == ElementKind.REQUIRED_CONSTRAINT
                || kind == ElementKind.ASSUMED_CONSTRAINT
                || kind == ElementKind.SUBJECT;
    }

    private static String text(Object value) {
        return switch (value) {
            case FeatureValue v -> (v.kind().isInitial() ? ":=" : "=") + StoredExpression.write(v.expression());
            case Expression expression -> StoredExpression.write(expression);
            case List<?> list -> list.stream().map(Fingerprint::text).collect(Collectors.joining(","));
            default -> value.toString();
        };
    }

    private static String digest(String content) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(content.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, 16);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
