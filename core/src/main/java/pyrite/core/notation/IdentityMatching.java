package pyrite.core.notation;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Matches the elements of an edited text with those it was written from, so that they keep their ids: by owner, kind
 * and name or short name; unnamed ones by content, then by position. The rest under an owner was renamed in place,
 * recognised by content and position, or moved elsewhere, recognised by name. Elements of different kinds never match.
 */
final class IdentityMatching {
    /** How much of what two elements hold must agree for one to be the other under a new name. */
    private static final double ALIKE = 0.5;
    /** So many pairs are compared with each other, in about a second. */
    private static final int MOST_PAIRS = 1_000_000;

    private final Model model;
    private final Map<Draft, Element> old = new IdentityHashMap<>();
    private final Map<ElementId, Element> left = new LinkedHashMap<>();

    private IdentityMatching(Model model) {
        this.model = model;
    }

    /** Matches the drafts of a text with the elements that it stands for: those at its top with all they own. */
    static IdentityMatching of(Model model, List<Element> top, List<Draft> drafts) {
        IdentityMatching identity = new IdentityMatching(model);
        top.forEach(root -> model.subtree(root.id()).forEach(element -> identity.left.put(element.id(), element)));
        identity.matchSiblings(drafts, top);
        identity.matchMoved(drafts);
        return identity;
    }

    /** The element a draft is; empty if it is new. */
    Optional<Element> of(Draft draft) {
        return Optional.ofNullable(old.get(draft));
    }

    /** The elements that are no longer in the text. */
    Set<ElementId> removed() {
        return left.keySet();
    }

    private void pair(Draft draft, Element element) {
        old.put(draft, element);
        left.remove(element.id());
    }

    private boolean isOpen(Draft draft) {
        return !old.containsKey(draft);
    }

    private void matchSiblings(List<Draft> drafts, List<Element> elements) {
        byKey(drafts, elements, IdentityMatching::shortKey, this::shortKey);
        byKey(drafts, elements, IdentityMatching::nameKey, this::nameKey);
        byKey(drafts, elements, this::contentKey, this::contentKey);
        renamed(drafts, elements);
        for (Draft draft : drafts) {
            Element element = old.get(draft);
            if (element != null && !draft.children.isEmpty()) {
                matchSiblings(draft.children, open(model.children(element.id())));
            }
        }
    }

    private List<Element> open(List<Element> elements) {
        return elements.stream()
                .filter(element -> left.containsKey(element.id()))
                .toList();
    }

    private interface Key<T> {
        @Nullable
        String of(T one);
    }

    /** Pairs what has the same key, the first with the first. */
    private void byKey(List<Draft> drafts, List<Element> elements, Key<Draft> ofDraft, Key<Element> ofElement) {
        Map<String, Deque<Element>> byKey = new HashMap<>();
        for (Element element : elements) {
            String key = left.containsKey(element.id()) ? ofElement.of(element) : null;
            if (key != null) {
                byKey.computeIfAbsent(key, _ -> new ArrayDeque<>(1)).add(element);
            }
        }
        for (Draft draft : drafts) {
            String key = isOpen(draft) ? ofDraft.of(draft) : null;
            Deque<Element> same = key == null ? null : byKey.get(key);
            if (same != null && !same.isEmpty()) {
                pair(draft, same.removeFirst());
            }
        }
    }

    private static @Nullable String shortKey(Draft draft) {
        return draft.shortName == null ? null : draft.kind + " " + draft.shortName;
    }

    private @Nullable String shortKey(Element element) {
        return element.shortName() == null ? null : element.kind() + " " + element.shortName();
    }

    private static @Nullable String nameKey(Draft draft) {
        String name = draft.calledBy();
        return name == null ? null : draft.kind + " " + name;
    }

    private @Nullable String nameKey(Element element) {
        String name = model.names().effectiveName(element);
        return name == null ? null : element.kind() + " " + name;
    }

    /** What something without a name holds. */
    private @Nullable String contentKey(Draft draft) {
        return draft.calledBy() != null ? null : draft.kind + " " + new java.util.TreeSet<>(holds(draft));
    }

