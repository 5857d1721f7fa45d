package pyrite.core.structure;

/** How far an edit inside a part reaches. */
public enum Extent {
    /** This use alone: what comes from a definition is redefined on the way to it. */
    USE,
    /** The definition, and with it every use. */
    DEFINITION
}
