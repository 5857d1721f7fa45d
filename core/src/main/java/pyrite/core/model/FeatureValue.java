package pyrite.core.model;

import pyrite.core.expression.Expression;

/**
 * The declared value of a usage (KerML 8.3.4.10): fixed with {@code =}, or initial with {@code :=}. A default value may
 * be overridden by whatever redefines or specialises the usage.
 */
public record FeatureValue(Kind kind, Expression expression) {
    public enum Kind {
        FIXED("="),
        INITIAL(":="),
        DEFAULT("default"),
        DEFAULT_INITIAL("default :=");

        private final String sign;

        Kind(String sign) {
            this.sign = sign;
        }

        public String sign() {
            return sign;
        }

        /** Whether what redefines the feature may give another value. */
        public boolean isDefault() {
            return this == DEFAULT || this == DEFAULT_INITIAL;
        }

        /** The same, not to be replaced. */
        public Kind asGiven() {
            return isInitial() ? INITIAL : FIXED;
        }

        /** The same as a default. */
        public Kind asDefault() {
            return isInitial() ? DEFAULT_INITIAL : DEFAULT;
        }

        /** Whether it is the value at the start only, from where the feature may change. */
        public boolean isInitial() {
            return this == INITIAL || this == DEFAULT_INITIAL;
        }
    }
}
