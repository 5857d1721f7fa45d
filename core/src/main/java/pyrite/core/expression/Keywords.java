package pyrite.core.expression;

import java.util.Set;

/** Words the notation keeps for itself: a name spelled like one of them is written in quotes. */
public final class Keywords {
    public static final Set<String> RESERVED = Set.of(
            "abstract", "alias", "analysis", "and", "as", "assert", "assume", "attribute", "bind", "by", "calc", "comment",
            "constraint", "def", "default", "derived", "doc", "else", "end", "false", "if", "implies", "import", "in",
            "inout", "istype", "library", "not", "null", "objective", "or", "out", "package", "part", "private",
            "protected", "public", "readonly", "redefines", "ref", "require", "requirement", "return", "satisfy",
            "specializes", "subject", "subsets", "true", "verification", "verify", "xor");

    private Keywords() {
    }
}
