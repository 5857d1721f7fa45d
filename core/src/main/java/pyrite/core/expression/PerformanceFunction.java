package pyrite.core.expression;

/** The functions of the library package Execution that look at what a run performs. */
public enum PerformanceFunction {
    /** Whether it is being performed. */
    ACTIVE("active"),
    /** Whether it was begun. */
    STARTED("started"),
    /** Whether it has been ended. */
    DONE("done"),
    /** How often it has been ended. */
    COUNT("count"),
    /** How many steps wait for a pool. */
    QUEUE("queue"),
    /** How much of a pool is held. */
    USED("used");

    private final String name;

    PerformanceFunction(String name) {
        this.name = name;
    }

    public String functionName() {
        return name;
    }

    boolean isCondition() {
        return this == ACTIVE || this == STARTED || this == DONE;
    }

    /** Whether it looks at a pool, and not at a step or state. */
    public boolean isOfPool() {
        return this == QUEUE || this == USED;
    }
}
