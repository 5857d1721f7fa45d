package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.view.SpecificationDifference;
import pyrite.core.view.TextDifference;

class SplitTest {
    @Test
    void partsAreProposedFromWhatTheTextJoins() {
        assertThat(Split.propose(
                        "The sensors shall agree within 0.05 m, and a lasting disagreement shall be reported."))
                .containsExactly("The sensors shall agree within 0.05 m.", "A lasting disagreement shall be reported.");
        assertThat(Split.propose("The siren shall sound and flash."))
                .containsExactly("The siren shall sound.", "The siren shall flash.");
        assertThat(Split.propose("The gate shall close. The siren shall stop.")).hasSize(2);
        assertThat(Split.propose("The gate shall close.")).containsExactly("The gate shall close.");
    }

    /** Each part is as urgent, and is verified in the same way, as the whole was. */
    @Test
    void thePartsKeepTheAttributes() {
        Model model = Models.of("""
                private import Specifications::*;
                requirement <'A-1'> whole {
                    doc /* The gate shall close and shall stop. */
                    @Managed { status = Status::approved; priority = Priority::must; }
                }
                """);
        Split.Proposal proposal = Split.of(
                model,
                Models.element(model, "Test::whole"),
                List.of(new Split.Part("The gate shall close.", Set.of()), new Split.Part("It shall stop.", Set.of())),
                List.of("A-2"));
        Model split = Harbour.applied(model, proposal.edit());
        String text = NotationWriter.write(split, split.ownRoots());
        assertThat(text.split("status = Status::approved;", -1)).hasSize(3);
        assertThat(text.split("priority = Priority::must;", -1)).hasSize(3);
        assertThat(split.inheritance().documentation(Harbour.id(split, "A-2"))).isEqualTo("It shall stop.");
    }

    @Test
    void theFirstPartStaysTheRequirementAndEachKeepsTheLinksChosenForIt() {
        Model model = Harbour.model();
        Element closes = Harbour.id(model, "S-1");
        List<Link> links = Links.in(model).of(closes);
        Set<Link> up = Set.copyOf(links.stream()
                .filter(link -> link.kind().equals(LinkKind.FRAME))
                .toList());
        Set<Link> derived = Set.copyOf(links.stream()
                .filter(link -> link.kind().key().equals("derive"))
                .toList());
        Split.Proposal proposal = Split.of(
                model,
                closes,
                List.of(
                        new Split.Part("The gate shall close.", up),
                        new Split.Part(
                                "The gate shall do so in 10 min.",
                                java.util.stream.Stream.concat(up.stream(), derived.stream())
                                        .collect(java.util.stream.Collectors.toSet()))),
                List.of("S-9"));
        assertThat(proposal.refused()).isEmpty();
        Model split = Harbour.applied(model, proposal.edit());
        assertThat(Links.in(split).of(Harbour.id(split, "S-1")))
                .extracting(link -> link.kind().key())
                .containsExactly("frame");
        Element made = Harbour.id(split, "S-9");
        assertThat(Links.in(split).of(made))
                .extracting(link -> link.kind().key())
                .containsExactlyInAnyOrder("frame", "derive");
        assertThat(Links.in(split).up(Harbour.id(split, "D-1").id()))
                .singleElement()
                .extracting(Link::target)
                .isEqualTo(made.id());
        assertThat(split.inheritance().documentation(made)).isEqualTo("The gate shall do so in 10 min.");
        List<Element> siblings = split.children(made.owner());
        assertThat(siblings.indexOf(made)).isEqualTo(siblings.indexOf(Harbour.id(split, "S-1")) + 1);
    }

    @Test
    void aSpecificationIsComparedLineByLine() {
        Model then = Harbour.model();
        Model changed = Harbour.applied(
                then, Harbour.text(then, Harbour.id(then, "S-1"), "The gate shall close within 9 min."));
        Model removed = Harbour.applied(
                changed,
                Removal.of(changed, List.of(Harbour.id(changed, "S-3"))).edit());
        Model now = Harbour.applied(
                removed,
                new pyrite.core.specification.Structuring(removed)
                        .outdent(List.of(Harbour.named(removed, "Soft")))
                        .orElseThrow());
        SpecificationDifference difference = SpecificationDifference.of(
                then, now, Harbour.named(now, "System").id());
        assertThat(difference.of("CHANGED")).singleElement().satisfies(line -> {
            assertThat(line.tag()).isEqualTo("S-1");
            assertThat(line.changes().getFirst().pieces())
                    .containsExactly(
                            new TextDifference.Piece(TextDifference.Kind.SAME, "The gate shall close within "),
                            new TextDifference.Piece(TextDifference.Kind.REMOVED, "10"),
                            new TextDifference.Piece(TextDifference.Kind.ADDED, "9"),
                            new TextDifference.Piece(TextDifference.Kind.SAME, " min."));
        });
        assertThat(difference.of("REMOVED"))
                .extracting(SpecificationDifference.Line::tag)
                .containsExactly("S-3");
        assertThat(difference.of("MOVED"))
                .singleElement()
                .satisfies(line -> assertThat(line.moved()).isEqualTo("from Closing to System"));
        assertThat(difference.has("ADDED")).isFalse();
        assertThat(SpecificationDifference.of(
                                now, now, Harbour.named(now, "System").id())
                        .lines())
                .isEmpty();
    }
}