    private @Nullable String contentKey(Element element) {
        return model.names().effectiveName(element) != null
                ? null
                : element.kind() + " " + new java.util.TreeSet<>(holds(element));
    }

    /**
     * What is still open under one owner: pairs of a kind that hold alike, the most alike first; then, between the same
     * neighbours, as many as there were before, in their order. Of very many at once only the order counts.
     */
    private void renamed(List<Draft> drafts, List<Element> elements) {
        List<Draft> openDrafts = drafts.stream().filter(this::isOpen).toList();
        List<Element> openElements = open(elements);
        if (openDrafts.isEmpty() || openElements.isEmpty()) {
            return;
        }
        if ((long) openDrafts.size() * openElements.size() <= MOST_PAIRS) {
            alike(openDrafts, openElements);
        }
        inPlace(drafts, elements);
    }

    private void alike(List<Draft> openDrafts, List<Element> openElements) {
        record Pair(Draft draft, Element element, double likeness) {}
        List<Pair> pairs = new ArrayList<>();
        Map<Element, Set<String>> held = new HashMap<>();
        openElements.forEach(element -> held.put(element, holds(element)));
        for (Draft draft : openDrafts) {
            Set<String> holds = holds(draft);
            openElements.stream()
                    .filter(element -> element.kind() == draft.kind && !holds.isEmpty())
                    .forEach(element -> pairs.add(
                            new Pair(draft, element, likeness(holds, Objects.requireNonNull(held.get(element))))));
        }
        pairs.sort(Comparator.comparingDouble(Pair::likeness).reversed());
        for (Pair pair : pairs) {
            if (pair.likeness() >= ALIKE
                    && isOpen(pair.draft())
                    && left.containsKey(pair.element().id())) {
                pair(pair.draft(), pair.element());
            }
        }
    }

    private static double likeness(Set<String> a, Set<String> b) {
        long both = a.stream().filter(b::contains).count();
        return a.isEmpty() && b.isEmpty() ? 1 : (double) both / (a.size() + b.size() - both);
    }

    /** In each gap between neighbours that are known: what is open of one kind, if there are as many as before. */
    private void inPlace(List<Draft> drafts, List<Element> elements) {
        Map<ElementId, Integer> positions = new HashMap<>();
        for (int i = 0; i < elements.size(); i++) {
            positions.put(elements.get(i).id(), i);
        }
        int from = 0;
        int gapStart = -1;
        for (int i = 0; i <= drafts.size(); i++) {
            Element known = i < drafts.size() ? old.get(drafts.get(i)) : null;
            Integer at = known == null ? null : positions.get(known.id());
            if (i == drafts.size() || at != null) {
                int gapEnd = at == null ? elements.size() : at;
                gap(
                        drafts.subList(from, i),
                        gapStart + 1 <= gapEnd ? elements.subList(gapStart + 1, gapEnd) : List.of());
                from = i + 1;
                gapStart = at == null ? gapStart : at;
            }
        }
    }

    private void gap(List<Draft> drafts, List<Element> elements) {
        for (ElementKind kind :
                drafts.stream().map(draft -> draft.kind).distinct().toList()) {
            List<Draft> mine = drafts.stream()
                    .filter(draft -> draft.kind == kind && isOpen(draft))
                    .toList();
            List<Element> before = open(elements).stream()
                    .filter(element -> element.kind() == kind)
                    .toList();
            if (mine.size() == before.size()) {
                for (int i = 0; i < mine.size(); i++) {
                    pair(mine.get(i), before.get(i));
                }
            }
        }
    }

    /** What is open anywhere, larger things first: by short name or name, which must be clear on both sides. */
    private void matchMoved(List<Draft> drafts) {
        List<Draft> all = new ArrayList<>();
        drafts.forEach(draft -> collectOpen(draft, all));
        moved(all, IdentityMatching::shortKey, this::shortKey);
        moved(all, IdentityMatching::nameKey, this::nameKey);
    }

