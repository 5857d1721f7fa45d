package pyrite.core.execution;

import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.Term;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;

/** Prepares pools, and what steps claim of them. */
final class PoolsPreparing extends Preparing {
    private static final ElementId DRAW = LibraryNames.id("Execution::Draw");
    private static final ElementId FILL = LibraryNames.id("Execution::Fill");

    private final Map<Instance, Program.PoolNode> pools = new IdentityHashMap<>();

    PoolsPreparing(Preparing shared) {
        super(shared);
    }

    Map<Instance, Program.PoolNode> pools() {
        return pools;
    }

    void claims(StepNode node) {
        for (Element feature : model.inheritance().features(node.element)) {
            if (feature.kind() == ElementKind.ITEM
                    && model.inheritance().isA(feature, CLAIM)
                    && !model.isLibrary(feature.id())) {
                flattening.in(node.instance, feature).forEach(claim -> later.add(() -> claim(node, feature, claim)));
            }
        }
    }

    private void claim(StepNode node, Element feature, Instance claim) {
        Element pool = effective(feature, "Execution::Claim::pool");
        List<Instance> pooled = pool == null ? List.of() : flattening.in(claim, pool);
        if (pooled.size() != 1 || !isPool(pooled.getFirst())) {
            throw new ModelFault(
                    "'" + claim.path()
                            + "' does not say which pool it claims; write 'ref part :>> pool = …;' with a part that is a Pool",
                    List.of(feature.id()));
        }
        StepNode.ClaimNode.Use use = model.inheritance().isA(feature, DRAW)
                ? StepNode.ClaimNode.Use.DRAW
                : model.inheritance().isA(feature, FILL) ? StepNode.ClaimNode.Use.FILL : StepNode.ClaimNode.Use.HOLD;
        node.claims.add(new StepNode.ClaimNode(
                pooled.getFirst(),
                valueOf(claim, feature, "Execution::Claim::amount").orElse(Formula.ONE),
                valueOf(claim, feature, "Execution::Claim::priority")
                        .orElse(new Formula(new Term.Constant(0), List.of())),
                use));
        pool(pooled.getFirst());
    }

    boolean isPool(Instance instance) {
        return isPart(instance) && model.inheritance().isA(instance.usage(), LibraryNames.id(LibraryNames.POOL));
    }

    void pool(Instance instance) {
        if (!pools.containsKey(instance)) {
            flattening.noteRead(instance.usage());
            pools.put(
                    instance,
                    new Program.PoolNode(
                            instance,
                            subject(Subject.Kind.POOL, instance),
                            flattening.pooled(instance),
                            valueOf(instance, instance.usage(), LibraryNames.CAPACITY)
                                    .orElse(Formula.ONE),
                            valueOf(instance, instance.usage(), "Execution::Pool::initially")
                                    .orElse(null)));
        }
    }
}
