package pyrite.core.dynamics;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jgrapht.Graph;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.alg.matching.HopcroftKarpMaximumCardinalityBipartiteMatching;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.graph.SimpleDirectedGraph;
import org.jgrapht.graph.SimpleGraph;
import org.jgrapht.traverse.TopologicalOrderIterator;

/**
 * Decides which equation determines which unknown, and in which order: a maximum bipartite matching of equations and
 * unknowns (Hopcroft and Karp 1973), then a topological order of the matched equations. Unknowns are algebraic
 * variables and the rates that occur in an equation; an equation can determine an unknown in which it is linear.
 */
public final class Sorting {
    private static final double NEGLIGIBLE = 1e-9;

    private final FlatSystem flat;
    private final RunControl control;
    private final List<Equation> equations = new ArrayList<>();
    private final List<BitSet> unknownsOf = new ArrayList<>();
    private final BitSet unknowns = new BitSet();

    private Sorting(FlatSystem flat, RunControl control) {
        this.flat = flat;
        this.control = control;
    }

    /**
     * @throws ModelFault if there are too many or too few equations, if an equation cannot be solved for any unknown
     *     left to it, or if equations need each other's results (an algebraic loop)
     */
    public static SortedSystem sort(FlatSystem flat) {
        return sort(flat, RunControl.NONE);
    }

    /** @param control can end the sorting, which then throws a {@link RunFailure} */
    public static SortedSystem sort(FlatSystem flat, RunControl control) {
        return new Sorting(flat, control).sort();
    }

    private SortedSystem sort() {
        flat.equations().forEach(this::take);
        Matching matching = match();
        return new SortedSystem(
                flat,
                order(matching).stream()
                        .map(equation -> assignment(equation, matching.unknownOf[equation]))
                        .toList());
    }

    /** Which equation determines which unknown; {@link #NONE} where there is no partner. */
    private record Matching(int[] unknownOf, int[] equationOf) {
        static final int NONE = -1;

        static Matching empty(int equations, int unknowns) {
            int[] unknownOf = new int[equations];
            int[] equationOf = new int[unknowns];
            Arrays.fill(unknownOf, NONE);
            Arrays.fill(equationOf, NONE);
            return new Matching(unknownOf, equationOf);
        }

        void join(int equation, int unknown) {
            unknownOf[equation] = unknown;
            equationOf[unknown] = equation;
        }
    }

    private void take(Equation equation) {
        BitSet found = new BitSet();
        equation.residual().variables(index -> {
            if (flat.variables().get(index).role().isUnknown()) {
                found.set(index);
            }
        });
        unknownsLostIn(equation).forEach(unknowns::set);
        if (found.isEmpty()) {
            requireTrue(equation);
            return;
        }
        equations.add(equation);
        unknownsOf.add(found);
        unknowns.or(found);
    }

    private IntStream unknownsLostIn(Equation equation) {
        return equation.lost().keySet().stream()
                .mapToInt(Integer::intValue)
                .sorted()
                .filter(index -> flat.variables().get(index).role().isUnknown());
    }

    /** An equation without unknowns says nothing if it holds, and is one too many if it does not. */
    private void requireTrue(Equation equation) {
        boolean holds = equation.left() instanceof Term.Constant(double l)
                && equation.right() instanceof Term.Constant(double r)
                && Math.abs(l - r) <= NEGLIGIBLE * Math.max(equation.size(), Math.max(Math.abs(l), Math.abs(r)));
        if (!holds) {
            requireNothingHeld(equation);
            unknownsLostIn(equation).forEach(unknown -> requireEffect(unknown, equation));
            String givers = equation.given().isEmpty() ? "" : " (" + String.join(", ", equation.given()) + ")";
            throw new ModelFault(
                    "everything in the equation '" + equation.label() + "' is already given by fixed or start "
                            + "values" + givers
                            + ", so there is nothing left for it to determine; remove it or leave one of its values open",
                    List.of(equation.source()));
        }
    }

