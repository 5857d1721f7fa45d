package pyrite.core.verification;

/** The verdicts of SysML 2.0, 9.8.5 (VerdictKind). */
public enum VerdictKind {
    PASS,
    FAIL,
    INCONCLUSIVE,
    ERROR;

    /** The standard's name: {@code pass}, {@code fail}, … */
    public String word() {
        return name().toLowerCase(java.util.Locale.ROOT);
    }
}
