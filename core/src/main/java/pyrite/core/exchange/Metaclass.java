package pyrite.core.exchange;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementKind;

/**
 * What the standard calls a kind of element (SysML 2.0, clause 8.3): its metaclass and, where several kinds have one
 * metaclass, the membership by which its owner owns it.
 *
 * @param type for instance {@code PartDefinition}
 * @param membership for instance {@code SubjectMembership}; null where the type alone says the kind
 * @param role tells apart two kinds with the same membership, for instance {@code assumption}
 */
record Metaclass(
        String type, @Nullable String membership, @Nullable String role) {
    private static final Map<ElementKind, Metaclass> OF_KINDS = ofKinds();
    private static final Map<Metaclass, ElementKind> KINDS =
            OF_KINDS.entrySet().stream().collect(Collectors.toMap(Map.Entry::getValue, Map.Entry::getKey));

    static Metaclass of(ElementKind kind) {
        return Objects.requireNonNull(OF_KINDS.get(kind));
    }

    Optional<ElementKind> kind() {
        return Optional.ofNullable(KINDS.get(this));
    }

    private static Map<ElementKind, Metaclass> ofKinds() {
        Map<ElementKind, Metaclass> all = new EnumMap<>(ElementKind.class);
        Arrays.stream(ElementKind.values()).forEach(kind -> all.put(kind, new Metaclass(regular(kind), null, null)));
        irregular().forEach((kind, type) -> all.put(kind, new Metaclass(type, null, null)));
        all.put(ElementKind.CONNECTOR_END, new Metaclass("ReferenceUsage", "EndFeatureMembership", null));
        all.put(ElementKind.LOOP_VARIABLE, new Metaclass("ReferenceUsage", "ParameterMembership", null));
        all.put(ElementKind.SUBJECT, new Metaclass("ReferenceUsage", "SubjectMembership", null));
        all.put(ElementKind.ACTOR, new Metaclass("PartUsage", "ActorMembership", null));
        all.put(ElementKind.STAKEHOLDER, new Metaclass("PartUsage", "StakeholderMembership", null));
        all.put(ElementKind.OBJECTIVE, new Metaclass("RequirementUsage", "ObjectiveMembership", null));
        all.put(
                ElementKind.VERIFIED_REQUIREMENT,
                new Metaclass("RequirementUsage", "RequirementVerificationMembership", null));
        all.put(
                ElementKind.REQUIRED_CONSTRAINT,
                new Metaclass("ConstraintUsage", "RequirementConstraintMembership", "requirement"));
        all.put(
                ElementKind.ASSUMED_CONSTRAINT,
                new Metaclass("ConstraintUsage", "RequirementConstraintMembership", "assumption"));
        all.put(ElementKind.FRAMED_CONCERN, new Metaclass("ConcernUsage", "FramedConcernMembership", null));
        all.put(ElementKind.VIEW_RENDERING, new Metaclass("RenderingUsage", "ViewRenderingMembership", null));
        all.put(ElementKind.BLOCK, new Metaclass("ActionUsage", "ParameterMembership", null));
        all.put(ElementKind.MESSAGE, new Metaclass("FlowUsage", "FeatureMembership", "message"));
        return all;
    }

    /** {@code PART_DEFINITION} is {@code PartDefinition}, {@code PART} is {@code PartUsage}. */
    private static String regular(ElementKind kind) {
        String words = Arrays.stream(kind.name().split("_"))
                .map(word -> word.charAt(0) + word.substring(1).toLowerCase(Locale.ROOT))
                .collect(Collectors.joining());
        return kind.isUsage() ? words + "Usage" : words;
    }

    private static Map<ElementKind, String> irregular() {
        Map<ElementKind, String> types = new LinkedHashMap<>();
        types.put(ElementKind.ALIAS, "Membership");
        types.put(ElementKind.FILTER, "ElementFilterMembership");
        types.put(ElementKind.REPRESENTATION, "TextualRepresentation");
        types.put(ElementKind.MARKED_DEFINITION, "Definition");
        types.put(ElementKind.EVENT, "EventOccurrenceUsage");
        types.put(ElementKind.BINDING, "BindingConnectorAsUsage");
        types.put(ElementKind.PAYLOAD, "PayloadFeature");
        types.put(ElementKind.PERFORM, "PerformActionUsage");
        types.put(ElementKind.ACCEPT, "AcceptActionUsage");
        types.put(ElementKind.SEND, "SendActionUsage");
        types.put(ElementKind.ASSIGNMENT, "AssignmentActionUsage");
        types.put(ElementKind.TERMINATE, "TerminateActionUsage");
        types.put(ElementKind.IF, "IfActionUsage");
        types.put(ElementKind.WHILE, "WhileLoopActionUsage");
        types.put(ElementKind.FOR, "ForLoopActionUsage");
        types.put(ElementKind.MERGE, "MergeNode");
        types.put(ElementKind.DECIDE, "DecisionNode");
        types.put(ElementKind.FORK, "ForkNode");
        types.put(ElementKind.JOIN, "JoinNode");
        types.put(ElementKind.SUCCESSION, "SuccessionAsUsage");
        types.put(ElementKind.EXHIBIT, "ExhibitStateUsage");
        types.put(ElementKind.ASSERTED_CONSTRAINT, "AssertConstraintUsage");
        types.put(ElementKind.SATISFACTION, "SatisfyRequirementUsage");
        types.put(ElementKind.ANALYSIS_DEFINITION, "AnalysisCaseDefinition");
        types.put(ElementKind.ANALYSIS, "AnalysisCaseUsage");
        types.put(ElementKind.VERIFICATION_DEFINITION, "VerificationCaseDefinition");
        types.put(ElementKind.VERIFICATION, "VerificationCaseUsage");
        types.put(ElementKind.INCLUDED_USE_CASE, "IncludeUseCaseUsage");
        types.put(ElementKind.EXPOSURE, "Expose");
        return types;
    }
}