    /** What actions assign is given; an equation for it is one too many. */
    private void requireNothingHeld(Equation equation) {
        equation.residual().variables(index -> {
            if (flat.variables().get(index).role().isHeld()) {
                throw new ModelFault(
                        nameOf(index) + " is assigned by an action and determined by the equation '" + equation.label()
                                + "' too; only one of them can give it its value",
                        List.of(flat.variables().get(index).feature(), equation.source()));
            }
        });
    }

    private Matching match() {
        Graph<Integer, DefaultEdge> graph = new SimpleGraph<>(DefaultEdge.class);
        Set<Integer> equationNodes = new LinkedHashSet<>();
        Set<Integer> unknownNodes = new LinkedHashSet<>();
        unknowns.stream().forEach(unknown -> unknownNodes.add(nodeOf(unknown)));
        unknownNodes.forEach(graph::addVertex);
        for (int e = 0; e < equations.size(); e++) {
            control.requireGoingOn();
            equationNodes.add(e);
            graph.addVertex(e);
            int equation = e;
            Term residual = equations.get(e).residual();
            unknownsOf.get(e).stream()
                    .filter(unknown -> isSolvable(residual, unknown))
                    .forEach(unknown -> graph.addEdge(equation, nodeOf(unknown)));
        }
        Matching matching = Matching.empty(equations.size(), flat.variables().size());
        new HopcroftKarpMaximumCardinalityBipartiteMatching<>(graph, equationNodes, unknownNodes)
                .getMatching()
                .getEdges()
                .forEach(edge -> {
                    int a = graph.getEdgeSource(edge);
                    int b = graph.getEdgeTarget(edge);
                    matching.join(Math.max(a, b), -1 - Math.min(a, b));
                });
        requireComplete(matching);
        return matching;
    }

    /** Unknowns are the negative nodes of the matching graph, equations those from 0. */
    private static int nodeOf(int unknown) {
        return -1 - unknown;
    }

    private static boolean isSolvable(Term residual, int unknown) {
        return Linear.in(unknown, residual)
                .filter(linear -> !linear.slope().isConstant(0))
                .isPresent();
    }

    private void requireComplete(Matching matching) {
        List<Integer> open = unknowns.stream()
                .filter(unknown -> matching.equationOf[unknown] == Matching.NONE)
                .boxed()
                .toList();
        open.forEach(unknown -> flat.equations().forEach(equation -> requireEffect(unknown, equation)));
        for (int e = 0; e < equations.size(); e++) {
            if (matching.unknownOf[e] == Matching.NONE) {
                requireNothingHeld(equations.get(e));
                throw tooMany(e, matching);
            }
        }
        if (!open.isEmpty()) {
            throw tooFew(open);
        }
    }

    /** What nothing determines may be written in an equation all the same, with a factor that comes to zero. */
    private void requireEffect(int unknown, Equation equation) {
        String factor = equation.lost().get(unknown);
        if (factor != null && !Linear.contains(equation.residual(), unknown)) {
            throw new ModelFault(
                    "the equation '" + equation.label() + "' cannot determine " + nameOf(unknown)
                            + ", because its factor there, " + factor + ", comes to zero with the values given",
                    List.of(equation.source()));
        }
    }

    private ModelFault tooFew(List<Integer> open) {
        String names = open.stream().map(this::nameOf).collect(Collectors.joining(", "));
        String where = open.stream()
                .flatMap(unknown -> equations.stream().filter(e -> Linear.contains(e.residual(), unknown)))
                .map(equation -> "'" + equation.label() + "'")
                .distinct()
                .collect(Collectors.joining(", "));
        return new ModelFault(
                "there are " + equations.size() + " equations for " + unknowns.cardinality()
                        + " unknowns; nothing is left to determine " + names + " (used in " + where
                        + "); give a value with '=' or add an equation",
                open.stream()
                        .map(unknown -> flat.variables().get(unknown).feature())
                        .toList());
    }

