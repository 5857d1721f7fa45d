package pyrite.core.notation;

import java.util.List;
import pyrite.core.expression.Name;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;

/**
 * Parses elements that join features: connections, interfaces, allocations, bindings, flows, successions and
 * satisfactions.
 */
final class RelationParser {
    private final Cursor cursor;
    private final ExpressionParser expressions;
    private final DeclarationParser declarations;
    private final MemberParser members;

    RelationParser(Cursor cursor, ExpressionParser expressions, DeclarationParser declarations, MemberParser members) {
        this.cursor = cursor;
        this.expressions = expressions;
        this.declarations = declarations;
        this.members = members;
    }

    /** Whether a relation comes that is written with its ends at once, or with a keyword of its own. */
    boolean isRelation() {
        return switch (cursor.text()) {
            case "connect", "allocate", "bind", "binding", "first" -> cursor.type() == Tokens.Type.KEYWORD;
            case "flow", "message" -> cursor.type() == Tokens.Type.KEYWORD && !cursor.sees(1, "def");
            case "succession" -> true;
            case "interface" -> cursor.seesName(1) && endsFollow(1);
            default -> false;
        };
    }

    /** Whether {@code a.b to} comes, and not a declaration. */
    private boolean endsFollow(int ahead) {
        int i = ahead;
        if (!cursor.seesName(i)) {
            return false;
        }
        for (i++; (cursor.sees(i, ".") || cursor.sees(i, "::")) && cursor.seesName(i + 1); ) {
            i += 2;
        }
        return cursor.sees(i, "to");
    }

    void relation(Draft draft, int first) {
        switch (cursor.text()) {
            case "connect" -> {
                draft.kind = ElementKind.CONNECTION;
                tail(draft);
            }
            case "allocate" -> {
                draft.kind = ElementKind.ALLOCATION;
                tail(draft);
            }
            case "interface" -> {
                cursor.take();
                draft.kind = ElementKind.INTERFACE;
                ends(draft);
            }
            case "bind", "binding" -> binding(draft);
            case "first" -> {
                draft.kind = ElementKind.SUCCESSION;
                succession(draft);
            }
            case "succession" -> {
                cursor.take();
                if (cursor.takes("flow")) {
                    flow(draft, ElementKind.SUCCESSION_FLOW);
                } else {
                    draft.kind = ElementKind.SUCCESSION;
                    declarations.identification(draft);
                    declarations.clauses(draft);
                    succession(draft);
                }
            }
            default -> flow(draft, cursor.take().equals("message") ? ElementKind.MESSAGE : ElementKind.FLOW);
        }
        if (draft.head.end() == 0) {
            draft.head = cursor.spanFrom(first);
        }
        members.ending(draft);
    }

    /** What may follow a declaration before its body. */
    void tail(Draft draft) {
        switch (draft.kind) {
            case CONNECTION, INTERFACE -> {
                if (cursor.takes("connect")) {
                    ends(draft);
                }
            }
            case ALLOCATION -> {
                if (cursor.takes("allocate")) {
                    ends(draft);
                }
            }
            case SATISFACTION -> {
                if (cursor.takes("by")) {
                    members.reference(draft, Property.BY);
                }
            }
            case METADATA -> declarations.about(draft);
            case STATE, STATE_DEFINITION, EXHIBIT -> {
                if (cursor.takes("parallel")) {
                    draft.set(Property.PARALLEL, true);
                }
            }
            default -> {}
        }
    }

    /** {@code a to b}, or several in parentheses. */
    private void ends(Draft connector) {
        if (cursor.takes("(")) {
            do {
                end(connector);
            } while (cursor.takes(","));
            cursor.require(")");
            return;
        }
        end(connector);
        cursor.require("to");
        end(connector);
    }

    /** {@code [multiplicity] name ::> a.b}. */
    private void end(Draft connector) {
        int first = cursor.at();
        Draft end = new Draft(ElementKind.CONNECTOR_END, connector);
        if (cursor.takes("[")) {
            declarations.multiplicity(end, first);
        }
        if (cursor.seesName() && (cursor.sees(1, "::>") || cursor.sees(1, "references"))) {
            end.name = cursor.take();
            cursor.take();
        }
        members.reference(end, Property.TARGET);
        end.head = cursor.spanFrom(first);
    }

    private void binding(Draft draft) {
        draft.kind = ElementKind.BINDING;
        if (cursor.takes("binding")) {
            declarations.identification(draft);
            declarations.clauses(draft);
        }
        cursor.require("bind");
        count(draft, Property.LEFT_MULTIPLICITY);
        members.reference(draft, Property.LEFT);
        cursor.require("=");
        count(draft, Property.RIGHT_MULTIPLICITY);
        members.reference(draft, Property.RIGHT);
    }

    private void count(Draft draft, Property<Multiplicity> property) {
        int first = cursor.at();
        if (cursor.takes("[")) {
            Draft numbers = new Draft(ElementKind.REFERENCE, null);
            declarations.multiplicity(numbers, first);
            Multiplicity count = numbers.remove(Property.MULTIPLICITY);
            if (count == null) {
                members.problem(cursor.spanFrom(first), DeclarationParser.MULTIPLICITY_FORM);
            } else {
                draft.set(property, count);
            }
        }
    }

    /** {@code first a if guard then b}; of these the guard and the target may be left away. */
    private void succession(Draft draft) {
        cursor.require("first");
        members.reference(draft, Property.SOURCE);
        if (cursor.takes("if")) {
            draft.formula(Property.GUARD, expressions.expression());
        }
        if (cursor.takes("then")) {
            members.reference(draft, Property.TARGET);
        }
    }

    /** {@code name : Type of payload from a to b}, or the ends alone. */
    private void flow(Draft draft, ElementKind kind) {
        draft.kind = kind;
        if (endsFollow(0)) {
            flowEnds(draft);
            return;
        }
        declarations.identification(draft);
        declarations.clauses(draft);
        declarations.value(draft);
        if (cursor.takes("of")) {
            payload(draft);
        }
        if (cursor.takes("from")) {
            flowEnds(draft);
        }
    }

    private void flowEnds(Draft draft) {
        members.reference(draft, Property.SOURCE);
        cursor.require("to");
        members.reference(draft, Property.TARGET);
    }

    /** {@code name : Type [multiplicity]} or a type alone: what flows, or what is accepted. */
    void payload(Draft draft) {
        int first = cursor.at();
        Draft payload = new Draft(ElementKind.PAYLOAD, draft);
        boolean named = cursor.sees("<")
                || cursor.seesName()
                        && switch (cursor.tokens().text(behindMultiplicity(cursor.at() + 1))) {
                            case ":", ":>", ":>>", "defined", "subsets", "redefines", "=", ":=", "default" -> true;
                            default -> false;
                        };
        if (named) {
            declarations.identification(payload);
        } else if (cursor.seesName()) {
            Name type = cursor.requireQualifiedName();
            payload.refer(Property.TYPES, List.of(type), cursor.spanFrom(first));
        }
        declarations.clauses(payload);
        declarations.value(payload);
        payload.head = cursor.spanFrom(first);
    }

    /** Where the text goes on if a multiplicity stands at a token, else that token. */
    private int behindMultiplicity(int token) {
        int at = token;
        if (cursor.tokens().text(at).equals("[")) {
            while (cursor.tokens().type(at) != Tokens.Type.END
                    && !cursor.tokens().text(at).equals("]")) {
                at++;
            }
            return cursor.tokens().type(at) == Tokens.Type.END ? at : at + 1;
        }
        return at;
    }
}
