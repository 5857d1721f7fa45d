package pyrite.app.requirements;

import java.util.List;
import org.springframework.stereotype.Component;
import pyrite.app.store.RequirementNumbers;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.specification.Specification;

/** Assigns ids to new requirements, with the prefix of their specification. */
@Component
public class NewIds {
    /** Outside of specifications, and in those without a prefix. */
    private static final String PREFIX = "R";

    private final RequirementNumbers numbers;

    NewIds(RequirementNumbers numbers) {
        this.numbers = numbers;
    }

    public List<String> take(Workspace.Head head, Element owner, int count) {
        String prefix = Specification.of(head.model(), owner, true)
                .map(Specification::prefix)
                .filter(each -> !each.isEmpty())
                .orElse(PREFIX);
        return count == 0
                ? List.of()
                : numbers.take(head.branch(), prefix, Specification.highest(head.model(), prefix), count);
    }
}
