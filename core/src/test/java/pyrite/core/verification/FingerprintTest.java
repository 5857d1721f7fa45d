package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Reference;
import pyrite.core.notation.Authoring;

/** A verdict is stale exactly while something it was computed from differs. */
class FingerprintTest {
    private static final Model MODEL = Models.of("""
            attribute factor : Real = 2;
            part def Tank {
                attribute area : AreaValue = 1 [m^2];
                attribute level : LengthValue := 1 [m];
                attribute price : Real = 12;
                attribute spare : AreaValue default 1 [m^2];
                attribute used : AreaValue = spare;
                attribute mass : MassValue;
                assert constraint balance { area * der(level) == -0.01 [m^3/s] * factor }
            }
            part tank : Tank { attribute :>> mass = 5 [kg]; }
            part unrelated { attribute x : Real = 1; }
            requirement keeps { doc /* Keeps water. */ subject t : Tank; attribute least : LengthValue = 0.1 [m];
                require constraint { always(t.level >= least) } }
            requirement other { subject t : Tank; attribute most : LengthValue = 3 [m]; require constraint { always(t.level <= most) } }
            requirement light { subject t : Tank; require constraint { t.mass <= 6 [kg] } }
            satisfy keeps by tank;
            satisfy light by tank;
            satisfy other by tank;
            verification check : SimulatedCheck {
                subject :>> system = tank; attribute :>> stopTime = 10 [s]; objective { verify keeps; verify other; verify light; }
            }
            """);
    private static final List<Judgement> JUDGEMENTS =
            CaseRun.of(MODEL, element(MODEL, "Test::check"), RunControl.NONE).judgements();
    private static final Judgement KEEPS = JUDGEMENTS.getFirst();
    private static final Judgement LIGHT = JUDGEMENTS.getLast();

    private static final String MASS = MODEL
            .children(element(MODEL, "Test::tank").id())
            .stream()
            .filter(e -> e.kind() == ElementKind.ATTRIBUTE)
            .map(MODEL.names()::qualifiedName)
            .findFirst()
            .orElseThrow();

    private static Model withMember(String holder, String text) {
        Authoring.Proposal proposal = new Authoring(MODEL).members(element(MODEL, holder), text);
        return ((EditResult.Applied) MODEL.apply(((Authoring.Proposal.Accepted) proposal).edit())).model();
    }

    private static Model with(String holder, String feature, String text) {
        Authoring.Proposal proposal = new Authoring(MODEL).value(element(MODEL, holder), element(MODEL, feature), text);
        return ((EditResult.Applied) MODEL.apply(((Authoring.Proposal.Accepted) proposal).edit())).model();
    }

    private static Model removed(String element) {
        return ((EditResult.Applied)
                        MODEL.apply(Edit.remove(element(MODEL, element).id())))
                .model();
    }

    private static List<String> changed(Model model) {
        return changed(KEEPS, model);
    }

    private static List<String> changed(Judgement judgement, Model model) {
        return judgement.fingerprint().changedIn(model).stream()
                .map((ElementId id) ->
                        model.find(id).map(model.names()::qualifiedName).orElse("gone"))
                .toList();
    }

    @Test
    void nothingChangedNothingStale() {
        assertThat(changed(MODEL)).isEmpty();
    }

    @Test
    void aChangedValueIsNamed() {
        assertThat(changed(with("Test::Tank", "Test::Tank::area", "2 [m^2]"))).containsExactly("Test::Tank::area");
        assertThat(changed(with("Test", "Test::factor", "3"))).containsExactly("Test::factor");
        assertThat(changed(with("Test::keeps", "Test::keeps::least", "0.2 [m]")))
                .containsExactly("Test::keeps::least");
        Element stopTime = MODEL.children(element(MODEL, "Test::check").id()).stream()
                .filter(e -> "stopTime".equals(MODEL.names().effectiveName(e)))
                .findFirst()
                .orElseThrow();
        assertThat(changed(with("Test::check", MODEL.names().qualifiedName(stopTime), "20 [s]")))
                .hasSize(1);
    }

    @Test
    void aRedefinitionInTheUsageIsNamedByTheUsage() {
        assertThat(changed(with("Test::tank", "Test::Tank::area", "2 [m^2]"))).containsExactly("Test::tank");
    }

    @Test
    void puttingTheOldValueBackMakesItFreshAgain() {
        Model there = with("Test::Tank", "Test::Tank::area", "2 [m^2]");
        Element area = element(MODEL, "Test::Tank::area");
        assertThat(changed(((EditResult.Applied) there.apply(Edit.put(area))).model()))
                .isEmpty();
    }

    @Test
    void whatWasNotReadDoesNotMatter() {
        assertThat(changed(with("Test::unrelated", "Test::unrelated::x", "7"))).isEmpty();
        assertThat(changed(with("Test::other", "Test::other::most", "7 [m]"))).isEmpty();
    }

