package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Laws of arranging lines, over random sequences of what people do. */
class StructuringLawTest {
    private static final Model BEGIN = Models.read("""
            package Gate {
                private import Specifications::*;
                @Specification { prefix = "G"; level = "system"; }
                package One { requirement <'G-1'> a; requirement <'G-2'> b { requirement <'G-3'> c; } comment /* note */ }
                package Two { package Three { requirement <'G-4'> d; } requirement <'G-5'> e; }
                requirement <'G-6'> f;
            }""");

    private static Specification gate(Model model) {
        return Specification.all(model).getFirst();
    }

    private static List<Element> lines(Model model) {
        return gate(model).items(model).stream()
                .map(Specification.Item::element)
                .toList();
    }

    private static Optional<Edit> edit(Structuring structuring, List<Element> chosen, int what) {
        return switch (what) {
            case 0 -> structuring.indent(chosen);
            case 1 -> structuring.outdent(chosen);
            case 2 -> structuring.shift(chosen, true);
            default -> structuring.shift(chosen, false);
        };
    }

    @Property(tries = 200)
    void whateverIsArrangedNothingIsLostAndNothingLeavesTheSpecification(@ForAll long seed) {
        Random random = new Random(seed);
        Model model = BEGIN;
        int size = lines(model).size();
        for (int i = 0; i < 15; i++) {
            List<Element> all = lines(model);
            List<Element> chosen = List.of(all.get(random.nextInt(all.size())));
            Optional<Edit> edit = edit(new Structuring(model), chosen, random.nextInt(4));
            if (edit.isPresent() && model.apply(edit.get()) instanceof EditResult.Applied(Model next, var _)) {
                model = next;
            }
            assertThat(lines(model)).hasSize(size).doesNotHaveDuplicates();
        }
    }

    @Property(tries = 100)
    void movingUpTakesMovingDownBack(@ForAll long seed) {
        List<Element> all = lines(BEGIN);
        Element line = all.get(new Random(seed).nextInt(all.size()));
        new Structuring(BEGIN).shift(List.of(line), true).ifPresent(down -> {
            Model moved = ((EditResult.Applied) BEGIN.apply(down)).model();
            Edit up = new Structuring(moved)
                    .shift(List.of(moved.get(line.id())), false)
                    .orElseThrow();
            Model back = ((EditResult.Applied) moved.apply(up)).model();
            assertThat(lines(back))
                    .extracting(Element::id)
                    .isEqualTo(all.stream().map(Element::id).toList());
        });
    }
}
