package pyrite.core.expression;

import java.util.Set;

/**
 * Words the notation keeps for itself: a name spelled like one of them is written in quotes. {@code at} and
 * {@code defined} are told apart from names by where they stand.
 */
public final class Keywords {
    public static final Set<String> RESERVED = Set.of(
            "about", "abstract", "accept", "action", "actor", "after", "alias", "all", "allocate", "allocation", "analysis", "and",
            "as", "assert", "assign", "assume", "attribute", "bind", "binding", "by", "calc", "case", "comment", "concern",
            "connect", "connection", "constant", "constraint", "crosses", "decide", "def", "default", "dependency",
            "derived", "do", "doc", "else", "end", "entry", "enum", "event", "exhibit", "exit", "expose", "false", "filter",
            "first", "flow", "for", "fork", "frame", "from", "hastype", "if", "implies", "import", "in", "include",
            "individual", "inout", "interface", "istype", "item", "join", "language", "library", "locale", "loop", "merge",
            "message", "meta", "metadata", "new", "nonunique", "not", "null", "objective", "occurrence", "of", "or", "ordered",
            "out", "package", "parallel", "part", "perform", "port", "private", "protected", "public", "readonly", "redefines",
            "ref", "references", "render", "rendering", "rep", "require", "requirement", "return", "satisfy", "send", "snapshot",
            "specializes", "stakeholder", "standard", "state", "subject", "subsets", "succession", "terminate", "then",
            "timeslice", "to", "transition", "true", "until", "use", "variant", "variation", "verification", "verify", "via",
            "view", "viewpoint", "when", "while", "xor");

    private Keywords() {
    }
}