    @Test
    void anAttributeThatNothingReadsDoesNotMatter() {
        assertThat(changed(with("Test::Tank", "Test::Tank::price", "13"))).isEmpty();
        assertThat(changed(withMember("Test::Tank", "attribute weight : MassValue = 2 [kg];")))
                .isEmpty();
        assertThat(changed(removed("Test::Tank::price"))).isEmpty();
        assertThat(changed(with("Test::tank", MASS, "7 [kg]"))).isEmpty();
        assertThat(changed(with("Test::Tank", "Test::Tank::mass", "7 [kg]"))).isEmpty();
    }

    @Test
    void whatOneRequirementReadsOfItMattersToItsVerdictAlone() {
        assertThat(LIGHT.verdict()).isEqualTo(VerdictKind.PASS);
        assertThat(changed(LIGHT, with("Test::tank", MASS, "7 [kg]"))).isNotEmpty();
        assertThat(changed(LIGHT, with("Test::Tank", "Test::Tank::price", "13")))
                .isEmpty();
    }

    @Test
    void whatIsAddedToAnotherRequirementDoesNotMatter() {
        assertThat(changed(withMember("Test::other", "assume constraint { 1 > 2 }")))
                .isEmpty();
        assertThat(changed(withMember("Test::other", "attribute least : LengthValue = 0.1 [m];")))
                .isEmpty();
    }

    @Test
    void whatMayFailMatters() {
        assertThat(changed(with("Test::Tank", "Test::Tank::price", "1 / 0"))).containsExactly("Test::Tank");
        assertThat(changed(with("Test::Tank", "Test::Tank::price", "factor"))).containsExactly("Test::Tank");
        assertThat(changed(with("Test::tank", MASS, "7 [kg] * factor"))).isNotEmpty();
        assertThat(changed(withMember("Test::tank", "attribute :>> spare = 3 [m^2];")))
                .containsExactly("Test::tank");
    }

    @Test
    void namesAndTextsDoNotMatter() {
        Authoring authoring = new Authoring(MODEL);
        for (Authoring.Proposal proposal : List.of(
                authoring.name(element(MODEL, "Test::tank"), "reservoir"),
                authoring.documentation(element(MODEL, "Test::keeps"), "Keeps enough water."))) {
            assertThat(changed(((EditResult.Applied) MODEL.apply(((Authoring.Proposal.Accepted) proposal).edit()))
                            .model()))
                    .isEmpty();
        }
    }

    @Test
    void aNewEquationAndARemovedSatisfactionMatter() {
        Authoring.Proposal equation =
                new Authoring(MODEL).members(element(MODEL, "Test::Tank"), "attribute extra : Real = factor");
        assertThat(changed(((EditResult.Applied) MODEL.apply(((Authoring.Proposal.Accepted) equation).edit())).model()))
                .containsExactly("Test::Tank");
        ElementId satisfaction = RequirementJudge.satisfactions(MODEL, element(MODEL, "Test::keeps"))
                .getFirst()
                .id();
        assertThat(changed(((EditResult.Applied) MODEL.apply(Edit.remove(satisfaction))).model()))
                .contains("Test::keeps", "gone");
    }

    @Test
    void whatTheWholeRunReadAndTheRestMakeTheWhole() {
        CaseRun run = CaseRun.of(MODEL, element(MODEL, "Test::check"), RunControl.NONE);
        assertThat(run.judgements()).hasSize(3).allSatisfy(judgement -> {
            Fingerprint rest = judgement.fingerprint().without(run.fingerprint());
            assertThat(rest.hashes())
                    .hasSizeLessThan(judgement.fingerprint().hashes().size());
            assertThat(run.fingerprint().and(rest)).isEqualTo(judgement.fingerprint());
        });
    }

    /** What lets judgements be kept without hashing anew all they rest on. */
    @Property(tries = 400)
    void onlyWhatChangesCanAlterIsAltered(
            @ForAll @IntRange(max = 10_000) int which,
            @ForAll @IntRange(max = 10_000) int where,
            @ForAll @IntRange(max = 4) int how) {
        List<Element> own = MODEL.ownElements().stream()
                .sorted(Comparator.comparing(Element::id))
                .toList();
        Element one = own.get(which % own.size());
        Element other = own.get(where % own.size());
        Edit edit = switch (how) {
            case 0 ->
                new Edit(
                        List.of(),
                        MODEL.subtree(one.id()).stream().map(Element::id).collect(Collectors.toSet()));
            case 1 -> Edit.put(one.withName("another"));
            case 2 -> Edit.put(one.withOwner(other.id(), one.rank()));
            case 3 -> Edit.put(one.with(pyrite.core.model.Property.NEGATED, true));
            default -> Edit.put(one.with(pyrite.core.model.Property.TARGET, Reference.to(other.id())));
        };
        Fingerprint before = Fingerprint.of(MODEL, own.stream().map(Element::id).toList());
        if (MODEL.apply(edit) instanceof EditResult.Applied(Model after, var difference)) {
            assertThat(Fingerprint.alterableBy(difference.changes(), after)).containsAll(before.changedIn(after));
        }
    }
}
