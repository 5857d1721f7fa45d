package pyrite.core.execution;

import java.util.List;
import pyrite.core.dynamics.HeldAttribute;

/**
 * Where an item that arrives is kept: the variables of its attributes, or the one variable of a value.
 *
 * @param isValue whether it takes a value alone
 */
record ItemSlot(List<HeldAttribute> attributes, boolean isValue) {
    static final ItemSlot NOTHING = new ItemSlot(List.of(), false);
}
