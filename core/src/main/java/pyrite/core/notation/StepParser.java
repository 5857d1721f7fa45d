package pyrite.core.notation;

import pyrite.core.expression.Expression;
import pyrite.core.model.ElementKind;
import pyrite.core.model.ElementKind.Body;
import pyrite.core.model.Property;

/**
 * Parses the bodies of actions and states (SysML 2.0, 8.2.2.17 and 8.2.2.18): steps, successions, conditions, loops and
 * transitions.
 */
final class StepParser {
    private final Cursor cursor;
    private final ExpressionParser expressions;
    private final DeclarationParser declarations;
    private final RelationParser relations;
    private final MemberParser members;

    StepParser(
            Cursor cursor,
            ExpressionParser expressions,
            DeclarationParser declarations,
            RelationParser relations,
            MemberParser members) {
        this.cursor = cursor;
        this.expressions = expressions;
        this.declarations = declarations;
        this.relations = relations;
        this.members = members;
    }

    /** Reads a member that begins with a word of behaviour; whether there was one. */
    boolean member(Draft owner) {
        if (cursor.type() != Tokens.Type.KEYWORD) {
            return false;
        }
        switch (cursor.text()) {
            case "then" -> then(owner);
            case "else" -> alternative(owner);
            case "entry", "exit" -> role(owner, cursor.take());
            case "do" -> role(owner, cursor.take());
            case "transition" -> transition(new Draft(ElementKind.TRANSITION, owner));
            case "if" -> conditional(owner, false);
            default -> {
                if (!isStep()) {
                    return false;
                }
                step(new Draft(ElementKind.ACTION, owner));
            }
        }
        return true;
    }

    /** Whether a step with a form of its own comes. */
    boolean isStep() {
        return cursor.type() == Tokens.Type.KEYWORD
                && switch (cursor.text()) {
                    case "accept", "send", "assign", "terminate", "while", "loop", "for", "if" -> true;
                    default -> false;
                };
    }

    /** {@code then target;}, {@code then step}: what follows the step before it. */
    private void then(Draft owner) {
        int first = cursor.at();
        cursor.require("then");
        if (cursor.seesName()) {
            Draft succession = new Draft(ElementKind.SUCCESSION, owner);
            members.reference(succession, Property.TARGET);
            succession.head = cursor.spanFrom(first);
            members.ending(succession);
            return;
        }
        int before = owner.children.size();
        if (cursor.sees("if")) {
            conditional(owner, true);
        } else if (!member(owner)) {
            declarations.declaration(owner, this, relations);
        }
        Draft step = owner.children.get(before);
        if (!step.kind.takes(Property.THEN)) {
            members.problem(
                    cursor.spanFrom(first),
                    "'then' is followed by something that begins and ends in time such as an action, or by its name, not by "
                            + step.kind.titleWithArticle());
            return;
        }
        step.set(Property.THEN, true);
    }

    private void alternative(Draft owner) {
        int first = cursor.at();
        cursor.require("else");
        Draft succession = new Draft(ElementKind.SUCCESSION, owner);
        succession.set(Property.ELSE, true);
        members.reference(succession, Property.TARGET);
        succession.head = cursor.spanFrom(first);
        members.ending(succession);
    }

    /**
     * {@code if guard then target;}, {@code if condition { … } else { … }}, or what a body comes to: {@code if
     * condition ? x else y}.
     */
    private void conditional(Draft owner, boolean follows) {
        int first = cursor.at();
        cursor.require("if");
        Expression condition = expressions.expression();
        if (!follows && cursor.takes("?")) {
            members.result(owner, first, expressions.conditional(first, condition));
            return;
        }
        boolean state = owner.kind.body() == Body.STATE;
        if (!follows && (cursor.sees("then") || state && cursor.sees("do"))) {
            Draft step = new Draft(state ? ElementKind.TRANSITION : ElementKind.SUCCESSION, owner);
            step.formula(Property.GUARD, condition);
            effect(step);
            cursor.require("then");
            members.reference(step, Property.TARGET);
            step.head = cursor.spanFrom(first);
            members.ending(step);
            return;
        }
        branches(new Draft(ElementKind.IF, owner), condition, first);
    }

