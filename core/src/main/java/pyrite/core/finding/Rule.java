package pyrite.core.finding;

import java.util.Arrays;
import java.util.Optional;

/** What is looked for. */
public enum Rule {
    MISFIT(
            "misfit",
            "Does not fit",
            "connected ports whose directions, types, dimensions or multiplicities do not fit"),
    OPEN_PORT("open-port", "Open port", "ports that must be connected and are not"),
    UNTYPED("untyped", "No type", "parts that have neither a type nor an inside"),
    CYCLE("cycle", "Contains itself", "definitions whose parts contain them again, without end"),
    MULTIPLICITY("multiplicity", "Multiplicity", "multiplicities that nothing can keep"),
    UNUSED("unused", "Unused", "definitions outside of library packages that nothing uses"),
    GONE("gone", "Satisfied by nothing", "satisfy links to a part that is not there"),
    UNREACHED("unreached", "Step not reached", "steps that no way leads to"),
    STANDSTILL("standstill", "Stands still", "steps and joins that wait for what never comes"),
    UNENTERED("unentered", "State not entered", "states that no transition leads to"),
    UNLEFT("unleft", "State not left", "states that no transition leaves"),
    COMPETING(
            "competing", "Transitions compete", "transitions that wait for the same event, so that one is never taken"),
    UNENDING("unending", "Never completed", "states that wait to be completed by what has no end"),
    UNSENT("unsent", "Never sent", "items that a behaviour waits for and nothing sends"),
    UNACCEPTED("unaccepted", "Never accepted", "items that a behaviour sends and nothing accepts"),
    UNFIT("unfit", "No longer fits", "transitions of a special machine that do not fit what it inherits any more"),
    UNTOLD("untold", "Way not told", "decisions of use cases without branches, conditions or steps"),
    ENDLESS("endless", "No end", "ways of use cases that do not say how they go on"),
    IDLE("idle", "Idle actor", "actors that no step of their use case names"),
    BROKEN_PATH("broken-path", "Path broken", "function paths that no longer lead through what they say"),
    LIMIT("limit", "Limit breached", "requirements that the values of their parts violate");

    private final String key;
    private final String title;
    private final String description;

    Rule(String key, String title, String description) {
        this.key = key;
        this.title = title;
        this.description = description;
    }

    /** In addresses, and in the waivers of the model. */
    public String key() {
        return key;
    }

    public String title() {
        return title;
    }

    /** What it looks for. */
    public String description() {
        return description;
    }

    public static Optional<Rule> of(String key) {
        return Arrays.stream(values()).filter(rule -> rule.key.equals(key)).findFirst();
    }
}
