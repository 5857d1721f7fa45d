package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import pyrite.core.Models;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;

/**
 * In whatever order values are set in definitions and in uses of them, each use computes with the value that a plain
 * table tells: what the outermost whole says of it counts, and of a definition and a more general one the former. The
 * text, read again, computes the same.
 */
class UseInContextLawTest {
    private static final String TEXT = """
            part def Blade { attribute x : Real = 0; attribute y : Real = 0; }
            part def Rotor { part c : Blade; attribute x : Real default 0; attribute y : Real = 0; }
            part def Motor { part a : Rotor; part b : Rotor; attribute x : Real = 0; }
            part def Special :> Motor;
            part def Pump { part a : Motor; part b : Special; attribute y : Real default 0; }
            part def Unit { part a : Pump; part b : Pump; }
            """;

    /** A definition with the types of its parts, those it inherits included. */
    private record Definition(String name, List<String> generals, Map<String, String> parts, List<String> values) {}

    private static final Map<String, Definition> DEFINITIONS = List.of(
                    new Definition("Blade", List.of(), Map.of(), List.of("x", "y")),
                    new Definition("Rotor", List.of(), Map.of("c", "Blade"), List.of("x", "y")),
                    new Definition("Motor", List.of(), Map.of("a", "Rotor", "b", "Rotor"), List.of("x")),
                    new Definition("Special", List.of("Motor"), Map.of("a", "Rotor", "b", "Rotor"), List.of("x")),
                    new Definition("Pump", List.of(), Map.of("a", "Motor", "b", "Special"), List.of("y")),
                    new Definition("Unit", List.of(), Map.of("a", "Pump", "b", "Pump"), List.of()))
            .stream()
            .collect(Collectors.toMap(Definition::name, definition -> definition));

    /** A value within a definition, such as {@code a.b.x} of Pump. */
    private record Place(String whole, List<String> parts, String value) {
        String path() {
            List<String> steps = new ArrayList<>(parts);
            steps.add(value);
            return String.join(".", steps);
        }
    }

