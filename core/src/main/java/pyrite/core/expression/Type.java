package pyrite.core.expression;

/** The type of an expression, as far as it is known without evaluation. */
public sealed interface Type {
    record Number(Dimension dimension) implements Type {
        @Override
        public String toString() {
            return dimension.isOne() ? "a number" : "a quantity in " + dimension.unitSymbol();
        }
    }

    record Truth() implements Type {
        @Override
        public String toString() {
            return "a condition (true or false)";
        }
    }

    record Text() implements Type {
        @Override
        public String toString() {
            return "a text";
        }
    }

    /** A value of an enumeration, which {@code definition} names. */
    record Enumerated(Referent definition, String name) implements Type {
        @Override
        public String toString() {
            return "a value of '" + name + "'";
        }
    }

    /** A structured value such as a part; {@code name} describes it in messages. */
    record Thing(String name) implements Type {
        @Override
        public String toString() {
            return name;
        }
    }

    /**
     * Unknown for a reason that is reported elsewhere. It is compatible with every type, so that one fault is reported
     * once.
     */
    record Unknown() implements Type {
        @Override
        public String toString() {
            return "unknown";
        }
    }

    Type UNKNOWN = new Unknown();
    Type TRUTH = new Truth();
    Type TEXT = new Text();
    Type NUMBER = new Number(Dimension.ONE);
}
