package pyrite.core.model;

import static pyrite.core.model.KindTraits.listedUnder;
import static pyrite.core.model.KindTraits.titled;
import static pyrite.core.model.KindTraits.traits;
import static pyrite.core.model.Property.*;

import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
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
import pyrite.core.model.KindTraits.Trait;

/**
 * The table of element kinds, one row a kind: the keyword of the notation, the family, the body it opens and the
 * properties it takes beside those of its form. Reading, writing, storing and checking go by this table. The words are
 * those of the textual notation (SysML 2.0, 8.2.2).
 */
public enum ElementKind {
    // spotless:off
    PACKAGE("package", Family.ORGANIZATION, Form.PACKAGE, Body.PACKAGE, MARKS),
    LIBRARY_PACKAGE("library package", Family.ORGANIZATION, Form.PACKAGE, Body.PACKAGE, STANDARD, MARKS),
    IMPORT("import", Family.ORGANIZATION, Form.SPECIAL, Body.ANNOTATION, traits(Trait.OWN_SECTION), TARGET, REACH, ALL, Property.FILTER),
    ALIAS("alias", Family.ORGANIZATION, Form.SPECIAL, Body.ANNOTATION, TARGET),
    FILTER("filter", Family.ORGANIZATION, Form.SPECIAL, Body.NONE, RESULT),
    DOCUMENTATION("doc", Family.ANNOTATION, Form.SPECIAL, Body.NONE, titled("documentation"), TEXT, LOCALE),
    COMMENT("comment", Family.ANNOTATION, Form.SPECIAL, Body.NONE, TEXT, LOCALE, ABOUT),
    REPRESENTATION("rep", Family.ANNOTATION, Form.SPECIAL, Body.NONE, titled("textual representation"), TEXT, LANGUAGE),
    METADATA_DEFINITION("metadata", Family.ANNOTATION, Form.DEFINITION, Body.STRUCTURE),
    METADATA("metadata", Family.ANNOTATION, Form.USAGE, Body.METADATA, traits(Trait.INNER, Trait.NOT_A_STEP), ABOUT),
    DEPENDENCY("dependency", Family.RELATIONSHIP, Form.SPECIAL, Body.ANNOTATION, traits(Trait.CARRIES_LINKS), CLIENTS, SUPPLIERS, MARKS),

