package pyrite.core.model;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** An element as a place where names are looked up: what it holds by name, what it imports, and what was found that way. */
final class Namespace {
    private static final Map<String, Optional<ElementId>> NONE = Map.of();

    /** Those who answer for the names in it. */
    final Names home;
    final Element element;
    final Map<String, Element> members;
    final List<Import> imports;
    private final Map<String, Optional<ElementId>> found;

    Namespace(Names home, Element element, Map<String, Element> members, List<Import> imports) {
        this.home = home;
        this.element = element;
        this.members = members;
        this.imports = imports;
        this.found = imports.isEmpty() ? NONE : new ConcurrentHashMap<>();
    }

    /** What its imports bring in by a name, or that they do not, if it was asked before and is the same whenever it is asked. */
    @Nullable Optional<ElementId> foundBefore(String name) {
        return found.get(name);
    }

    /**
     * Remembered where the imports bring in packages alone: what is in these does not hang on what others inherit, which may
     * still be in the course of being found.
     */
    void remember(String name, Optional<ElementId> result) {
        for (Import each : imports) {
            if (each.target == null || !each.reach.equals("members") || !each.target.element.kind().isPackage()) {
                return;
            }
        }
        found.put(name, result);
    }

    /** An import with what it names as soon as that is known. */
    static final class Import {
        final Element element;
        final boolean isPublic;
        /** "one", "members", "all" or "self". */
        final String reach;
        @Nullable Namespace target;

        Import(Element element) {
            this.element = element;
            this.isPublic = isPublic(element);
            this.reach = element.get(Property.REACH).orElse("one");
        }

        /** Imports are private unless they say otherwise (SysML 2.0, 8.2.2.5.1). */
        static boolean isPublic(Element importElement) {
            return importElement.get(Property.VISIBILITY).filter("public"::equals).isPresent();
        }
    }
}
