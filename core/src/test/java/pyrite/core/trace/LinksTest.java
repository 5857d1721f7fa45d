package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.specification.Specification;

class LinksTest {
    private final Model model = Harbour.model();
    private final Links links = Links.in(model);

    private List<String> at(Element element) {
        return links.of(element).stream()
                .map(link -> link.words(element.id()) + " "
                        + new LinkRules.Labelled(model).of(model.get(link.other(element.id()))))
                .sorted()
                .toList();
    }

    @Test
    void linksOfEveryKindAreFoundAtBothEnds() {
        assertThat(at(Harbour.id(model, "S-1")))
                .containsExactly("answers N-1", "derived into D-1", "verified by check");
        assertThat(at(Harbour.id(model, "N-1"))).containsExactly("answered by S-1", "answered by S-2");
        assertThat(at(Harbour.id(model, "D-1"))).containsExactly("derives from S-1", "satisfied by drive");
        assertThat(at(Harbour.named(model, "drive"))).containsExactly("satisfies D-1");
        assertThat(at(Harbour.named(model, "check"))).containsExactly("verifies S-1");
        assertThat(at(Harbour.named(model, "close"))).containsExactly("allocated to gate");
        assertThat(at(Harbour.named(model, "gate"))).containsExactly("carries close");
    }

    @Test
    void theGraphOfAllLinksSaysTheSameAsAskingEachElement() {
        TraceGraph graph = TraceGraph.of(model);
        assertThat(graph.size()).isEqualTo(7);
        assertThat(model.ownElements())
                .allSatisfy(element ->
                        assertThat(graph.of(element.id())).containsExactlyInAnyOrderElementsOf(links.of(element)));
    }

    @Test
    void aDependencyOfSeveralToSeveralIsALinkForEachPair() {
        Model several = Models.of("part a; part b; part c; part d; dependency from a, b to c, d;");
        assertThat(TraceGraph.of(several).size()).isEqualTo(4);
        Element c = Harbour.named(several, "c");
        Link one = Links.in(several).of(c).getFirst();
        Model left = Harbour.applied(several, new Linking(several).remove(List.of(one)));
        assertThat(TraceGraph.of(left).size()).isEqualTo(3);
        assertThat(Links.in(left).of(c)).hasSize(1).doesNotContain(one);
    }

    @Test
    void aLinkAgainstTheRulesIsRefusedAndTheOtherDirectionOffered() {
        assertThat(Harbour.link(model, "derive", "S-2", "D-1").refused())
                .singleElement()
                .asString()
                .isEqualTo(
                        "the link rule for 'derives from' leads from subsystem to system, not from S-2 (system) to D-1 (subsystem); "
                                + "the other direction would be allowed: D-1 derives from S-2; "
                                + "between these two 'refines' would be allowed");
        assertThat(Harbour.link(model, "derive", "S-2", "S-1").refused())
                .singleElement()
                .asString()
                .endsWith("between these two 'refines' or 'conflicts with' would be allowed");
        assertThat(Harbour.link(model, "derive", "D-1", "D-1").refused())
                .containsExactly("D-1 cannot be linked with itself");
    }

    @Test
    void aCircleOfDerivationsIsRefusedWithTheCircle() {
        Model free = Models.of("""
                private import Tracing::*;
                requirement <'A'> a { #derive dependency a to b; }
                requirement <'B'> b { #derive dependency b to c; }
                requirement <'C'> c;""");
        assertThat(Harbour.link(free, "derive", "C", "A").refused())
                .containsExactly("this would close a circle: C derives from A derives from B derives from C");
        assertThat(Harbour.link(free, "derive", "A", "C").refused()).isEmpty();
    }

    @Test
    void theRulesHoldHoweverALinkIsWritten() {
        Element wrong = Element.of(
                        ElementKind.DEPENDENCY,
                        Harbour.id(model, "S-3").id(),
                        model.rankAtEnd(Harbour.id(model, "S-3").id()),
                        null)
                .with(
                        Property.MARKS,
                        List.of(pyrite.core.model.Reference.to(
                                Harbour.kind(model, "derive").mark())))
                .with(
                        Property.CLIENTS,
                        List.of(pyrite.core.model.Reference.to(
                                Harbour.id(model, "S-3").id())))
                .with(
                        Property.SUPPLIERS,
                        List.of(pyrite.core.model.Reference.to(
                                Harbour.id(model, "N-1").id())));
        assertThat(Harbour.objections(model, Edit.put(wrong)))
                .singleElement()
                .asString()
                .contains(
                        "the link rule for 'derives from'",
                        "S-3 (system)",
                        "N-1 (need)",
                        "'refines' or 'answers' would be allowed");
    }