    private void branches(Draft draft, Expression condition, int first) {
        draft.kind = ElementKind.IF;
        draft.formula(Property.CONDITION, condition);
        draft.head = cursor.spanFrom(first);
        block(draft);
        if (cursor.takes("else")) {
            if (cursor.sees("if")) {
                int again = cursor.at();
                cursor.take();
                branches(new Draft(ElementKind.IF, draft), expressions.expression(), again);
            } else {
                block(draft);
            }
        }
    }

    /** {@code action name { … }}, of which the braces alone may stand. */
    private void block(Draft owner) {
        int first = cursor.at();
        Draft block = new Draft(ElementKind.BLOCK, owner);
        if (cursor.takes("action")) {
            declarations.identification(block);
        }
        block.head = cursor.spanFrom(first);
        members.body(block);
    }

    /** A step with a form of its own, its declaration read already if it had one. */
    void step(Draft draft) {
        int first = cursor.at();
        switch (cursor.take()) {
            case "accept" -> {
                draft.kind = ElementKind.ACCEPT;
                trigger(draft);
                if (cursor.sees("if") || cursor.sees("do") || cursor.sees("then")) {
                    draft.kind = ElementKind.TRANSITION;
                    rest(draft, first);
                    return;
                }
                end(draft, first);
            }
            case "send" -> send(draft, first);
            case "assign" -> {
                draft.kind = ElementKind.ASSIGNMENT;
                members.reference(draft, Property.TARGET);
                cursor.require(":=");
                draft.formula(Property.CONTENT, expressions.expression());
                end(draft, first);
            }
            case "terminate" -> {
                draft.kind = ElementKind.TERMINATE;
                if (!cursor.sees(";") && !cursor.sees("{")) {
                    draft.formula(Property.CONTENT, expressions.expression());
                }
                end(draft, first);
            }
            case "if" -> branches(draft, expressions.expression(), first);
            case "for" -> loopOver(draft, first);
            case "loop" -> loop(draft, first);
            default -> {
                draft.formula(Property.CONDITION, expressions.expression());
                loop(draft, first);
            }
        }
    }

    private void end(Draft draft, int first) {
        if (draft.head.end() == 0) {
            draft.head = cursor.spanFrom(first);
        }
        members.ending(draft);
    }

    private void send(Draft draft, int first) {
        draft.kind = ElementKind.SEND;
        sendParts(draft);
        end(draft, first);
    }

    /**
     * What {@code accept} waits for: a payload, or {@code when}, {@code at} or {@code after} an expression; and where.
     */
    private void trigger(Draft draft) {
        if (cursor.sees("when") || cursor.seesWord("at") || cursor.sees("after")) {
            draft.set(Property.TRIGGER, cursor.take());
            draft.formula(Property.CONTENT, expressions.expression());
        } else {
            draft.set(Property.TRIGGER, "accept");
            int first = cursor.at();
            relations.payload(draft);
            if (cursor.at() == first) {
                throw cursor.expected("what is accepted, as in 'signal : Warning', or 'when', 'at' or 'after'");
            }
        }
        if (cursor.takes("via")) {
            draft.formula(Property.VIA, expressions.expression());
        }
    }

    private void loop(Draft draft, int first) {
        draft.kind = ElementKind.WHILE;
        draft.head = draft.head.end() == 0 ? cursor.spanFrom(first) : draft.head;
        block(draft);
        if (cursor.takes("until")) {
            draft.formula(Property.UNTIL, expressions.expression());
            cursor.require(";");
        }
    }

    private void loopOver(Draft draft, int first) {
        draft.kind = ElementKind.FOR;
        int named = cursor.at();
        Draft variable = new Draft(ElementKind.LOOP_VARIABLE, draft);
        variable.name = cursor.requireName();
        declarations.clauses(variable);
        variable.head = cursor.spanFrom(named);
        cursor.require("in");
        draft.formula(Property.CONDITION, expressions.expression());
        draft.head = draft.head.end() == 0 ? cursor.spanFrom(first) : draft.head;
        block(draft);
    }

