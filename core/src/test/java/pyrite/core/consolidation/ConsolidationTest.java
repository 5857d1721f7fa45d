package pyrite.core.consolidation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.consolidation.Consolidation.Case;
import pyrite.core.consolidation.Consolidation.Group;
import pyrite.core.consolidation.Consolidation.State;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationWriter;
import pyrite.core.trace.Links;

class ConsolidationTest {
    private Model model = Models.of("""
            private import ScalarValues::*;
            part def Master; part def Gate;
            package Functions { action def Protect; }
            item def Warning; item def Level;
            package Closing {
                action def RaiseLeaf { in item level : Level; doc /* Moves the leaf up to its stop. */ }
                action def WarnChannel { in item warning : Warning; doc /* Beacon and siren warn the channel. */ }
                action def Report { out item level : Level; doc /* The height of the water is told. */ }
                use case def Close {
                    subject gate : Gate; actor master : Master;
                    attribute vesselInChannel : Boolean { doc /* A vessel is in the channel. */ }
                    attribute height : Real { doc /* How high the wave is. */ }
                    first start;
                    then action hear accept warning : Warning via master { doc /* The master warns. */ }
                    then action warn : WarnChannel { doc /* Beacon and siren warn the people. */ }
                    then action raise : RaiseLeaf { doc /* The leaf is moved up. */ }
                    then action report : Report { doc /* The water is told. */ }
                    then done;
                    flow of Warning from hear.warning to warn.warning;
                }
            }
            package Opening {
                action def SoundSiren {
                    in item signal : Warning; in item level : Level; doc /* Siren and beacon warn the channel. */
                }
                action def Report { in item warning : Warning; doc /* A fault goes to the maintenance crew. */ }
                use case def Open {
                    subject gate : Gate; actor master : Master;
                    attribute boatInChannel : Boolean { doc /* A vessel is in the channel still. */ }
                    attribute height : Real { doc /* Distance of the hull from the bed. */ }
                    first start;
                    then action hear accept warning : Warning via master { doc /* The master orders. */ }
                    then action sound : SoundSiren { doc /* Siren and beacon warn the people. */ }
                    then action report : Report { doc /* Maintenance gets to know of a fault. */ }
                    then done;
                    flow of Warning from hear.warning to sound.signal;
                }
            }""");

    private void apply(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(Models.tryRead(text).problems()).as(text).isEmpty();
    }

    private Element element(String name) {
        return Models.element(model, "Test::" + name);
    }

    private Feature feature(String name) {
        return Consolidation.of(model).feature(element(name).id()).orElseThrow();
    }

    private Group group(String name) {
        Feature feature = feature(name);
        return Consolidation.of(model).groups().stream()
                .filter(group -> group.members().contains(feature))
                .findFirst()
                .orElseThrow();
    }

    private Consolidating consolidating() {
        return new Consolidating(model, element("Functions"), element("Functions::Protect"));
    }

    private void unifyWarning() {
        List<Feature> features = List.of(feature("Closing::WarnChannel"), feature("Opening::SoundSiren"));
        apply(consolidating().unify(features, "WarnPeople", United.of(features)));
    }

    private String words(Group group) {
        return group.kind() + " " + group.relation() + " "
                + group.members().stream()
                        .map(Consolidation.of(model)::name)
                        .sorted()
                        .collect(Collectors.joining(", "));
    }

    @Test
    void whatUseCasesFoundIsSortedByCase() {
        assertThat(Consolidation.of(model).groups().stream().map(this::words))
                .containsExactlyInAnyOrder(
                        "FUNCTION PARAMETERS SoundSiren, WarnChannel",
                        "FUNCTION HOMONYM Report, Report",
                        "FUNCTION ONCE RaiseLeaf",
                        "ITEM SAME Warning",
                        "VALUE NAMES boatInChannel, vesselInChannel",
                        "VALUE HOMONYM height, height",
                        "FLOW ONCE Warning to WarnChannel",
                        "FLOW ONCE Warning to SoundSiren");
        assertThat(Consolidation.of(model).groups()).allMatch(group -> group.state() == State.OPEN);
    }

