package pyrite.app.requirements;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import pyrite.app.requirements.RequirementRows.Show;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Query;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.specification.AttributeCondition;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Selection;
import pyrite.core.specification.Specification.Item;

/** Selects the rows of the grid for the query in its address. */
@Component
public class GridRows {
    private final SpecificationLines lines;
    private final RequirementRows requirements;

    GridRows(SpecificationLines lines, RequirementRows requirements) {
        this.lines = lines;
        this.requirements = requirements;
    }

    /** The requirements that are shown, in the order of the rows. */
    public Stream<Element> requirements(Workspace.Head head, Asked asked) {
        return of(head, asked, Attributes.in(head.model())).stream()
                .map(Selection.Line::item)
                .filter(Objects::nonNull)
                .filter(item -> item.type() == Item.Type.REQUIREMENT)
                .map(Item::element);
    }

    /**
     * The query as written in addresses: {@code where=status:approved} as in {@link AttributeCondition},
     * {@code sort=-id} for descending order.
     */
    public record Asked(
            @Nullable String spec,
            @Nullable String q,
            @Nullable List<String> where,
            @Nullable String show,
            @Nullable String sort,
            @Nullable String group) {

        /** What a view asks that was kept from the grid. */
        public static Asked of(Query query) {
            return new Asked(
                    query.first("spec"),
                    query.first("q"),
                    query.all("where"),
                    query.find("show").orElse(null),
                    query.find("sort").orElse(null),
                    query.find("group").orElse(null));
        }
    }

    /** @throws NotFound naming what is asked for that cannot be, such as a number that is none */
    List<Selection.Line> of(Workspace.Head head, Asked asked, Attributes attributes) {
        String sort = orEmpty(asked.sort());
        boolean descending = sort.startsWith("-");
        @Nullable Predicate<Element> standing = standing(head, asked.show() == null ? "all" : asked.show());
        try {
            Selection selection = new Selection(
                    orEmpty(asked.q()),
                    conditions(asked.where() == null ? List.of() : asked.where()),
                    descending ? sort.substring(1) : sort,
                    descending,
                    orEmpty(asked.group()));
            return selection.of(head.model(), lines.of(head, orEmpty(asked.spec())), attributes, standing);
        } catch (IllegalArgumentException | Attributes.ValueFault fault) {
            throw new NotFound(Objects.requireNonNull(fault.getMessage()));
        }
    }

    private static String orEmpty(@Nullable String text) {
        return text == null ? "" : text;
    }

    private static List<AttributeCondition> conditions(List<String> where) {
        return where.stream()
                .filter(each -> !each.isEmpty())
                .map(AttributeCondition::parse)
                .toList();
    }

    private @Nullable Predicate<Element> standing(Workspace.Head head, String show) {
        Show requested = Arrays.stream(Show.values())
                .filter(each -> each.key().equals(show))
                .findFirst()
                .orElseThrow(() -> new NotFound("there is no selection of requirements called " + show));
        if (requested == Show.ALL) {
            return null;
        }
        var taken = requirements.of(head).stream()
                .filter(requested::takes)
                .map(row -> row.element().id())
                .collect(Collectors.toSet());
        return element -> taken.contains(element.id());
    }
}
