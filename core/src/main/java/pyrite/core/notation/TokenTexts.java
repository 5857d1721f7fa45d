package pyrite.core.notation;

import pyrite.core.expression.Keywords;
import pyrite.core.notation.Tokens.Type;

/**
 * The types and texts of the tokens of one text. Equal words are the same string object, so comparing them is fast. The
 * parser's thread computes them, not the lexer's, so that both threads have about the same load.
 */
final class TokenTexts {
    /** What stands for the end of a text among the types of the lexer, which count from one. */
    static final int END = 0;

    private static final Type[] TYPES = Type.values();

    /** The signs of one character, by it. */
    private static final String[] SIGNS = new String[128];

    static {
        for (char c = 0; c < SIGNS.length; c++) {
            SIGNS[c] = String.valueOf(c);
        }
    }

    private final String source;
    /** Open addressing, at most half full. */
    private String[] words;
    /** Which of them the notation keeps for itself. */
    private boolean[] kept;

    private int wordCount;

    /**
     * The tokens of a block with their texts. It reuses the block's arrays: the token types replace the lexer's types.
     */
    static final class BlockTexts {
        private final byte[] types;
        final String[] texts;
        final int[] starts;
        final int[] ends;

        private BlockTexts(Tokenizer.Block block) {
            types = block.found;
            texts = new String[block.size];
            starts = block.starts;
            ends = block.ends;
        }

        private void set(int at, Type type, String text) {
            types[at] = (byte) type.ordinal();
            texts[at] = text;
        }

        Type type(int at) {
            return TYPES[types[at]];
        }
    }

    TokenTexts(String source) {
        this.source = source;
        words = new String[Integer.highestOneBit(Math.clamp(source.length() / 6, 16, 1024)) * 2];
        kept = new boolean[words.length];
    }

    BlockTexts of(Tokenizer.Block block) {
        BlockTexts texts = new BlockTexts(block);
        for (int at = 0; at < block.size; at++) {
            word(block.found[at], at, texts);
        }
        return texts;
    }

    private void word(int found, int at, BlockTexts texts) {
        int start = texts.starts[at];
        int end = texts.ends[at];
        switch (found) {
            case NotationLexer.WORD -> {
                int slot = slotOf(start, end);
                texts.set(at, kept[slot] ? Type.KEYWORD : Type.NAME, words[slot]);
            }
            case NotationLexer.SIGN ->
                texts.set(at, Type.SIGN, end - start == 1 ? SIGNS[source.charAt(start)] : known(start, end));
            case NotationLexer.QUOTED -> texts.set(at, Type.NAME, unescaped(start, end));
            case NotationLexer.NUMBER -> texts.set(at, Type.NUMBER, source.substring(start, end));
            case NotationLexer.STRING -> texts.set(at, Type.STRING, unescaped(start, end));
            case NotationLexer.BLOCK -> texts.set(at, Type.BLOCK, source.substring(start, end));
            case END -> texts.set(at, Type.END, "");
            default -> texts.set(at, Type.UNKNOWN, source.substring(start, end));
        }
    }

    private String known(int start, int end) {
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

    /**
     * Spread over all slots, for the hashes of names that are counted up lie next to each other (Knuth, vol. 3, 6.4).
     */
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
