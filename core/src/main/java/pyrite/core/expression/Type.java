package pyrite.core.expression;

/** What kind of value an expression has, as far as it can be told without computing it. */
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

    /** Something that is no value, such as a part; {@code name} says what, for messages. */
    record Thing(String name) implements Type {
        @Override
        public String toString() {
            return name;
        }
    }

    /** Not known, for a reason reported elsewhere; fits everything so that one fault is reported once. */
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
