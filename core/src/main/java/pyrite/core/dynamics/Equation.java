package pyrite.core.dynamics;

import pyrite.core.model.ElementId;

/** {@code left == right}, with the element it was written in and a label for messages. */
public record Equation(Term left, Term right, ElementId source, String label) {
    Term residual() {
        return Terms.minus(left, right);
    }
}
