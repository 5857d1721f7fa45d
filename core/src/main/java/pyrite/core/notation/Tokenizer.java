package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.antlr.v4.runtime.CharStream;
import org.antlr.v4.runtime.CommonToken;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.TokenFactory;
import org.antlr.v4.runtime.TokenSource;
import org.antlr.v4.runtime.misc.Pair;
import pyrite.core.notation.Tokens.Note;

/** Splits a text into blocks of tokens; {@link TokenTexts} computes their texts. */
final class Tokenizer {
    /** Enough tokens for handing them over to cost nothing beside finding them. */
    static final int BLOCK_BITS = 14;

    static final int BLOCK_MASK = (1 << BLOCK_BITS) - 1;

    private final String source;
    private final NotationLexer lexer;
    private Block block;
    /** The index of the block's first token. */
    private int first;

    /** Consecutive tokens. All blocks have the same size except the last, whose last token marks the end. */
    static final class Block {
        /** Their types as the lexer counts them. */
        byte[] found;

        int[] starts;
        int[] ends;
        final List<Note> notes = new ArrayList<>();
        final CompletableFuture<Block> following = new CompletableFuture<>();
        int size;
        boolean isLast;

        Block(int capacity) {
            found = new byte[capacity];
            starts = new int[capacity];
            ends = new int[capacity];
        }

        boolean isFull() {
            return size > BLOCK_MASK;
        }

        private void ensureRoom() {
            if (size == found.length) {
                int capacity = Math.min(size * 2, BLOCK_MASK + 1);
                found = Arrays.copyOf(found, capacity);
                starts = Arrays.copyOf(starts, capacity);
                ends = Arrays.copyOf(ends, capacity);
            }
        }
    }

    /**
     * The last token found by the lexer. One object is reused for all tokens, since only type and position are kept.
     */
    private static final class Found extends CommonToken implements TokenFactory<CommonToken> {
        Found() {
            super(Token.INVALID_TYPE);
        }

        @Override
        public CommonToken create(
                Pair<TokenSource, CharStream> from,
                int type,
                String text,
                int channel,
                int start,
                int stop,
                int line,
                int column) {
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
        lexer = new NotationLexer(new TextStream(source));
        lexer.removeErrorListeners();
        lexer.setTokenFactory(new Found());
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
            } while (!found.isLast);
        } catch (RuntimeException | Error fault) {
            promised.completeExceptionally(fault);
        }
    }

    /** The tokens that come next; to be asked until there is a last block. */
    Block next() {
        first += block.size;
        block = new Block(Math.min(BLOCK_MASK + 1, source.length() / 4 + 4));
        while (!block.isFull() && !block.isLast) {
            Token token = lexer.nextToken();
            int start = token.getStartIndex();
            int end = token.getStopIndex() + 1;
            switch (token.getType()) {
                case Token.EOF -> {
                    put(TokenTexts.END, source.length(), source.length());
                    block.isLast = true;
                }
                case NotationLexer.NOTE ->
                    block.notes.add(new Note(note(source.substring(start + 2, end)), start, first + block.size));
                default -> put(token.getType(), start, end);
            }
        }
        return block;
    }

    private void put(int type, int start, int end) {
        block.ensureRoom();
        int at = block.size++;
        block.found[at] = (byte) type;
        block.starts[at] = start;
        block.ends[at] = end;
    }

    private static String note(String text) {
        return (text.startsWith("*") && text.endsWith("*/")
                        ? BlockText.normal(text.substring(1, text.length() - 2))
                        : text)
                .strip();
    }
}
