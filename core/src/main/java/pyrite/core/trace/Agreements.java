package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Metadata;

/**
 * The agreed state of both ends of each link, and the links that need recheck because an end differs from it. Follows a
 * branch revision by revision ({@link #advance}). One thread may advance it while others read.
 *
 * <p>A link is agreed when it is made, and again by each {@code Confirmed} in its carrier. Removing a confirmation
 * restores the agreement before it; restoring a removed link restores its agreement. States are compared, not
 * revisions, so changing a watched property back removes the need to recheck.
 */
public final class Agreements {
    /**
     * A watched property of an end that differs from the agreed state.
     *
     * @param seen what was seen when it began to differ; null if it has to be looked up in the history of the branch
     */
    public record Change(
            ElementId end, String property, @Nullable Seen seen) {}

    /**
     * @param before the agreed state, to be read
     * @param changedAt the revision that changed the property last
     */
    public record Seen(String before, int changedAt) {}

    /** A link that needs recheck; {@code since} is the revision of its last agreement. */
    public record Doubt(Link link, int since, List<Change> changes) {
        public boolean isAbout(ElementId end) {
            return changes.stream().anyMatch(change -> change.end().equals(end));
        }
    }

    /** @param confirmation the metadata that confirms the link; null for the making of the link */
    private record Agreed(
            @Nullable ElementId confirmation,
            int revision,
            Set<String> watched,
            Map<String, String> source,
            Map<String, String> target) {}

    private final Map<Link, List<Agreed>> agreed = new HashMap<>();
    private final Map<Link, List<Agreed>> removed = new HashMap<>();
    private final Map<Link, Doubt> doubts = new ConcurrentHashMap<>();
    private Model model;
    private int number;

    private Agreements(Model model, int number) {
        this.model = model;
        this.number = number;
    }

    /** Begins with a snapshot in which every link is agreed as it stands. */
    public static Agreements begin(Model model, int number) {
        Agreements agreements = new Agreements(model, number);
        Links links = Links.in(model);
        Ends ends = new Ends(model);
        model.ownElements(ElementKind.LINK_CARRIERS)
                .forEach(carrier -> links.carriedBy(carrier).forEach(link -> agreements.agree(link, null, ends)));
        return agreements;
    }

    /** The snapshot it has followed to. */
    public int number() {
        return number;
    }

    /** All links that need recheck, in no particular order. */
    public Collection<Doubt> doubts() {
        return List.copyOf(doubts.values());
    }

    /** The states of link ends in one snapshot, each computed once. */
    private static final class Ends {
        private final Model model;
        private final WatchedProperties watched;
        private final LinkRules rules;
        private final Map<ElementId, Map<Set<String>, Map<String, String>>> known = new HashMap<>();

        Ends(Model model) {
            this.model = model;
            this.watched = new WatchedProperties(model);
            this.rules = LinkRules.in(model);
        }

        Map<String, String> state(ElementId end, Set<String> properties) {
            return known.computeIfAbsent(end, _ -> new HashMap<>(2))
                    .computeIfAbsent(properties, _ -> watched.state(model.get(end), properties));
        }

        Set<String> watched(Link link) {
            return rules.watched(link);
        }
    }

    private void agree(Link link, @Nullable ElementId confirmation, Ends ends) {
        Set<String> properties = ends.watched(link);
        agreed.computeIfAbsent(link, _ -> new ArrayList<>(1))
                .add(new Agreed(
                        confirmation,
                        number,
                        properties,
                        ends.state(link.source(), properties),
                        ends.state(link.target(), properties)));
    }

    /** Goes on to the next revision. */
    public void advance(Difference difference, int next) {
        Model before = model;
        model = before.replay(difference);
        number = next;
        Ends ends = new Ends(model);
        Set<Link> touched = new LinkedHashSet<>();
        Links now = Links.in(model);
        carried(before, difference, true).stream()
                .filter(link -> !exists(now, link))
                .forEach(link -> {
                    doubts.remove(link);
                    List<Agreed> last = agreed.remove(link);
                    if (last != null) {
                        removed.put(link, last);
                    }
                });
        for (Link link : carried(model, difference, false)) {
            if (!agreed.containsKey(link)) {
                List<Agreed> back = removed.remove(link);
                if (back != null) {
                    agreed.put(link, back);
                } else {
                    agree(link, null, ends);
                }
            }
            touched.add(link);
        }
        confirmations(difference, ends, touched);
        touched.addAll(changesRules(difference) ? agreed.keySet() : atChangedEnds(before, difference));
        Ends beforeEnds = new Ends(before);
        touched.forEach(link -> compare(link, ends, beforeEnds));
    }

