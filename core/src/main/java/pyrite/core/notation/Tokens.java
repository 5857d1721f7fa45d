package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;

/**
 * The tokens of a text by index from 0; the last one marks the end. Notes are stored separately, by the token they
 * precede. Tokens are produced on demand; for a long text another thread produces them ahead of the parser.
 */
final class Tokens {
    /** The type of a token. A quoted name is a NAME without its quotes, a reserved word a KEYWORD. */
    enum Type {
        NAME,
        KEYWORD,
        NUMBER,
        STRING,
        BLOCK,
        SIGN,
        UNKNOWN,
        END
    }

    /** A {@code // note} without its marks; its start, and the token it precedes. */
    record Note(String text, int start, int token) {}

    /** From so many characters on a thread of its own is worth it. */
    private static final int LONG = 100_000;

    private final String source;
    private final Tokenizer tokenizer;
    private final TokenTexts texts;
    private @Nullable CompletableFuture<Tokenizer.Block> ahead;
    private final List<Note> notes = new ArrayList<>(0);
    private final List<TokenTexts.BlockTexts> blocks = new ArrayList<>(1);
    private int size;
    private boolean isWhole;

    private Tokens(String source) {
        this.source = source;
        tokenizer = new Tokenizer(source);
        texts = new TokenTexts(source);
    }

    static Tokens of(String text) {
        return new Tokens(text);
    }

    /** The index itself once there is such a token; behind the end that of the end. */
    private int reach(int index) {
        while (index >= size && !isWhole) {
            append(source.length() < LONG ? tokenizer.next() : nextAhead());
        }
        return Math.min(index, size - 1);
    }

    private Tokenizer.Block nextAhead() {
        if (ahead == null) {
            ahead = new CompletableFuture<>();
            CompletableFuture<Tokenizer.Block> first = ahead;
            Thread.startVirtualThread(() -> tokenizer.run(first));
        }
        Tokenizer.Block block = ahead.join();
        ahead = block.following;
        return block;
    }

    private void append(Tokenizer.Block block) {
        blocks.add(texts.of(block));
        notes.addAll(block.notes);
        size += block.size;
        isWhole = block.isLast;
    }

    private TokenTexts.BlockTexts block(int index) {
        return blocks.get(index >> Tokenizer.BLOCK_BITS);
    }

    int last() {
        reach(Integer.MAX_VALUE);
        return size - 1;
    }

    Type type(int index) {
        int at = index < size ? index : reach(index);
        return block(at).type(at & Tokenizer.BLOCK_MASK);
    }

    String text(int index) {
        int at = index < size ? index : reach(index);
        return block(at).texts[at & Tokenizer.BLOCK_MASK];
    }

    Span span(int index) {
        return new Span(start(index), end(index));
    }

    int start(int index) {
        int at = index < size ? index : reach(index);
        return block(at).starts[at & Tokenizer.BLOCK_MASK];
    }

    int end(int index) {
        int at = index < size ? index : reach(index);
        return block(at).ends[at & Tokenizer.BLOCK_MASK];
    }

    /**
     * The notes that stand before some tokens, from the first to the last of them; not those before the token ahead of
     * the first.
     */
    List<Note> notesBefore(int first, int last) {
        int end = reach(last) + 1;
        return notes.isEmpty() ? List.of() : notes.subList(notesAhead(first), notesAhead(end));
    }

    /** How many notes stand before tokens ahead of one. */
    private int notesAhead(int token) {
        int low = 0;
        int high = notes.size();
        while (low < high) {
            int middle = low + high >>> 1;
            if (notes.get(middle).token() < token) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    boolean isOnLineOf(Note note, int index) {
        return source.substring(end(index), note.start()).indexOf('\n') < 0;
    }

    /** Whether only blanks stand before a token on its line. */
    boolean beginsLine(int index) {
        for (int i = start(index) - 1; i >= 0; i--) {
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
        String text =
                source.substring(start(index), end(index)).lines().findFirst().orElse("");
        return "'" + (text.length() > 30 ? text.substring(0, 30) + "…" : text) + "'";
    }
}
