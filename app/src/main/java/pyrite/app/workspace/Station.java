package pyrite.app.workspace;

/** The existing stations, in the order of the work. */
public enum Station {
    OVERVIEW("Overview", "squares-four"),
    NEEDS("Needs", "chat-teardrop-text"),
    REQUIREMENTS("Requirements", "list-checks"),
    ARCHITECTURE("Architecture", "tree-structure"),
    RUNS("Runs", "wave-sine"),
    CHANGES("Changes", "clock-counter-clockwise");

    private final String title;
    private final String icon;

    Station(String title, String icon) {
        this.title = title;
        this.icon = icon;
    }

    public String title() {
        return title;
    }

    /** Name of the symbol in icons.svg. */
    public String icon() {
        return icon;
    }

    public String path() {
        return name().toLowerCase(java.util.Locale.ROOT);
    }
}