    private boolean changesRules(Difference difference) {
        return difference.changes().stream()
                .map(change -> change.after() != null ? change.after() : change.before())
                .map(one -> one.kind() == ElementKind.REFERENCE && one.owner() != null
                        ? model.find(one.owner()).orElse(one)
                        : one)
                .anyMatch(one -> one.kind() == ElementKind.METADATA && Metadata.isOf(model, one, Metadata.LINK_RULE));
    }

    private boolean exists(Links now, Link link) {
        return model.find(link.carrier())
                .filter(carrier -> now.carriedBy(carrier).contains(link))
                .isPresent();
    }

    private static Set<Link> carried(Model snapshot, Difference difference, boolean then) {
        Set<Link> links = new LinkedHashSet<>();
        Links all = Links.in(snapshot);
        difference.changes().stream()
                .map(change -> then ? change.before() : change.after())
                .filter(element -> element != null && Links.isCarrier(element))
                .forEach(element -> links.addAll(all.carriedBy(element)));
        return links;
    }

    private void confirmations(Difference difference, Ends ends, Set<Link> touched) {
        Links links = Links.in(model);
        for (ElementChange change : difference.changes()) {
            Element one = change.after() != null ? change.after() : change.before();
            if (one == null
                    || one.kind() != ElementKind.METADATA
                    || one.owner() == null
                    || !model.has(one.owner())
                    || !Metadata.isOf(model, one, Metadata.CONFIRMED)) {
                continue;
            }
            for (Link link : links.carriedBy(model.get(one.owner()))) {
                List<Agreed> all = agreed.computeIfAbsent(link, _ -> new ArrayList<>(1));
                if (change.after() == null && all.size() > 1) {
                    all.removeIf(each -> one.id().equals(each.confirmation()));
                } else if (change.before() == null
                        && all.stream().noneMatch(each -> one.id().equals(each.confirmation()))) {
                    agree(link, one.id(), ends);
                }
                touched.add(link);
            }
        }
    }

    /** The links at whatever changed and at what owns it: text, values and constraints are owned by the end. */
    private Set<Link> atChangedEnds(Model before, Difference difference) {
        Set<ElementId> changed = new HashSet<>();
        for (ElementChange change : difference.changes()) {
            around(before, change.before(), changed);
            around(model, change.after(), changed);
        }
        Links links = Links.in(model);
        Set<Link> found = new LinkedHashSet<>();
        changed.forEach(id -> found.addAll(links.of(id)));
        return found;
    }

    /** The element and its owners up to the first package. */
    private static void around(Model snapshot, @Nullable Element element, Set<ElementId> into) {
        for (Element at = element;
                at != null && !at.kind().isPackage();
                at = at.owner() == null ? null : snapshot.find(at.owner()).orElse(null)) {
            if (!into.add(at.id())) {
                return;
            }
        }
    }

    private void compare(Link link, Ends ends, Ends before) {
        List<Agreed> all = agreed.get(link);
        if (all == null) {
            return;
        }
        Agreed last = all.getLast();
        // What was not watched when the link was agreed cannot be compared.
        Set<String> properties = new HashSet<>(ends.watched(link));
        properties.retainAll(last.watched());
        List<Change> changes = new ArrayList<>();
        changes(link, link.source(), last.source(), properties, ends, before).forEach(changes::add);
        changes(link, link.target(), last.target(), properties, ends, before).forEach(changes::add);
        if (changes.isEmpty()) {
            doubts.remove(link);
        } else {
            doubts.put(link, new Doubt(link, last.revision(), List.copyOf(changes)));
        }
    }

    private Stream<Change> changes(
            Link link, ElementId end, Map<String, String> then, Set<String> properties, Ends ends, Ends before) {
        Map<String, String> now = ends.state(end, properties);
        Map<String, String> until = before.model.has(end) ? before.state(end, properties) : Map.of();
        return WatchedProperties.differing(then, now).stream()
                .filter(properties::contains)
                .map(property -> {
                    Seen known = known(link, end, property);
                    boolean isNew = !Objects.equals(until.get(property), now.get(property));
                    boolean wasAgreed = Objects.equals(until.get(property), then.get(property));
                    Seen seen = isNew && wasAgreed && before.model.has(end)
                            ? new Seen(before.watched.readable(before.model.get(end), property), number)
                            : known == null || !isNew ? known : new Seen(known.before(), number);
                    return new Change(end, property, seen);
                });
    }

    /** What was known of a difference from the same agreement. */
    private @Nullable Seen known(Link link, ElementId end, String property) {
        Doubt doubt = doubts.get(link);
        return doubt == null
                        || doubt.since()
                                != Objects.requireNonNull(agreed.get(link))
                                        .getLast()
                                        .revision()
                ? null
                : doubt.changes().stream()
                        .filter(change ->
                                change.end().equals(end) && change.property().equals(property))
                        .findFirst()
                        .map(Change::seen)
                        .orElse(null);
    }
}
