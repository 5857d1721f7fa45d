package pyrite.core.model;

import java.util.EnumMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The implied specialisations of SysML 2.0: what elements of a kind inherit from the library without stating it. Every
 * action has a start and a done, every verification a verdict. Searched last, when a name is not found elsewhere.
 */
final class ImpliedGenerals {
    private static final Map<ElementKind, ElementId> BY_DEFINITION = new EnumMap<>(ElementKind.class);

    static {
        imply(ElementKind.OCCURRENCE_DEFINITION, "Occurrences::Occurrence");
        imply(ElementKind.ITEM_DEFINITION, "Items::Item");
        imply(ElementKind.PART_DEFINITION, "Parts::Part");
        imply(ElementKind.PORT_DEFINITION, "Ports::Port");
        imply(ElementKind.CONNECTION_DEFINITION, "Connections::BinaryConnection");
        imply(ElementKind.INTERFACE_DEFINITION, "Interfaces::BinaryInterface");
        imply(ElementKind.ALLOCATION_DEFINITION, "Allocations::Allocation");
        imply(ElementKind.FLOW_DEFINITION, "Flows::Flow");
        imply(ElementKind.ACTION_DEFINITION, "Actions::Action");
        imply(ElementKind.STATE_DEFINITION, "States::StateAction");
        imply(ElementKind.CALCULATION_DEFINITION, "Calculations::Calculation");
        imply(ElementKind.CONSTRAINT_DEFINITION, "Constraints::ConstraintCheck");
        imply(ElementKind.REQUIREMENT_DEFINITION, "Requirements::RequirementCheck");
        imply(ElementKind.CONCERN_DEFINITION, "Requirements::ConcernCheck");
        imply(ElementKind.CASE_DEFINITION, "Cases::Case");
        imply(ElementKind.ANALYSIS_DEFINITION, "AnalysisCases::AnalysisCase");
        imply(ElementKind.VERIFICATION_DEFINITION, "VerificationCases::VerificationCase");
        imply(ElementKind.USE_CASE_DEFINITION, "UseCases::UseCase");
        imply(ElementKind.VIEW_DEFINITION, "Views::View");
        imply(ElementKind.VIEWPOINT_DEFINITION, "Views::ViewpointCheck");
        imply(ElementKind.RENDERING_DEFINITION, "Views::Rendering");
        imply(ElementKind.METADATA_DEFINITION, "Metadata::MetadataItem");
    }

    private ImpliedGenerals() {}

    private static void imply(ElementKind definition, String libraryName) {
        BY_DEFINITION.put(definition, LibraryNames.id(libraryName));
    }

    /** The definition of the library that all elements of a kind specialise; null if there is none. */
    static @Nullable ElementId of(ElementKind kind) {
        ElementKind definition =
                kind.isDefinition() ? kind : kind.definition() != null ? kind.definition() : step(kind);
        return definition == null ? null : BY_DEFINITION.get(definition);
    }

    /** Steps with a form of their own are actions; there is no definition by their keyword. */
    private static @Nullable ElementKind step(ElementKind kind) {
        return switch (kind) {
            case ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR, BLOCK, MERGE, DECIDE, FORK, JOIN, TRANSITION ->
                ElementKind.ACTION_DEFINITION;
            default -> null;
        };
    }
}
