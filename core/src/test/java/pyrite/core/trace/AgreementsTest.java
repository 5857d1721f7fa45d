package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.specification.Attributes;

class AgreementsTest {
    /** A branch that is followed. */
    private static final class Branch {
        Model model = Harbour.model();
        final Agreements agreements = Agreements.begin(model, 1);
        final List<Difference> done = new ArrayList<>();

        void commit(Edit edit) {
            EditResult.Applied applied = (EditResult.Applied) model.apply(edit);
            replay(applied.difference());
        }

        void replay(Difference difference) {
            done.add(difference);
            model = model.replay(difference);
            agreements.advance(difference, agreements.number() + 1);
        }

        void undo() {
            replay(done.getLast().inverse());
        }

        void text(String id, String text) {
            commit(Harbour.text(model, Harbour.id(model, id), text));
        }

        List<String> doubts() {
            LinkRules.Labelled names = new LinkRules.Labelled(model);
            return agreements.doubts().stream()
                    .map(doubt -> names.of(model.get(doubt.link().source())) + " "
                            + doubt.link().kind().forward() + " "
                            + names.of(model.get(doubt.link().target()))
                            + doubt.changes().stream()
                                    .map(change ->
                                            ", " + change.property() + " of " + names.of(model.get(change.end())))
                                    .reduce("", String::concat))
                    .sorted()
                    .toList();
        }
    }

    private final Branch branch = new Branch();

    @Test
    void aLinkNeedsRecheckAfterItsTargetsTextChanges() {
        assertThat(branch.doubts()).isEmpty();
        branch.text("N-1", "The quays and the market stay dry.");
        assertThat(branch.doubts()).containsExactly("S-1 answers N-1, text of N-1", "S-2 answers N-1, text of N-1");
        assertThat(branch.agreements.doubts())
                .allSatisfy(doubt -> assertThat(doubt.since()).isEqualTo(1));
    }

    @Test
    void eitherEndPutsItInDoubtAndSoDoesAnAttributeThatIsWatched() {
        branch.text("D-1", "The drive shall turn at 0.5 deg/s.");
        assertThat(branch.doubts())
                .containsExactly("D-1 derives from S-1, text of D-1", "drive satisfies D-1, text of D-1");
        branch.undo();
        Attributes attributes = Attributes.in(branch.model);
        Element fast = Harbour.id(branch.model, "D-1");
        branch.commit(attributes.set(fast, attributes.named(fast, "status").orElseThrow(), "proposed"));
        assertThat(branch.doubts()).containsExactly("D-1 derives from S-1, status of D-1");
    }

    @Test
    void theLimitInAConstraintIsWatchedAndARenameIsNoChange() {
        Element most = Harbour.named(branch.model, "most");
        branch.commit(((Authoring.Proposal.Accepted) new Authoring(branch.model).name(most, "limit")).edit());
        assertThat(branch.doubts()).isEmpty();
        Element closes = Harbour.id(branch.model, "S-1");
        branch.commit(((Authoring.Proposal.Accepted)
                        new Authoring(branch.model).value(closes, Harbour.named(branch.model, "limit"), "12"))
                .edit());
        assertThat(branch.doubts())
                .contains("D-1 derives from S-1, constraint of S-1")
                .doesNotContain("S-1 answers N-1, constraint of S-1");
        Agreements.Doubt doubt = branch.agreements.doubts().stream()
                .filter(each -> each.link().kind().key().equals("derive"))
                .findFirst()
                .orElseThrow();
        assertThat(DoubtText.of(
                                Harbour.model(),
                                Harbour.model(),
                                doubt.changes().getFirst())
                        .before())
                .isEmpty();
    }

    @Test
    void whatWasSeenToChangeTellsTheAgreedTextAndTheLastChange() {
        branch.text("N-1", "Something else.");
        branch.text("S-2", "Something of its own.");
        branch.text("N-1", "Something else again.");
        assertThat(branch.agreements.doubts())
                .filteredOn(doubt -> doubt.changes().getFirst().property().equals("text"))
                .flatExtracting(Agreements.Doubt::changes)
                .extracting(Agreements.Change::seen)
                .contains(new Agreements.Seen("The quays stay dry.", 4))
                .doesNotContain(new Agreements.Seen("Something else.", 4));
        branch.undo();
        assertThat(branch.agreements.doubts())
                .flatExtracting(Agreements.Doubt::changes)
                .extracting(Agreements.Change::seen)
                .contains(new Agreements.Seen("The quays stay dry.", 5));
    }

    @Test
    void changingAWatchedPropertyBackRestoresTheLink() {
        branch.text("N-1", "Something else.");
        branch.text("N-1", "The quays stay dry.");
        assertThat(branch.doubts()).isEmpty();
    }

