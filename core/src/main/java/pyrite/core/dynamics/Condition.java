package pyrite.core.dynamics;

import java.util.function.IntConsumer;

/** A condition over the variables of a flattened system. */
public sealed interface Condition {
    /** The mode of a relation that a run does not watch: it is asked for at single instants. */
    int UNWATCHED = -1;

    record Fixed(boolean holds) implements Condition {}

    /**
     * {@code left ⋛ right}. Holds where {@code margin = left - right} is positive ({@code strict}) or not negative. All
     * four comparisons are reduced to this form by exchanging sides.
     *
     * @param mode the index under which a run stores whether the relation holds; it changes only at located events
     * @param kink whether both alternatives are equal where the relation switches, as in min, max and abs
     */
    record Relation(int mode, Term left, Term right, boolean strict, boolean kink) implements Condition {
        public Term margin() {
            return Terms.minus(left, right);
        }

        public boolean holds(double margin) {
            return strict ? margin > 0 : margin >= 0;
        }
    }

    record Both(Condition left, Condition right) implements Condition {}

    record Either(Condition left, Condition right) implements Condition {}

    record Not(Condition operand) implements Condition {}

    default void variables(IntConsumer visitor) {
        switch (this) {
            case Fixed _ -> {}
            case Relation r -> {
                r.left().variables(visitor);
                r.right().variables(visitor);
            }
            case Both b -> {
                b.left().variables(visitor);
                b.right().variables(visitor);
            }
            case Either e -> {
                e.left().variables(visitor);
                e.right().variables(visitor);
            }
            case Not n -> n.operand().variables(visitor);
        }
    }
}
