package pyrite.app.store;

import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A person who signs in, or did: a person who left is inactive but remains the author of their changes. */
public record Person(long id, String signIn, String name, String passwordHash, Role role, boolean active) {
    /** What a person may do; each role includes the ones before it. */
    public enum Role {
        VIEWER("looks only"),
        ENGINEER("edits and runs"),
        LEAD("begins projects"),
        ADMINISTRATOR("looks after people");

        private final String words;

        Role(String words) {
            this.words = words;
        }

        /** What the role adds to the one before it. */
        public String words() {
            return words;
        }

        /** @throws IllegalArgumentException if there is no such role */
        public static Role titled(String title) {
            return Stream.of(values())
                    .filter(role -> role.title().equals(title))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("'" + title + "' is no role; one is "
                            + Stream.of(values()).map(Role::title).collect(Collectors.joining(", "))));
        }

        public String title() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public boolean mayEdit() {
        return role != Role.VIEWER;
    }

    public boolean isAdministrator() {
        return role == Role.ADMINISTRATOR;
    }

    /** First letters of the names, for the round mark in the top bar. */
    public String initials() {
        StringBuilder letters = new StringBuilder();
        for (String part : name.split("\\s+")) {
            letters.append(part, 0, Math.min(1, part.length()));
        }
        return letters.substring(0, Math.min(2, letters.length())).toUpperCase(Locale.ROOT);
    }
}
