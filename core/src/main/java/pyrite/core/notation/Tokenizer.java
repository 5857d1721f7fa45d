package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.antlr.v4.runtime.CharStream;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonToken;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.TokenFactory;
import org.antlr.v4.runtime.TokenSource;
import org.antlr.v4.runtime.misc.Pair;
import pyrite.core.expression.Keywords;
import pyrite.core.notation.Tokens.Note;
import pyrite.core.notation.Tokens.Type;

/**
 * Splits a text into tokens, one block of them after the other. Words that are the same are the same string, so comparing
 * them is quick.
 */
final class Tokenizer {
    /** Enough tokens for handing them over to cost nothing beside finding them. */
    static final int BLOCK_BITS = 14;
    static final int BLOCK_MASK = (1 << BLOCK_BITS) - 1;

    /** The signs of one character, by it. */
    private static final String[] SIGNS = new String[128];

    static {
        for (char c = 0; c < SIGNS.length; c++) {
            SIGNS[c] = String.valueOf(c);
        }
    }

    private final String source;
    private final int[] offsets;
    private final NotationLexer lexer;
    /** Open addressing, at most half full. */
    private String[] words;
    /** Which of them the notation keeps for itself. */
    private boolean[] kept;
    private int wordCount;
    private Block block;
    /** The index of the block's first token. */
    private int first;

    /** Tokens that follow each other, as many as in all blocks but the last, whose last one is the end; not written to once it is handed over. */
    static final class Block {
        Type[] types;
        String[] texts;
        int[] starts;
        int[] ends;
        final List<Note> notes = new ArrayList<>();
        final CompletableFuture<Block> following = new CompletableFuture<>();
        int size;

        Block(int capacity) {
            types = new Type[capacity];
            texts = new String[capacity];
            starts = new int[capacity];
            ends = new int[capacity];
        }

        boolean isLast() {
            return types[size - 1] == Type.END;
        }

        boolean isFull() {
            return size > BLOCK_MASK;
        }

        private void ensureRoom() {
            if (size == types.length) {
                int capacity = Math.min(size * 2, BLOCK_MASK + 1);
                types = Arrays.copyOf(types, capacity);
                texts = Arrays.copyOf(texts, capacity);
                starts = Arrays.copyOf(starts, capacity);
                ends = Arrays.copyOf(ends, capacity);
            }
        }
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

    Tokenizer(String source) {
        this.source = source;
        offsets = offsets(source);
        lexer = new NotationLexer(CharStreams.fromString(source));
        lexer.removeErrorListeners();
        lexer.setTokenFactory(new Found());
        words = new String[Integer.highestOneBit(Math.clamp(source.length() / 6, 16, 1024)) * 2];
        kept = new boolean[words.length];
        block = new Block(0);
    }

    /** Finds all tokens; each block promises the one that follows. */
    void run(CompletableFuture<Block> beginning) {
        CompletableFuture<Block> promised = beginning;
        try {
            Block found;
            do {
                found = next();
                promised.complete(found);
                promised = found.following;
            } while (!found.isLast());
        } catch (RuntimeException | Error fault) {
            promised.completeExceptionally(fault);
        }
    }

    /** The tokens that come next; to be asked until there is a last block. */
    Block next() {
        first += block.size;
        block = new Block(Math.min(BLOCK_MASK + 1, source.length() / 4 + 4));
        while (!block.isFull()) {
            Token token = lexer.nextToken();
            if (token.getType() == Token.EOF) {
                put(Type.END, "", source.length(), source.length());
                break;
            }
            add(token.getType(), offset(token.getStartIndex()), offset(token.getStopIndex() + 1));
        }
        return block;
    }

    private void put(Type type, String text, int start, int end) {
        block.ensureRoom();
        int at = block.size++;
        block.types[at] = type;
        block.texts[at] = text;
        block.starts[at] = start;
        block.ends[at] = end;
    }

    private int offset(int codePoint) {
        return offsets.length == 0 ? codePoint : offsets[codePoint];
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
                int slot = slotOf(start, end);
                put(kept[slot] ? Type.KEYWORD : Type.NAME, words[slot], start, end);
            }
            case NotationLexer.SIGN -> put(Type.SIGN, end - start == 1 ? SIGNS[source.charAt(start)] : word(start, end), start, end);
            case NotationLexer.QUOTED -> put(Type.NAME, unescaped(start, end), start, end);
            case NotationLexer.NUMBER -> put(Type.NUMBER, source.substring(start, end), start, end);
            case NotationLexer.STRING -> put(Type.STRING, unescaped(start, end), start, end);
            case NotationLexer.BLOCK -> put(Type.BLOCK, source.substring(start, end), start, end);
            case NotationLexer.NOTE -> block.notes.add(new Note(note(source.substring(start + 2, end)), start, first + block.size));
            default -> put(Type.UNKNOWN, source.substring(start, end), start, end);
        }
    }

    private String word(int start, int end) {
        // The table may grow on the way, so that it is looked at afterwards.
        int slot = slotOf(start, end);
        return words[slot];
    }

    /** Where the word between two places stands in the table of words; found without making a string of it first. */
    private int slotOf(int start, int end) {
        int hash = 0;
        for (int i = start; i < end; i++) {
            hash = 31 * hash + source.charAt(i);
        }
        int slot = slot(hash);
        while (words[slot] != null) {
            if (words[slot].length() == end - start && source.startsWith(words[slot], start)) {
                return slot;
            }
            slot = slot + 1 & words.length - 1;
        }
        if (wordCount >= words.length / 2) {
            growWords();
            return slotOf(start, end);
        }
        enter(source.substring(start, end), slot);
        return slot;
    }

    private void enter(String word, int slot) {
        words[slot] = word;
        kept[slot] = Keywords.RESERVED.contains(word);
        wordCount++;
    }

    /** Spread over all slots, for the hashes of names that are counted up lie next to each other (Knuth, vol. 3, 6.4). */
    private int slot(int hash) {
        return hash * 0x9E3779B9 >>> Integer.numberOfLeadingZeros(words.length) + 1;
    }

    private void growWords() {
        String[] before = words;
        words = new String[before.length * 2];
        kept = new boolean[words.length];
        wordCount = 0;
        for (String word : before) {
            if (word != null) {
                int slot = slot(word.hashCode());
                while (words[slot] != null) {
                    slot = slot + 1 & words.length - 1;
                }
                enter(word, slot);
            }
        }
    }

    private static String note(String text) {
        return (text.startsWith("*") && text.endsWith("*/") ? BlockText.normal(text.substring(1, text.length() - 2)) : text).strip();
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
}
