package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import pyrite.core.expression.MathFunction;

/** Terms and conditions of every form over the variables from 0 up to a number of them. */
final class RandomTerms {
    private final Random random;
    private final int variables;
    private final List<Condition.Relation> relations = new ArrayList<>();

    RandomTerms(Random random, int variables) {
        this.random = random;
        this.variables = variables;
    }

    List<Condition.Relation> relations() {
        return relations;
    }

    Term term(int depth) {
        if (depth == 0) {
            return switch (random.nextInt(3)) {
                case 0 -> Terms.constant(random.nextInt(-4, 5));
                case 1 -> new Term.Time();
                default -> new Term.Variable(random.nextInt(variables));
            };
        }
        return switch (random.nextInt(4)) {
            case 0 -> new Term.Call(MathFunction.values()[4 + random.nextInt(8)], term(depth - 1));
            case 1 -> new Term.Choice(condition(2), term(depth - 1), term(depth - 1));
            default -> new Term.Arithmetic(Term.Sign.values()[random.nextInt(5)], term(depth - 1), term(depth - 1));
        };
    }

    Condition condition(int depth) {
        if (depth == 0) {
            Term left = term(1);
            Term right = term(1);
            Condition.Relation relation =
                    new Condition.Relation(relations.size(), left, right, random.nextBoolean(), false);
            relations.add(relation);
            return relation;
        }
        return switch (random.nextInt(4)) {
            case 0 -> new Condition.Not(condition(depth - 1));
            case 1 -> new Condition.Both(condition(depth - 1), condition(depth - 1));
            case 2 -> new Condition.Either(condition(depth - 1), condition(depth - 1));
            default -> new Condition.Fixed(random.nextBoolean());
        };
    }
}
