package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.ParserRuleContext;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Name;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;

/** Makes drafts of elements from parse trees. */
final class ElementBuilder {
    /** Gives an element its id from its qualified name. */
    interface Ids {
        Ids RANDOM = _ -> ElementId.random();

        ElementId idOf(String qualifiedName);
    }

    private final Ids ids;
    private final @Nullable ElementId top;
    private Rank lastTop;
    private final List<Draft> drafts = new ArrayList<>();
    private final Map<ElementId, Reading.Place> places = new LinkedHashMap<>();
    private final Map<ElementId, String> paths = new HashMap<>();
    private Source source = new Source("", "");
    private Notes notes = Notes.NONE;
    private BiConsumer<Span, String> problems = (_, _) -> {
    };

    ElementBuilder(Ids ids, @Nullable ElementId top, Rank firstTop) {
        this.ids = ids;
        this.top = top;
        this.lastTop = firstTop;
    }

    List<Draft> drafts() {
        return drafts;
    }

    Map<ElementId, Reading.Place> places() {
        return places;
    }

    void build(NotationParser.FileContext tree, Source from, CommonTokenStream tokens, BiConsumer<Span, String> faults) {
        source = from;
        notes = new Notes(tokens);
        problems = faults;
        List<Rank> ranks = Rank.after(lastTop, tree.member().size());
        for (int i = 0; i < tree.member().size(); i++) {
            member(tree.member(i), top, ranks.get(i));
            lastTop = ranks.get(i);
        }
    }

    private void members(List<NotationParser.MemberContext> members, ElementId owner) {
        List<Rank> ranks = Rank.after(null, members.size());
        for (int i = 0; i < members.size(); i++) {
            member(members.get(i), owner, ranks.get(i));
        }
    }

    private void member(NotationParser.MemberContext tree, @Nullable ElementId owner, Rank rank) {
        Map<Property<?>, Object> properties = new TreeMap<>();
        if (tree.visibility() != null) {
            properties.put(Property.VISIBILITY, tree.visibility().getText());
        }
        if (tree.packageDeclaration() != null) {
            packaged(tree, tree.packageDeclaration(), owner, rank, properties);
        } else if (tree.importDeclaration() != null) {
            imported(tree, tree.importDeclaration(), owner, rank, properties);
        } else if (tree.documentation() != null) {
            properties.put(Property.TEXT, BlockText.read(tree.documentation().BLOCK().getText()));
            add(tree, ElementKind.DOCUMENTATION, owner, rank, tree.documentation().identification(), properties);
        } else if (tree.comment() != null) {
            properties.put(Property.TEXT, BlockText.read(tree.comment().BLOCK().getText()));
            add(tree, ElementKind.COMMENT, owner, rank, tree.comment().identification(), properties);
        } else if (tree.binding() != null) {
            Draft draft = add(tree, ElementKind.BINDING, owner, rank, null, properties);
            draft.refer(Property.LEFT, pending(tree.binding().chain(0)));
            draft.refer(Property.RIGHT, pending(tree.binding().chain(1)));
        } else if (tree.satisfaction() != null) {
            satisfaction(tree, tree.satisfaction(), owner, rank, properties);
        } else if (tree.verified() != null) {
            add(tree, ElementKind.VERIFIED_REQUIREMENT, owner, rank, null, properties)
                    .refer(Property.TARGET, pending(tree.verified().chain()));
        } else if (tree.declaration() != null) {
            declared(tree, tree.declaration(), owner, rank, properties);
        }
    }

    private void packaged(NotationParser.MemberContext member, NotationParser.PackageDeclarationContext tree,
            @Nullable ElementId owner, Rank rank, Map<Property<?>, Object> properties) {
        ElementKind kind = tree.getStart().getText().equals("library") ? ElementKind.LIBRARY_PACKAGE : ElementKind.PACKAGE;
        Draft draft = add(member, kind, owner, rank, tree.identification(), properties);
        members(tree.member(), draft.element.id());
    }

    private void imported(NotationParser.MemberContext member, NotationParser.ImportDeclarationContext tree,
            @Nullable ElementId owner, Rank rank, Map<Property<?>, Object> properties) {
        String reach = tree.importReach() == null ? "one" : tree.importReach().getText().endsWith("**") ? "all" : "members";
        properties.put(Property.REACH, reach);
        add(member, ElementKind.IMPORT, owner, rank, null, properties).refer(Property.TARGET,
                new Draft.Pending(List.of(ExpressionBuilder.name(tree.qualifiedName())), ExpressionBuilder.span(tree.qualifiedName())));
    }

    private void satisfaction(NotationParser.MemberContext member, NotationParser.SatisfactionContext tree,
            @Nullable ElementId owner, Rank rank, Map<Property<?>, Object> properties) {
        Draft draft = add(member, ElementKind.SATISFACTION, owner, rank, null, properties);
        draft.refer(Property.TARGET, pending(tree.chain(0)));
        if (tree.chain().size() > 1) {
            draft.refer(Property.BY, pending(tree.chain(1)));
        }
    }

