package pyrite.core.model;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** An element as a namespace: its members by name, its imports, and the results of earlier lookups. */
final class Namespace {
    private static final Map<String, Optional<ElementId>> NONE = Map.of();

    /** Those who answer for the names in it. */
    final Names home;

    final Element element;
    final Map<String, Element> members;
    final List<Import> imports;
    /** What its imports bring in by names that were asked for. */
    final Map<String, Optional<ElementId>> found;
    /** The namespace around it, and those it inherits from; null until somebody asks and they are known for good. */
    volatile @Nullable Namespace outer;

    volatile @Nullable List<Namespace> generals;
    /** Its members as seen from outside; null until somebody gathers them. */
    volatile @Nullable Map<String, ElementId> seenFromOutside;

    Namespace(Names home, Element element, Map<String, Element> members, List<Import> imports) {
        this.home = home;
        this.element = element;
        this.members = members;
        this.imports = imports;
        this.found = imports.isEmpty() ? NONE : new ConcurrentHashMap<>();
    }

    /** An import, with the element it names once that is resolved. */
    static final class Import {
        final Element element;
        final boolean isPublic;
        /** "one", "members", "all" or "self". */
        final String reach;
        /** Whether it sees what is private there. */
        final boolean seesAll;

        @Nullable
        Namespace target;

        Import(Element element) {
            this.element = element;
            this.isPublic = isPublic(element);
            this.seesAll = element.get(Property.ALL).orElse(false);
            this.reach = element.get(Property.REACH).orElse("one");
        }

        /**
         * Whether it brings in a package: what is in one does not hang on what others inherit, which may still be in
         * the course of being found.
         */
        boolean bringsInPackage() {
            return target != null
                    && reach.equals("members")
                    && target.element.kind().isPackage();
        }

        /** Imports are private unless they say otherwise (SysML 2.0, 8.2.2.5.1). */
        static boolean isPublic(Element importElement) {
            return "public".equals(importElement.properties().get(Property.VISIBILITY));
        }
    }
}
