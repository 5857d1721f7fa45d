package pyrite.core.model;

import static pyrite.core.model.Property.*;

import java.util.Arrays;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The table of element kinds, one row a kind: the keyword of the notation, the family, the body it opens and the
 * properties it takes beside those of its form. Reading, writing, storing and checking go by this table. The words are
 * those of the textual notation (SysML 2.0, 8.2.2).
 */
public enum ElementKind {
    PACKAGE("package", Family.ORGANIZATION, Form.PACKAGE, Body.PACKAGE),
    LIBRARY_PACKAGE("library package", Family.ORGANIZATION, Form.PACKAGE, Body.PACKAGE, STANDARD),
    IMPORT("import", Family.ORGANIZATION, Form.SPECIAL, Body.ANNOTATION, TARGET, REACH, ALL, Property.FILTER),
    ALIAS("alias", Family.ORGANIZATION, Form.SPECIAL, Body.ANNOTATION, TARGET),
    FILTER("filter", Family.ORGANIZATION, Form.SPECIAL, Body.NONE, RESULT),
    DOCUMENTATION("doc", Family.ANNOTATION, Form.SPECIAL, Body.NONE, TEXT, LOCALE),
    COMMENT("comment", Family.ANNOTATION, Form.SPECIAL, Body.NONE, TEXT, LOCALE, ABOUT),
    REPRESENTATION("rep", Family.ANNOTATION, Form.SPECIAL, Body.NONE, TEXT, LANGUAGE),
    METADATA_DEFINITION("metadata", Family.ANNOTATION, Form.DEFINITION, Body.STRUCTURE),
    METADATA("metadata", Family.ANNOTATION, Form.USAGE, Body.METADATA, ABOUT),
    DEPENDENCY("dependency", Family.RELATIONSHIP, Form.SPECIAL, Body.ANNOTATION, CLIENTS, SUPPLIERS, MARKS),

