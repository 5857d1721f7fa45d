package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.antlr.v4.runtime.CharStream;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonToken;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.TokenFactory;
import org.antlr.v4.runtime.TokenSource;
import org.antlr.v4.runtime.misc.Pair;
import pyrite.core.expression.Keywords;
import pyrite.core.expression.Span;

/**
 * The tokens of a text by index from 0, the last one being the end; notes are kept apart, by the token they stand before.
 * Words that are the same are the same string, so comparing them is quick.
 */
final class Tokens {
    /** What a token is. A quoted name is a NAME without its quotes, a word that is kept for the notation a KEYWORD. */
    enum Type { NAME, KEYWORD, NUMBER, STRING, BLOCK, SIGN, UNKNOWN, END }

    /** A {@code // note} with the characters it takes, marks left away. */
    record Note(String text, int start) {
    }

    private final String source;
    /** Open addressing, at most half full. */
    private String[] words;
    private int wordCount;
    private final List<Note> notes = new ArrayList<>();
    private Type[] types;
    private String[] texts;
    private int[] starts;
    private int[] ends;
    private int[] notesBefore;
    private int size;

    private Tokens(String source) {
        this.source = source;
        int likely = source.length() / 6 + 16;
        words = new String[Integer.highestOneBit(Math.min(likely, 1024)) * 2];
        types = new Type[likely];
        texts = new String[likely];
        starts = new int[likely];
        ends = new int[likely];
        notesBefore = new int[likely];
    }

    /** What the lexer found last; one object, filled again for each token, since only its place and type are kept. */
    private static final class Found extends CommonToken implements TokenFactory<CommonToken> {
        Found() {
            super(Token.INVALID_TYPE);
        }

        @Override
        public CommonToken create(Pair<TokenSource, CharStream> from, int type, String text, int channel, int start, int stop, int line, int column) {
            setType(type);
            setStartIndex(start);
            setStopIndex(stop);
            return this;
        }

        @Override
        public CommonToken create(int type, String text) {
            setType(type);
            return this;
        }
    }

    static Tokens of(String text) {
        Tokens tokens = new Tokens(text);
        NotationLexer lexer = new NotationLexer(CharStreams.fromString(text));
        lexer.removeErrorListeners();
        lexer.setTokenFactory(new Found());
        int[] offsets = offsets(text);
        for (Token token = lexer.nextToken(); token.getType() != Token.EOF; token = lexer.nextToken()) {
            tokens.add(token.getType(), offsets.length == 0 ? token.getStartIndex() : offsets[token.getStartIndex()],
                    offsets.length == 0 ? token.getStopIndex() + 1 : offsets[token.getStopIndex() + 1]);
        }
        tokens.put(Type.END, "", text.length(), text.length());
        return tokens;
    }

    /** Where each code point begins, by which the lexer counts; empty if every character is one. */
    private static int[] offsets(String text) {
        int points = text.codePointCount(0, text.length());
        if (points == text.length()) {
            return new int[0];
        }
        int[] offsets = new int[points + 1];
        for (int point = 0, at = 0; point < points; point++) {
            offsets[point] = at;
            at += Character.charCount(text.codePointAt(at));
        }
        offsets[points] = text.length();
        return offsets;
    }

    private void add(int type, int start, int end) {
        switch (type) {
            case NotationLexer.WORD -> {
                String word = word(start, end);
                put(Keywords.RESERVED.contains(word) ? Type.KEYWORD : Type.NAME, word, start, end);
            }
            case NotationLexer.SIGN -> put(Type.SIGN, word(start, end), start, end);
            case NotationLexer.QUOTED -> put(Type.NAME, unescaped(start, end), start, end);
            case NotationLexer.NUMBER -> put(Type.NUMBER, source.substring(start, end), start, end);
            case NotationLexer.STRING -> put(Type.STRING, unescaped(start, end), start, end);
            case NotationLexer.BLOCK -> put(Type.BLOCK, source.substring(start, end), start, end);
            case NotationLexer.NOTE -> notes.add(new Note(note(source.substring(start + 2, end)), start));
            default -> put(Type.UNKNOWN, source.substring(start, end), start, end);
        }
    }

