package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Writing any model and reading it again gives the same model, and canonical text does not change any more. */
class RoundTripTest {
    private static final List<String> UNITS = List.of("m", "kN", "deg/s", "m^3/s", "°C", "MN*m*s/rad");

    @Property(tries = 80)
    void readingWhatWasWrittenGivesTheSameModel(@ForAll long seed) {
        Model first = Models.of(new Members(seed).text());
        String text = NotationWriter.write(first, first.ownRoots());
        Model second = Models.read(text);
        assertThat(NotationWriter.write(second, second.ownRoots())).isEqualTo(text);
        assertThat(shape(second)).isEqualTo(shape(first));
    }

    /** What does not depend on ids: kinds, names, and how many of each property, from the top down. */
    private static List<String> shape(Model model) {
        List<String> lines = new ArrayList<>();
        model.ownRoots().forEach(root -> model.subtree(root.id()).forEach(element -> lines.add(line(model, element))));
        return lines;
    }

    private static String line(Model model, Element element) {
        return element.kind() + " " + model.names().qualifiedName(element) + " " + element.shortName() + " "
                + element.with(pyrite.core.model.Property.SPELLINGS, null)
                        .properties()
                        .keySet() + " "
                + element.outgoing().stream()
                        .map(id -> model.names().qualifiedName(model.get(id)))
                        .toList();
    }

    /** Random members of every kind, with names in scope of what is written. */
    private static final class Members {
        private final Random random;
        private final StringBuilder out = new StringBuilder();
        private int count;

        Members(long seed) {
            random = new Random(seed);
        }

        String text() {
            List<String> definitions = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                definitions.add(definition(definitions));
            }
            for (int i = 0; i < 4; i++) {
                usage(definitions.get(random.nextInt(definitions.size())));
            }
            return out.toString();
        }

        private String definition(List<String> known) {
            String name = name("Thing");
            out.append(random.nextBoolean() ? "abstract " : "")
                    .append("part def ")
                    .append(name);
            if (!known.isEmpty() && random.nextBoolean()) {
                out.append(" :> ").append(known.getLast());
            }
            out.append(" {\n");
            if (random.nextBoolean()) {
                out.append("doc /* line one\n * line two */\n");
            }
            attribute(name("a"));
            String varying = name("b");
            out.append("attribute ")
                    .append(varying)
                    .append(" : LengthValue := 2 [cm];")
                    .append(random.nextBoolean() ? " // moves\n" : "\n");
            out.append("assert constraint ")
                    .append(name("law"))
                    .append(" { der(")
                    .append(varying)
                    .append(") == if ")
                    .append(varying)
                    .append(" > 1 [m] and not (time < 3 [s]) ? -")
                    .append(varying)
                    .append(" / 2 [s] else 0 [m/s] }\n");
            out.append("}\n");
            return name;
        }

        private void attribute(String name) {
            String unit = UNITS.get(random.nextInt(UNITS.size()));
            out.append("attribute ")
                    .append(random.nextBoolean() ? "<'short " + name + "'> " : "")
                    .append(name)
                    .append(" = ")
                    .append(random.nextInt(100))
                    .append(" [")
                    .append(unit.startsWith("°") ? "'" + unit + "'" : unit)
                    .append("];\n");
        }

        private void usage(String type) {
            String part = name("part");
            out.append("part ")
                    .append(part)
                    .append(random.nextBoolean() ? "[2]" : "")
                    .append(" : ")
                    .append(type)
                    .append(";\n");
            String requirement = name("'need no ") + "'";
            out.append("requirement ")
                    .append(requirement)
                    .append(" { subject s : ")
                    .append(type)
                    .append("; require constraint { true or false implies 1 <= 2^(-1) } }\n");
            out.append("satisfy ")
                    .append(requirement)
                    .append(" by ")
                    .append(part)
                    .append(";\n");
            out.append("verification ")
                    .append(name("check"))
                    .append(" : SimulatedCheck { subject :>> system = ")
                    .append(part)
                    .append("; attribute :>> stopTime = 1 [min]; objective { verify ")
                    .append(requirement)
                    .append("; } }\n");
            if (random.nextBoolean()) {
                out.append("/* a comment of its own */\n");
            }
        }

        private String name(String stem) {
            return stem + count++;
        }
    }
}
