package pyrite.core.model;

import pyrite.core.expression.Expression;

/** The value a usage is declared with (KerML 8.3.4.10): fixed with {@code =}, or initial with {@code :=}. */
public record FeatureValue(Kind kind, Expression expression) {
    public enum Kind {
        FIXED("="), INITIAL(":=");

        private final String sign;

        Kind(String sign) {
            this.sign = sign;
        }

        public String sign() {
            return sign;
        }
    }
}