    @Test
    void parametersAreUnitedAndWhatNotAllHaveIsOptional() {
        List<United> united = United.of(List.of(feature("Closing::WarnChannel"), feature("Opening::SoundSiren")));
        assertThat(united.stream()
                        .map(each -> each.name() + " " + each.sources().size() + " " + each.isOptional()))
                .containsExactly("warning 2 false", "level 1 true");
    }

    @Test
    void severalBecomeOneDefinitionOfTheSystemWithTheirNamesKept() {
        unifyWarning();
        assertThat(NotationWriter.write(model, List.of(element("Functions::WarnPeople"))))
                .contains(
                        "in item warning : Warning;",
                        "in item level[0..1] : Level;",
                        "Beacon and siren warn the channel.",
                        "Siren and beacon warn the channel.");
        assertThat(NotationWriter.write(model, List.of(element("Closing"))))
                .contains("alias WarnChannel for Functions::WarnPeople;", "then action warn : Functions::WarnPeople");
        assertThat(NotationWriter.write(model, List.of(element("Opening"))))
                .contains(
                        "alias SoundSiren for Functions::WarnPeople;",
                        "then action sound : Functions::WarnPeople",
                        "flow of Warning from hear.warning to sound.warning;");
        assertThat(Links.in(model).of(element("Functions::WarnPeople")).stream()
                        .map(link ->
                                link.kind().forward() + " " + model.names().qualifiedName(model.get(link.target()))))
                .containsExactlyInAnyOrder(
                        "found in Test::Closing::Close::warn", "found in Test::Opening::Open::sound");
        assertThat(group("Functions::WarnPeople").state()).isEqualTo(State.DECIDED);
        assertThat(Consolidation.of(model).groups().stream().map(this::words))
                .contains("FUNCTION SAME WarnPeople", "FLOW SAME Warning to WarnPeople");
    }

    @Test
    void whatIsDecidedStaysAndANewPlaceIsListed() {
        unifyWarning();
        Element step = Element.of(
                        ElementKind.ACTION,
                        element("Opening::Open").id(),
                        model.rankAtEnd(element("Opening::Open").id()),
                        "again")
                .with(
                        Property.TYPES,
                        List.of(Reference.to(element("Functions::WarnPeople").id())));
        apply(Edit.put(step));
        assertThat(group("Functions::WarnPeople").state()).isEqualTo(State.NEW);
        apply(consolidating().adopt(List.of(feature("Functions::WarnPeople"))));
        assertThat(group("Functions::WarnPeople").state()).isEqualTo(State.DECIDED);
    }

    @Test
    void aStepThatBecameSomethingElseSinceIsListed() {
        unifyWarning();
        Element step = element("Opening::Open::sound");
        Element raise = element("Closing::RaiseLeaf");
        Element text = model.children(step.id()).getFirst();
        Set<ElementId> flows = model.children(element("Opening::Open").id()).stream()
                .filter(child -> child.kind().isFlow())
                .map(Element::id)
                .collect(Collectors.toSet());
        apply(new Edit(
                List.of(
                        step.with(Property.TYPES, List.of(Reference.to(raise.id()))),
                        text.with(Property.TEXT, "The leaf is moved up.")),
                flows));
        assertThat(group("Closing::RaiseLeaf").state()).isEqualTo(State.CHANGED);
    }

    @Test
    void differentThingsOfOneNameAreRenamedApart() {
        Feature levels = feature("Closing::Report");
        Feature faults = feature("Opening::Report");
        apply(consolidating()
                .apart(
                        List.of(levels, faults),
                        Map.of(levels.element(), "ReportLevel", faults.element(), "ReportFault"),
                        ""));
        assertThat(group("Closing::ReportLevel").members()).hasSize(1);
        assertThat(element("Opening::Open::report").references(Property.TYPES))
                .containsExactly(Reference.to(element("Opening::ReportFault").id()));
    }