    /** What only the metadata it is marked with tells the kind of: {@code #situation def}. */
    MARKED_DEFINITION("", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ATTRIBUTE_DEFINITION("attribute", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ATTRIBUTE("attribute", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE,
            listedUnder("attributes").and(Trait.UNNAMED_IN_OUTLINE, Trait.OWN_SECTION, Trait.NOT_A_STEP)),
    ENUMERATION_DEFINITION("enum", Family.STRUCTURE, Form.DEFINITION, Body.ENUMERATION, titled("enumeration definition")),
    ENUMERATION("enum", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE,
            titled("enumeration value").andListedUnder("enums").and(Trait.NOT_A_STEP)),
    OCCURRENCE_DEFINITION("occurrence", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    OCCURRENCE("occurrence", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, traits(Trait.BOX)),
    EVENT("event occurrence", "event", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, titled("event"), TARGET),
    ITEM_DEFINITION("item", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ITEM("item", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, traits(Trait.BOX)),
    PART_DEFINITION("part", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    PART("part", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, traits(Trait.BOX, Trait.OWN_SECTION)),
    PORT_DEFINITION("port", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    PORT("port", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, listedUnder("ports")),
    REFERENCE("ref", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE,
            titled("reference").andListedUnder("references").and(Trait.INNER, Trait.OWN_SECTION, Trait.ROLE, Trait.NOT_A_STEP)),
    CONNECTION_DEFINITION("connection", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    CONNECTION("connection", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, traits(Trait.CARRIES_LINKS)),
    INTERFACE_DEFINITION("interface", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    INTERFACE("interface", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    ALLOCATION_DEFINITION("allocation", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ALLOCATION("allocation", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, traits(Trait.CARRIES_LINKS)),
    CONNECTOR_END("end", Family.STRUCTURE, Form.SPECIAL, Body.NONE, titled("connector end"), TARGET, Property.MULTIPLICITY),
    BINDING("bind", Family.STRUCTURE, Form.SPECIAL, Body.STRUCTURE, titled("binding"), LEFT, RIGHT, LEFT_MULTIPLICITY, RIGHT_MULTIPLICITY),
    FLOW_DEFINITION("flow", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    FLOW("flow", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET),
    SUCCESSION_FLOW("succession flow", Family.BEHAVIOR, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET),
    MESSAGE("message", Family.BEHAVIOR, Form.USAGE, Body.STRUCTURE, SOURCE, TARGET),
    PAYLOAD("of", Family.STRUCTURE, Form.USAGE, Body.NONE, titled("payload").and(Trait.INNER, Trait.NOT_A_STEP), SPELLINGS),

    ACTION_DEFINITION("action", Family.BEHAVIOR, Form.DEFINITION, Body.ACTION),
    ACTION("action", Family.BEHAVIOR, Form.USAGE, Body.ACTION, traits(Trait.BOX), ROLE),
    PERFORM("perform action", "perform", Family.BEHAVIOR, Form.USAGE, Body.ACTION,
            titled("performed action").andListedUnder("performed actions"), ROLE, TARGET),
    ACCEPT("accept", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("accept action"), ROLE, TRIGGER, CONTENT, VIA),
    SEND("send", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("send action"), ROLE, CONTENT, VIA, RECEIVER),
    ASSIGNMENT("assign", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("assignment"), ROLE, TARGET, CONTENT),
    TERMINATE("terminate", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("terminate action"), CONTENT),
    IF("if", Family.BEHAVIOR, Form.USAGE, Body.BRANCHES, titled("if action"), CONDITION),
    WHILE("while", Family.BEHAVIOR, Form.USAGE, Body.BRANCHES, titled("loop"), CONDITION, UNTIL),
    FOR("for", Family.BEHAVIOR, Form.USAGE, Body.BRANCHES, titled("for loop"), CONDITION),
    BLOCK("action", Family.BEHAVIOR, Form.SPECIAL, Body.ACTION, titled("block")),
    LOOP_VARIABLE("in", Family.BEHAVIOR, Form.SPECIAL, Body.NONE, titled("loop variable"), TYPES),
    MERGE("merge", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("merge node")),
    DECIDE("decide", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("decide node")),
    FORK("fork", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("fork node")),
    JOIN("join", Family.BEHAVIOR, Form.USAGE, Body.ACTION, titled("join node")),
    SUCCESSION("succession", Family.BEHAVIOR, Form.USAGE, Body.STRUCTURE, traits(Trait.NOT_A_STEP), SOURCE, TARGET, GUARD, ELSE),
    STATE_DEFINITION("state", Family.BEHAVIOR, Form.DEFINITION, Body.STATE, PARALLEL),
    STATE("state", Family.BEHAVIOR, Form.USAGE, Body.STATE, traits(Trait.BOX), PARALLEL),
    EXHIBIT("exhibit state", "exhibit", Family.BEHAVIOR, Form.USAGE, Body.STATE, titled("exhibited state"), PARALLEL, TARGET),
    TRANSITION("transition", Family.BEHAVIOR, Form.USAGE, Body.ACTION,
            traits(Trait.NOT_A_STEP), SOURCE, TARGET, GUARD, TRIGGER, CONTENT, VIA),

    CALCULATION_DEFINITION("calc", Family.ANALYSIS, Form.DEFINITION, Body.CALCULATION, titled("calculation"), RESULT),
    CALCULATION("calc", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, titled("calculation usage").andListedUnder("calcs"), RESULT),
    CONSTRAINT_DEFINITION("constraint", Family.ANALYSIS, Form.DEFINITION, Body.CALCULATION, RESULT),
    CONSTRAINT("constraint", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, listedUnder("constraints"), RESULT),
    ASSERTED_CONSTRAINT("assert constraint", "assert", Family.ANALYSIS, Form.USAGE, Body.CALCULATION,
            titled("asserted constraint").andListedUnder("constraints")
                    .and(Trait.UNNAMED_IN_OUTLINE, Trait.OWN_SECTION), RESULT, TARGET, NEGATED),
    REQUIRED_CONSTRAINT("require constraint", "require", Family.REQUIREMENT, Form.USAGE, Body.CALCULATION,
            titled("required constraint").andListedUnder("constraints")
                    .and(Trait.INNER, Trait.OWN_SECTION, Trait.NOT_A_STEP), RESULT, TARGET),
    ASSUMED_CONSTRAINT("assume constraint", "assume", Family.REQUIREMENT, Form.USAGE, Body.CALCULATION,
            titled("assumed constraint").andListedUnder("constraints").and(Trait.INNER, Trait.NOT_A_STEP), RESULT, TARGET),

    REQUIREMENT_DEFINITION("requirement", Family.REQUIREMENT, Form.DEFINITION, Body.REQUIREMENT, traits(Trait.REQUIREMENT)),
    REQUIREMENT("requirement", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT, traits(Trait.BOX, Trait.REQUIREMENT, Trait.SATISFIABLE)),
    CONCERN_DEFINITION("concern", Family.REQUIREMENT, Form.DEFINITION, Body.REQUIREMENT,
            titled("need definition").and(Trait.REQUIREMENT, Trait.NEED)),
    CONCERN("concern", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT,
            titled("need").andListedUnder("needs").and(Trait.BOX, Trait.REQUIREMENT, Trait.NEED, Trait.SATISFIABLE)),
    FRAMED_CONCERN("frame concern", "frame", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT,
            titled("framed need").and(Trait.SATISFIABLE, Trait.CARRIES_LINKS, Trait.NOT_A_STEP), TARGET),
    SUBJECT("subject", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE,
            listedUnder("subject").and(Trait.INNER, Trait.OWN_SECTION, Trait.ROLE, Trait.NOT_A_STEP)),
    ACTOR("actor", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE, listedUnder("actors").and(Trait.ROLE, Trait.NOT_A_STEP)),
    STAKEHOLDER("stakeholder", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE,
            listedUnder("stakeholders").and(Trait.ROLE, Trait.NOT_A_STEP)),
    SATISFACTION("satisfy requirement", "satisfy", Family.RELATIONSHIP, Form.SPECIAL, Body.REQUIREMENT,
            titled("satisfaction").and(Trait.SATISFIABLE, Trait.CARRIES_LINKS), TARGET, BY, NEGATED),

    CASE_DEFINITION("case", Family.ANALYSIS, Form.DEFINITION, Body.CASE, RESULT),
    CASE("case", Family.ANALYSIS, Form.USAGE, Body.CASE, RESULT),
    ANALYSIS_DEFINITION("analysis", Family.ANALYSIS, Form.DEFINITION, Body.CASE, RESULT),
    ANALYSIS("analysis", Family.ANALYSIS, Form.USAGE, Body.CASE, traits(Trait.BOX), RESULT),
    VERIFICATION_DEFINITION("verification", Family.VERIFICATION, Form.DEFINITION, Body.CASE, RESULT),
    VERIFICATION("verification", Family.VERIFICATION, Form.USAGE, Body.CASE, traits(Trait.BOX), RESULT),
    OBJECTIVE("objective", Family.VERIFICATION, Form.USAGE, Body.OBJECTIVE,
            traits(Trait.INNER, Trait.SATISFIABLE, Trait.ROLE, Trait.NOT_A_STEP)),
    VERIFIED_REQUIREMENT("verify requirement", "verify", Family.RELATIONSHIP, Form.SPECIAL, Body.REQUIREMENT,
            titled("verified requirement").and(Trait.SATISFIABLE, Trait.CARRIES_LINKS), TARGET),
    USE_CASE_DEFINITION("use case", Family.REQUIREMENT, Form.DEFINITION, Body.CASE, RESULT),
    USE_CASE("use case", Family.REQUIREMENT, Form.USAGE, Body.CASE, traits(Trait.BOX), RESULT),
    INCLUDED_USE_CASE("include use case", "include", Family.REQUIREMENT, Form.USAGE, Body.CASE,
            titled("included use case"), RESULT, TARGET),

    VIEW_DEFINITION("view", Family.ORGANIZATION, Form.DEFINITION, Body.VIEW),
    VIEW("view", Family.ORGANIZATION, Form.USAGE, Body.VIEW),
    VIEWPOINT_DEFINITION("viewpoint", Family.ORGANIZATION, Form.DEFINITION, Body.REQUIREMENT),
    VIEWPOINT("viewpoint", Family.ORGANIZATION, Form.USAGE, Body.REQUIREMENT, traits(Trait.SATISFIABLE)),
    RENDERING_DEFINITION("rendering", Family.ORGANIZATION, Form.DEFINITION, Body.STRUCTURE),
    RENDERING("rendering", Family.ORGANIZATION, Form.USAGE, Body.STRUCTURE),
    VIEW_RENDERING("render rendering", "render", Family.ORGANIZATION, Form.USAGE, Body.STRUCTURE,
            titled("view rendering").and(Trait.NOT_A_STEP), TARGET),
    EXPOSURE("expose", Family.ORGANIZATION, Form.SPECIAL, Body.ANNOTATION, titled("exposure"), TARGET, REACH, ALL, Property.FILTER);
    // spotless:on

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
            CONJUGATES,
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
    private static final Set<Property<?>> OF_ALL = Set.of(VISIBILITY, NOTES, TRAILING_NOTE, SPELLINGS);
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
    private final KindTraits traits;
    private final Set<Property<?>> own;

    ElementKind(String keyword, Family family, Form form, Body body, Property<?>... own) {
        this(keyword, null, family, form, body, KindTraits.NONE, own);
    }

    ElementKind(String keyword, Family family, Form form, Body body, KindTraits traits, Property<?>... own) {
        this(keyword, null, family, form, body, traits, own);
    }

    ElementKind(String keyword, String shortKeyword, Family family, Form form, Body body, Property<?>... own) {
        this(keyword, shortKeyword, family, form, body, KindTraits.NONE, own);
    }

    ElementKind(
            String keyword,
            @Nullable String shortKeyword,
            Family family,
            Form form,
            Body body,
            KindTraits traits,
            Property<?>... own) {
        this.keyword = keyword;
        this.shortKeyword = shortKeyword;
        this.family = family;
        this.form = form;
        this.body = body;
        this.traits = traits;
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

    /** Whether what happens is told in its body: actions, states, and cases, which are behaviours, too. */
    public boolean tellsWhatHappens() {
        return family == Family.BEHAVIOR || body == Body.CASE;
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

    /** Whether it is something that a type has: a usage in any form. */
    public boolean isFeature() {
        return isUsage() || shortKeyword != null || this == CONNECTOR_END || this == BINDING || this == LOOP_VARIABLE;
    }

    public boolean isPackage() {
        return form == Form.PACKAGE;
    }

    private boolean is(Trait trait) {
        return traits.traits().contains(trait);
    }

    private static Set<ElementKind> with(Trait trait) {
        return Arrays.stream(values())
                .filter(kind -> kind.is(trait))
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(ElementKind.class)));
    }

    /** The kinds that state needs or requirements. */
    public static final Set<ElementKind> REQUIREMENTS = Collections.unmodifiableSet(with(Trait.REQUIREMENT));

    /** The kinds that make links between other elements. */
    public static final Set<ElementKind> LINK_CARRIERS = Collections.unmodifiableSet(with(Trait.CARRIES_LINKS));

    /** Whether it states a need or a requirement. */
    public boolean isRequirement() {
        return is(Trait.REQUIREMENT);
    }

    /** Whether it states a need. */
    public boolean isNeed() {
        return is(Trait.NEED);
    }

    /** Whether a satisfaction or a verification may name it. */
    public boolean isSatisfiable() {
        return is(Trait.SATISFIABLE);
    }

    /** Whether it makes a link between other elements. */
    public boolean carriesLinks() {
        return is(Trait.CARRIES_LINKS);
    }

    /** Whether it stands in its owner for something that is declared elsewhere, often under the same name. */
    public boolean isRole() {
        return is(Trait.ROLE);
    }

    /** Whether it has a box of its own in a General view; other usages are lines in the box of their owner. */
    public boolean hasBox() {
        return isPackage() || isDefinition() || is(Trait.BOX);
    }

    /** The heading under which a drawing lists its usages in the box of their owner; null if it lists none. */
    public @Nullable String compartment() {
        return traits.compartment();
    }

    /** Whether the outline lists it; other elements are on the page of their owner. */
    public boolean isInOutline(boolean named) {
        return isPackage() || isDefinition() || is(Trait.UNNAMED_IN_OUTLINE) || isUsage() && named && !is(Trait.INNER);
    }

    /** Whether the page of its owner shows it elsewhere than among the other members. */
    public boolean hasOwnSection() {
        return is(Trait.OWN_SECTION);
    }

    /** What something does, as opposed to the order of what it does. */
    public boolean isBehavior() {
        return family == Family.BEHAVIOR && isUsage() && !is(Trait.NOT_A_STEP);
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
        if (isUsage() && !is(Trait.NOT_A_STEP)) {
            taken.add(THEN);
        }
        taken.addAll(
                isDefinition()
                        ? OF_DEFINITIONS
                        : isUsage() || shortKeyword != null || this == BINDING ? OF_USAGES : Set.of());
        return taken;
    }

    /** Whether an element of this kind may own one of another; {@link Membership} has the rules. */
    public boolean mayOwn(ElementKind member) {
        return Membership.allows(this, member);
    }

    /** In words: "part definition", "requirement". */
    public String title() {
        String usual = isDefinition() ? (keyword + " definition").strip() : keyword;
        return Objects.requireNonNullElse(traits.title(), usual);
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
