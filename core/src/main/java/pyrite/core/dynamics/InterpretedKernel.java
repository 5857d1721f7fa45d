package pyrite.core.dynamics;

import java.util.List;

/**
 * Computes a sorted system by interpreting its terms. Slower and much simpler than the class that {@link Compiler}
 * generates: the fallback for terms too large for one JVM method, and the reference that the compiler is tested
 * against.
 */
record InterpretedKernel(List<SortedSystem.Assignment> assignments, List<Condition.Relation> relations)
        implements Kernel {
    static InterpretedKernel of(SortedSystem system) {
        return new InterpretedKernel(system.assignments(), system.flat().relations());
    }

    @Override
    public void evaluate(double t, double[] v, boolean[] modes) {
        evaluate(t, v, modes, false);
    }

    @Override
    public void output(double t, double[] v, boolean[] modes) {
        evaluate(t, v, modes, true);
    }

    private void evaluate(double t, double[] v, boolean[] modes, boolean kinksByValue) {
        for (SortedSystem.Assignment assignment : assignments) {
            v[assignment.variable()] = value(assignment.term(), t, v, modes, kinksByValue);
        }
    }

    @Override
    public void margins(double t, double[] v, boolean[] modes, double[] margins) {
        for (int i = 0; i < relations.size(); i++) {
            margins[i] = value(relations.get(i).margin(), t, v, modes, false);
        }
    }

    static double value(Term term, double t, double[] v, boolean[] modes) {
        return value(term, t, v, modes, false);
    }

    private static double value(Term term, double t, double[] v, boolean[] modes, boolean kinksByValue) {
        return switch (term) {
            case Term.Constant c -> c.value();
            case Term.Variable x -> v[x.index()];
            case Term.Time _ -> t;
            case Term.Arithmetic a ->
                a.sign().apply(value(a.left(), t, v, modes, kinksByValue), value(a.right(), t, v, modes, kinksByValue));
            case Term.Call c -> c.function().apply(value(c.argument(), t, v, modes, kinksByValue), 0);
            case Term.Choice c -> {
                boolean holds = kinksByValue && c.condition() instanceof Condition.Relation r && r.kink()
                        ? r.holds(value(r.left(), t, v, modes, true) - value(r.right(), t, v, modes, true))
                        : holds(c.condition(), modes);
                yield value(holds ? c.whenTrue() : c.whenFalse(), t, v, modes, kinksByValue);
            }
        };
    }

    static boolean holds(Condition condition, boolean[] modes) {
        return switch (condition) {
            case Condition.Fixed f -> f.holds();
            case Condition.Relation r -> modes[r.mode()];
            case Condition.Both b -> holds(b.left(), modes) && holds(b.right(), modes);
            case Condition.Either e -> holds(e.left(), modes) || holds(e.right(), modes);
            case Condition.Not n -> !holds(n.operand(), modes);
        };
    }
}
