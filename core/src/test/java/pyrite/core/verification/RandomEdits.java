package pyrite.core.verification;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Reference;
import pyrite.core.notation.Authoring;

/** Edits of one model by any construct, some of which are refused. */
final class RandomEdits {
    private final Model model;
    private final List<Element> own;
    private final List<String> values;
    private final List<String> members;

    RandomEdits(Model model, List<String> values, List<String> members) {
        this.model = model;
        this.own = model.ownElements().stream()
                .sorted(Comparator.comparing(Element::id))
                .toList();
        this.values = values;
        this.members = members;
    }

    /** Null if no edit comes of it. */
    @Nullable
    Edit next(Random random) {
        Element one = own.get(random.nextInt(own.size()));
        Element other = own.get(random.nextInt(own.size()));
        Authoring authoring = new Authoring(model);
        return switch (random.nextInt(9)) {
            case 0 -> removal(one);
            case 1 ->
                accepted(() -> authoring.value(
                        model.find(one.owner() == null ? one.id() : one.owner()).orElseThrow(),
                        one,
                        pick(values, random)));
            case 2 -> accepted(() -> authoring.value(one, other, pick(values, random)));
            case 3, 4 -> accepted(() -> authoring.members(one, pick(members, random)));
            case 5 -> Edit.put(one.withOwner(other.id(), one.rank()));
            case 6 -> Edit.put(one.with(pyrite.core.model.Property.TYPES, List.of(Reference.to(other.id()))));
            case 7 -> Edit.put(one.with(pyrite.core.model.Property.REDEFINES, List.of(Reference.to(other.id()))));
            default -> retargeted(one, other, random);
        };
    }

    private Edit removal(Element one) {
        Set<ElementId> all = new HashSet<>();
        model.subtree(one.id()).forEach(each -> all.add(each.id()));
        return new Edit(List.of(), all);
    }

    private Edit retargeted(Element one, Element other, Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> Edit.put(one.with(pyrite.core.model.Property.TARGET, Reference.to(other.id())));
            case 1 -> Edit.put(one.with(pyrite.core.model.Property.BY, Reference.to(other.id())));
            case 2 -> Edit.put(one.with(pyrite.core.model.Property.SPECIALIZES, List.of(Reference.to(other.id()))));
            default ->
                one.get(pyrite.core.model.Property.RESULT).isEmpty()
                                || other.get(pyrite.core.model.Property.RESULT).isEmpty()
                        ? Edit.put(one.with(pyrite.core.model.Property.NEGATED, true))
                        : Edit.put(one.with(
                                pyrite.core.model.Property.RESULT,
                                other.get(pyrite.core.model.Property.RESULT).orElseThrow()));
        };
    }

    private <T> T pick(List<T> from, Random random) {
        return from.get(random.nextInt(from.size()));
    }

    private Edit accepted(Supplier<Authoring.Proposal> proposal) {
        return proposal.get() instanceof Authoring.Proposal.Accepted accepted ? accepted.edit() : null;
    }
}