    /** What only the metadata it is marked with tells the kind of: {@code #situation def}. */
    MARKED_DEFINITION("", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ATTRIBUTE_DEFINITION("attribute", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ATTRIBUTE("attribute", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    ENUMERATION_DEFINITION("enum", Family.STRUCTURE, Form.DEFINITION, Body.ENUMERATION),
    ENUMERATION("enum", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    OCCURRENCE_DEFINITION("occurrence", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    OCCURRENCE("occurrence", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    EVENT("event occurrence", "event", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, TARGET),
    ITEM_DEFINITION("item", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ITEM("item", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    PART_DEFINITION("part", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    PART("part", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    PORT_DEFINITION("port", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    PORT("port", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    REFERENCE("ref", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    CONNECTION_DEFINITION("connection", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    CONNECTION("connection", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    INTERFACE_DEFINITION("interface", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    INTERFACE("interface", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    ALLOCATION_DEFINITION("allocation", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ALLOCATION("allocation", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    CONNECTOR_END("end", Family.STRUCTURE, Form.SPECIAL, Body.NONE, TARGET, Property.MULTIPLICITY),
    BINDING("bind", Family.STRUCTURE, Form.SPECIAL, Body.STRUCTURE, LEFT, RIGHT),
    FLOW_DEFINITION("flow", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    FLOW("flow", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET),
    SUCCESSION_FLOW("succession flow", Family.BEHAVIOR, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET),
    MESSAGE("message", Family.BEHAVIOR, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET),
    PAYLOAD("of", Family.STRUCTURE, Form.USAGE, Body.NONE),

    ACTION_DEFINITION("action", Family.BEHAVIOR, Form.DEFINITION, Body.ACTION),
    ACTION("action", Family.BEHAVIOR, Form.USAGE, Body.ACTION, ROLE),
    PERFORM("perform action", "perform", Family.BEHAVIOR, Form.USAGE, Body.ACTION, ROLE, TARGET),
    ACCEPT("accept", Family.BEHAVIOR, Form.USAGE, Body.ACTION, ROLE, TRIGGER, CONTENT, VIA),
    SEND("send", Family.BEHAVIOR, Form.USAGE, Body.ACTION, ROLE, CONTENT, VIA, RECEIVER),
    ASSIGNMENT("assign", Family.BEHAVIOR, Form.USAGE, Body.ACTION, ROLE, TARGET, CONTENT),
    TERMINATE("terminate", Family.BEHAVIOR, Form.USAGE, Body.ACTION, CONTENT),
    IF("if", Family.BEHAVIOR, Form.USAGE, Body.BRANCHES, CONDITION),
    WHILE("while", Family.BEHAVIOR, Form.USAGE, Body.BRANCHES, CONDITION, UNTIL),
    FOR("for", Family.BEHAVIOR, Form.USAGE, Body.BRANCHES, CONDITION),
    BLOCK("action", Family.BEHAVIOR, Form.SPECIAL, Body.ACTION),
    LOOP_VARIABLE("in", Family.BEHAVIOR, Form.SPECIAL, Body.NONE, TYPES),
    MERGE("merge", Family.BEHAVIOR, Form.USAGE, Body.ACTION),
    DECIDE("decide", Family.BEHAVIOR, Form.USAGE, Body.ACTION),
    FORK("fork", Family.BEHAVIOR, Form.USAGE, Body.ACTION),
    JOIN("join", Family.BEHAVIOR, Form.USAGE, Body.ACTION),
    SUCCESSION("succession", Family.BEHAVIOR, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET, GUARD, ELSE),
    STATE_DEFINITION("state", Family.BEHAVIOR, Form.DEFINITION, Body.STATE, PARALLEL),
    STATE("state", Family.BEHAVIOR, Form.USAGE, Body.STATE, PARALLEL),
    EXHIBIT("exhibit state", "exhibit", Family.BEHAVIOR, Form.USAGE, Body.STATE, PARALLEL, TARGET),
    TRANSITION("transition", Family.BEHAVIOR, Form.USAGE, Body.ACTION, SOURCE, TARGET, GUARD, TRIGGER, CONTENT, VIA),

    CALCULATION_DEFINITION("calc", Family.ANALYSIS, Form.DEFINITION, Body.CALCULATION, RESULT),
    CALCULATION("calc", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, RESULT),
    CONSTRAINT_DEFINITION("constraint", Family.ANALYSIS, Form.DEFINITION, Body.CALCULATION, RESULT),
    CONSTRAINT("constraint", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, RESULT),
    ASSERTED_CONSTRAINT(
            "assert constraint", "assert", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, RESULT, TARGET, NEGATED),
    REQUIRED_CONSTRAINT(
            "require constraint", "require", Family.REQUIREMENT, Form.USAGE, Body.CALCULATION, RESULT, TARGET),
    ASSUMED_CONSTRAINT("assume constraint", "assume", Family.REQUIREMENT, Form.USAGE, Body.CALCULATION, RESULT, TARGET),

    REQUIREMENT_DEFINITION("requirement", Family.REQUIREMENT, Form.DEFINITION, Body.REQUIREMENT),
    REQUIREMENT("requirement", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT),
    CONCERN_DEFINITION("concern", Family.REQUIREMENT, Form.DEFINITION, Body.REQUIREMENT),
    CONCERN("concern", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT),
    FRAMED_CONCERN("frame concern", "frame", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT, TARGET),
    SUBJECT("subject", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE),
    ACTOR("actor", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE),
    STAKEHOLDER("stakeholder", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE),
    SATISFACTION(
            "satisfy requirement", "satisfy", Family.RELATIONSHIP, Form.SPECIAL, Body.REQUIREMENT, TARGET, BY, NEGATED),

    CASE_DEFINITION("case", Family.ANALYSIS, Form.DEFINITION, Body.CASE, RESULT),
    CASE("case", Family.ANALYSIS, Form.USAGE, Body.CASE, RESULT),
    ANALYSIS_DEFINITION("analysis", Family.ANALYSIS, Form.DEFINITION, Body.CASE, RESULT),
    ANALYSIS("analysis", Family.ANALYSIS, Form.USAGE, Body.CASE, RESULT),
    VERIFICATION_DEFINITION("verification", Family.VERIFICATION, Form.DEFINITION, Body.CASE, RESULT),
    VERIFICATION("verification", Family.VERIFICATION, Form.USAGE, Body.CASE, RESULT),
    OBJECTIVE("objective", Family.VERIFICATION, Form.USAGE, Body.OBJECTIVE),
    VERIFIED_REQUIREMENT("verify requirement", "verify", Family.RELATIONSHIP, Form.SPECIAL, Body.REQUIREMENT, TARGET),
    USE_CASE_DEFINITION("use case", Family.REQUIREMENT, Form.DEFINITION, Body.CASE, RESULT),
    USE_CASE("use case", Family.REQUIREMENT, Form.USAGE, Body.CASE, RESULT),
    INCLUDED_USE_CASE("include use case", "include", Family.REQUIREMENT, Form.USAGE, Body.CASE, RESULT, TARGET),

    VIEW_DEFINITION("view", Family.ORGANIZATION, Form.DEFINITION, Body.VIEW),
    VIEW("view", Family.ORGANIZATION, Form.USAGE, Body.VIEW),
    VIEWPOINT_DEFINITION("viewpoint", Family.ORGANIZATION, Form.DEFINITION, Body.REQUIREMENT),
    VIEWPOINT("viewpoint", Family.ORGANIZATION, Form.USAGE, Body.REQUIREMENT),
    RENDERING_DEFINITION("rendering", Family.ORGANIZATION, Form.DEFINITION, Body.STRUCTURE),
    RENDERING("rendering", Family.ORGANIZATION, Form.USAGE, Body.STRUCTURE),
    VIEW_RENDERING("render rendering", "render", Family.ORGANIZATION, Form.USAGE, Body.STRUCTURE, TARGET),
    EXPOSURE("expose", Family.ORGANIZATION, Form.SPECIAL, Body.ANNOTATION, TARGET, REACH, ALL, Property.FILTER);

    /** The subject area of a kind, which gives it its tint on drawings. */
    public enum Family {
        ORGANIZATION,
        STRUCTURE,
        BEHAVIOR,
        ANALYSIS,
        REQUIREMENT,
        VERIFICATION,
        ANNOTATION,
        RELATIONSHIP
    }

    /** The form of a declaration. */
    public enum Form {
        PACKAGE,
        DEFINITION,
        USAGE,
        SPECIAL
    }

    /** The members that may stand between the braces. */
    public enum Body {
        NONE,
        ANNOTATION,
        PACKAGE,
        STRUCTURE,
        ENUMERATION,
        METADATA,
        ACTION,
        BRANCHES,
        STATE,
        CALCULATION,
        REQUIREMENT,
        CASE,
        OBJECTIVE,
        VIEW
    }

    private static final Set<Property<?>> OF_DEFINITIONS =
            Set.of(SPECIALIZES, ABSTRACT, VARIATION, INDIVIDUAL, MARKS, VARIANT);
    private static final Set<Property<?>> OF_USAGES = Set.of(
            TYPES,
            CONJUGATED,
            SPECIALIZES,
            REDEFINES,
            REFERS,
            CROSSES,
            Property.MULTIPLICITY,
            BOUNDS,
            VALUE,
            DIRECTION,
            ABSTRACT,
            VARIATION,
            VARIANT,
            DERIVED,
            CONSTANT,
            END,
            Property.CROSS_MULTIPLICITY,
            REFERENTIAL,
            INDIVIDUAL,
            PORTION,
            ORDERED,
            NONUNIQUE,
            MARKS);
    /**
     * Usages that are no occurrences, which begin and end in time and so may follow others, and those with a place of
     * their own.
     */
    private static final Set<ElementKind> NO_STEPS = EnumSet.of(
            METADATA,
            ATTRIBUTE,
            ENUMERATION,
            REFERENCE,
            PAYLOAD,
            SUCCESSION,
            TRANSITION,
            REQUIRED_CONSTRAINT,
            ASSUMED_CONSTRAINT,
            FRAMED_CONCERN,
            SUBJECT,
            ACTOR,
            STAKEHOLDER,
            OBJECTIVE,
            VIEW_RENDERING);

    private static final Set<Property<?>> OF_ALL = Set.of(VISIBILITY, NOTES, TRAILING_NOTE);
    private static final Map<String, ElementKind> DEFINITIONS = Arrays.stream(values())
            .filter(ElementKind::isDefinition)
            .collect(Collectors.toUnmodifiableMap(ElementKind::keyword, Function.identity()));
    private static final Map<String, ElementKind> USAGES = Arrays.stream(values())
            .filter(kind -> kind.isUsage() || kind.shortKeyword != null)
            .collect(Collectors.toUnmodifiableMap(ElementKind::keyword, Function.identity()));

    private final String keyword;
    private final @Nullable String shortKeyword;
    private final Family family;
    private final Form form;
    private final Body body;
    private final Set<Property<?>> own;

    ElementKind(String keyword, Family family, Form form, Body body, Property<?>... own) {
        this(keyword, null, family, form, body, own);
    }

    ElementKind(
            String keyword, @Nullable String shortKeyword, Family family, Form form, Body body, Property<?>... own) {
        this.keyword = keyword;
        this.shortKeyword = shortKeyword;
        this.family = family;
        this.form = form;
        this.body = body;
        this.own = Set.of(own);
    }

    public String keyword() {
        return keyword;
    }

    /**
     * The keyword that stands before a mere reference to something declared elsewhere, as in {@code perform a.b}; null
     * if there is none.
     */
    public @Nullable String shortKeyword() {
        return shortKeyword;
    }

    public Family family() {
        return family;
    }

    public Form form() {
        return form;
    }

    public Body body() {
        return body;
    }

    public boolean isDefinition() {
        return form == Form.DEFINITION;
    }

    public boolean isUsage() {
        return form == Form.USAGE;
    }

    public boolean isPackage() {
        return form == Form.PACKAGE;
    }

    /** A case that can be run. */
    public boolean isCase() {
        return this == ANALYSIS || this == VERIFICATION;
    }

    /** A relation between two or more features, whose ends are elements of their own. */
    public boolean isConnector() {
        return this == CONNECTION || this == INTERFACE || this == ALLOCATION;
    }

    public boolean isFlow() {
        return this == FLOW || this == SUCCESSION_FLOW || this == MESSAGE;
    }

    /** Whether it stands in the head of what owns it and not in its body. */
    public boolean standsInHead() {
        return this == CONNECTOR_END || this == PAYLOAD || this == BLOCK || this == LOOP_VARIABLE;
    }

    public boolean takes(Property<?> property) {
        return Objects.requireNonNull(TAKEN.get(this)).get(property.place());
    }

    private static final Map<ElementKind, BitSet> TAKEN = Arrays.stream(values())
            .collect(Collectors.toMap(
                    Function.identity(),
                    kind -> places(kind.taken()),
                    (a, _) -> a,
                    () -> new EnumMap<>(ElementKind.class)));

    private static BitSet places(Set<Property<?>> properties) {
        BitSet places = new BitSet();
        properties.forEach(property -> places.set(property.place()));
        return places;
    }

    private Set<Property<?>> taken() {
        Set<Property<?>> taken = new HashSet<>(own);
        taken.addAll(standsInHead() ? Set.of() : OF_ALL);
        if (isUsage() && !NO_STEPS.contains(this)) {
            taken.add(THEN);
        }
        taken.addAll(
                isDefinition()
                        ? OF_DEFINITIONS
                        : isUsage() || shortKeyword != null || this == BINDING ? OF_USAGES : Set.of());
        return taken;
    }

    /** The kinds that stand only in bodies of certain forms; every other usage and definition stands in any. */
    private static final Map<ElementKind, Set<Body>> ONLY_IN = onlyIn();

    private static Map<ElementKind, Set<Body>> onlyIn() {
        Set<Body> requirements = EnumSet.of(Body.REQUIREMENT, Body.OBJECTIVE);
        Set<Body> cases = EnumSet.of(Body.REQUIREMENT, Body.OBJECTIVE, Body.CASE);
        Set<Body> steps = EnumSet.of(Body.ACTION, Body.CALCULATION, Body.CASE, Body.STATE);
        Map<ElementKind, Set<Body>> only = new EnumMap<>(ElementKind.class);
        only.put(REQUIRED_CONSTRAINT, requirements);
        only.put(ASSUMED_CONSTRAINT, requirements);
        only.put(FRAMED_CONCERN, requirements);
        only.put(STAKEHOLDER, requirements);
        only.put(SUBJECT, cases);
        only.put(ACTOR, cases);
        only.put(OBJECTIVE, EnumSet.of(Body.CASE));
        only.put(VERIFIED_REQUIREMENT, EnumSet.of(Body.OBJECTIVE, Body.REQUIREMENT));
        for (ElementKind step :
                EnumSet.of(ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR, MERGE, DECIDE, FORK, JOIN)) {
            only.put(step, steps);
        }
        only.put(TRANSITION, steps);
        only.put(FILTER, EnumSet.of(Body.PACKAGE, Body.VIEW));
        only.put(EXPOSURE, EnumSet.of(Body.VIEW));
        only.put(VIEW_RENDERING, EnumSet.of(Body.VIEW));
        return only;
    }

    public boolean mayOwn(ElementKind member) {
        if (member == CONNECTOR_END) {
            return isConnector();
        }
        if (member == PAYLOAD) {
            return isFlow() || this == ACCEPT || this == TRANSITION;
        }
        if (member == BLOCK || member == LOOP_VARIABLE) {
            return body == Body.BRANCHES;
        }
        if (member.family == Family.ANNOTATION && !member.isDefinition()) {
            return body != Body.NONE && body != Body.BRANCHES;
        }
        return switch (body) {
            case NONE, ANNOTATION -> false;
            case BRANCHES -> member == IF;
            case ENUMERATION -> member == ENUMERATION;
            case METADATA -> member == REFERENCE || member == ATTRIBUTE || member == ALIAS || member == IMPORT;
            default -> (!member.isPackage() || body == Body.PACKAGE) && member.standsIn(body);
        };
    }

    private boolean standsIn(Body body) {
        Set<Body> only = ONLY_IN.get(this);
        return only == null || only.contains(body);
    }

    /** In words: "part definition", "requirement". */
    public String title() {
        return isDefinition()
                ? this == CALCULATION_DEFINITION
                        ? "calculation"
                        : this == ENUMERATION_DEFINITION ? "enumeration definition" : (keyword + " definition").strip()
                : switch (this) {
                    case DOCUMENTATION -> "documentation";
                    case REFERENCE -> "reference";
                    case BINDING -> "binding";
                    case SATISFACTION -> "satisfaction";
                    case VERIFIED_REQUIREMENT -> "verified requirement";
                    case ASSERTED_CONSTRAINT -> "asserted constraint";
                    case REQUIRED_CONSTRAINT -> "required constraint";
                    case ASSUMED_CONSTRAINT -> "assumed constraint";
                    case FRAMED_CONCERN -> "framed concern";
                    case INCLUDED_USE_CASE -> "included use case";
                    case CALCULATION -> "calculation usage";
                    case ENUMERATION -> "enumeration value";
                    case REPRESENTATION -> "textual representation";
                    case CONNECTOR_END -> "connector end";
                    case PAYLOAD -> "payload";
                    case PERFORM -> "performed action";
                    case EXHIBIT -> "exhibited state";
                    case ACCEPT -> "accept action";
                    case SEND -> "send action";
                    case ASSIGNMENT -> "assignment";
                    case TERMINATE -> "terminate action";
                    case IF -> "if action";
                    case WHILE -> "loop";
                    case FOR -> "for loop";
                    case BLOCK -> "block";
                    case LOOP_VARIABLE -> "loop variable";
                    case MERGE, DECIDE, FORK, JOIN -> keyword + " node";
                    case VIEW_RENDERING -> "view rendering";
                    case EXPOSURE -> "exposure";
                    case EVENT -> "event";
                    default -> keyword;
                };
    }

    /** "a part definition", "an attribute". */
    public String titleWithArticle() {
        return ("aeio".indexOf(title().charAt(0)) >= 0 ? "an " : "a ") + title();
    }

    /** The definition or usage a keyword introduces; {@code def} tells which. */
    public static Optional<ElementKind> declaredBy(String keyword, boolean definition) {
        return Optional.ofNullable((definition ? DEFINITIONS : USAGES).get(keyword));
    }

    /** The kind of definition that types usages of this kind; null where any kind does or none. */
    public @Nullable ElementKind definition() {
        return switch (this) {
            case OCCURRENCE, EVENT -> OCCURRENCE_DEFINITION;
            case ACTION, PERFORM -> ACTION_DEFINITION;
            case STATE, EXHIBIT -> STATE_DEFINITION;
            case ASSERTED_CONSTRAINT, REQUIRED_CONSTRAINT, ASSUMED_CONSTRAINT -> CONSTRAINT_DEFINITION;
            case SATISFACTION, VERIFIED_REQUIREMENT, OBJECTIVE -> REQUIREMENT_DEFINITION;
            case FRAMED_CONCERN -> CONCERN_DEFINITION;
            case INCLUDED_USE_CASE -> USE_CASE_DEFINITION;
            case VIEW_RENDERING -> RENDERING_DEFINITION;
            case SUCCESSION_FLOW, MESSAGE -> FLOW_DEFINITION;
            default -> isUsage() ? DEFINITIONS.get(keyword) : null;
        };
    }

    /**
     * The kind of definition this kind of definition is a special case of (SysML 2.0, 7.6 and following); null if of
     * none.
     */
    public @Nullable ElementKind general() {
        return switch (this) {
            case ENUMERATION_DEFINITION -> ATTRIBUTE_DEFINITION;
            case ITEM_DEFINITION, PORT_DEFINITION, ACTION_DEFINITION, CONSTRAINT_DEFINITION -> OCCURRENCE_DEFINITION;
            case PART_DEFINITION, METADATA_DEFINITION -> ITEM_DEFINITION;
            case CONNECTION_DEFINITION, VIEW_DEFINITION, RENDERING_DEFINITION -> PART_DEFINITION;
            case INTERFACE_DEFINITION, ALLOCATION_DEFINITION -> CONNECTION_DEFINITION;
            case FLOW_DEFINITION, STATE_DEFINITION, CALCULATION_DEFINITION -> ACTION_DEFINITION;
            case REQUIREMENT_DEFINITION -> CONSTRAINT_DEFINITION;
            case CONCERN_DEFINITION, VIEWPOINT_DEFINITION -> REQUIREMENT_DEFINITION;
            case CASE_DEFINITION -> CALCULATION_DEFINITION;
            case ANALYSIS_DEFINITION, VERIFICATION_DEFINITION, USE_CASE_DEFINITION -> CASE_DEFINITION;
            default -> null;
        };
    }
}
