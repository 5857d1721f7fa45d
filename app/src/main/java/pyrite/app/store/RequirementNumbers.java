package pyrite.app.store;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.IntStream;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Specification;

/**
 * Assigns numbers to requirements. A number of a prefix is assigned once in a project, even if its requirement is
 * removed.
 */
@Repository
public class RequirementNumbers {
    private final NumberMapper mapper;

    public RequirementNumbers(NumberMapper mapper) {
        this.mapper = mapper;
    }

    /**
     * Takes the next ids of a prefix; nobody else gets them, even if they are not used in the end. Not part of a larger
     * transaction: who comes next must see at once what is taken.
     *
     * @param above the largest number in use as far as the caller knows
     */
    @Transactional(propagation = Propagation.NOT_SUPPORTED)
    public synchronized List<String> take(Branch branch, String prefix, int above, int count) {
        int first = Math.max(mapper.highest(branch.id(), prefix), above) + 1;
        mapper.seen(branch.id(), prefix, first + count - 1);
        return IntStream.range(first, first + count)
                .mapToObj(number -> new RequirementIds.Numbered(prefix, number).toString())
                .toList();
    }

    /** Remembers the ids that a change brings in, however they came about. */
    void seen(Branch branch, Difference difference) {
        Map<String, Integer> highest = new HashMap<>();
        difference.changes().stream()
                .map(ElementChange::after)
                .filter(Objects::nonNull)
                .filter(Specification::isRequirement)
                .map(Element::shortName)
                .filter(Objects::nonNull)
                .flatMap(id -> RequirementIds.parse(id).stream())
                .forEach(id -> highest.merge(id.prefix(), id.number(), Math::max));
        highest.forEach((prefix, number) -> {
            if (number > mapper.highest(branch.id(), prefix)) {
                mapper.seen(branch.id(), prefix, number);
            }
        });
    }
}
