package pyrite.core.dynamics;

import java.util.BitSet;
import java.util.function.Predicate;

/** Which relations of a system depend on time alone, directly or through variables that do. */
final class TimeOnly {
    private final SortedSystem system;
    private final BitSet others;
    private final BitSet choosing;

    TimeOnly(SortedSystem system) {
        this.system = system;
        this.others = new BitSet();
        system.flat().rates().keySet().forEach(others::set);
        spread(others, _ -> false);
        this.choosing = new BitSet();
        spread(choosing, TimeOnly::chooses);
    }

    /** The modes of the relations that depend on time alone. */
    BitSet relations() {
        return relations(margin -> !uses(others, margin));
    }

    /** The modes of all relations whose margin depends on the truth of a relation. */
    BitSet choosingRelations() {
        return relations(margin -> chooses(margin) || uses(choosing, margin));
    }

    private BitSet relations(Predicate<Term> wanted) {
        BitSet relations = new BitSet();
        system.flat().relations().stream()
                .filter(relation -> wanted.test(relation.margin()))
                .forEach(relation -> relations.set(relation.mode()));
        return relations;
    }

    /** Whether anything depends on time directly. */
    boolean isAnything() {
        return system.assignments().stream().anyMatch(assignment -> usesTime(assignment.term()))
                || system.flat().relations().stream().anyMatch(relation -> usesTime(relation.margin()));
    }

    private static boolean usesTime(Term term) {
        return switch (term) {
            case Term.Constant _, Term.Variable _ -> false;
            case Term.Time _ -> true;
            case Term.Arithmetic a -> usesTime(a.left()) || usesTime(a.right());
            case Term.Call c -> usesTime(c.argument());
            case Term.Choice c -> usesTime(c.condition()) || usesTime(c.whenTrue()) || usesTime(c.whenFalse());
        };
    }

    private static boolean usesTime(Condition condition) {
        return switch (condition) {
            case Condition.Fixed _ -> false;
            case Condition.Relation r -> usesTime(r.margin());
            case Condition.Both b -> usesTime(b.left()) || usesTime(b.right());
            case Condition.Either e -> usesTime(e.left()) || usesTime(e.right());
            case Condition.Not n -> usesTime(n.operand());
        };
    }

    /** Adds the variables that are computed from one in the set, or by a term that counts itself. */
    private void spread(BitSet variables, Predicate<Term> counts) {
        system.assignments().forEach(assignment -> {
            if (counts.test(assignment.term()) || uses(variables, assignment.term())) {
                variables.set(assignment.variable());
            }
        });
    }

    private static boolean uses(BitSet variables, Term term) {
        BitSet used = new BitSet();
        term.variables(used::set);
        return used.intersects(variables);
    }

    private static boolean chooses(Term term) {
        return switch (term) {
            case Term.Constant _, Term.Variable _, Term.Time _ -> false;
            case Term.Arithmetic a -> chooses(a.left()) || chooses(a.right());
            case Term.Call c -> chooses(c.argument());
            case Term.Choice _ -> true;
        };
    }
}
