package pyrite.core.trace;

import java.util.List;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;
import pyrite.core.model.RequirementIds;
import pyrite.core.notation.Authoring;
import pyrite.core.specification.Specification;

/** A small project on three levels with rules, for tests of links. */
final class Harbour {
    static final String TEXT = """
            package Rules {
                private import Tracing::*;
                @answering : LinkRule { kind = "frame"; 'from' = "system"; 'to' = "need"; leastFrom = 1; leastTo = 1; watched = "text"; }
                @deriving : LinkRule { kind = "derive"; 'from' = "subsystem"; 'to' = "system"; leastTo = 1; \
            watched = "text, constraint, status"; }
                metadata def <conflicts> Conflict :> LinkKind { attribute :>> forward = "conflicts with"; \
            attribute :>> backward = "conflicts with"; }
                @conflicting : LinkRule { kind = "conflicts"; 'from' = "system"; 'to' = "system"; watched = "text"; }
            }
            package Needs {
                private import Specifications::*;
                @Specification { prefix = "N"; level = "need"; }
                concern <'N-1'> dry { doc /* The quays stay dry. */ }
                concern <'N-2'> quiet { doc /* It is quiet. */ }
            }
            package System {
                private import Specifications::*;
                private import Needs::*;
                private import ScalarValues::*;
                @Specification { prefix = "S"; level = "system"; }
                package Closing {
                    requirement <'S-1'> closes { doc /* The gate shall close within 10 min. */ frame dry; \
            attribute most : Real = 10; require constraint { 5 <= most } }
                    comment /* Measured from the warning. */
                    package Soft { requirement <'S-2'> soft { doc /* The leaf shall land softly. */ frame dry; } }
                }
                requirement <'S-3'> panel { doc /* A panel shall show it. */ }
            }
            package Drive {
                private import Specifications::*;
                private import Tracing::*;
                private import System::**;
                @Specification { prefix = "D"; level = "subsystem"; }
                requirement <'D-1'> fast { doc /* The drive shall turn at 0.4 deg/s. */ #derive dependency fast to closes; }
                requirement <'D-2'> shows { doc /* A lamp shall follow. */ #derive dependency shows to panel; }
            }
            package Design {
                private import System::**;
                private import Drive::*;
                part gate { part drive; }
                satisfy fast by gate.drive;
                verification check { objective { verify closes; } }
                action close;
                allocate close to gate;
            }
            """;

    private Harbour() {}

    static Model model() {
        return Models.read(TEXT);
    }

    static Element id(Model model, String id) {
        return model.ownElements().stream()
                .filter(each -> Specification.isRequirement(each) && id.equals(each.shortName()))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no " + id));
    }

    static Element named(Model model, String name) {
        return model.ownElements().stream()
                .filter(each -> name.equals(each.name()))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no " + name));
    }

    static LinkKind kind(Model model, String key) {
        return LinkKind.named(model, key).orElseThrow();
    }

    static Model applied(Model model, Edit edit) {
        return switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> next;
            case EditResult.Refused(List<Problem> problems) -> throw new AssertionError(problems);
        };
    }

    /** What the rules of the project say against an edit that is well-formed. */
    static List<String> objections(Model model, Edit edit) {
        EditResult.Applied applied = (EditResult.Applied) model.apply(edit);
        return ProjectCheck.check(model, applied.model(), applied.difference()).stream()
                .map(Problem::message)
                .toList();
    }

    static Edit text(Model model, Element element, String text) {
        return ((Authoring.Proposal.Accepted) new Authoring(model).documentation(element, text)).edit();
    }

    static Linking.Proposal link(Model model, String kind, String source, String target) {
        return new Linking(model)
                .make(List.of(new Linking.Request(kind(model, kind), id(model, source), id(model, target))));
    }

    static List<String> ids(Model model, List<Element> elements) {
        return elements.stream().map(each -> RequirementIds.of(model, each)).toList();
    }
}
