package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;

/** Functions over several values (KerML 9.4) against the same computed by hand, for any numbers. */
class CollectionLoweringLawTest {
    private record Case(String expression, double expected) {}

    private static String written(List<Integer> numbers) {
        return numbers.stream().map(Object::toString).collect(Collectors.joining(", ", "(", ")"));
    }

    private static double truth(boolean holds) {
        return holds ? 1 : 0;
    }

    private static String asNumber(String condition) {
        return "if " + condition + " ? 1 else 0";
    }

    private static void assertAll(List<Case> cases) {
        StringBuilder members = new StringBuilder();
        for (int i = 0; i < cases.size(); i++) {
            members.append("attribute y")
                    .append(i)
                    .append(" : Real; assert constraint c")
                    .append(i)
                    .append(" { y")
                    .append(i)
                    .append(" == ")
                    .append(cases.get(i).expression)
                    .append(" }\n");
        }
        Trajectory trajectory =
                Runs.run(members + "attribute t : Real := 0; assert constraint moves { der(t) == 1 [1/s] }", 1);
        for (int i = 0; i < cases.size(); i++) {
            assertThat(Runs.at(trajectory, "p.y" + i, 1))
                    .as(cases.get(i).expression)
                    .isCloseTo(cases.get(i).expected, within(1e-9 * Math.max(1, Math.abs(cases.get(i).expected))));
        }
    }

    @Property(tries = 40)
    void functionsOverSeveralAreWorthWhatTheyAreByHand(
            @ForAll @Size(min = 2, max = 6) List<@IntRange(min = -9, max = 9) Integer> numbers,
            @ForAll @IntRange(min = -9, max = 9) int limit,
            @ForAll @IntRange(min = 1, max = 6) int place) {
        String many = written(numbers);
        DoubleStream above = numbers.stream().filter(x -> x > limit).mapToDouble(x -> x);
        int at = Math.min(place, numbers.size());
        assertAll(List.of(
                new Case("sum(" + many + ")", numbers.stream().mapToInt(x -> x).sum()),
                new Case(
                        many + "->product()",
                        numbers.stream().mapToDouble(x -> x).reduce(1, (a, b) -> a * b)),
                new Case(
                        "max(" + many + ")",
                        numbers.stream().mapToInt(x -> x).max().orElseThrow()),
                new Case(
                        many + "->min()",
                        numbers.stream().mapToInt(x -> x).min().orElseThrow()),
                new Case(many + "->size()", numbers.size()),
                new Case(many + "->head()", numbers.getFirst()),
                new Case(many + "->last()", numbers.getLast()),
                new Case(many + "#(" + at + ")", numbers.get(at - 1)),
                new Case(many + "->select { in x; x > " + limit + " }->sum()", above.sum()),
                new Case(
                        many + "->reject { in x; x > " + limit + " }->size()",
                        numbers.stream().filter(x -> x <= limit).count()),
                new Case(
                        many + "->collect { in x; x * x }->sum()",
                        numbers.stream().mapToInt(x -> x * x).sum()),
                new Case(
                        many + "->reduce { in a; in b; a - b }",
                        numbers.stream().reduce((a, b) -> a - b).orElseThrow()),
                new Case(
                        asNumber(many + "->forAll { in x; x < " + limit + " }"),
                        truth(numbers.stream().allMatch(x -> x < limit))),
                new Case(asNumber(many + "->exists { in x; x == " + limit + " }"), truth(numbers.contains(limit))),
                new Case(asNumber(many + "->includes(" + limit + ")"), truth(numbers.contains(limit))),
                new Case(asNumber(many + "->excludes(" + limit + ")"), truth(!numbers.contains(limit))),
                new Case(
                        asNumber(many + "->select { in x; x > " + limit + " }->isEmpty()"),
                        truth(numbers.stream().noneMatch(x -> x > limit))),
                new Case(
                        asNumber(many + "->select { in x; x > " + limit + " }->notEmpty()"),
                        truth(numbers.stream().anyMatch(x -> x > limit)))));
    }

    /** The sums of the first numbers and of their squares and cubes have closed forms (Faulhaber). */
    @Property(tries = 20)
    void rangesSumUpToTheirClosedForms(@ForAll @IntRange(min = 1, max = 200) int n) {
        double gauss = n * (n + 1) / 2.0;
        assertAll(List.of(
                new Case("(1.." + n + ")->sum()", gauss),
                new Case("(1.." + n + ")->collect { in i; i^2 }->sum()", gauss * (2 * n + 1) / 3),
                new Case("(1.." + n + ")->collect { in i; i^3 }->sum()", gauss * gauss),
                new Case("(" + n + "..1)->size()", n == 1 ? 1 : 0),
                new Case("(1.." + n + ")->select { in i; i % 2 == 0 }->size()", n / 2)));
    }

    /** What is chosen and what is left are together all, whatever is asked. */
    @Property(tries = 20)
    void whatIsSelectedAndWhatIsRejectedAreAll(
            @ForAll @Size(min = 2, max = 6) List<@IntRange(min = -9, max = 9) Integer> numbers,
            @ForAll @IntRange(min = -3, max = 3) int factor) {
        String many = written(numbers);
        String question = " { in x; x * " + factor + " >= x - 2 }";
        assertAll(List.of(
                new Case(
                        many + "->select" + question + "->size() + " + many + "->reject" + question + "->size()",
                        numbers.size()),
                new Case(
                        "(" + many + "->select" + question + ", " + many + "->reject" + question + ")->sum()",
                        numbers.stream().mapToInt(x -> x).sum())));
    }

    /** The same over the parts of a thing, each with a value of its own. */
    @Property(tries = 20)
    void partsAreCountedAndSummedUp(
            @ForAll @Size(min = 1, max = 5) List<@IntRange(min = 1, max = 50) Integer> masses,
            @ForAll @IntRange(min = 1, max = 50) int limit) {
        List<String> names =
                IntStream.range(0, masses.size()).mapToObj(i -> "stone" + i).toList();
        StringBuilder parts = new StringBuilder();
        List<String> all = new ArrayList<>(names);
        all.add("anchor");
        for (int i = 0; i < masses.size(); i++) {
            parts.append("part ")
                    .append(names.get(i))
                    .append(" { attribute mass : MassValue = ")
                    .append(masses.get(i))
                    .append(" [kg]; }\n");
        }
        String list = all.stream().map(name -> name + ".mass").collect(Collectors.joining(", ", "(", ")"));
        Trajectory trajectory = Runs.run(parts + """
                part anchor { attribute mass : MassValue = 7 [kg]; }
                attribute total : MassValue; assert constraint summed { total == sum(%s) }
                attribute heavy : Real; assert constraint counted { heavy == %s->select { in m; m > %d [kg] }->size() }
                attribute t : Real := 0; assert constraint moves { der(t) == 1 [1/s] }
                """.formatted(list, list, limit), 1);
        assertThat(Runs.at(trajectory, "p.total", 1))
                .isCloseTo(7 + masses.stream().mapToInt(m -> m).sum(), within(1e-9));
        assertThat(Runs.at(trajectory, "p.heavy", 1))
                .isCloseTo(masses.stream().filter(m -> m > limit).count() + truth(7 > limit), within(1e-9));
    }
}
