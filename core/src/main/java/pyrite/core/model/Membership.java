package pyrite.core.model;

import static pyrite.core.model.ElementKind.*;

import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import pyrite.core.model.ElementKind.Body;
import pyrite.core.model.ElementKind.Family;

/** The rules about which kinds of elements may own which others (SysML 2.0, 8.2.2). */
final class Membership {
    /** The kinds that stand only in bodies of certain forms; every other usage and definition stands in any. */
    private static final Map<ElementKind, Set<Body>> ONLY_IN = onlyIn();

    private static Map<ElementKind, Set<Body>> onlyIn() {
        Set<Body> requirements = EnumSet.of(Body.REQUIREMENT, Body.OBJECTIVE);
        Set<Body> cases = EnumSet.of(Body.REQUIREMENT, Body.OBJECTIVE, Body.CASE);
        Set<Body> steps = EnumSet.of(Body.ACTION, Body.CALCULATION, Body.CASE, Body.STATE);
        Map<ElementKind, Set<Body>> only = new EnumMap<>(ElementKind.class);
        only.put(REQUIRED_CONSTRAINT, requirements);
        only.put(ASSUMED_CONSTRAINT, requirements);
        only.put(FRAMED_CONCERN, requirements);
        only.put(STAKEHOLDER, requirements);
        only.put(SUBJECT, cases);
        only.put(ACTOR, cases);
        only.put(OBJECTIVE, EnumSet.of(Body.CASE));
        only.put(VERIFIED_REQUIREMENT, EnumSet.of(Body.OBJECTIVE, Body.REQUIREMENT));
        for (ElementKind step :
                EnumSet.of(ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR, MERGE, DECIDE, FORK, JOIN)) {
            only.put(step, steps);
        }
        only.put(TRANSITION, steps);
        only.put(FILTER, EnumSet.of(Body.PACKAGE, Body.VIEW));
        only.put(EXPOSURE, EnumSet.of(Body.VIEW));
        only.put(VIEW_RENDERING, EnumSet.of(Body.VIEW));
        return only;
    }

    /** Whether an element of the kind {@code owner} may own one of the kind {@code member}. */
    static boolean allows(ElementKind owner, ElementKind member) {
        Body body = owner.body();
        if (member == CONNECTOR_END) {
            return owner.isConnector();
        }
        if (member == PAYLOAD) {
            return owner.isFlow() || owner == ACCEPT || owner == TRANSITION;
        }
        if (member == BLOCK || member == LOOP_VARIABLE) {
            return body == Body.BRANCHES;
        }
        if (member.family() == Family.ANNOTATION && !member.isDefinition()) {
            return body != Body.NONE && body != Body.BRANCHES;
        }
        return switch (body) {
            case NONE, ANNOTATION -> false;
            case BRANCHES -> member == IF;
            case ENUMERATION -> member == ENUMERATION;
            case METADATA -> member == REFERENCE || member == ATTRIBUTE || member == ALIAS || member == IMPORT;
            default -> (!member.isPackage() || body == Body.PACKAGE) && standsIn(member, body);
        };
    }

    private static boolean standsIn(ElementKind member, Body body) {
        Set<Body> only = ONLY_IN.get(member);
        return only == null || only.contains(body);
    }

    private Membership() {}
}