    @Test
    void aRequirementThatIsMovedToAnotherLevelTakesItsLinksToTheRules() {
        Element closes = Harbour.id(model, "S-1");
        Element drive = Harbour.named(model, "Drive");
        assertThat(Harbour.objections(model, Edit.put(closes.withOwner(drive.id(), model.rankAtEnd(drive.id())))))
                .isNotEmpty();
    }

    @Test
    void linksAreMadeWhereTheirSourceStandsAndGoWithIt() {
        Linking.Proposal proposal = new Linking(model)
                .make(List.of(
                        new Linking.Request(LinkKind.FRAME, Harbour.id(model, "S-3"), Harbour.id(model, "N-2")),
                        new Linking.Request(LinkKind.FRAME, Harbour.id(model, "S-3"), Harbour.id(model, "N-1"))));
        Model linked = Harbour.applied(model, proposal.edit());
        assertThat(Links.in(linked).up(Harbour.id(linked, "S-3").id())).hasSize(2);
        assertThat(proposal.summary()).isEqualTo("2 links added");
        assertThat(new Linking(linked)
                        .make(List.of(new Linking.Request(
                                LinkKind.FRAME, Harbour.id(model, "S-3"), Harbour.id(model, "N-2"))))
                        .edit()
                        .put())
                .isEmpty();
        Model without =
                Harbour.applied(linked, Edit.remove(Harbour.id(linked, "S-2").id()));
        assertThat(Links.in(without).of(Harbour.id(without, "N-1"))).hasSize(2);
    }

    @Test
    void verifyingAndSatisfyingAreWrittenAsTheLanguageHasThem() {
        Element drive = Harbour.named(model, "drive");
        Element check = Harbour.named(model, "check");
        Linking.Proposal proposal = new Linking(model)
                .make(List.of(
                        new Linking.Request(LinkKind.SATISFY, drive, Harbour.id(model, "S-2")),
                        new Linking.Request(LinkKind.VERIFY, check, Harbour.id(model, "S-2")),
                        new Linking.Request(LinkKind.ALLOCATE, Harbour.named(model, "close"), drive)));
        assertThat(proposal.refused()).isEmpty();
        Model linked = Harbour.applied(model, proposal.edit());
        assertThat(Links.in(linked).down(Harbour.id(linked, "S-2").id()))
                .extracting(Link::kind)
                .containsExactlyInAnyOrder(LinkKind.SATISFY, LinkKind.VERIFY);
        assertThat(Links.in(linked).up(drive.id()))
                .extracting(link -> link.kind().key())
                .contains("satisfy", "allocate");
    }

    @Test
    void removingAHeadingTakesTheLinksThatLeadIntoItAndSaysSo() {
        Removal removal = Removal.of(model, List.of(Harbour.named(model, "Closing")));
        assertThat(removal.summary()).isEqualTo("Closing removed with 2 requirements and 4 links");
        Model left = Harbour.applied(model, removal.edit());
        assertThat(Links.in(left).of(Harbour.id(left, "D-1")))
                .extracting(link -> link.kind().key())
                .containsExactly("satisfy");
        assertThat(left.ownElements()).noneMatch(each -> "S-1".equals(each.shortName()));
    }

    @Test
    void ownRulesReplaceThoseOfTheLibraryForTheirKindOnly() {
        LinkRules rules = LinkRules.in(model);
        assertThat(rules.of(Harbour.kind(model, "derive")))
                .singleElement()
                .extracting(LinkRule::from)
                .isEqualTo(List.of("subsystem"));
        assertThat(rules.of(LinkKind.SATISFY))
                .singleElement()
                .extracting(LinkRule::from)
                .isEqualTo(List.of("design"));
        assertThat(rules.allowed(Harbour.id(model, "S-1"), Harbour.id(model, "S-2")))
                .extracting(LinkKind::key)
                .contains("conflicts", "trace")
                .doesNotContain("derive");
    }

    @Test
    void rulesAndKindsAreChangedByEdits() {
        RuleEditing editing = new RuleEditing(model);
        assertThat(editing.put(null, new RuleEditing.Request("nothing", "a", "b", 0, 0, ""))
                        .problem())
                .contains("no kind of link called nothing");
        assertThat(editing.kind("derive", "x", "y").problem())
                .contains("a key of letters and digits that no other has");
        Model more = Harbour.applied(
                model, editing.kind("replaces", "replaces", "replaced by").edit());
        more = Harbour.applied(
                more,
                new RuleEditing(more)
                        .put(null, new RuleEditing.Request("replaces", "system", "system", 0, 1, "text"))
                        .edit());
        assertThat(LinkRules.in(more).of(Harbour.kind(more, "replaces")))
                .singleElement()
                .satisfies(rule -> {
                    assertThat(rule.leastTo()).isEqualTo(1);
                    assertThat(rule.watched()).isEqualTo(Set.of("text"));
                });
        Element rule =
                LinkRules.in(more).of(Harbour.kind(more, "derive")).getFirst().element();
        Model wider = Harbour.applied(
                more,
                new RuleEditing(more)
                        .put(rule, new RuleEditing.Request("derive", "subsystem, system", "system, need", 1, 0, ""))
                        .edit());
        assertThat(LinkRules.in(wider).of(Harbour.kind(wider, "derive")))
                .singleElement()
                .satisfies(changed -> {
                    assertThat(changed.element().id()).isEqualTo(rule.id());
                    assertThat(changed.to()).containsExactly("system", "need");
                    assertThat(changed.watched()).isEmpty();
                });
    }

