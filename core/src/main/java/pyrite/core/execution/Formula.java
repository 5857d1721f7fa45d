package pyrite.core.execution;

import java.util.List;
import pyrite.core.dynamics.Draw;
import pyrite.core.dynamics.Term;

/**
 * A number that is worked out where something happens.
 *
 * @param draws what is drawn for it each time
 */
record Formula(Term term, List<Draw> draws) {
    static final Formula ONE = new Formula(new Term.Constant(1), List.of());
}