    private void declared(NotationParser.MemberContext member, NotationParser.DeclarationContext tree,
            @Nullable ElementId owner, Rank rank, Map<Property<?>, Object> properties) {
        ElementKind kind = kind(tree);
        tree.prefix().forEach(prefix -> {
            if (prefix.getText().equals("abstract")) {
                properties.put(Property.ABSTRACT, true);
            } else {
                properties.put(Property.DIRECTION, prefix.getText());
            }
        });
        tree.clause().forEach(clause -> multiplicity(clause, properties));
        Draft draft = add(member, kind, owner, rank, tree.identification(), properties, redefinedName(tree));
        tree.clause().forEach(clause -> references(draft, clause));
        value(draft, tree.value());
        NotationParser.EndingContext ending = tree.ending();
        members(ending.member(), draft.element.id());
        if (ending.expression() != null) {
            draft.result = ExpressionBuilder.build(ending.expression());
            requireResultAllowed(draft, ending.expression());
        }
    }

    private void requireResultAllowed(Draft draft, NotationParser.ExpressionContext tree) {
        if (!draft.element.kind().takes(Property.RESULT)) {
            problems.accept(ExpressionBuilder.span(tree), "an expression cannot stand alone in a "
                    + draft.element.kind().title() + "; put it into a constraint: assert constraint { … }");
            draft.result = null;
        }
    }

    private ElementKind kind(NotationParser.DeclarationContext tree) {
        boolean definition = tree.DEF() != null;
        if (tree.keyword() == null) {
            return ElementKind.REFERENCE;
        }
        String keyword = String.join(" ", tree.keyword().children.stream().map(child -> child.getText()).toList());
        return ElementKind.declaredBy(keyword, definition).orElseGet(() -> {
            problems.accept(ExpressionBuilder.span(tree.keyword()), definition
                    ? "there is no definition of kind '" + keyword + "'" : "'" + keyword + "' is followed by 'def' here");
            return ElementKind.REFERENCE;
        });
    }

    private static @Nullable String redefinedName(NotationParser.DeclarationContext tree) {
        return tree.clause().stream().filter(NotationParser.RedefinedContext.class::isInstance)
                .map(clause -> ((Name) ExpressionBuilder.chain(((NotationParser.RedefinedContext) clause).references()
                        .chain(0)).getLast()).last())
                .findFirst().orElse(null);
    }

    private void multiplicity(NotationParser.ClauseContext clause, Map<Property<?>, Object> properties) {
        if (clause instanceof NotationParser.MultiplicityContext m) {
            try {
                int first = bound(m.bound(0));
                int upper = m.bound().size() > 1 ? bound(m.bound(1)) : first;
                int lower = m.bound().size() > 1 || first != Multiplicity.MANY ? first : 0;
                properties.put(Property.MULTIPLICITY, new Multiplicity(lower, upper));
            } catch (IllegalArgumentException e) {
                problems.accept(ExpressionBuilder.span(m), "a multiplicity is written with whole numbers, lower first, as in [2] or [0..*]");
            }
        }
    }

    private static int bound(NotationParser.BoundContext bound) {
        return bound.getText().equals("*") ? Multiplicity.MANY : Integer.parseInt(bound.getText());
    }

    private static void references(Draft draft, NotationParser.ClauseContext clause) {
        switch (clause) {
            case NotationParser.TypedContext c -> refer(draft, Property.TYPES, c.references());
            case NotationParser.SpecializedContext c -> refer(draft, Property.SPECIALIZES, c.references());
            case NotationParser.RedefinedContext c -> refer(draft, Property.REDEFINES, c.references());
            default -> {
            }
        }
    }

    private static void refer(Draft draft, Property<?> property, NotationParser.ReferencesContext references) {
        references.chain().forEach(chain -> draft.refer(property, pending(chain)));
    }

    private static void value(Draft draft, NotationParser.@Nullable ValueContext tree) {
        if (tree != null) {
            draft.value = ExpressionBuilder.build(tree.expression());
            draft.valueKind = tree.getStart().getText().equals("=") ? FeatureValue.Kind.FIXED : FeatureValue.Kind.INITIAL;
        }
    }

    private static Draft.Pending pending(NotationParser.ChainContext chain) {
        return new Draft.Pending(ExpressionBuilder.chain(chain), ExpressionBuilder.span(chain));
    }

    private Draft add(NotationParser.MemberContext member, ElementKind kind, @Nullable ElementId owner, Rank rank,
            NotationParser.@Nullable IdentificationContext identification, Map<Property<?>, Object> properties) {
        return add(member, kind, owner, rank, identification, properties, null);
    }

    private Draft add(NotationParser.MemberContext member, ElementKind kind, @Nullable ElementId owner, Rank rank,
            NotationParser.@Nullable IdentificationContext identification, Map<Property<?>, Object> properties,
            @Nullable String redefined) {
        String name = null;
        String shortName = null;
        if (identification != null) {
            List<NotationParser.NameContext> names = identification.name();
            boolean brackets = identification.getStart().getText().equals("<");
            shortName = brackets ? ExpressionBuilder.name(names.getFirst()) : null;
            name = brackets && names.size() == 1 ? null : ExpressionBuilder.name(names.getLast());
        }
        notes.of(member, properties);
        String own = name != null ? name : redefined != null ? redefined : kind.keyword() + "#" + rank.digits();
        String path = owner == null ? own : paths.getOrDefault(owner, "") + "::" + own;
        ElementId id = ids.idOf(path);
        paths.put(id, path);
        Draft draft = new Draft(new Element(id, kind, owner, rank, name, shortName, properties));
        drafts.add(draft);
        places.put(id, new Reading.Place(source, headOf(member, identification)));
        return draft;
    }

    private static Span headOf(ParserRuleContext member, @Nullable ParserRuleContext identification) {
        return ExpressionBuilder.span(identification != null ? identification : member);
    }
}
