package pyrite.core.dynamics;

import java.util.List;
import pyrite.core.expression.Distribution;

/**
 * A value that is drawn at random.
 *
 * @param variable the index under which it is kept
 * @param parameters those of the distribution; of a table the values
 * @param shares of a table the shares; otherwise empty
 * @param source what tells it from all others, so that it has a stream of random numbers of its own
 */
public record Draw(int variable, Distribution distribution, List<Term> parameters, List<Term> shares, String source) {
    public Draw {
        parameters = List.copyOf(parameters);
        shares = List.copyOf(shares);
    }
}