    /** What a state does on entry, while it is active or on exit. */
    private void role(Draft owner, String role) {
        int first = cursor.at();
        int before = owner.children.size();
        if (cursor.sees(";") || cursor.sees("{")) {
            Draft nothing = new Draft(ElementKind.ACTION, owner);
            nothing.head = cursor.tokens().span(first - 1);
            members.ending(nothing);
        } else {
            subaction(owner);
            members.ending(owner.children.get(before));
        }
        owner.children.get(before).set(Property.ROLE, role);
    }

    /** An action in place: a reference to one, a declaration, or a step with a form of its own, without its end. */
    private void subaction(Draft owner) {
        int first = cursor.at();
        if (cursor.seesName()) {
            Draft performed = new Draft(ElementKind.PERFORM, owner);
            members.reference(performed, Property.TARGET);
            declarations.clauses(performed);
            performed.head = cursor.spanFrom(first);
            return;
        }
        Draft action = new Draft(ElementKind.ACTION, owner);
        if (cursor.takes("action")) {
            declarations.identification(action);
            declarations.clauses(action);
            declarations.value(action);
            action.head = cursor.spanFrom(first);
        }
        if (cursor.takes("send")) {
            action.kind = ElementKind.SEND;
            sendParts(action);
        } else if (cursor.takes("accept")) {
            action.kind = ElementKind.ACCEPT;
            trigger(action);
        } else if (cursor.takes("assign")) {
            action.kind = ElementKind.ASSIGNMENT;
            members.reference(action, Property.TARGET);
            cursor.require(":=");
            action.formula(Property.CONTENT, expressions.expression());
        } else if (cursor.at() == first) {
            throw cursor.expected("an action");
        }
        action.head = cursor.spanFrom(first);
    }

    private void sendParts(Draft draft) {
        if (!cursor.sees("via") && !cursor.sees("to") && !cursor.sees("{") && !cursor.sees(";")) {
            draft.formula(Property.CONTENT, expressions.expression());
        }
        if (cursor.takes("via")) {
            draft.formula(Property.VIA, expressions.expression());
        }
        if (cursor.takes("to")) {
            draft.formula(Property.RECEIVER, expressions.expression());
        }
    }

    /** {@code transition name first source accept … if guard do effect then target}. */
    private void transition(Draft draft) {
        int first = cursor.at();
        cursor.require("transition");
        boolean named = cursor.sees("<")
                || cursor.sees(":")
                || cursor.sees(":>")
                || cursor.sees(":>>")
                || cursor.seesName() && !isSource();
        if (named) {
            declarations.identification(draft);
            declarations.clauses(draft);
        }
        if (cursor.takes("first") || cursor.seesName()) {
            members.reference(draft, Property.SOURCE);
        }
        if (cursor.takes("accept")) {
            trigger(draft);
        }
        rest(draft, first);
    }

    /** Whether the name that comes is where the transition starts, and not its own name. */
    private boolean isSource() {
        return !cursor.sees(1, "first") && !cursor.sees(1, ":") && !cursor.sees(1, ":>") && !cursor.sees(1, ":>>");
    }

    private void rest(Draft draft, int first) {
        if (cursor.takes("if")) {
            draft.formula(Property.GUARD, expressions.expression());
        }
        effect(draft);
        cursor.require("then");
        members.reference(draft, Property.TARGET);
        draft.head = draft.head.end() == 0 ? cursor.spanFrom(first) : draft.head;
        members.ending(draft);
    }

    /** {@code do action}: what happens on the way. */
    private void effect(Draft draft) {
        if (cursor.takes("do")) {
            int before = draft.children.size();
            if (cursor.sees("{")) {
                new Draft(ElementKind.ACTION, draft).head = cursor.tokens().span(cursor.at());
            } else {
                subaction(draft);
            }
            draft.children.get(before).set(Property.ROLE, "do");
            if (cursor.sees("{")) {
                members.body(draft.children.get(before));
            }
        }
    }
}