    /** The word between two places, the same string each time; found without making a string of it first. */
    private String word(int start, int end) {
        int hash = 0;
        for (int i = start; i < end; i++) {
            hash = 31 * hash + source.charAt(i);
        }
        int mask = words.length - 1;
        int slot = slot(hash);
        while (words[slot] != null) {
            if (words[slot].length() == end - start && source.startsWith(words[slot], start)) {
                return words[slot];
            }
            slot = slot + 1 & mask;
        }
        words[slot] = source.substring(start, end);
        String word = words[slot];
        if (++wordCount > words.length / 2) {
            growWords();
        }
        return word;
    }

    /** Spread over all slots, for the hashes of names that are counted up lie next to each other (Knuth, vol. 3, 6.4). */
    private int slot(int hash) {
        return hash * 0x9E3779B9 >>> Integer.numberOfLeadingZeros(words.length) + 1;
    }

    private void growWords() {
        String[] before = words;
        words = new String[before.length * 2];
        wordCount = 0;
        for (String word : before) {
            if (word != null) {
                int slot = slot(word.hashCode());
                while (words[slot] != null) {
                    slot = slot + 1 & words.length - 1;
                }
                words[slot] = word;
                wordCount++;
            }
        }
    }

    private static String note(String text) {
        return (text.startsWith("*") && text.endsWith("*/") ? BlockText.normal(text.substring(1, text.length() - 2)) : text).strip();
    }

    private void put(Type type, String text, int start, int end) {
        if (size == types.length) {
            int capacity = size * 2;
            types = Arrays.copyOf(types, capacity);
            texts = Arrays.copyOf(texts, capacity);
            starts = Arrays.copyOf(starts, capacity);
            ends = Arrays.copyOf(ends, capacity);
            notesBefore = Arrays.copyOf(notesBefore, capacity);
        }
        types[size] = type;
        texts[size] = text;
        starts[size] = start;
        ends[size] = end;
        notesBefore[size++] = notes.size();
    }

    /** The text between quotes with its escapes undone (KerML 8.2.2.4). */
    private String unescaped(int start, int end) {
        if (source.indexOf('\\', start, end) < 0) {
            return source.substring(start + 1, end - 1);
        }
        StringBuilder text = new StringBuilder();
        for (int i = start + 1; i < end - 1; i++) {
            char c = source.charAt(i);
            if (c == '\\') {
                c = switch (source.charAt(++i)) {
                    case 'n' -> '\n';
                    case 't' -> '\t';
                    case 'r' -> '\r';
                    case 'b' -> '\b';
                    case 'f' -> '\f';
                    default -> source.charAt(i);
                };
            }
            text.append(c);
        }
        return text.toString();
    }

    int last() {
        return size - 1;
    }

    Type type(int index) {
        return types[Math.min(index, size - 1)];
    }

    String text(int index) {
        return texts[Math.min(index, size - 1)];
    }

    Span span(int index) {
        return new Span(starts[index], ends[index]);
    }

    int start(int index) {
        return starts[index];
    }

    int end(int index) {
        return ends[index];
    }

    /** The notes that stand before a token and behind the one before it. */
    List<Note> notesBefore(int index) {
        int from = index == 0 ? 0 : notesBefore[index - 1];
        return from == notesBefore[index] ? List.of() : notes.subList(from, notesBefore[index]);
    }

    boolean isFreeOfNotes() {
        return notes.isEmpty();
    }

    boolean isOnLineOf(Note note, int index) {
        return source.substring(ends[index], note.start()).indexOf('\n') < 0;
    }

    /** Whether only blanks stand before a token on its line. */
    boolean beginsLine(int index) {
        for (int i = starts[index] - 1; i >= 0; i--) {
            char c = source.charAt(i);
            if (c == '\n') {
                return true;
            }
            if (!Character.isWhitespace(c)) {
                return false;
            }
        }
        return true;
    }

    /** A token as a message names it. */
    String shown(int index) {
        if (type(index) == Type.END) {
            return "the end of the text";
        }
        String text = source.substring(starts[index], ends[index]).lines().findFirst().orElse("");
        return "'" + (text.length() > 30 ? text.substring(0, 30) + "…" : text) + "'";
    }
}
