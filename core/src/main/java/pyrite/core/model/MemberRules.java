package pyrite.core.model;

import static pyrite.core.model.ElementKind.*;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementKind.Body;

/**
 * The rules of the standard about the members of an element taken together, by the names that the standard gives them
 * (SysML 2.0, 8.3).
 */
final class MemberRules {
    /**
     * At most one member of a sort.
     *
     * @param name the constraint in the standard
     * @param says the member, behind {@code "it has a second "}
     */
    record OnlyOne(String name, Predicate<Element> sort, String says) {}

    static final List<OnlyOne> ONLY_ONE = List.of(
            new OnlyOne("validateRequirementDefinitionOnlyOneSubject", member -> member.kind() == SUBJECT, "subject"),
            new OnlyOne(
                    "validateStateDefinitionStateSubactionKind",
                    member -> "entry".equals(member.properties().get(Property.ROLE)),
                    "entry action"),
            new OnlyOne(
                    "validateStateDefinitionStateSubactionKind",
                    member -> "exit".equals(member.properties().get(Property.ROLE)),
                    "exit action"),
            new OnlyOne("validateCaseDefinitionOnlyOneObjective", member -> member.kind() == OBJECTIVE, "objective"),
            new OnlyOne(
                    "validateFunctionResultParameterMembership",
                    member -> "return".equals(member.properties().get(Property.DIRECTION)),
                    "return parameter"));

    /** How many successions may lead to a control node or from it: 1 where it says so, else any number. */
    record Node(String name, boolean oneIn, boolean oneOut) {}

    static final Map<ElementKind, Node> NODES = Map.of(
            FORK, new Node("validateForkNodeIncomingSuccessions", true, false),
            DECIDE, new Node("validateDecisionNodeIncomingSuccessions", true, false),
            JOIN, new Node("validateJoinNodeOutgoingSuccessions", false, true),
            MERGE, new Node("validateMergeNodeOutgoingSuccessions", false, true));

    /** What a port or an attribute has of its own is referential, or one itself. */
    private static final Set<ElementKind> COMPOSITE = Set.of(OCCURRENCE, ITEM, PART, ACTION, STATE, CONNECTION);

    private static final Set<ElementKind> JOINING = Set.of(CONNECTION_DEFINITION, INTERFACE_DEFINITION);

    private final Model model;
    private final ProblemNames names;

    MemberRules(Model model) {
        this.model = model;
        this.names = new ProblemNames(model);
    }

    /** What is wrong with the members of an element; each problem is one of the member at fault. */
    List<Problem> of(Element owner) {
        List<Problem> problems = new ArrayList<>(0);
        endsSuffice(owner, problems);
        individualsFit(owner, problems);
        List<Element> members = model.children(owner.id());
        for (OnlyOne rule : ONLY_ONE) {
            boolean met = false;
            for (Element member : members) {
                boolean fits = rule.sort.test(member);
                if (met && fits) {
                    problems.add(Problem.of(member, "there is one " + rule.says + ", not several"));
                }
                met |= fits;
            }
        }
        for (Element member : members) {
            Node node = NODES.get(member.kind());
            if (node != null) {
                successionsFit(node, member, members, problems);
            }
            variantFits(owner, member, problems);
            roleFits(owner, member, problems);
            compositionFits(owner, member, problems);
            parallelFits(owner, member, problems);
        }
        return problems;
    }

    private static void successionsFit(Node rule, Element node, List<Element> siblings, List<Problem> problems) {
        int incoming = follows(node) ? 1 : 0;
        int outgoing = 0;
        for (int i = 0; i < siblings.size(); i++) {
            Element each = siblings.get(i);
            if (each.kind() == SUCCESSION) {
                boolean implicit = each.get(Property.SOURCE).isEmpty();
                outgoing += leads(each, Property.SOURCE, node) || implicit && stepBefore(siblings, i) == node ? 1 : 0;
                incoming += leads(each, Property.TARGET, node) ? 1 : 0;
            } else if (follows(each) && stepBefore(siblings, i) == node) {
                outgoing++;
            }
        }
        if (rule.oneIn && incoming > 1) {
            problems.add(Problem.of(
                    node,
                    "one succession leads to a " + node.kind().title() + ", not " + incoming + "; merge them before"));
        }
        if (rule.oneOut && outgoing > 1) {
            problems.add(Problem.of(
                    node,
                    "one succession leads from a " + node.kind().title() + ", not " + outgoing
                            + "; a fork or decide node behind it parts the ways"));
        }
    }

    private static boolean follows(Element step) {
        return step.get(Property.THEN).orElse(false);
    }

    private static boolean leads(Element succession, Property<Reference> end, Element node) {
        return succession
                .get(end)
                .filter(reference -> reference.target().equals(node.id()))
                .isPresent();
    }

