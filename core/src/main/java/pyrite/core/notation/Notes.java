package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.Token;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Property;

/**
 * Keeps {@code // notes} with the elements they stand at: those before a declaration or inside it go above it, one on
 * the line where it ends stays behind it.
 */
final class Notes {
    static final Notes NONE = new Notes(null);

    private final @Nullable CommonTokenStream tokens;
    private final Set<Integer> taken = new HashSet<>();

    Notes(@Nullable CommonTokenStream tokens) {
        this.tokens = tokens;
    }

    /** Takes the notes that belong to a member and puts them among its properties. */
    void of(NotationParser.MemberContext member, Map<Property<?>, Object> properties) {
        if (tokens == null) {
            return;
        }
        List<String> before = new ArrayList<>();
        for (Token note : orEmpty(tokens.getHiddenTokensToLeft(member.getStart().getTokenIndex()))) {
            take(note, before);
        }
        Token stop = member.getStop() == null ? member.getStart() : member.getStop();
        Token head = headEnd(member, stop);
        for (int i = member.getStart().getTokenIndex(); i < head.getTokenIndex(); i++) {
            take(tokens.get(i), before);
        }
        List<String> behind = new ArrayList<>();
        for (Token note : orEmpty(tokens.getHiddenTokensToRight(stop.getTokenIndex()))) {
            if (note.getLine() == stop.getLine() || nothingFollows(stop)) {
                take(note, behind);
            }
        }
        put(Property.NOTES, before, properties);
        put(Property.TRAILING_NOTE, behind, properties);
    }

    /** The brace that opens the body, else the last token: notes up to there stand in the declaration itself. */
    private Token headEnd(NotationParser.MemberContext member, Token stop) {
        boolean hasMembers = member.declaration() != null && !member.declaration().ending().member().isEmpty()
                || member.packageDeclaration() != null && !member.packageDeclaration().member().isEmpty();
        if (!hasMembers) {
            return stop;
        }
        for (int i = member.getStart().getTokenIndex(); i < stop.getTokenIndex(); i++) {
            if (tokens.get(i).getText().equals("{")) {
                return tokens.get(i);
            }
        }
        return stop;
    }

    /** Notes at the end of a body or of the text have no declaration after them; they stay with the one before. */
    private boolean nothingFollows(Token stop) {
        for (int i = stop.getTokenIndex() + 1; i < tokens.size(); i++) {
            Token next = tokens.get(i);
            if (next.getChannel() == Token.DEFAULT_CHANNEL) {
                return next.getType() == Token.EOF || next.getText().equals("}");
            }
        }
        return true;
    }

    private void take(Token token, List<String> into) {
        if (token.getType() == NotationLexer.NOTE && taken.add(token.getTokenIndex())) {
            into.add(token.getText().substring(2).strip());
        }
    }

    private static void put(Property<String> property, List<String> lines, Map<Property<?>, Object> properties) {
        if (!lines.isEmpty()) {
            properties.put(property, String.join("\n", lines));
        }
    }

    private static List<Token> orEmpty(@Nullable List<Token> tokens) {
        return tokens == null ? List.of() : tokens;
    }
}
