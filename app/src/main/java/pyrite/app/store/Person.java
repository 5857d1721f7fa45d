package pyrite.app.store;

/** Somebody who may sign in. */
public record Person(long id, String signIn, String name, String passwordHash, Role role) {
    /** What somebody may do; each includes those before it. */
    public enum Role { VIEWER, ENGINEER, LEAD, ADMINISTRATOR }

    public boolean mayEdit() {
        return role != Role.VIEWER;
    }

    /** First letters of the names, for the round mark in the top bar. */
    public String initials() {
        StringBuilder letters = new StringBuilder();
        for (String part : name.split("\\s+")) {
            letters.append(part, 0, Math.min(1, part.length()));
        }
        return letters.substring(0, Math.min(2, letters.length())).toUpperCase(java.util.Locale.ROOT);
    }
}
