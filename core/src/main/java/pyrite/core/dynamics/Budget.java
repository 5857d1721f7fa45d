package pyrite.core.dynamics;

/**
 * How much may be worked out for one result: a few lines of a model may ask for more than there is time or memory. What
 * is counted does not depend on the machine, so the same model meets the same limit everywhere.
 */
final class Budget {
    private static final int RUN_INSTANCES = 1_000_000;
    private static final int RUN_STEPS = 1_000_000;
    /** About a quarter of a second each: a page asks for many results. */
    private static final int PAGE_INSTANCES = 50_000;

    private static final int PAGE_STEPS = 100_000;

    private final int mostInstances;
    private final int mostSteps;
    private int steps;
    private boolean exceeded;

    private Budget(int mostInstances, int mostSteps) {
        this.mostInstances = mostInstances;
        this.mostSteps = mostSteps;
    }

    /** Some seconds' worth. */
    static Budget ofRun() {
        return new Budget(RUN_INSTANCES, RUN_STEPS);
    }

    static Budget ofPage() {
        return new Budget(PAGE_INSTANCES, PAGE_STEPS);
    }

    int mostInstances() {
        return mostInstances;
    }

    /** Whether there may be one more instance. */
    boolean allowsInstance(int built) {
        exceeded |= built >= mostInstances;
        return built < mostInstances;
    }

    /** Whether so many more values may be gone through. */
    boolean allowsSteps(int more) {
        steps = (int) Math.min((long) steps + more, Integer.MAX_VALUE);
        exceeded |= steps > mostSteps;
        return steps <= mostSteps;
    }

    /** Whether something was given up. */
    boolean isExceeded() {
        return exceeded;
    }
}
