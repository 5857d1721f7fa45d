package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * Random packages in which few names mean many things, with references spelled in every way: a text that is accepted is
 * written with the same tokens, and read again each name means the same and each body says the same.
 */
class SpellingLawTest {
    @Property(tries = 400)
    void everyNameAndBodyIsKeptAsItWasWritten(@ForAll long seed) {
        String text = accepted(new Packages(new Random(seed)).lines());
        Model first = Models.read(text);
        String written = NotationWriter.write(first, first.ownRoots());
        ReadResult again = Models.tryRead(written);
        assertThat(again.problems()).as(written).isEmpty();
        assertThat(tokens(written)).as(text).isEqualTo(tokens(text));
        assertThat(meaning(again.model())).isEqualTo(meaning(first));
        assertThat(NotationWriter.write(again.model(), again.model().ownRoots()))
                .isEqualTo(written);
    }

    /** Without what an author spelled, each name still means the same. */
    @Property(tries = 400)
    void namesOfOursMeanTheSame(@ForAll long seed) {
        meansTheSame(Models.read(accepted(new Packages(new Random(seed)).lines())));
    }

    /** {@code B::G} from within T is the alias itself, which the B there inherits. */
    @Test
    void anAliasIsNotNamedByAWayThroughItself() {
        meansTheSame(Models.read(
                "package A { part def T { part def B :> T; alias G for $::B::G; } } package B { part def G; }"));
    }

    private static void meansTheSame(Model first) {
        Model plain = first.ownElements().stream()
                .map(element -> element.with(pyrite.core.model.Property.SPELLINGS, null))
                .reduce(
                        first,
                        (model, element) -> ((pyrite.core.model.EditResult.Applied)
                                        model.apply(pyrite.core.model.Edit.put(element)))
                                .model(),
                        (a, b) -> b);
        String written = NotationWriter.write(plain, plain.ownRoots());
        ReadResult again = Models.tryRead(written);
        assertThat(again.problems()).as(written).isEmpty();
        assertThat(meaning(again.model())).as(written).isEqualTo(meaning(plain));
    }

    /** The lines without those that the reader refuses; what begins with one goes as a whole. */
    private static String accepted(List<String> lines) {
        List<String> left = new ArrayList<>(lines);
        for (; ; ) {
            List<TextProblem> problems = Models.tryRead(String.join("\n", left)).problems();
            if (problems.isEmpty()) {
                return String.join("\n", left);
            }
            Set<Integer> refused = new HashSet<>();
            problems.forEach(problem -> refused.add(problem.line()));
            List<String> kept = new ArrayList<>();
            int line = 1;
            int removing = 0;
            for (String entry : left) {
                boolean opens = entry.endsWith("{");
                if (removing > 0 || refused.contains(line)) {
                    removing += opens ? 1 : entry.equals("}") ? -1 : 0;
                } else {
                    kept.add(entry);
                }
                line += entry.split("\n").length;
            }
            assertThat(kept).as(problems::toString).hasSizeLessThan(left.size());
            left = kept;
        }
    }

    /** The words and signs; a body counts by what it says. */
    private static List<String> tokens(String text) {
        Tokens tokens = Tokens.of(text);
        String all = IntStream.range(0, tokens.last())
                .mapToObj(i -> tokens.type(i) == Tokens.Type.BLOCK ? BlockText.read(tokens.text(i)) : tokens.text(i))
                .collect(Collectors.joining("¦"));
        return List.of(all.replace("{¦}", ";").split("¦"));
    }

    private static List<String> meaning(Model model) {
        List<String> lines = new ArrayList<>();
        model.ownRoots()
                .forEach(root -> model.subtree(root.id())
                        .forEach(element -> lines.add(path(model, element) + " → "
                                + element.outgoing().stream()
                                        .map(id -> path(model, model.get(id)))
                                        .toList()
                                + element.get(pyrite.core.model.Property.TEXT).orElse(""))));
        return lines;
    }

    /** By places, since names may be the same. */
    private static String path(Model model, Element element) {
        if (model.isLibrary(element.id())) {
            return model.names().qualifiedName(element);
        }
        List<Element> siblings = element.owner() == null ? model.ownRoots() : model.children(element.owner());
        String here = siblings.indexOf(element) + ":" + element.name();
        return element.owner() == null ? here : path(model, model.get(element.owner())) + "/" + here;
    }

    private static final class Packages {
        private static final List<String> NAMES = List.of("A", "B", "Box", "T", "'two words'", "part_", "'Größe'");
        private static final List<String> TOPS = List.of("A", "B", "C", "D");
        private final Random random;
        private int top;
        private final List<String> lines = new ArrayList<>();

        Packages(Random random) {
            this.random = random;
        }

        List<String> lines() {
            for (String each : TOPS) {
                top = TOPS.indexOf(each);
                body("package " + each, 0);
            }
            return lines;
        }

        private void body(String head, int depth) {
            lines.add(head + " {");
            if (top < TOPS.size() - 1 && random.nextInt(3) == 0) {
                lines.add("private import " + imported() + (random.nextBoolean() ? "::*;" : ";"));
            }
            if (top < TOPS.size() - 1 && random.nextInt(3) == 0) {
                lines.add("public import " + imported() + "::*;");
            }
            if (random.nextInt(3) == 0) {
                lines.add("doc /* first\n *" + " ".repeat(random.nextInt(6)) + "x = 1\n *   y */");
            }
            int members = 2 + random.nextInt(4);
            for (int i = 0; i < members; i++) {
                member(depth);
            }
            lines.add("}");
        }

        private void member(int depth) {
            switch (random.nextInt(depth < 2 ? 8 : 6)) {
                case 0 -> lines.add("part def " + name() + " :> " + path() + ";");
                case 1 -> lines.add("part def <" + name() + "> " + name() + ";");
                case 2 -> lines.add("part " + name() + " : " + path() + ";");
                case 3 -> alias();
                case 4 -> lines.add("part " + name() + " :> " + path() + ";");
                case 5 ->
                    lines.add("ref " + name() + " :> " + path() + (random.nextBoolean() ? "." + name() : "") + ";");
                case 6 -> body("package " + name(), depth + 1);
                default -> body("part def " + name(), depth + 1);
            }
        }

        /** For something in a package behind this one, for the same reason. */
        private void alias() {
            if (top < TOPS.size() - 1) {
                lines.add("alias " + name() + " for " + imported() + "::" + name() + ";");
            }
        }

        private String name() {
            return NAMES.get(random.nextInt(NAMES.size()));
        }

        /** A package behind this one: imports that form a circle are found in an order that is nobody's business. */
        private String imported() {
            return "$::" + TOPS.get(Math.min(TOPS.size() - 1, top + 1));
        }

        private String path() {
            int parts = 1 + random.nextInt(3);
            List<String> names = new ArrayList<>(random.nextInt(6) == 0 ? List.of("$", "A") : List.of());
            for (int i = 0; i < parts; i++) {
                names.add(name());
            }
            return String.join("::", names);
        }
    }
}
