package pyrite.core.model;

import static pyrite.core.model.Property.ABSTRACT;
import static pyrite.core.model.Property.BY;
import static pyrite.core.model.Property.DIRECTION;
import static pyrite.core.model.Property.LEFT;
import static pyrite.core.model.Property.MULTIPLICITY;
import static pyrite.core.model.Property.REACH;
import static pyrite.core.model.Property.REDEFINES;
import static pyrite.core.model.Property.RESULT;
import static pyrite.core.model.Property.RIGHT;
import static pyrite.core.model.Property.SPECIALIZES;
import static pyrite.core.model.Property.TARGET;
import static pyrite.core.model.Property.TEXT;
import static pyrite.core.model.Property.TYPES;
import static pyrite.core.model.Property.VALUE;

import java.util.Arrays;
import java.util.Optional;
import java.util.Set;

/**
 * The table of element kinds, one row a kind: the keyword of the notation, the family, the body it opens and the
 * properties it takes. Reading, writing, storing and checking go by this table.
 */
public enum ElementKind {
    PACKAGE("package", Family.ORGANIZATION, Form.PACKAGE, Body.PACKAGE),
    LIBRARY_PACKAGE("library package", Family.ORGANIZATION, Form.PACKAGE, Body.PACKAGE),
    IMPORT("import", Family.ORGANIZATION, Form.SPECIAL, Body.NONE, TARGET, REACH),
    DOCUMENTATION("doc", Family.ANNOTATION, Form.SPECIAL, Body.NONE, TEXT),
    COMMENT("comment", Family.ANNOTATION, Form.SPECIAL, Body.NONE, TEXT),

