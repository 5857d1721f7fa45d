package pyrite.core.notation;

import java.util.Set;

/** Words with which a member can begin, beside the keywords of kinds; reading goes on there after a fault. */
final class MemberWords {
    static final Set<String> FIRST = Set.of("package", "library", "standard", "import", "alias", "doc", "comment", "rep", "dependency",
            "public", "private", "protected", "abstract", "variation", "variant", "derived", "constant", "readonly", "end", "ref",
            "in", "out", "inout", "return", "individual", "snapshot", "timeslice", "assert", "assume", "require", "satisfy", "verify",
            "perform", "exhibit", "include", "connect", "binding", "first", "then", "entry", "do", "exit", "accept", "send",
            "expose", "render", "frame", "event", "allocate", "use", "filter");

    private MemberWords() {
    }
}
