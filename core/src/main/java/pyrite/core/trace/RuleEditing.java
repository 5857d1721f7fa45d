package pyrite.core.trace;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;

/**
 * Edits the link rules of a project and adds kinds of links. Rules are written where the project's other rules are,
 * else in a package of their own.
 */
public final class RuleEditing {
    private static final String PACKAGE = "LinkRules";
    private static final int PARTS = 6;

    private final Model model;

    public RuleEditing(Model model) {
        this.model = model;
    }

    /**
     * The link rules that a change adds, alters or removes in a project that has some; in one that has none, whoever
     * brings the model brings its rules.
     */
    public static List<Element> touched(Model before, Model after, Difference difference) {
        List<Element> touched = all(before, after, difference);
        return touched.isEmpty()
                        || Metadata.usages(before, Metadata.LINK_RULE).stream()
                                .allMatch(rule -> before.isLibrary(rule.id()))
                ? List.of()
                : touched;
    }

    /** The link rules that a change adds, alters or removes. */
    static List<Element> all(Model before, Model after, Difference difference) {
        return List.copyOf(difference.changes().stream()
                .flatMap(change ->
                        Stream.concat(rule(after, change.after()).stream(), rule(before, change.before()).stream()))
                .collect(Collectors.toMap(Element::id, rule -> rule, (a, _) -> a, LinkedHashMap::new))
                .values());
    }

    /** The rule that an element is, or belongs to. */
    private static Optional<Element> rule(Model model, @Nullable Element element) {
        return Stream.iterate(
                        Optional.ofNullable(element),
                        Optional::isPresent,
                        each -> each.map(Element::owner).flatMap(model::find))
                .flatMap(Optional::stream)
                .takeWhile(each -> !each.kind().isPackage())
                .filter(each -> each.kind() == ElementKind.METADATA && Metadata.isOf(model, each, Metadata.LINK_RULE))
                .findFirst();
    }

    /** The rule to write; ends and watched properties are separated by commas. */
    public record Request(String kind, String from, String to, int leastFrom, int leastTo, String watched) {}

    /** @param problem why it cannot be done; empty if it can */
    public record Proposal(Edit edit, String problem) {
        static Proposal refused(String problem) {
            return new Proposal(new Edit(List.of(), Set.of()), problem);
        }
    }

    /**
     * Writes a rule. A rule of the library is not changed but replaced by one of the project, and its fellows of the
     * same kind with it, because the rules a project writes for a kind are all that hold for it.
     *
     * @param replaced the metadata of the rule it replaces, null for a new one
     */
    public Proposal put(@Nullable Element replaced, Request requested) {
        if (LinkKind.named(model, requested.kind()).isEmpty()) {
            return Proposal.refused("there is no kind of link called " + requested.kind());
        }
        if (requested.from().isBlank() || requested.to().isBlank()) {
            return Proposal.refused(
                    "a rule says what a link may lead from and to, for instance from subsystem to system");
        }
        List<Element> put = new ArrayList<>();
        Element holder = holder(put);
        Element own = replaced == null || model.isLibrary(replaced.id()) ? null : replaced;
        Element rule = own != null
                ? own
                : new Element(
                                ElementId.fresh(),
                                ElementKind.METADATA,
                                holder.id(),
                                lastIn(holder, put),
                                freeName(holder, requested.kind()),
                                null,
                                java.util.Map.of())
                        .with(Property.TYPES, List.of(Reference.to(Metadata.LINK_RULE)));
        Set<ElementId> remove = new HashSet<>();
        if (own != null) {
            model.children(rule.id()).forEach(child -> remove.add(child.id()));
        } else {
            put.add(rule);
        }
        List<Rank> ranks = Rank.after(null, PARTS);
        put.add(Metadata.text(model, rule, "kind", requested.kind(), ranks.get(0)));
        put.add(Metadata.text(model, rule, "from", requested.from().strip(), ranks.get(1)));
        put.add(Metadata.text(model, rule, "to", requested.to().strip(), ranks.get(2)));
        if (requested.leastFrom() > 0) {
            put.add(Metadata.number(model, rule, "leastFrom", requested.leastFrom(), ranks.get(3)));
        }
        if (requested.leastTo() > 0) {
            put.add(Metadata.number(model, rule, "leastTo", requested.leastTo(), ranks.get(4)));
        }
        put.add(Metadata.text(model, rule, "watched", requested.watched().strip(), ranks.get(5)));
        return new Proposal(new Edit(put, remove), "");
    }

    /** Adds a kind of link. */
    public Proposal kind(String key, String forward, String backward) {
        if (!key.matches("[a-zA-Z][a-zA-Z0-9]*") || LinkKind.named(model, key).isPresent()) {
            return Proposal.refused(
                    "a kind of link has a key of letters and digits that no other has, for instance conflicts");
        }
        if (forward.isBlank()) {
            return Proposal.refused("say how the one end is to the other, for instance 'conflicts with'");
        }
        List<Element> put = new ArrayList<>();
        Element holder = holder(put);
        Element kind = new Element(
                        ElementId.fresh(),
                        ElementKind.METADATA_DEFINITION,
                        holder.id(),
                        lastIn(holder, put),
                        Character.toUpperCase(key.charAt(0)) + key.substring(1) + "Link",
                        key,
                        java.util.Map.of())
                .with(Property.SPECIALIZES, List.of(Reference.to(Metadata.LINK_KIND)));
        put.add(kind);
        put.add(words(kind, "forward", forward, Rank.after(null, 2).get(0)));
        put.add(words(
                kind,
                "backward",
                backward.isBlank() ? forward : backward,
                Rank.after(null, 2).get(1)));
        return new Proposal(new Edit(put, Set.of()), "");
    }

    private Element words(Element kind, String feature, String text, Rank rank) {
        ElementId redefined = model.names().member(Metadata.LINK_KIND, feature).orElseThrow();
        return Element.of(ElementKind.ATTRIBUTE, kind.id(), rank, null)
                .with(Property.REDEFINES, List.of(Reference.to(redefined)))
                .with(
                        Property.VALUE,
                        new pyrite.core.model.FeatureValue(
                                pyrite.core.model.FeatureValue.Kind.FIXED,
                                new pyrite.core.expression.Expression.StringLiteral(
                                        text.strip(), pyrite.core.expression.Span.NONE)));
    }

    /** Where the project's rules stand already, else a new package. */
    private Element holder(List<Element> put) {
        Optional<Element> there = Metadata.usages(model, Metadata.LINK_RULE).stream()
                .filter(rule -> !model.isLibrary(rule.id()) && rule.owner() != null)
                .map(rule -> model.get(rule.owner()))
                .findFirst()
                .or(() -> model.ownRoots().stream()
                        .filter(root ->
                                PACKAGE.equals(root.name()) && root.kind().isPackage())
                        .findFirst());
        if (there.isPresent()) {
            return there.get();
        }
        Element made = Element.of(ElementKind.PACKAGE, null, model.rankAtEnd(null), PACKAGE);
        put.add(made);
        return made;
    }

    private Rank lastIn(Element holder, List<Element> put) {
        return put.contains(holder) ? Rank.between(null, null) : model.rankAtEnd(holder.id());
    }

    private String freeName(Element holder, String kind) {
        Set<String> taken = model.has(holder.id()) ? new HashSet<>(model.names().membersOf(holder.id())) : Set.of();
        String name = kind + "Rule";
        int number = 2;
        while (taken.contains(name)) {
            name = kind + "Rule" + number++;
        }
        return name;
    }
}