    /** The step that a {@code then} comes behind; null if none is written before it, as behind {@code first start}. */
    private static @Nullable Element stepBefore(List<Element> siblings, int place) {
        for (int i = place - 1; i >= 0; i--) {
            Element each = siblings.get(i);
            if (each.kind() != SUCCESSION
                    && each.kind().isUsage()
                    && each.kind() != ATTRIBUTE
                    && each.kind() != REFERENCE) {
                return each;
            }
        }
        return null;
    }

    /** Variants stand in variations, and nothing else that is owned does (validateVariantMembershipOwningNamespace). */
    private void variantFits(Element owner, Element member, List<Problem> problems) {
        boolean variation = owner.get(Property.VARIATION).orElse(false);
        boolean variant = member.get(Property.VARIANT).orElse(false);
        if (variant && !variation) {
            problems.add(Problem.of(
                    member, "a variant stands in a variation; write 'variation' before the keyword of what owns it"));
        }
        if (variation && !variant && member.kind().isUsage() && member.kind() != METADATA) {
            problems.add(Problem.of(
                    member,
                    "a variation owns nothing but its variants; write 'variant' before it, or put it into what "
                            + names.of(owner) + " is typed by"));
        }
    }

    /** A connection that is not abstract joins two things or more (validateAssociationRelatedTypes). */
    private void endsSuffice(Element owner, List<Problem> problems) {
        if (!JOINING.contains(owner.kind()) || owner.get(Property.ABSTRACT).orElse(false)) {
            return;
        }
        long ends = model.inheritance().features(owner).stream()
                .filter(feature -> feature.get(Property.END).orElse(false))
                .count();
        if (ends < 2) {
            problems.add(Problem.of(
                    owner,
                    owner.kind().titleWithArticle() + " joins at least two things, but this has "
                            + (ends == 0 ? "no end" : "one end") + "; write 'end " + endKeyword(owner)
                            + " one; end " + endKeyword(owner) + " other;' in it, or 'abstract' before it"));
        }
    }

    private static String endKeyword(Element connection) {
        return connection.kind() == INTERFACE_DEFINITION ? "port" : "part";
    }

    /** validateOccurrenceUsageIndividualDefinition. */
    private void individualsFit(Element usage, List<Problem> problems) {
        List<Element> individuals = usage.references(Property.TYPES).stream()
                .map(Reference::target)
                .map(model::get)
                .filter(type -> type.get(Property.INDIVIDUAL).orElse(false))
                .toList();
        if (individuals.size() > 1) {
            problems.add(Problem.of(
                    usage,
                    "a thing is one individual, but " + names.of(individuals.get(0)) + " and "
                            + names.of(individuals.get(1)) + " are two"));
        }
    }

    /**
     * Only states have entry, do and exit actions; the ends of an interface are ports (validateInterfaceDefinitionEnd).
     */
    private static void roleFits(Element owner, Element member, List<Problem> problems) {
        if (member.get(Property.ROLE).isPresent() && owner.kind().body() != Body.STATE && owner.kind() != TRANSITION) {
            problems.add(Problem.of(
                    member,
                    "'" + member.get(Property.ROLE).orElse("") + "' stands in a state, but "
                            + owner.kind().titleWithArticle() + " is none"));
        }
        boolean isInterface = owner.kind() == INTERFACE || owner.kind() == INTERFACE_DEFINITION;
        boolean fits = member.kind() == PORT || member.kind() == REFERENCE;
        if (isInterface && member.get(Property.END).orElse(false) && !fits) {
            problems.add(Problem.of(
                    member,
                    "an interface joins ports, but this end is " + member.kind().titleWithArticle()));
        }
    }

    /** validatePortUsageNestedUsagesNotComposite, validateAttributeUsageFeatures. */
    private static void compositionFits(Element owner, Element member, List<Problem> problems) {
        boolean referential = member.get(Property.REFERENTIAL).orElse(false)
                || member.get(Property.DIRECTION).isPresent()
                || member.get(Property.END).orElse(false);
        boolean port = owner.kind() == PORT || owner.kind() == PORT_DEFINITION;
        boolean attribute = owner.kind() == ATTRIBUTE || owner.kind() == ATTRIBUTE_DEFINITION;
        if ((port || attribute) && !referential && COMPOSITE.contains(member.kind())) {
            problems.add(Problem.of(
                    member,
                    (port
                                    ? "a port has other things only by reference or direction"
                                    : "an attribute has other things only by reference")
                            + "; write 'ref " + member.kind().keyword() + "'"));
        }
    }

    /** validateStateUsageParallelSubactions. */
    private static void parallelFits(Element owner, Element member, List<Problem> problems) {
        boolean joins = member.kind() == TRANSITION || member.kind() == SUCCESSION || follows(member);
        if (owner.get(Property.PARALLEL).orElse(false) && joins) {
            problems.add(Problem.of(
                    member, "the states of a parallel state run beside each other; nothing leads from one to another"));
        }
    }
}
