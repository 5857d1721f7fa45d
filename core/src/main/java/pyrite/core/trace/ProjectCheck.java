package pyrite.core.trace;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Metadata;
import pyrite.core.specification.Specification;
import pyrite.core.specification.StatusCourse;

/**
 * The rules an edit must keep beside well-formedness, however it is made: link rules, unique ids, permitted status
 * changes. Checks only what changed.
 */
public final class ProjectCheck {
    private final Model before;
    private final Model after;
    private final Difference difference;
    private final List<Problem> problems = new ArrayList<>();

    private ProjectCheck(Model before, Model after, Difference difference) {
        this.before = before;
        this.after = after;
        this.difference = difference;
    }

    public static List<Problem> check(Model before, Model after, Difference difference) {
        ProjectCheck check = new ProjectCheck(before, after, difference);
        check.links();
        check.rules();
        check.ids();
        check.attributes();
        return List.copyOf(check.problems);
    }

    private void links() {
        Set<Element> carriers = new LinkedHashSet<>();
        List<Element> moved = new ArrayList<>();
        for (ElementChange change : difference.changes()) {
            if (change.after() == null) {
                continue;
            }
            if (Links.isCarrier(change.after())) {
                carriers.add(change.after());
            }
            if (change.before() != null
                    && !Objects.equals(change.before().owner(), change.after().owner())) {
                moved.add(change.after());
            }
        }
        if (carriers.isEmpty() && moved.isEmpty()) {
            return;
        }
        Links links = Links.in(after);
        LinkRules rules = LinkRules.in(after);
        Set<Link> looked = new LinkedHashSet<>();
        carriers.forEach(carrier -> looked.addAll(links.carriedBy(carrier)));
        moved.stream()
                .flatMap(top -> after.subtree(top.id()).stream())
                .filter(Specification::isRequirement)
                .forEach(each -> looked.addAll(links.of(each)));
        for (Link link : looked) {
            String violation = rules.violation(link);
            String wrong = violation.isEmpty() ? LinkCycles.violation(after, links, link) : violation;
            if (!wrong.isEmpty()) {
                problems.add(Problem.of(after.get(link.carrier()), wrong));
            }
        }
    }

    private void rules() {
        RuleCheck rule = new RuleCheck(after);
        RuleEditing.all(before, after, difference).stream()
                .filter(each -> after.has(each.id()))
                .forEach(each -> problems.addAll(rule.of(after.get(each.id()))));
    }

    /** An id stands for one requirement in the whole project, so that it means the same in every table and letter. */
    private void ids() {
        List<Element> named = new ArrayList<>();
        for (ElementChange change : difference.changes()) {
            Element element = change.after();
            String idBefore = change.before() == null ? null : change.before().shortName();
            if (element != null
                    && Specification.isRequirement(element)
                    && element.shortName() != null
                    && !element.shortName().equals(idBefore)) {
                named.add(element);
            }
        }
        if (named.isEmpty()) {
            return;
        }
        Set<String> requested = named.stream().map(Element::shortName).collect(Collectors.toSet());
        java.util.Map<String, List<Element>> holders = after.ownElements(ElementKind.REQUIREMENTS)
                .filter(each -> each.shortName() != null && requested.contains(each.shortName()))
                .collect(Collectors.groupingBy(Element::shortName));
        for (Element each : named) {
            List<Element> all = holders.getOrDefault(each.shortName(), List.of());
            if (all.size() > 1) {
                Element other = all.stream()
                        .filter(one -> !one.id().equals(each.id()))
                        .findFirst()
                        .orElseThrow();
                problems.add(Problem.of(
                        each,
                        "the id " + each.shortName() + " is taken by "
                                + after.names().qualifiedName(other)
                                + "; an id stands for one requirement in the whole project"));
            }
        }
    }

    private void attributes() {
        Set<ElementId> changed = new LinkedHashSet<>();
        difference.changes().forEach(change -> {
            changed.addAll(carrier(after, change.after()));
            changed.addAll(carrier(before, change.before()));
        });
        if (changed.isEmpty()) {
            return;
        }
        Attributes then = Attributes.in(before);
        Attributes now = Attributes.in(after);
        StatusCourse course = StatusCourse.of(after);
        changed.stream().filter(after::has).map(after::get).forEach(requirement -> {
            String status = now.value(requirement, Attributes.STATUS);
            if (before.has(requirement.id())) {
                status(requirement, then.value(before.get(requirement.id()), Attributes.STATUS), status, course);
            }
            required(requirement, status, now);
        });
    }

    private void status(Element requirement, String from, String to, StatusCourse course) {
        if (!from.isEmpty() && !course.allows(from, to)) {
            problems.add(Problem.of(
                    requirement,
                    "the status goes from " + from + " to " + String.join(" or ", course.after(from)) + ", not to "
                            + to));
        }
    }

    private void required(Element requirement, String status, Attributes now) {
        if (status.equals(now.named(requirement, Attributes.STATUS)
                .map(Attribute::byDefault)
                .orElse(""))) {
            return;
        }
        now.of(requirement).stream()
                .filter(attribute -> attribute.required()
                        && now.value(requirement, attribute).isEmpty())
                .forEach(attribute -> problems.add(Problem.of(
                        requirement,
                        "a requirement that is " + status + " must have a value for " + attribute.name())));
    }

    /** The requirement whose attributes an element is, or is the value of one. */
    private static List<ElementId> carrier(Model model, @org.jspecify.annotations.Nullable Element element) {
        if (element == null || element.owner() == null || !model.has(element.owner())) {
            return List.of();
        }
        Element metadata = element.kind() == ElementKind.METADATA ? element : model.get(element.owner());
        return metadata.kind() == ElementKind.METADATA
                        && metadata.owner() != null
                        && Metadata.isOf(model, metadata, Metadata.MANAGED)
                ? List.of(metadata.owner())
                : List.of();
    }
}