    private void collectOpen(Draft draft, List<Draft> into) {
        if (isOpen(draft)) {
            into.add(draft);
        }
        draft.children.forEach(child -> collectOpen(child, into));
    }

    private void moved(List<Draft> drafts, Key<Draft> ofDraft, Key<Element> ofElement) {
        Map<String, List<Draft>> draftsOf = groups(drafts, ofDraft);
        Map<String, List<Element>> elementsOf = groups(left.values(), ofElement);
        draftsOf.forEach((key, same) -> {
            List<Draft> draft = same.stream().filter(this::isOpen).limit(2).toList();
            List<Element> element = elementsOf.getOrDefault(key, List.of()).stream()
                    .filter(each -> left.containsKey(each.id()))
                    .limit(2)
                    .toList();
            if (draft.size() == 1 && element.size() == 1) {
                pair(draft.getFirst(), element.getFirst());
                matchSiblings(
                        draft.getFirst().children,
                        open(model.children(element.getFirst().id())));
            }
        });
    }

    private static <T> Map<String, List<T>> groups(Collection<T> all, Key<T> key) {
        Map<String, List<T>> groups = new LinkedHashMap<>();
        for (T one : all) {
            String of = key.of(one);
            if (of != null) {
                groups.computeIfAbsent(of, _ -> new ArrayList<>(1)).add(one);
            }
        }
        return groups;
    }

    /** What an element holds, as words: types, values, texts, and the names of what it owns. */
    private Set<String> holds(Element element) {
        Set<String> holds = new HashSet<>();
        element.properties().forEach((property, value) -> {
            if (!isRemark(property)) {
                holds.add(property.key() + " " + word(value));
            }
        });
        model.children(element.id())
                .forEach(child -> holds.add("owns "
                        + Objects.requireNonNullElse(
                                nameKey(child), child.kind().name())));
        return holds;
    }

    private String word(Object value) {
        return switch (value) {
            case Reference reference -> nameOf(reference.target());
            case List<?> list -> list.stream().map(this::word).toList().toString();
            case FeatureValue featureValue -> word(featureValue.expression());
            case Expression expression -> ExpressionText.of(expression, ExpressionText.byName(this::spelled));
            default -> value.toString();
        };
    }

    /** Units by their symbol, as people write them, everything else by its name. */
    private String spelled(Referent referent) {
        Element element = referent instanceof ElementId id ? model.find(id).orElse(null) : null;
        boolean unit = element != null && model.environment().unit(referent).isPresent();
        String name = element == null
                ? referent.toString()
                : unit && element.shortName() != null
                        ? element.shortName()
                        : Objects.requireNonNullElse(model.names().effectiveName(element), "?");
        return Name.quoted(name);
    }

    private String nameOf(ElementId id) {
        return model.find(id).map(model.names()::effectiveName).orElse("?");
    }

    private static Set<String> holds(Draft draft) {
        Set<String> holds = new HashSet<>();
        draft.properties().forEach((property, value) -> {
            if (!isRemark(property)) {
                holds.add(property.key() + " " + value);
            }
        });
        Map<Property<?>, List<String>> references = new LinkedHashMap<>();
        draft.references.forEach(pending -> references
                .computeIfAbsent(pending.property(), _ -> new ArrayList<>())
                .add(pending.lastName()));
        references.forEach((property, names) -> holds.add(property.key() + " "
                + (property.shape() == Property.Shape.REFERENCE ? names.getFirst() : names.toString())));
        draft.formulas.forEach(formula -> holds.add(formula.property().key() + " "
                + ExpressionText.of(
                        formula.expression(),
                        ExpressionText.byName(
                                name -> name instanceof Name n ? Name.quoted(n.last()) : name.toString()))));
        draft.children.forEach(
                child -> holds.add("owns " + Objects.requireNonNullElse(nameKey(child), child.kind.name())));
        return holds;
    }

    /** Whether a property says nothing that tells elements apart. */
    private static boolean isRemark(Property<?> property) {
        return property == Property.NOTES || property == Property.TRAILING_NOTE || property == Property.SPELLINGS;
    }
}
