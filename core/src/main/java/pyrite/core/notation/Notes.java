package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import pyrite.core.model.Property;

/**
 * Attaches {@code // notes} to elements: notes before a declaration or inside its head go above it; a note on the line
 * where it ends stays behind it. Notes at the end of a body stay behind the last member.
 */
final class Notes {
    private final Tokens tokens;
    private final Set<Tokens.Note> taken = new HashSet<>();

    Notes(Tokens tokens) {
        this.tokens = tokens;
    }

    /** Gives a draft the notes between its first and its last token, and those around. */
    void put(Draft draft, int first, int last) {
        if (tokens.notesBefore(first, last + 1).isEmpty()) {
            return;
        }
        List<String> before = new ArrayList<>();
        tokens.notesBefore(first, last).forEach(note -> take(note, before));
        List<String> behind = new ArrayList<>();
        boolean nothingFollows = tokens.type(last + 1) == Tokens.Type.END
                || tokens.text(last + 1).equals("}");
        for (Tokens.Note note : tokens.notesBefore(last + 1, last + 1)) {
            if (nothingFollows || tokens.isOnLineOf(note, last)) {
                take(note, behind);
            }
        }
        put(draft, Property.NOTES, before);
        put(draft, Property.TRAILING_NOTE, behind);
    }

    private void take(Tokens.Note note, List<String> into) {
        if (taken.add(note)) {
            into.add(note.text());
        }
    }

    private static void put(Draft draft, Property<String> property, List<String> lines) {
        if (!lines.isEmpty()) {
            draft.set(property, String.join("\n", lines));
        }
    }
}