    @Test
    void anIdStandsForOneRequirementInTheWholeProject() {
        Element other = Harbour.id(model, "D-1");
        Element same = new Element(
                other.id(), other.kind(), other.owner(), other.rank(), other.name(), "S-1", other.properties());
        assertThat(Harbour.objections(model, Edit.put(same)))
                .singleElement()
                .asString()
                .contains("the id S-1 is taken by System::Closing::closes");
    }

    @Test
    void aViewIsKeptAsAnElementAndReplacedByOneOfTheSameName() {
        Model kept = Harbour.applied(
                model,
                SavedView.put(
                        model, new SavedView.Request("Gaps", "trace", "set=~need&col=frame%3C", "ines", true, false)));
        SavedView view = SavedView.all(kept).getFirst();
        Model again = Harbour.applied(
                kept, SavedView.put(kept, new SavedView.Request("Gaps", "coverage", "", "ines", false, true)));
        assertThat(SavedView.all(again)).singleElement().satisfies(now -> {
            assertThat(now.element().id()).isEqualTo(view.element().id());
            assertThat(now)
                    .extracting(SavedView::page, SavedView::shared, SavedView::pinned)
                    .containsExactly("coverage", false, true);
        });
        assertThat(Specification.all(again)).hasSize(3);
    }

    @Test
    void aDerivationConnectionOfTheStandardIsALinkForEachRequirementThatFollows() {
        Model given = Models.of("""
                private import RequirementDerivation::*;
                requirement <'S'> closes; requirement <'A'> fast; requirement <'B'> soft;
                #derivation connection { end #original ::> closes; end #derive ::> fast; end #derive ::> soft; }
                """);
        Links found = Links.in(given);
        Element closes = Harbour.id(given, "S");
        List<Link> down = found.down(closes.id());
        assertThat(down)
                .hasSize(2)
                .allSatisfy(link -> assertThat(link.kind().key()).isEqualTo("derive"))
                .isEqualTo(TraceGraph.of(given).down(closes.id()));
        assertThat(down)
                .extracting(Link::source)
                .containsExactly(
                        Harbour.id(given, "A").id(), Harbour.id(given, "B").id());
        Model without = Harbour.applied(given, new Linking(given).remove(down.subList(0, 1)));
        assertThat(Links.in(without).down(closes.id()))
                .extracting(Link::source)
                .containsExactly(Harbour.id(given, "B").id());
        assertThat(TraceGraph.of(without).size()).isEqualTo(1);
    }

    /** Requirements of the grid have an id and no name, or neither; what refers to them is text that can be read. */
    @Test
    void whatIsLinkedCanBeNamedInTheText() {
        Model grid = Models.of("""
                package Needs { concern <'N-9'> { doc /* Dry feet. */ } concern { doc /* Quiet. */ } }
                requirement <'R-9'> { doc /* The gate closes. */ }
                part gate;
                """);
        Element requirement =
                grid.ownElements(ElementKind.REQUIREMENT).findFirst().orElseThrow();
        List<Element> needs = grid.ownElements(ElementKind.CONCERN).toList();
        Linking.Proposal proposal = new Linking(grid)
                .make(List.of(
                        new Linking.Request(LinkKind.FRAME, requirement, needs.get(0)),
                        new Linking.Request(LinkKind.FRAME, requirement, needs.get(1)),
                        new Linking.Request(LinkKind.SATISFY, Models.element(grid, "Test::gate"), requirement)));
        assertThat(proposal.refused()).isEmpty();
        Model linked = Harbour.applied(grid, proposal.edit());
        String text = pyrite.core.notation.NotationWriter.write(linked, linked.ownRoots());
        assertThat(text).contains("frame Needs::'N-9';", "frame Needs::concern1;", "satisfy 'R-9';");
        Model again = Models.read(text);
        assertThat(again.ownElements(ElementKind.FRAMED_CONCERN)).hasSize(2);
    }
}
