package pyrite.core.expression;

/** The value of an expression. */
public sealed interface Value {
    /** A number in the coherent SI unit of its dimension. */
    record Amount(double si, Dimension dimension) implements Value {
        public static Amount of(double number) {
            return new Amount(number, Dimension.ONE);
        }
    }

    record Truth(boolean holds) implements Value {}

    record Text(String text) implements Value {}
}