    @Test
    void whatIsKeptApartIsNotProposedAgain() {
        List<Feature> features = List.of(feature("Closing::WarnChannel"), feature("Opening::SoundSiren"));
        apply(consolidating().apart(features, Map.of(), "one is a light"));
        assertThat(group("Closing::WarnChannel").relation()).isEqualTo(Case.ONCE);
        assertThat(consolidating()
                        .apart(List.of(feature("Closing::WarnChannel"), feature("Opening::SoundSiren")), Map.of(), "")
                        .put())
                .isEmpty();
    }

    @Test
    void aValueBecomesOneOfTheSystemAndUseCasesTakeItFromThere() {
        List<Feature> features =
                List.of(feature("Closing::Close::vesselInChannel"), feature("Opening::Open::boatInChannel"));
        apply(consolidating().unify(features, "vesselInChannel", List.of()));
        assertThat(NotationWriter.write(model, List.of(element("Gate"))))
                .contains("attribute vesselInChannel : Boolean {", "A vessel is in the channel.");
        assertThat(NotationWriter.write(model, List.of(element("Opening"))))
                .contains("attribute boatInChannel : Boolean = gate.vesselInChannel {");
        assertThat(group("Gate::vesselInChannel").state()).isEqualTo(State.DECIDED);
        assertThat(group("Gate::vesselInChannel").relation()).isEqualTo(Case.SAME);
    }

    @Test
    void aFlowBecomesOneOfAFunctionOfTheSystem() {
        unifyWarning();
        Feature flow = Consolidation.of(model).groups().stream()
                .filter(group -> group.kind() == Feature.Kind.FLOW)
                .findFirst()
                .orElseThrow()
                .members()
                .getFirst();
        apply(consolidating().adopt(List.of(flow)));
        assertThat(NotationWriter.write(model, List.of(element("Functions::Protect"))))
                .contains(
                        "in item warning : Warning;",
                        "action warnPeople : WarnPeople;",
                        "of Warning from warning to warnPeople.warning {");
        assertThat(consolidating().adopt(List.of(flow)).put()).isEmpty();
    }

    @Test
    void whatStandsBesideAUseCaseMovesHome() {
        apply(consolidating().adopt(List.of(feature("Closing::RaiseLeaf"), feature("Warning"))));
        assertThat(element("Functions::RaiseLeaf").kind()).isEqualTo(ElementKind.ACTION_DEFINITION);
        assertThat(element("Warning").kind()).isEqualTo(ElementKind.ITEM_DEFINITION);
        assertThat(group("Warning").state()).isEqualTo(State.DECIDED);
    }

    @Test
    void whatCannotBeOneSaysWhy() {
        List<Feature> functions = List.of(feature("Closing::WarnChannel"), feature("Opening::SoundSiren"));
        assertThatThrownBy(() -> consolidating().unify(functions, " ", List.of()))
                .hasMessage("give the one definition a name");
        assertThatThrownBy(() -> consolidating().unify(functions, "Protect", United.of(functions)))
                .hasMessageContaining("'Functions' has something named 'Protect' already");
        assertThatThrownBy(
                        () -> consolidating().unify(List.of(functions.getFirst(), feature("Warning")), "X", List.of()))
                .hasMessage("choose at least two features of one kind");
        assertThatThrownBy(() -> new Consolidating(model, null, null)
                        .adopt(Consolidation.of(model).groups().stream()
                                .filter(group -> group.kind() == Feature.Kind.FLOW)
                                .findFirst()
                                .orElseThrow()
                                .members()))
                .hasMessage("choose the function of the system that the flows belong to");
        Feature levels = feature("Closing::Report");
        assertThatThrownBy(() -> consolidating().apart(List.of(levels), Map.of(levels.element(), "RaiseLeaf"), ""))
                .hasMessageContaining("there is already an action definition 'RaiseLeaf'");
    }
}
