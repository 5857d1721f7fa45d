package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;
import pyrite.core.notation.SimilarNames;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Metadata;
import pyrite.core.specification.Specification;

/**
 * What is wrong with a link rule: a rule with a level, a kind or a property that there is not would be obeyed by
 * nothing and watch nothing, without a word.
 */
final class RuleCheck {
    private static final Set<String> ANY = Set.of("need", "requirement", "design", "step", "element");
    private static final Set<String> WATCHED = Set.of("name", "text", "constraint", "type", "value", "parameters");

    private final Model model;

    RuleCheck(Model model) {
        this.model = model;
    }

    /** @param metadata states the rule */
    List<Problem> of(Element metadata) {
        LinkRule rule = LinkRule.of(model, metadata);
        List<String> faults = new ArrayList<>();
        Set<String> kinds =
                LinkKind.all(model).stream().map(LinkKind::key).collect(Collectors.toCollection(TreeSet::new));
        if (!kinds.contains(rule.kind())) {
            faults.add("there is no kind of link '" + rule.kind() + "'" + among(rule.kind(), kinds));
        }
        Set<String> ends = ends();
        Stream.concat(rule.from().stream(), rule.to().stream())
                .distinct()
                .filter(end -> !ends.contains(end))
                .forEach(end -> faults.add(
                        "'" + end + "' is no level of a specification here and no kind of element" + among(end, ends)));
        Set<String> properties = properties();
        rule.watched().stream()
                .sorted()
                .filter(property -> !properties.contains(property))
                .forEach(property -> faults.add("there is no property or attribute '" + property + "' to be watched"
                        + among(property, properties)));
        return faults.stream().map(fault -> Problem.of(metadata, fault)).toList();
    }

    private static String among(String requested, Collection<String> known) {
        String similar = SimilarNames.to(requested, known);
        return similar.isEmpty() ? "; there are " + String.join(", ", known) : similar;
    }

    /** Levels, those of the library's rules among them, and kinds of elements. */
    private Set<String> ends() {
        Set<String> ends = new TreeSet<>(ANY);
        Specification.all(model).stream()
                .map(Specification::level)
                .filter(level -> !level.isEmpty())
                .forEach(ends::add);
        Metadata.usages(model, Metadata.LINK_RULE).stream()
                .filter(rule -> model.isLibrary(rule.id()))
                .map(rule -> LinkRule.of(model, rule))
                .forEach(rule -> {
                    ends.addAll(rule.from());
                    ends.addAll(rule.to());
                });
        for (ElementKind kind : ElementKind.values()) {
            ends.add(kind.keyword());
        }
        ends.remove("");
        return ends;
    }

    private Set<String> properties() {
        Set<String> properties = new TreeSet<>(WATCHED);
        Attributes.in(model).all().stream().map(Attribute::name).forEach(properties::add);
        return properties;
    }
}
