package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Texts so long that several threads split them into tokens and look up their names. */
class LongTextTest {
    private static final int MANY = 2500;

    private static String many(String each, int count) {
        return IntStream.rangeClosed(1, count)
                .mapToObj(i -> each.replace("#", Integer.toString(i)))
                .collect(Collectors.joining("\n"));
    }

    private static final String SLUICE = """
            // about number #
            package Sluice# {
                part def Valve :> Fitting;  // behind the valve of #

                part def Fitting {
                    attribute bore : ScalarValues::Real;
                }

                part valve : Valve {
                    attribute :>> bore = #;
                }
            }
            """;

    @Test
    void nothingOfALongTextIsLostOrMovedAndNamesLeadToWhatIsNearest() {
        String text = many(SLUICE, MANY);
        assertThat(text.length()).isGreaterThan(400_000);
        Model model = Models.read(text);
        assertThat(NotationWriter.write(model, model.ownRoots())).isEqualTo(text);
        for (int i : List.of(1, MANY / 2, MANY)) {
            Element bore = Models.element(model, "Sluice" + i + "::valve::bore");
            assertThat(model.names()
                            .qualifiedName(model.inheritance().redefined(bore).getLast()))
                    .isEqualTo("Sluice" + i + "::Fitting::bore");
        }
    }

    @Test
    void aFaultFarDownIsToldAtItsPlace() {
        String text =
                many(SLUICE, MANY) + "package Last { part lid : Lidd; }\npackage More { part def Lid; part x y; }";
        List<TextProblem> problems = NotationReader.read(Library.model(), List.of(new Source("long", text)))
                .problems();
        long lines = text.lines().count();
        assertThat(problems).extracting(TextProblem::line).containsExactly((int) lines - 1, (int) lines);
        assertThat(problems).extracting(TextProblem::column).containsExactly(27, 37);
    }

    /** Each package alone is read by one thread, all of them together by several. */
    @Test
    void whatGoesInACircleIsToldTheSameAloneAndAmongMany() {
        String circles = """
                package Ring# {
                    part def First :> Second { attribute a : ScalarValues::Real; }
                    part def Second :> Third { attribute b : ScalarValues::Real; }
                    part def Third :> First { attribute c = a + missing; }
                    part one :> two { attribute d; }
                    part two :> one { attribute :>> d; attribute :>> e; }
                    package Inner { public import Ring#::Other::*; }
                    package Other { public import Ring#::Inner::*; part def Lock :> Inner::Lock; }
                }
                """;
        List<String> alone = problems(many(circles, 1));
        assertThat(alone).isNotEmpty().anyMatch(message -> message.contains("missing"));
        for (int attempt = 0; attempt < 5; attempt++) {
            List<String> among = problems(many(SLUICE, MANY) + many(circles, 20));
            assertThat(among).hasSize(20 * alone.size());
            assertThat(among.subList(0, alone.size())).isEqualTo(alone);
            assertThat(among.subList(19 * alone.size(), 20 * alone.size()))
                    .isEqualTo(alone.stream()
                            .map(message -> message.replace("Ring1", "Ring20"))
                            .toList());
        }
    }

    private static List<String> problems(String text) {
        return NotationReader.read(Library.model(), List.of(new Source("text", text))).problems().stream()
                .map(TextProblem::message)
                .toList();
    }
}
