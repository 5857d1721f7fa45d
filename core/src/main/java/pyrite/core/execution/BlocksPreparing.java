package pyrite.core.execution;

import java.util.List;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Property;

/** Prepares steps with blocks: conditions and loops. */
final class BlocksPreparing extends Preparing {
    private final StepsPreparing steps;

    BlocksPreparing(Preparing shared, StepsPreparing steps) {
        super(shared);
        this.steps = steps;
    }

    private List<Element> blocks(Element form) {
        return model.children(form.id()).stream()
                .filter(child -> child.kind() == ElementKind.BLOCK || child.kind() == ElementKind.IF)
                .toList();
    }

    /** A block is a step of its own, without a place in the order of others. */
    private StepNode block(Element block, StepNode around) {
        Instance instance = flattening.inside(block, around.instance);
        if (block.kind() == ElementKind.IF) {
            return steps.step(block, instance);
        }
        read(block);
        StepNode node = steps.nodeOf(block, instance);
        node.deed = new Deed.Steps(steps.net(block, instance));
        return node;
    }

    private StepNode round(Element form, StepNode node) {
        List<Element> blocks = blocks(form);
        if (blocks.isEmpty()) {
            throw new ModelFault("'" + node.path() + "' has nothing to repeat", List.of(form.id()));
        }
        return block(blocks.getFirst(), node);
    }

    Deed choice(StepNode node, Element form) {
        List<Element> blocks = blocks(form);
        StepNode yes = blocks.isEmpty() ? null : block(blocks.getFirst(), node);
        StepNode no = blocks.size() < 2 ? null : block(blocks.get(1), node);
        Expression condition = required(form, Property.CONDITION, node);
        later.add(() -> node.deed = new Deed.Choose(question(condition, node.instance), yes, no));
        return new Deed.Nothing();
    }

    Deed repeated(StepNode node, Element form) {
        StepNode round = round(form, node);
        Expression before = form.get(Property.CONDITION).orElse(null);
        Expression until = form.get(Property.UNTIL).orElse(null);
        later.add(() -> node.deed = new Deed.Repeat(
                before == null ? null : question(before, node.instance),
                round,
                until == null ? null : question(until, node.instance)));
        return new Deed.Nothing();
    }

    Deed forEach(StepNode node, Element form) {
        StepNode round = round(form, node);
        Expression values = required(form, Property.CONDITION, node);
        later.add(() -> {
            HeldAttribute variable = flattening.held(node.instance).stream()
                    .filter(each -> each.feature().kind() == ElementKind.LOOP_VARIABLE)
                    .findFirst()
                    .orElse(null);
            List<Formula> each = flattening.several(values, node.instance).stream()
                    .map(term -> new Formula(term, List.of()))
                    .toList();
            node.deed = new Deed.ForEach(variable, each, round);
        });
        return new Deed.Nothing();
    }

    private Expression required(Element form, Property<Expression> property, StepNode node) {
        return form.get(property)
                .orElseThrow(() -> new ModelFault("'" + node.path() + "' has no condition", List.of(form.id())));
    }
}