    @Property(tries = 40)
    void eachUseHasTheValueThatAPlainTableTells(@ForAll @LongRange(min = 0, max = 1_000_000) long seed) {
        Random random = new Random(seed);
        Model model = Models.of(TEXT);
        Map<Place, Double> table = new HashMap<>();
        List<String> acts = new ArrayList<>();
        for (int number = 1; number <= 10; number++) {
            Place place = randomPlace(random);
            acts.add(place + " = " + number);
            model = set(model, place, number);
            table.put(place, (double) number);
            assertThat(computed(model)).as("seed %d, %s", seed, acts).isEqualTo(told(table));
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(computed(Models.read(text))).as(text).isEqualTo(told(table));
    }

    /** The same where whole definitions are written anew, with as many values in them as there are in the table. */
    @Property(tries = 40)
    void theSameHoldsForValuesThatAreWrittenInTexts(@ForAll @LongRange(min = 0, max = 1_000_000) long seed) {
        Random random = new Random(seed);
        Model model = Models.of(TEXT.replace("= 0", "default 0"));
        Map<Place, Double> table = new HashMap<>();
        List<String> acts = new ArrayList<>();
        for (int number = 1; number <= 6; number++) {
            Place first = randomPlace(random);
            table.put(first, (double) number);
            for (int more = random.nextInt(3); more > 0; more--) {
                List<Place> others = places(first.whole());
                table.put(others.get(random.nextInt(others.size())), number + more / 10.0);
            }
            String text = text(first.whole(), table);
            acts.add(text);
            Element written = Models.element(model, "Test::" + first.whole());
            ReadResult read = NotationReader.readBack(model, List.of(written), new Source("", text));
            assertThat(read.problems()).as("seed %d, %s", seed, acts).isEmpty();
            model = applied(model, read.edit());
            assertThat(computed(model)).as("seed %d, %s", seed, acts).isEqualTo(told(table));
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(computed(Models.read(text))).as(text).isEqualTo(told(table));
    }

    /** A definition with all that a table says in it. */
    private static String text(String whole, Map<Place, Double> table) {
        Definition definition = definition(whole);
        Map<String, Double> values = new TreeMap<>();
        table.forEach((place, value) -> {
            if (place.whole().equals(whole)) {
                values.put(place.path(), value);
            }
        });
        String general =
                definition.generals().stream().map(each -> " :> " + each).collect(Collectors.joining());
        return "part def " + whole + general + " {" + inside(definition, general.isEmpty(), values) + "}";
    }

    private static String inside(Definition definition, boolean isOwn, Map<String, Double> values) {
        StringBuilder text = new StringBuilder();
        definition.values().forEach(name -> {
            Double value = values.get(name);
            if (isOwn || value != null) {
                text.append(" attribute ")
                        .append(isOwn ? name + " : Real" : ":>> " + name)
                        .append(" default ")
                        .append(value == null ? 0 : value)
                        .append(';');
            }
        });
        definition.parts().keySet().stream().sorted().forEach(part -> {
            Map<String, Double> inner = new TreeMap<>();
            values.forEach((path, value) -> {
                if (path.startsWith(part + ".")) {
                    inner.put(path.substring(part.length() + 1), value);
                }
            });
            String type = Objects.requireNonNull(definition.parts().get(part));
            if (isOwn || !inner.isEmpty()) {
                text.append(" part ")
                        .append(isOwn ? part + " : " + type : ":>> " + part)
                        .append(" {")
                        .append(inside(definition(type), false, inner))
                        .append('}');
            }
        });
        return text.toString();
    }

    private static Place randomPlace(Random random) {
        List<Place> places = DEFINITIONS.keySet().stream()
                .sorted()
                .flatMap(name -> places(name).stream())
                .toList();
        return places.get(random.nextInt(places.size()));
    }

    private static List<Place> places(String whole) {
        Definition definition = definition(whole);
        List<Place> places = new ArrayList<>();
        definition.values().forEach(value -> places.add(new Place(whole, List.of(), value)));
        definition.parts().keySet().stream()
                .sorted()
                .forEach(part -> places(definition.parts().get(part)).forEach(inner -> {
                    List<String> parts = new ArrayList<>(List.of(part));
                    parts.addAll(inner.parts());
                    places.add(new Place(whole, parts, inner.value()));
                }));
        return places;
    }

    private static Definition definition(String name) {
        return Objects.requireNonNull(DEFINITIONS.get(name));
    }

    /** By the outermost whole that says something of it. */
    private static double told(Place place, Map<Place, Double> table) {
        String whole = place.whole();
        for (int depth = 0; depth <= place.parts().size(); depth++) {
            List<String> rest = place.parts().subList(depth, place.parts().size());
            List<String> kinds = new ArrayList<>(List.of(whole));
            kinds.addAll(definition(whole).generals());
            for (String kind : kinds) {
                Double value = table.get(new Place(kind, rest, place.value()));
                if (value != null) {
                    return value;
                }
            }
            if (!rest.isEmpty()) {
                whole = Objects.requireNonNull(definition(whole).parts().get(rest.getFirst()));
            }
        }
        return 0;
    }

    private static Map<String, Double> told(Map<Place, Double> table) {
        return places("Unit").stream().collect(Collectors.toMap(Place::path, place -> told(place, table)));
    }

    private static Model set(Model model, Place place, int number) {
        List<ElementId> way = new ArrayList<>(List.of(Models.id(model, "Test::" + place.whole())));
        String whole = place.whole();
        for (String part : place.parts()) {
            way.add(declared(model, whole, part).id());
            whole = Objects.requireNonNull(definition(whole).parts().get(part));
        }
        UseInContext use = UseInContext.of(model, way);
        Element value = use.model()
                .inheritance()
                .effective(use.element(), declared(model, whole, place.value()).id())
                .orElseThrow();
        Authoring.Proposal proposal = new Authoring(use.model()).value(use.element(), value, Integer.toString(number));
        assertThat(proposal).as(place.toString()).isInstanceOf(Authoring.Proposal.Accepted.class);
        return applied(model, use.with(((Authoring.Proposal.Accepted) proposal).edit()));
    }

    /** The feature where it is first said, as a drawing that was opened before all edits has it. */
    private static Element declared(Model model, String whole, String feature) {
        return model.ownElements().stream()
                .filter(element -> feature.equals(element.name()))
                .filter(element ->
                        element.get(pyrite.core.model.Property.REDEFINES).isEmpty())
                .filter(element -> {
                    String owner = model.names().qualifiedName(model.get(Objects.requireNonNull(element.owner())));
                    return owner.equals("Test::" + whole)
                            || definition(whole).generals().contains(owner.substring("Test::".length()));
                })
                .findFirst()
                .orElseThrow(() -> new AssertionError(whole + " has no " + feature));
    }

    private static Model applied(Model model, Edit edit) {
        return ((EditResult.Applied) model.apply(edit)).model();
    }

    private static Map<String, Double> computed(Model model) {
        List<Place> places = places("Unit");
        String attributes = IntStream.range(0, places.size())
                .mapToObj(i -> "attribute v" + i + " : Real = " + places.get(i).path() + ";")
                .collect(Collectors.joining(" "));
        Authoring.Proposal asking =
                new Authoring(model).members(Models.element(model, "Test"), "part asked : Unit { " + attributes + " }");
        Model asked = applied(model, ((Authoring.Proposal.Accepted) asking).edit());
        Flattening flattening = Flattening.asNeeded(asked);
        Instance root = flattening.root(Models.element(asked, "Test::asked"));
        return IntStream.range(0, places.size())
                .boxed()
                .collect(Collectors.toMap(i -> places.get(i).path(), i -> value(asked, flattening, root, i)));
    }

    private static double value(Model asked, Flattening flattening, Instance root, int number) {
        Element attribute = Models.element(asked, "Test::asked::v" + number);
        return flattening
                .constant(asked.inheritance().value(attribute).orElseThrow().expression(), root)
                .orElseThrow();
    }
}
