package pyrite.core.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Metadata;

/**
 * A kind of link. Four are relations of the language (frame, satisfy, verify, allocate). The others are dependencies
 * marked with metadata, which a project may define; a dependency without a mark is a trace.
 *
 * @param key its name in rules and addresses
 * @param mark the metadata definition that marks dependencies of this kind; null for other kinds
 * @param forward the relation from source to target: "derives from"
 * @param backward the relation from target to source: "derived into"
 * @param upward whether the target is what the source comes from, and not what realises it
 */
public record LinkKind(
        String key, ElementKind carrier, @Nullable ElementId mark, String forward, String backward, boolean upward) {
    public static final LinkKind FRAME =
            new LinkKind("frame", ElementKind.FRAMED_CONCERN, null, "answers", "answered by", true);
    public static final LinkKind SATISFY =
            new LinkKind("satisfy", ElementKind.SATISFACTION, null, "satisfies", "satisfied by", true);
    public static final LinkKind VERIFY =
            new LinkKind("verify", ElementKind.VERIFIED_REQUIREMENT, null, "verifies", "verified by", true);
    public static final LinkKind ALLOCATE =
            new LinkKind("allocate", ElementKind.ALLOCATION, null, "allocated to", "carries", false);
    public static final LinkKind TRACE =
            new LinkKind("trace", ElementKind.DEPENDENCY, null, "traces to", "traced from", true);
    public static final String DERIVE = "derive";

    /** The relations of the language. */
    private static final List<LinkKind> BUILT_IN = List.of(FRAME, SATISFY, VERIFY, ALLOCATE);

    /** All kinds there are in a project: those of the library first, then its own, then the bare trace. */
    public static List<LinkKind> all(Model model) {
        List<LinkKind> all = new ArrayList<>();
        Metadata.withSpecialisations(model, Metadata.LINK_KIND).stream()
                .skip(1)
                .map(model::get)
                .sorted(java.util.Comparator.comparing((Element each) -> !model.isLibrary(each.id()))
                        .thenComparing(Element::rank))
                .forEach(each -> all.add(marked(model, each)));
        all.addAll(BUILT_IN);
        all.add(TRACE);
        return all;
    }

    /** Whether it is the same kind as another of the same project; quicker than comparing all that is said of them. */
    boolean is(LinkKind other) {
        return this == other || carrier == other.carrier && key.equals(other.key);
    }

    public static Optional<LinkKind> named(Model model, String key) {
        return all(model).stream().filter(kind -> kind.key().equals(key)).findFirst();
    }

    static LinkKind marked(Model model, Element definition) {
        String name = Objects.requireNonNullElse(definition.name(), "");
        String key = Objects.requireNonNullElse(definition.shortName(), name);
        String forward = words(model, definition, "forward");
        String backward = words(model, definition, "backward");
        return new LinkKind(
                key,
                ElementKind.DEPENDENCY,
                definition.id(),
                forward.isEmpty() ? key : forward,
                backward.isEmpty() ? "the other way of " + key : backward,
                true);
    }

    private static String words(Model model, Element definition, String feature) {
        return model.names()
                .member(definition.id(), feature)
                .flatMap(id -> model.inheritance().value(model.get(id)))
                .map(value -> value.expression() instanceof pyrite.core.expression.Expression.StringLiteral text
                        ? text.text()
                        : "")
                .orElse("");
    }
}
