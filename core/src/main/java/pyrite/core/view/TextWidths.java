package pyrite.core.view;

/**
 * Estimates the width of texts in the fonts of the interface, px. Layout runs on the server, which has no fonts: the
 * widths are those of Hanken Grotesk and JetBrains Mono by groups of letters, rounded up, so that a box is never too
 * narrow.
 */
final class TextWidths {
    private static final double MONO = 0.6;

    private TextWidths() {}

    /** A fixed-width face. */
    static double mono(String text, double size) {
        return text.codePointCount(0, text.length()) * MONO * size;
    }

    static double text(String text, double size, boolean bold) {
        double width = 0;
        for (int i = 0; i < text.length(); i++) {
            width += width(text.charAt(i));
        }
        return width * size * (bold ? 1.06 : 1);
    }

    private static double width(char c) {
        if ("iljI.,:;'|!".indexOf(c) >= 0) {
            return 0.28;
        }
        if (" ()[]{}-/\"ftr<>«»".indexOf(c) >= 0) {
            return 0.4;
        }
        return "mwMW@%—…".indexOf(c) >= 0 ? 0.9 : Character.isUpperCase(c) ? 0.68 : 0.58;
    }
}
