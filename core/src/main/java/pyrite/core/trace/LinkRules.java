package pyrite.core.trace;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Metadata;
import pyrite.core.specification.Specification;

/** The link rules of one snapshot: those the project states for a kind, else those of the library. */
public final class LinkRules {
    /** The word for the steps of use cases. */
    private static final String STEP = "step";

    private final Model model;
    private final Map<String, List<LinkRule>> byKind;
    private final Map<ElementId, String> levels = new ConcurrentHashMap<>();
    private final Map<Sort, Set<String>> words = new ConcurrentHashMap<>();

    /** Everything that determines the words by which rules know an element. */
    private record Sort(ElementKind kind, String level) {}

    /** The rules of a snapshot, known once they were asked for. */
    public static LinkRules in(Model model) {
        return model.derived(LinkRules.class, LinkRules::new);
    }

    private LinkRules(Model model) {
        this.model = model;
        this.byKind = rules(model);
    }

    private static Map<String, List<LinkRule>> rules(Model model) {
        Map<String, List<LinkRule>> all = Metadata.usages(model, Metadata.LINK_RULE).stream()
                .sorted(java.util.Comparator.comparing(Element::rank))
                .map(metadata -> LinkRule.of(model, metadata))
                .collect(Collectors.groupingBy(LinkRule::kind, LinkedHashMap::new, Collectors.toList()));
        all.replaceAll((_, rules) -> {
            List<LinkRule> own = rules.stream()
                    .filter(rule -> !model.isLibrary(rule.element().id()))
                    .toList();
            return own.isEmpty() ? rules : own;
        });
        return all;
    }

    /** All rules in force, by kind. */
    public List<LinkRule> all() {
        return byKind.values().stream().flatMap(List::stream).toList();
    }

    public List<LinkRule> of(LinkKind kind) {
        return byKind.getOrDefault(kind.key(), List.of());
    }

    /** The words by which rules may mean an element: its level, its kind, and what that is a kind of. */
    public Set<String> words(Element element) {
        String level = Specification.isRequirement(element) ? level(element) : isStep(element) ? STEP : "";
        return words.computeIfAbsent(new Sort(element.kind(), level), _ -> words(element, level));
    }

    /** Whether it is told in the story of a use case. */
    private boolean isStep(Element element) {
        if (!element.kind().isBehavior()) {
            return false;
        }
        ElementId owner = element.owner();
        while (owner != null) {
            Element around = model.get(owner);
            if (around.kind() == ElementKind.USE_CASE_DEFINITION || around.kind() == ElementKind.USE_CASE) {
                return true;
            }
            owner = around.owner();
        }
        return false;
    }

    private static Set<String> words(Element element, String level) {
        Set<String> words = new LinkedHashSet<>();
        if (level.equals(STEP) && !Specification.isRequirement(element)) {
            words.add(STEP);
        }
        if (Specification.isRequirement(element)) {
            if (!level.isEmpty()) {
                words.add(level);
            }
            words.add(isConcern(element) ? "need" : "requirement");
        } else if (switch (element.kind().family()) {
            case STRUCTURE, BEHAVIOR, ANALYSIS -> true;
            default -> false;
        }) {
            words.add(element.kind().keyword());
            words.add("design");
        } else {
            words.add(element.kind().keyword());
        }
        words.add("element");
        return java.util.Collections.unmodifiableSet(words);
    }

    private static boolean isConcern(Element element) {
        return element.kind().isNeed();
    }

    /** The level of the specification an element stands in; empty if it stands in none that has one. */
    public String level(Element element) {
        if (element.owner() == null) {
            return "";
        }
        String known = levels.get(element.owner());
        return known != null
                ? known
                : levels.computeIfAbsent(
                        element.owner(),
                        owner -> Specification.of(model, model.get(owner), true)
                                .map(Specification::level)
                                .orElse(""));
    }

    /** The rule that allows a link; the first of several. */
    public java.util.Optional<LinkRule> ruleFor(LinkKind kind, Element source, Element target) {
        Set<String> from = words(source);
        Set<String> to = words(target);
        return of(kind).stream().filter(rule -> rule.allows(from, to)).findFirst();
    }

    /** The properties whose change puts a link in doubt. */
    public Set<String> watched(Link link) {
        return ruleFor(link.kind(), model.get(link.source()), model.get(link.target()))
                .map(LinkRule::watched)
                .orElse(Set.of());
    }

    /** Whether links of this kind could lead from one element to the other. */
    public boolean allows(LinkKind kind, Element source, Element target) {
        return !source.equals(target) && ruleFor(kind, source, target).isPresent();
    }

    public boolean allows(Link link) {
        return allows(link.kind(), model.get(link.source()), model.get(link.target()));
    }

    /** The kinds of links that may lead from one element to another, in the order of the kinds. */
    public List<LinkKind> allowed(Element source, Element target) {
        return LinkKind.all(model).stream()
                .filter(kind -> allows(kind, source, target))
                .toList();
    }

    /** Why a link breaks the rules, in one sentence with what would be right; empty if it does not. */
    public String violation(Link link) {
        Element source = model.get(link.source());
        Element target = model.get(link.target());
        Labelled names = new Labelled(model);
        if (source.equals(target)) {
            return names.of(source) + " cannot be linked with itself";
        }
        if (allows(link.kind(), source, target)) {
            return "";
        }
        List<String> instead = new ArrayList<>();
        if (allows(link.kind(), target, source)) {
            instead.add("the other direction would be allowed: " + names.of(target) + " "
                    + link.kind().forward() + " " + names.of(source));
        }
        List<LinkKind> others = allowed(source, target).stream()
                .filter(kind -> !kind.equals(LinkKind.TRACE))
                .toList();
        if (!others.isEmpty()) {
            instead.add("between these two "
                    + others.stream().map(LinkKind::forward).collect(Collectors.joining("' or '", "'", "'"))
                    + " would be allowed");
        }
        return "the link rule for '" + link.kind().forward() + "' "
                + (of(link.kind()).isEmpty()
                        ? "allows no such link"
                        : "leads "
                                + of(link.kind()).stream()
                                        .map(LinkRule::inWords)
                                        .collect(Collectors.joining(", or ")))
                + ", not from " + described(names, source) + " to "
                + described(names, target) + (instead.isEmpty() ? "" : "; " + String.join("; ", instead));
    }

    private String described(Labelled names, Element element) {
        return names.of(element) + " (" + words(element).iterator().next() + ")";
    }

    /** The label of an element in messages: the id of a requirement, else the name. */
    record Labelled(Model model) {
        String of(Element element) {
            String id = Specification.isRequirement(element) ? pyrite.core.model.RequirementIds.of(model, element) : "";
            return id.isEmpty()
                    ? java.util.Objects.requireNonNullElse(
                            model.names().effectiveName(element), element.kind().title())
                    : id;
        }
    }
}
