package pyrite.core.execution;

import java.util.List;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Draw;

/**
 * A condition that is asked where something happens.
 *
 * @param draws what is drawn for it each time
 */
record Question(Condition condition, List<Draw> draws) {}
