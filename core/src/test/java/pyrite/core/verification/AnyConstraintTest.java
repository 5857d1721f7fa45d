package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/**
 * Whatever a requirement asks for, in whatever way parts of the language are put together: it gets a verdict, or hears
 * why not.
 */
class AnyConstraintTest {
    private static final String MODEL = """
            enum def Mode { enum on; enum off; }
            calc def Twice { in x : Real; return : Real = x * 2 + 1; }
            constraint def Above { in x : Real; x > 1 }
            part def Pump { attribute rate : Real default 2; }
            part def Station {
                part pumps : Pump[3];
                part fast : Pump { attribute :>> rate = 7; }
                attribute a : Real = 1;
                attribute b : Real = a + 1;
                attribute varying : Real;
                attribute level : LengthValue := 0 [m];
                attribute wet : Boolean = level > 1 [m];
                attribute flag : Boolean = true;
                attribute mode : Mode = Mode::on;
                attribute name : String = "x";
                attribute steps : Real[3] = (1, 2, 3);
                assert constraint filling { der(level) == 1 [m/s] }
                assert constraint follows { varying == level / 1 [m] + 1 }
            }
            part station : Station;
            requirement r { subject s : Station; require constraint { %s } }
            satisfy r by station;
            verification check : SimulatedCheck { subject :>> system = station; attribute :>> stopTime = 4 [s]; objective { verify r; } }
            """;

    private final Random random = new Random();

    private String one(String... of) {
        return of[random.nextInt(of.length)];
    }

    private String number(int depth) {
        if (depth <= 0) {
            return one(
                    "1",
                    "2.5",
                    "s.a",
                    "s.b",
                    "s.varying",
                    "s.fast.rate",
                    "s.level / 1 [m]",
                    "0",
                    "Twice(2)",
                    "s.steps->size()",
                    "s.steps#(2)");
        }
        String inner = number(depth - 1);
        return switch (random.nextInt(15)) {
            case 0 -> inner + one(" + ", " - ") + number(depth - 1);
            case 1 -> "(" + inner + ")" + one(" * ", " / ") + "(" + number(depth - 1) + ")";
            case 2 -> "-(" + inner + ")";
            case 3 -> "(if " + condition(depth - 1) + " ? " + inner + " else " + number(depth - 1) + ")";
            case 4 -> one("max", "min") + "(" + inner + ", " + number(depth - 1) + ")";
            case 5 -> one("abs", "Twice") + "(" + inner + ")";
            case 6 -> "sum((" + inner + ", " + number(depth - 1) + "))";
            case 7 ->
                "(" + inner + ", " + number(depth - 1) + ")->" + one("max", "min", "sum", "product", "size") + "()";
            case 8 -> "(1..3)->collect { in i; i * " + inner + " }->sum()";
            case 9 -> one("maximum", "minimum", "final", "initial", "mean") + "(" + inner + ")";
            case 10 -> "s.pumps->collect { in p : Pump; p.rate + " + inner + " }->" + one("sum", "max") + "()";
            case 11 -> "(" + inner + ", " + number(depth - 1) + ")#(1)";
            case 12 -> "(" + inner + ")^2";
            case 13 -> "s.pumps->select { in p : Pump; p.rate > " + inner + " }->size()";
            default -> "(1, 2)->reduce { in x; in y; x * y + " + inner + " }";
        };
    }

    private String condition(int depth) {
        if (depth <= 0) {
            return one(
                    "true",
                    "s.flag",
                    "s.a < 2",
                    "s.mode == Mode::on",
                    "s.name == \"x\"",
                    "s.fast istype Pump",
                    "s.wet");
        }
        String inner = condition(depth - 1);
        return switch (random.nextInt(13)) {
            case 0, 1 -> number(depth - 1) + one(" < ", " <= ", " > ", " >= ", " == ", " != ") + number(depth - 1);
            case 2 -> "(" + inner + ")" + one(" and ", " or ", " implies ", " xor ") + "(" + condition(depth - 1) + ")";
            case 3 -> "not (" + inner + ")";
            case 4 ->
                "s.pumps->" + one("forAll", "exists") + " { in p : Pump; p.rate " + one("<", ">") + " "
                        + number(depth - 1) + " }";
            case 5 -> "s.pumps->" + one("forAll", "exists") + " { in p : Pump; " + inner + " }";
            case 6, 7 -> one("always", "eventually") + "(" + inner + ")";
            case 8 -> "(if " + inner + " ? " + condition(depth - 1) + " else " + condition(depth - 1) + ")";
            case 9 -> "(1, 2, 3)->includes(" + number(depth - 1) + ")";
            case 10 -> "(" + inner + ", " + condition(depth - 1) + ")->" + one("allTrue", "anyTrue") + "()";
            case 11 -> "Above(" + number(depth - 1) + ")";
            default -> one("firstTime", "lastTime", "duration") + "(" + inner + ") < 3 [s]";
        };
    }

    @Property(tries = 700)
    void aVerdictIsGivenOrItIsSaidWhyNot(@ForAll long seed) {
        random.setSeed(seed);
        String constraint = condition(1 + random.nextInt(4));
        Model model = Models.of(MODEL.formatted(constraint));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE);
        assertThat(run.failure()).as(constraint).isNull();
        assertThat(run.judgements())
                .as(constraint)
                .singleElement()
                .satisfies(judgement -> assertThat(judgement.reason()).isNotBlank());
        // Without a run it says the same, or nothing.
        StaticJudgement.of(model, Models.element(model, "Test::r")).judgements().stream()
                .filter(judgement -> judgement.verdict() != VerdictKind.ERROR)
                .forEach(judgement -> assertThat(judgement.verdict())
                        .as(constraint)
                        .isEqualTo(run.judgements().getFirst().verdict()));
    }
}
