package pyrite.core.story;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StepGraph;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.story.Story.Ending;
import pyrite.core.story.Story.Kind;
import pyrite.core.story.Story.Line;
import pyrite.core.story.Story.Way;

/** Walks the graph of a use case and numbers what it meets. Takes time in proportion to the steps. */
final class Telling {
    private static final Ending OPEN = new Ending.Open();
    private static final Ending ENDS = new Ending.Ends();
    /** So many steps behind a fork an event's {@code terminate} is looked for. */
    private static final int LONGEST_EVENT = 20;

    private final Model model;
    private final Element useCase;
    private final StoryTexts texts;
    /** What has been told; a control node is told with the step that it leads to. */
    private final Map<ElementId, Line> told = new HashMap<>();

    private final Map<String, Integer> letters = new HashMap<>();
    private final Deque<Branch> branches = new ArrayDeque<>();

    /** The ways are numbered by the step that they leave, so one is told when the step behind its node is. */
    private record Branch(
            StepGraph graph,
            ElementId entry,
            Element carrier,
            Kind kind,
            String condition,
            String leaving,
            @Nullable Line at,
            boolean isBehind) {}

    /** Steps that are being told one behind the other. */
    private static final class Draft {
        /** The label of the way. */
        private final String way;
        /** What stands before the number of each step. */
        private final String prefix;

        private final boolean isParallel;
        private final List<Line> lines = new ArrayList<>();
        private final List<Branch> waiting = new ArrayList<>();
        private final Set<ElementId> nodes = new HashSet<>();
        private int number;
        /** The join node at which one of several parallel branches has come to its end. */
        private @Nullable ElementId joined;

        private Draft(String way, String prefix, boolean isParallel) {
            this.way = way;
            this.prefix = prefix;
            this.isParallel = isParallel;
        }

        private String next() {
            number++;
            return prefix + number;
        }
    }

    Telling(Model model, Element useCase) {
        this.model = model;
        this.useCase = useCase;
        this.texts = new StoryTexts(model);
    }

    Story tell() {
        StepGraph graph = StepGraph.of(model, useCase);
        List<ElementId> first = graph.first();
        Draft main = new Draft("", "", false);
        Ending ending = first.isEmpty() ? OPEN : walk(graph, first.getFirst(), main);
        leaveBehind(main);
        List<Way> ways = new ArrayList<>();
        ways.add(new Way("", Kind.MAIN, null, null, false, "", "", main.lines, ending));
        while (!branches.isEmpty()) {
            ways.add(told(branches.removeFirst()));
        }
        return new Story(useCase, ways);
    }

    private Way told(Branch branch) {
        String at = branch.at() == null ? "0" : branch.at().label();
        String label = at + letter(letters.merge(at, 1, Integer::sum));
        Draft draft = new Draft(label, label, false);
        Ending ending = walk(branch.graph(), branch.entry(), draft);
        leaveBehind(draft);
        return new Way(
                label,
                branch.kind(),
                branch.carrier(),
                branch.at() == null ? null : branch.at().step().id(),
                branch.isBehind(),
                branch.leaving(),
                branch.condition(),
                draft.lines,
                ending);
    }

    /** Branches that leave behind the last step belong to that step. */
    private void leaveBehind(Draft draft) {
        leave(draft, draft.lines.isEmpty() ? null : draft.lines.getLast(), true);
    }

    private void leave(Draft draft, @Nullable Line at, boolean isBehind) {
        draft.waiting.forEach(branch -> branches.addLast(new Branch(
                branch.graph(),
                branch.entry(),
                branch.carrier(),
                branch.kind(),
                branch.condition(),
                draft.way,
                at,
                isBehind || branch.kind() == Kind.INTERRUPTION)));
        draft.waiting.clear();
    }

    /** a to z, then aa, ab … */
    private static String letter(int number) {
        StringBuilder letters = new StringBuilder();
        for (int rest = number; rest > 0; rest = (rest - 1) / 26) {
            letters.insert(0, (char) ('a' + (rest - 1) % 26));
        }
        return letters.toString();
    }

    /** Tells from a node on until something that was told before, the end, or the join of parallel branches. */
    private Ending walk(StepGraph graph, ElementId entry, Draft draft) {
        ElementId at = entry;
        while (true) {
            if (at.equals(StepGraph.DONE)) {
                return ENDS;
            }
            Line known = told.get(at);
            Element node = model.find(at).orElse(null);
            if (known != null) {
                return new Ending.GoesOn(known.step().id(), known.label());
            }
            if (node == null || draft.nodes.contains(at)) {
                return OPEN;
            }
            if (node.kind() == ElementKind.TERMINATE
                    && node.get(Property.CONTENT).isEmpty()) {
                return ENDS;
            }
            if (node.kind() == ElementKind.JOIN && draft.isParallel) {
                draft.joined = at;
                return OPEN;
            }
            boolean isNode = isControl(node);
            draft.nodes.add(at);
            if (!isNode) {
                step(node, draft);
            }
            ElementId next = next(graph, node, draft);
            if (next == null) {
                return OPEN;
            }
            at = next;
        }
    }