    PART_DEFINITION("part", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    PART("part", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    ATTRIBUTE_DEFINITION("attribute", Family.STRUCTURE, Form.DEFINITION, Body.STRUCTURE),
    ATTRIBUTE("attribute", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    REFERENCE("ref", Family.STRUCTURE, Form.USAGE, Body.STRUCTURE),
    BINDING("bind", Family.STRUCTURE, Form.SPECIAL, Body.NONE, LEFT, RIGHT),

    CALCULATION_DEFINITION("calc", Family.ANALYSIS, Form.DEFINITION, Body.CALCULATION, RESULT),
    CONSTRAINT_DEFINITION("constraint", Family.ANALYSIS, Form.DEFINITION, Body.CALCULATION, RESULT),
    CONSTRAINT("constraint", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, RESULT),
    ASSERTED_CONSTRAINT("assert constraint", Family.ANALYSIS, Form.USAGE, Body.CALCULATION, RESULT),
    REQUIRED_CONSTRAINT("require constraint", Family.REQUIREMENT, Form.USAGE, Body.CALCULATION, RESULT),

    REQUIREMENT_DEFINITION("requirement", Family.REQUIREMENT, Form.DEFINITION, Body.REQUIREMENT),
    REQUIREMENT("requirement", Family.REQUIREMENT, Form.USAGE, Body.REQUIREMENT),
    SUBJECT("subject", Family.REQUIREMENT, Form.USAGE, Body.STRUCTURE),
    SATISFACTION("satisfy", Family.RELATIONSHIP, Form.SPECIAL, Body.NONE, TARGET, BY),

    ANALYSIS_DEFINITION("analysis", Family.ANALYSIS, Form.DEFINITION, Body.CASE),
    ANALYSIS("analysis", Family.ANALYSIS, Form.USAGE, Body.CASE),
    VERIFICATION_DEFINITION("verification", Family.VERIFICATION, Form.DEFINITION, Body.CASE),
    VERIFICATION("verification", Family.VERIFICATION, Form.USAGE, Body.CASE),
    OBJECTIVE("objective", Family.VERIFICATION, Form.USAGE, Body.OBJECTIVE),
    VERIFIED_REQUIREMENT("verify", Family.RELATIONSHIP, Form.SPECIAL, Body.NONE, TARGET);

    /** What an element is about; gives it its tint and its place in the stations. */
    public enum Family { ORGANIZATION, STRUCTURE, ANALYSIS, REQUIREMENT, VERIFICATION, ANNOTATION, RELATIONSHIP }

    /** How a declaration is written. */
    public enum Form { PACKAGE, DEFINITION, USAGE, SPECIAL }

    /** What may stand between the braces. */
    public enum Body { NONE, PACKAGE, STRUCTURE, CALCULATION, REQUIREMENT, CASE, OBJECTIVE }

    private static final Set<Property<?>> OF_DEFINITIONS = Set.of(SPECIALIZES, ABSTRACT);
    private static final Set<Property<?>> OF_USAGES =
            Set.of(TYPES, SPECIALIZES, REDEFINES, MULTIPLICITY, VALUE, DIRECTION, ABSTRACT);
    private static final Set<Property<?>> OF_ALL =
            Set.of(Property.VISIBILITY, Property.NOTES, Property.TRAILING_NOTE);

    private final String keyword;
    private final Family family;
    private final Form form;
    private final Body body;
    private final Set<Property<?>> own;

    ElementKind(String keyword, Family family, Form form, Body body, Property<?>... own) {
        this.keyword = keyword;
        this.family = family;
        this.form = form;
        this.body = body;
        this.own = Set.of(own);
    }

    public String keyword() {
        return keyword;
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

    public boolean takes(Property<?> property) {
        return own.contains(property) || OF_ALL.contains(property)
                || isDefinition() && OF_DEFINITIONS.contains(property)
                || isUsage() && OF_USAGES.contains(property);
    }

    public boolean mayOwn(ElementKind member) {
        if (member.family == Family.ANNOTATION) {
            return body != Body.NONE;
        }
        return switch (body) {
            case NONE -> false;
            case PACKAGE -> member != SUBJECT && member != OBJECTIVE && member != VERIFIED_REQUIREMENT
                    && member != REQUIRED_CONSTRAINT;
            case STRUCTURE -> !member.isPackage() && member != SUBJECT && member != OBJECTIVE
                    && member != VERIFIED_REQUIREMENT && member != REQUIRED_CONSTRAINT;
            case CALCULATION -> member == IMPORT || member == ATTRIBUTE || member == REFERENCE || member == PART;
            case REQUIREMENT -> !member.isPackage() && member != OBJECTIVE && member != VERIFIED_REQUIREMENT;
            case CASE -> !member.isPackage() && member != VERIFIED_REQUIREMENT && member != REQUIRED_CONSTRAINT;
            case OBJECTIVE -> member == VERIFIED_REQUIREMENT || member == SUBJECT || member == ATTRIBUTE
                    || member == REQUIRED_CONSTRAINT;
        };
    }

    /** In words: "part definition", "requirement". */
    public String title() {
        return isDefinition() ? keyword + " definition" : switch (this) {
            case IMPORT -> "import";
            case DOCUMENTATION -> "documentation";
            case REFERENCE -> "reference";
            case BINDING -> "binding";
            case SATISFACTION -> "satisfaction";
            case VERIFIED_REQUIREMENT -> "verified requirement";
            case CALCULATION_DEFINITION -> "calculation";
            case ASSERTED_CONSTRAINT -> "asserted constraint";
            case REQUIRED_CONSTRAINT -> "required constraint";
            default -> keyword;
        };
    }

    /** "a part definition", "an attribute". */
    public String titleWithArticle() {
        return ("aeiou".indexOf(title().charAt(0)) >= 0 ? "an " : "a ") + title();
    }

    /** The definition or usage a keyword introduces; {@code def} tells which. */
    public static Optional<ElementKind> declaredBy(String keyword, boolean definition) {
        return Arrays.stream(values())
                .filter(k -> k.keyword.equals(keyword) && (definition ? k.isDefinition() : k.isUsage())).findFirst();
    }
}