    @Test
    void confirmingSettlesALinkWithTheTwoRevisionsAndTheNote() {
        branch.text("N-1", "The quays and the market stay dry.");
        List<Agreements.Doubt> first = branch.agreements.doubts().stream()
                .filter(doubt -> doubt.link()
                        .source()
                        .equals(Harbour.id(branch.model, "S-1").id()))
                .toList();
        RecheckRecord confirmation =
                RecheckRecord.confirmed(branch.model, first, branch.agreements.number(), "the market lies higher");
        assertThat(confirmation.summary()).isEqualTo("confirmed: S-1 answers N-1");
        branch.commit(confirmation.edit());
        assertThat(branch.doubts()).containsExactly("S-2 answers N-1, text of N-1");
        String written = pyrite.core.notation.NotationWriter.write(
                branch.model, List.of(branch.model.get(first.getFirst().link().carrier())));
        assertThat(written).contains("Confirmed", "the market lies higher", "since = 1", "at = 2");
        branch.text("N-1", "The quays stay dry.");
        assertThat(branch.doubts()).containsExactly("S-1 answers N-1, text of N-1");
        assertThat(branch.agreements.doubts().iterator().next().since()).isEqualTo(3);
    }

    @Test
    void aLinkThatIsKeptOpenStaysInDoubtAndSaysWhoLookedAtWhat() {
        branch.text("N-1", "Something else.");
        Agreements.Doubt doubt = branch.agreements.doubts().iterator().next();
        assertThat(RecheckRecord.keptOpen(branch.model, doubt)).isEmpty();
        branch.commit(RecheckRecord.keptOpen(branch.model, List.of(doubt), 2, "the harbour master is asked")
                .edit());
        assertThat(branch.doubts()).hasSize(2);
        RecheckRecord.Kept kept = RecheckRecord.keptOpen(branch.model, doubt).orElseThrow();
        assertThat(kept.at()).isEqualTo(2);
        assertThat(kept.note()).isEqualTo("the harbour master is asked");
        branch.commit(RecheckRecord.keptOpen(branch.model, List.of(doubt), 3, "he agrees with half of it")
                .edit());
        assertThat(RecheckRecord.keptOpen(branch.model, doubt).orElseThrow().note())
                .isEqualTo("he agrees with half of it");
    }

    @Test
    void whatWasKeptOpenBeforeAConfirmationIsOfNoMoreAccount() {
        branch.text("N-1", "Something else.");
        branch.commit(RecheckRecord.keptOpen(branch.model, branch.agreements.doubts(), 2, "")
                .edit());
        branch.commit(RecheckRecord.confirmed(branch.model, branch.agreements.doubts(), 3, "")
                .edit());
        assertThat(branch.doubts()).isEmpty();
        branch.text("N-1", "A third thing.");
        assertThat(branch.agreements.doubts())
                .hasSize(2)
                .allSatisfy(doubt ->
                        assertThat(RecheckRecord.keptOpen(branch.model, doubt)).isEmpty());
    }

    @Test
    void takingAConfirmationBackBringsTheDoubtBack() {
        branch.text("N-1", "Something else.");
        branch.commit(RecheckRecord.confirmed(branch.model, branch.agreements.doubts(), 2, "")
                .edit());
        assertThat(branch.doubts()).isEmpty();
        branch.undo();
        assertThat(branch.doubts()).hasSize(2);
    }

    @Test
    void aLinkThatIsRemovedAndBroughtBackIsNotAgreedAnew() {
        branch.text("N-1", "Something else.");
        branch.commit(Removal.of(branch.model, List.of(Harbour.id(branch.model, "S-2")))
                .edit());
        assertThat(branch.doubts()).hasSize(1);
        branch.undo();
        assertThat(branch.doubts()).hasSize(2);
    }

    @Test
    void aNewLinkIsAgreedAsItIsMade() {
        branch.text("N-2", "It is quiet at night.");
        branch.commit(Harbour.link(branch.model, "frame", "S-3", "N-2").edit());
        assertThat(branch.doubts()).isEmpty();
        branch.text("N-2", "It is quiet.");
        assertThat(branch.doubts()).containsExactly("S-3 answers N-2, text of N-2");
    }

    /** Law: after any edits of texts, a link is in doubt exactly if the text of an end is not what it was. */
    @Property(tries = 60)
    void doubtsAreExactlyTheLinksWhoseEndsDiffer(@ForAll long seed) {
        Branch any = new Branch();
        Random random = new Random(seed);
        List<String> ids = List.of("N-1", "N-2", "S-1", "S-2", "S-3", "D-1", "D-2");
        Model begin = any.model;
        for (int i = 0; i < 12; i++) {
            String id = ids.get(random.nextInt(ids.size()));
            boolean back = random.nextInt(3) == 0;
            any.text(id, back ? begin.inheritance().documentation(Harbour.id(begin, id)) : "Text " + random.nextInt(3));
        }
        Links links = Links.in(any.model);
        List<Link> expected = any.model.ownElements().stream()
                .flatMap(each -> links.carriedBy(each).stream())
                .distinct()
                .filter(link -> !LinkRules.in(any.model).watched(link).isEmpty())
                .filter(link -> List.of(link.source(), link.target()).stream()
                        .anyMatch(end -> !begin.inheritance()
                                .documentation(begin.get(end))
                                .equals(any.model.inheritance().documentation(any.model.get(end)))))
                .toList();
        assertThat(any.agreements.doubts())
                .extracting(Agreements.Doubt::link)
                .containsExactlyInAnyOrderElementsOf(expected);
    }
}