    static boolean isControl(Element node) {
        return switch (node.kind()) {
            case MERGE, DECIDE, FORK, JOIN, TERMINATE -> true;
            default -> false;
        };
    }

    private void step(Element step, Draft draft) {
        StepGraph inner = StepGraph.of(model, step);
        String text = texts.of(step);
        List<ElementId> first = inner.first();
        boolean isStretch = !first.isEmpty() && texts.documentation(step).isEmpty();
        if (isStretch) {
            int before = draft.lines.size();
            walk(inner, first.getFirst(), draft);
            if (draft.lines.size() > before) {
                told.put(step.id(), draft.lines.get(before));
            }
            return;
        }
        Line line = new Line(draft.next(), step, text);
        add(line, draft);
        if (!first.isEmpty()) {
            Draft within = new Draft(draft.way, line.label() + ".", false);
            walk(inner, first.getFirst(), within);
            draft.lines.addAll(within.lines);
            leaveBehind(within);
        }
    }

    private void add(Line line, Draft draft) {
        draft.lines.add(line);
        told.put(line.step().id(), line);
        draft.nodes.forEach(node -> told.putIfAbsent(node, line));
        draft.nodes.clear();
        leave(draft, line, false);
    }

    private @Nullable ElementId next(StepGraph graph, Element node, Draft draft) {
        List<Succession> out = graph.from(node.id());
        if (out.isEmpty()) {
            return null;
        }
        boolean isFork = out.size() > 1 && out.stream().noneMatch(Succession::isConditional);
        return node.kind() != ElementKind.DECIDE && isFork ? fork(graph, out, draft) : choose(graph, out, draft);
    }

    /** The branch that the way takes; the others are told later. */
    private @Nullable ElementId choose(StepGraph graph, List<Succession> out, Draft draft) {
        Succession main = out.stream()
                .filter(Succession::isElse)
                .findFirst()
                .or(() -> out.stream().filter(each -> each.guard() == null).findFirst())
                .orElse(out.getFirst());
        out.stream()
                .filter(each -> each != main)
                .forEach(each -> draft.waiting.add(new Branch(
                        graph,
                        each.to(),
                        each.carrier(),
                        RainyDays.isMarked(model, each.carrier()) ? Kind.RAINY : Kind.ALTERNATIVE,
                        texts.condition(each),
                        "",
                        null,
                        false)));
        return main.to();
    }

    /** Parallel branches are told one behind the other; an event that cuts one of them short is told later. */
    private @Nullable ElementId fork(StepGraph graph, List<Succession> out, Draft draft) {
        List<Succession> parallel = new ArrayList<>();
        for (Succession branch : out) {
            Element event = model.find(branch.to()).orElse(null);
            ElementId behind = event == null ? null : behindTerminate(graph, event, out);
            if (behind == null || event == null) {
                parallel.add(branch);
            } else {
                draft.waiting.add(
                        new Branch(graph, behind, event, Kind.INTERRUPTION, texts.of(event), "", null, false));
            }
        }
        if (parallel.size() <= 1) {
            return parallel.isEmpty() ? null : parallel.getFirst().to();
        }
        String block = draft.next();
        ElementId joined = null;
        for (int i = 0; i < parallel.size(); i++) {
            String prefix = block + letter(i + 1).toUpperCase(java.util.Locale.ROOT);
            Draft branch = new Draft(draft.way, prefix, true);
            if (i == 0) {
                branch.nodes.addAll(draft.nodes);
                branch.waiting.addAll(draft.waiting);
                draft.nodes.clear();
                draft.waiting.clear();
            }
            walk(graph, parallel.get(i).to(), branch);
            leaveBehind(branch);
            draft.lines.addAll(branch.lines);
            joined = joined == null ? branch.joined : joined;
        }
        if (joined == null) {
            return null;
        }
        draft.nodes.add(joined);
        return next(graph, model.get(joined), draft);
    }

    /**
     * What comes behind the {@code terminate} of another branch, if a branch leads there: the {@code terminate} itself
     * stands for it, as nothing may follow yet.
     */
    private @Nullable ElementId behindTerminate(StepGraph graph, Element event, List<Succession> branches) {
        Element at = event;
        for (int i = 0; i < LONGEST_EVENT; i++) {
            if (at.kind() == ElementKind.TERMINATE) {
                return at.get(Property.CONTENT)
                                .filter(Expression.FeatureReference.class::isInstance)
                                .map(content -> ((Expression.FeatureReference) content)
                                        .chain()
                                        .getFirst())
                                .filter(target -> branches.stream()
                                        .anyMatch(branch -> branch.to().equals(target)))
                                .isPresent()
                        ? at.id()
                        : null;
            }
            List<Succession> out = graph.from(at.id());
            Element next = out.size() == 1 ? model.find(out.getFirst().to()).orElse(null) : null;
            if (next == null) {
                return null;
            }
            at = next;
        }
        return null;
    }
}
