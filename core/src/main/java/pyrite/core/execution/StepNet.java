package pyrite.core.execution;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The steps of one behaviour and what leads from one to another (SysML 2.0, 7.17.4).
 *
 * @param begin the places of the successions that have a token when it begins
 */
record StepNet(
        List<StepNode> steps, List<Succession> successions, List<int[]> in, List<int[]> out, List<Integer> begin) {
    /** The end of a behaviour, in the place of a step. */
    static final int DONE = -1;

    /** Where a behaviour begins, in the place of a step. */
    static final int START = -2;

    /** @param from the index of a step, or {@link #START} */
    record Succession(int from, int to, @Nullable Question guard, boolean isElse) {
        boolean isConditional() {
            return guard != null || isElse;
        }
    }

    /** Says that a step begins with the behaviour. */
    void beginWith(int step) {
        int place = successions.size();
        successions.add(new Succession(START, step, null, false));
        in.set(step, new int[] {place});
        begin.add(place);
    }

    static StepNet of(List<StepNode> steps, List<Succession> successions, List<Integer> begin) {
        List<List<Integer>> in = new ArrayList<>();
        List<List<Integer>> out = new ArrayList<>();
        steps.forEach(_ -> {
            in.add(new ArrayList<>());
            out.add(new ArrayList<>());
        });
        for (int i = 0; i < successions.size(); i++) {
            Succession each = successions.get(i);
            if (each.from() >= 0) {
                out.get(each.from()).add(i);
            }
            if (each.to() >= 0) {
                in.get(each.to()).add(i);
            }
        }
        return new StepNet(List.copyOf(steps), successions, arrays(in), arrays(out), begin);
    }

    private static List<int[]> arrays(List<List<Integer>> lists) {
        return lists.stream()
                .map(list -> list.stream().mapToInt(Integer::intValue).toArray())
                .collect(Collectors.toCollection(ArrayList::new));
    }
}