    /**
     * Walks alternating paths from an equation that got no unknown: all equations reached compete for the unknowns
     * named.
     */
    private ModelFault tooMany(int start, Matching matching) {
        Set<Integer> competing = new LinkedHashSet<>(List.of(start));
        Set<Integer> requested = new LinkedHashSet<>();
        Set<Integer> nonlinear = new LinkedHashSet<>();
        Set<Integer> cancelled = new LinkedHashSet<>();
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            int equation = open.poll();
            unknownsOf.get(equation).stream().forEach(unknown -> {
                if (!isSolvable(equations.get(equation).residual(), unknown)) {
                    boolean linear = Linear.in(unknown, equations.get(equation).residual())
                            .isPresent();
                    (linear ? cancelled : nonlinear).add(unknown);
                } else if (requested.add(unknown)
                        && matching.equationOf[unknown] != Matching.NONE
                        && competing.add(matching.equationOf[unknown])) {
                    open.add(matching.equationOf[unknown]);
                }
            });
        }
        return new ModelFault(
                tooManyMessage(competing, requested, nonlinear, cancelled),
                competing.stream()
                        .map(e -> equations.get(e).source())
                        .distinct()
                        .toList());
    }

    private String tooManyMessage(
            Set<Integer> competing, Set<Integer> requested, Set<Integer> nonlinear, Set<Integer> cancelled) {
        String labels = competing.stream()
                .map(e -> "'" + equations.get(e).label() + "'")
                .collect(Collectors.joining(", "));
        String hint = (nonlinear.isEmpty()
                        ? ""
                        : "; " + namesOf(nonlinear) + " stands in them in a way they cannot be solved for (not linear)")
                + (cancelled.isEmpty() ? "" : "; " + namesOf(cancelled) + " cancels out");
        return requested.isEmpty()
                ? "the equation " + labels + " cannot be solved" + hint
                : "the equations " + labels + " are too many for " + namesOf(requested)
                        + "; remove one or leave another value open" + hint;
    }

    private List<Integer> order(Matching matching) {
        Graph<Integer, DefaultEdge> needs = new SimpleDirectedGraph<>(DefaultEdge.class);
        for (int e = 0; e < equations.size(); e++) {
            needs.addVertex(e);
        }
        for (int e = 0; e < equations.size(); e++) {
            int equation = e;
            unknownsOf.get(e).stream()
                    .map(unknown -> matching.equationOf[unknown])
                    .filter(giver -> giver != equation)
                    .forEach(giver -> needs.addEdge(giver, equation));
        }
        for (Set<Integer> component : new KosarajuStrongConnectivityInspector<>(needs).stronglyConnectedSets()) {
            if (component.size() > 1) {
                throw loop(component, matching);
            }
        }
        List<Integer> order = new ArrayList<>();
        new TopologicalOrderIterator<>(needs).forEachRemaining(order::add);
        return order;
    }

    private ModelFault loop(Set<Integer> component, Matching matching) {
        Map<String, String> parts = new LinkedHashMap<>();
        component.forEach(e -> parts.put("'" + equations.get(e).label() + "'", nameOf(matching.unknownOf[e])));
        return new ModelFault(
                "the equations " + String.join(", ", parts.keySet()) + " need each other's results ("
                        + String.join(", ", parts.values())
                        + "): an algebraic loop, which cannot be solved yet; solve them for one of these by hand and "
                        + "write its value in the place of an equation",
                component.stream()
                        .map(e -> equations.get(e).source())
                        .distinct()
                        .toList());
    }

    private SortedSystem.Assignment assignment(int equation, int unknown) {
        control.requireGoingOn();
        Equation origin = equations.get(equation);
        Linear linear = Linear.in(unknown, origin.residual()).orElseThrow();
        return new SortedSystem.Assignment(unknown, linear.root(), origin);
    }

    private String namesOf(Set<Integer> some) {
        return some.stream().map(this::nameOf).collect(Collectors.joining(", "));
    }

    private String nameOf(int unknown) {
        return "'" + flat.variables().get(unknown).path() + "'";
    }
}
