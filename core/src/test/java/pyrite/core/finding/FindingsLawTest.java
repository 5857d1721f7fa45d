package pyrite.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Reference;
import pyrite.core.notation.Authoring;

/** Random edits one after the other: what is kept up with them is what a look at everything finds. */
class FindingsLawTest {
    private static final Model MODEL = Models.of("""
            attribute def Level :> LengthValue;
            item def Fluid; item def Oil :> Fluid; item def Water :> Fluid;
            port def Hose { in item oil : Oil; out attribute level : Level; }
            port def WideHose :> Hose { in item more : Fluid; }
            port def Plain { out item oil : Water; }
            interface def Pipe { end port one : Hose; end port other : ~Hose; }
            part def Pump { port outlet : ~Hose; attribute count : Real = 3; }
            part def FastPump :> Pump { port :>> outlet : ~WideHose; }
            part def Tank { port inlet : Hose; port drain : Plain[0..1]; part lid; }
            part def Unit { port supply : Hose; part pump : Pump; part tank : Tank; ref part site : Tank;
                interface pipe : Pipe connect tank.inlet to pump.outlet; }
            part def Deep { part unit : Unit; part spare : FastPump; bind unit.supply = supply; port supply : Hose; }
            part def Whole { part deep : Deep[2]; part wheels[4] : Tank; part left : Tank :> wheels; part right[2] : Tank :> wheels; }
            part whole : Whole { part :>> deep { part :>> unit { part :>> pump : FastPump; } } }
            requirement r; requirement s;
            satisfy r by whole.deep.unit.pump;
            satisfy s by whole.left;
            package Inner { part def Alone; library package Shelf { part def Offered; } }
            connection far connect whole.left.inlet to whole.right.drain;
            part def Keeper;
            use case def Fill {
                actor keeper : Keeper; actor owner : Pump;
                attribute isFull : Boolean { doc /* The keeper sees that it is full. */ }
                first start; then action open { doc /* The owner opens. */ }
                then decide; if isFull then stop; else fill;
                action fill { doc /* It fills. */ action inner; then action inner2; }
                then done; action stop; then done; action lost;
            }
            use case def Refill :> Fill { action :>> open { doc /* The keeper opens. */ } }
            use case refill : Refill { then action extra1; }
            action def Work { first start; then decide d; then b; then c; action b; then both; action c; then both;
                join both; then done; }
            action def Rework :> Work { action :>> b; action late; }
            part def Feeder {
                action feed { first start; then action a { out n : Real = 1; } then done; action add { in m : Real; } }
                action draw :> feed { action :>> add; } flow from feed.a.n to feed.add.m; flow from draw.a.n to draw.add.m; }
            item def Go;
            state def Modes { entry; then idle; state idle; state busy; state lost; transition move first idle accept Go then busy; }
            state def Regions parallel { state one { entry; then a; state a; state b; transition first a accept Go then b; }
                state two : Modes; }
            state def Special :> Modes { transition first busy accept Go then lost; }
            """);

    private static final List<String> MEMBERS = List.of(
            "part extra : Tank",
            "action giver send new Go()",
            "action taker accept Go",
            "action any accept x",
            "action fluids accept Fluid",
            "action oils send new Oil()",
            "in item fuel : Water",
            "item kept : Oil",
            "action on send kept",
            "message of Oil from whole to whole",
            "part extra",
            "part back : Whole",
            "part alone : Inner::Alone[0..1]",
            "port more : Plain",
            "port more : ~Hose",
            "in item steam : Fluid",
            "part :>> pump[0]",
            "part :>> tank { part :>> lid : Pump; }",
            "attribute x : Level",
            "connect pump.outlet to tank.drain",
            "part again :> wheels[3]",
            "doc /* a word of the keeper */",
            "then action more2",
            "action apart { doc /* The owner waits. */ }",
            "then fill",
            "if isFull then fill",
            "actor third : Tank",
            "then done",
            "join joined",
            "first b then both",
            "merge one",
            "state further",
            "state within : Modes",
            "state regions : Regions",
            "transition :>> move then lost",
            "transition :>> move first busy then lost",
            "transition first busy accept Go then idle",
            "action :>> c");

    @Property(tries = 1500)
    void whatIsKeptUpIsWhatALookAtEverythingFinds(@ForAll long seed) {
        Random random = new Random(seed);
        Model model = MODEL;
        Findings.in(model);
        for (int step = 0; step < 5 && !model.ownElements().isEmpty(); step++) {
            Edit edit = edit(model, random);
            if (edit != null && model.apply(edit) instanceof EditResult.Applied(Model after, var difference)) {
                if (random.nextInt(3) > 0) {
                    assertThat(Findings.in(after).all(after))
                            .as(() -> "after " + difference.changes())
                            .isEqualTo(Findings.everything(after).all(after));
                }
                model = after;
            }
        }
    }

    private static Edit edit(Model model, Random random) {
        List<Element> own = model.ownElements().stream()
                .sorted(Comparator.comparing(Element::id))
                .toList();
        Element one = pick(own, random);
        Element other = pick(own, random);
        return switch (random.nextInt(10)) {
            case 0 ->
                new Edit(
                        List.of(),
                        model.subtree(one.id()).stream().map(Element::id).collect(Collectors.<ElementId>toSet()));
            case 1, 2, 3 ->
                new Authoring(model).members(one, pick(MEMBERS, random)) instanceof Authoring.Proposal.Accepted accepted
                        ? accepted.edit()
                        : null;
            case 4 -> Edit.put(one.withOwner(other.id(), one.rank()));
            case 5 -> references(one, other, random);
            case 6 ->
                Edit.put(one.with(
                        pyrite.core.model.Property.MULTIPLICITY,
                        new Multiplicity(random.nextInt(2), 1 + random.nextInt(3))));
            case 7 ->
                Edit.put(one.with(
                        pyrite.core.model.Property.CONJUGATED,
                        one.get(pyrite.core.model.Property.CONJUGATED).isPresent() ? null : true));
            case 8 -> Edit.put(one.withName(one.name() + "X"));
            default -> Edit.put(one.with(pyrite.core.model.Property.REFERENTIAL, true));
        };
    }

    private static Edit references(Element one, Element other, Random random) {
        return Edit.put(
                switch (random.nextInt(4)) {
                    case 0 -> one.with(pyrite.core.model.Property.TYPES, List.of(Reference.to(other.id())));
                    case 1 -> one.with(pyrite.core.model.Property.SPECIALIZES, List.of(Reference.to(other.id())));
                    case 2 -> one.with(pyrite.core.model.Property.REDEFINES, List.of(Reference.to(other.id())));
                    default -> one.with(pyrite.core.model.Property.TARGET, Reference.to(other.id()));
                });
    }

    private static <T> T pick(List<T> from, Random random) {
        return from.get(random.nextInt(from.size()));
    }
}
