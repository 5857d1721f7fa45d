package pyrite.core.behavior;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Which behaviours of a project send the items of a definition, and which accept them. What is only sent is lost, and
 * who waits for what is never sent waits without end (SysML 2.0, 7.17.8 and 7.18.3).
 */
public final class ItemUse {
    private static final int NAMED = 3;

    private final Model model;
    private final Element item;

    private ItemUse(Model model, Element item) {
        this.model = model;
        this.item = item;
    }

    /** What is amiss with the items of a definition, as a sentence; nothing if what is sent is accepted, too. */
    public static Optional<String> neverAccepted(Model model, Element item) {
        return new ItemUse(model, item).neverAccepted();
    }

    /** The same for items that are accepted and never sent. */
    public static Optional<String> neverSent(Model model, Element item) {
        return new ItemUse(model, item).neverSent();
    }

    /** The item definitions whose use an element may be part of, by what it refers to. */
    public static Set<ElementId> concerned(Model model, Element element) {
        Set<ElementId> found = new LinkedHashSet<>();
        Set<ElementId> near = new LinkedHashSet<>(element.outgoing());
        near.add(element.id());
        if (isAccepting(element)) {
            model.children(element.id()).forEach(payload -> near.addAll(payload.outgoing()));
        }
        for (ElementId id : near) {
            model.find(id)
                    .ifPresent(met -> model.inheritance().generals(met).stream()
                            .filter(general ->
                                    general.kind() == ElementKind.ITEM_DEFINITION && !model.isLibrary(general.id()))
                            .forEach(general -> {
                                found.add(general.id());
                                specials(model, general).forEach(special -> found.add(special.id()));
                            }));
        }
        return found;
    }

    private Optional<String> neverAccepted() {
        List<Element> senders = senders(item);
        if (senders.isEmpty()) {
            return Optional.empty();
        }
        boolean isTaken = isCarried(item)
                || model.inheritance().generals(item).stream()
                        .anyMatch(general ->
                                isCarried(general) || !accepting(general).isEmpty())
                || isAnythingAccepted();
        return isTaken
                ? Optional.empty()
                : Optional.of("'" + item.name() + "' is sent by " + names(senders)
                        + ", and nothing in the project accepts it");
    }

    private Optional<String> neverSent() {
        List<Element> accepting = accepting(item);
        if (accepting.isEmpty()) {
            return Optional.empty();
        }
        Set<Element> kinds = specials(model, item);
        boolean isComing = kinds.stream()
                .anyMatch(kind -> isCarried(kind) || !senders(kind).isEmpty());
        return isComing
                ? Optional.empty()
                : Optional.of("'" + item.name() + "' is accepted by " + names(accepting)
                        + ", and nothing in the project sends it");
    }

    /** An accept action without a type takes whatever comes. */
    private boolean isAnythingAccepted() {
        return model.ownElements(ElementKind.PAYLOAD)
                .anyMatch(payload -> isOfAnything(payload) && isAccepting(owner(payload)));
    }

    /** Whether a payload has no type, so that items of every definition are of it. */
    public static boolean isOfAnything(Element payload) {
        return payload.kind() == ElementKind.PAYLOAD
                && payload.references(Property.TYPES).isEmpty()
                && payload.references(Property.REDEFINES).isEmpty();
    }

    /** The accept actions and transitions that name it. */
    private List<Element> accepting(Element definition) {
        return users(definition)
                .filter(user -> user.kind() == ElementKind.PAYLOAD)
                .map(this::owner)
                .filter(ItemUse::isAccepting)
                .toList();
    }

    private static boolean isAccepting(@Nullable Element element) {
        return element != null && (element.kind() == ElementKind.ACCEPT || element.kind() == ElementKind.TRANSITION);
    }

    private List<Element> senders(Element definition) {
        Set<Element> senders = new LinkedHashSet<>();
        for (Element carrier : carriers(definition)) {
            users(carrier).filter(user -> user.kind() == ElementKind.SEND).forEach(senders::add);
        }
        return List.copyOf(senders);
    }

    /** Flows and messages bring items to where they are needed, and features that go in or out are what they carry. */
    private boolean isCarried(Element definition) {
        return users(definition)
                .anyMatch(user -> user.kind() == ElementKind.PAYLOAD
                                && owner(user) instanceof Element around
                                && around.kind().isFlow()
                        || user.kind() != ElementKind.PAYLOAD
                                && user.get(Property.DIRECTION).isPresent());
    }

    /** A definition, and the features that hold its items. */
    private Set<Element> carriers(Element definition) {
        Set<Element> carriers = new LinkedHashSet<>(List.of(definition));
        Deque<Element> open = new ArrayDeque<>(carriers);
        while (!open.isEmpty()) {
            Element at = open.poll();
            users(at)
                    .filter(user ->
                            user.kind().isUsage() && model.generals(user).contains(at.id()) && carriers.add(user))
                    .forEach(open::add);
        }
        return carriers;
    }

    private static Set<Element> specials(Model model, Element definition) {
        Set<Element> specials = new LinkedHashSet<>(List.of(definition));
        Deque<Element> open = new ArrayDeque<>(specials);
        while (!open.isEmpty()) {
            Element at = open.poll();
            model.referrers(at.id()).stream()
                    .map(model::get)
                    .filter(user -> user.kind() == ElementKind.ITEM_DEFINITION
                            && user.references(Property.SPECIALIZES).stream()
                                    .map(Reference::target)
                                    .anyMatch(at.id()::equals)
                            && specials.add(user))
                    .forEach(open::add);
        }
        return specials;
    }

    private Stream<Element> users(Element of) {
        return model.referrers(of.id()).stream()
                .filter(id -> !model.isLibrary(id))
                .sorted()
                .map(model::get);
    }

    private @Nullable Element owner(Element element) {
        return element.owner() == null ? null : model.find(element.owner()).orElse(null);
    }

    private String names(List<Element> behaviors) {
        String names =
                behaviors.stream().limit(NAMED).map(this::name).distinct().collect(Collectors.joining(" and "));
        return behaviors.size() > NAMED ? names + " and others" : names;
    }

    private String name(Element element) {
        String name = model.names().effectiveName(element);
        return name != null ? "'" + name + "'" : "a " + element.kind().title();
    }
}
