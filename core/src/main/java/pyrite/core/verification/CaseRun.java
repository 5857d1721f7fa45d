package pyrite.core.verification;

import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.FlatSystem;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.Recording;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.SortedSystem;
import pyrite.core.dynamics.Sorting;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.dynamics.Variable;
import pyrite.core.execution.Engine;
import pyrite.core.execution.Happened;
import pyrite.core.execution.Program;
import pyrite.core.execution.ProgramBuilder;
import pyrite.core.execution.Witness;
import pyrite.core.expression.FaultException;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.sequence.Sequence;
import pyrite.core.sequence.SequenceComparison;

/**
 * The result of running a case: the recorded series and the verdicts with what they rest on. If the case could not run,
 * every requirement concerned has the verdict error, or inconclusive if it was cancelled.
 *
 * @param failure one sentence; null if the run reached its end
 * @param culprits the elements that the failure names
 * @param happened the events of the run, of several replications those of the first
 * @param statistics how several replications came out; empty for a single run
 * @param comparison what was recorded beside what happened; null if the case is no recording
 */
public record CaseRun(
        ElementId id,
        @Nullable String failure,
        boolean cancelled,
        List<ElementId> culprits,
        double[] times,
        List<Series> series,
        List<Judgement> judgements,
        Happened happened,
        List<Statistic> statistics,
        @Nullable SequenceComparison comparison,
        Fingerprint fingerprint) {

    /** One variable over the recorded instants, in its display unit. */
    public record Series(String path, ElementId feature, String unit, double[] values) {
        /** {@code smallTank.level [m]}, the heading of a column. */
        public String heading() {
            return unit.isEmpty() ? path : path + " [" + unit + "]";
        }
    }

    /** Runs a case to its end; faults of the model and of the run are part of the result. */
    public static CaseRun of(Model model, Element usage, RunControl control) {
        return of(model, usage, control, Watcher.NOBODY);
    }

    /** @param watcher is shown the first of several replications while it runs */
    public static CaseRun of(Model model, Element usage, RunControl control, Watcher watcher) {
        return new Runner(model, usage, control, watcher).run();
    }

    private static final String OUT_OF_MEMORY =
            "there is not enough memory for this run; shorten it, loosen its tolerance or start Pyrite with more (-Xmx)";

    private static final class Runner {
        private final Model model;
        private final Element usage;
        private final RunControl control;
        private final Watcher watcher;
        private final Flattening flattening;
        private final Set<ElementId> read = new LinkedHashSet<>();
        private List<Element> requirements = List.of();

        Runner(Model model, Element usage, RunControl control, Watcher watcher) {
            this.watcher = watcher;
            this.model = model;
            this.usage = usage;
            this.control = control;
            this.flattening = new Flattening(model, control);
        }

        CaseRun run() {
            try {
                requirements = CaseSetup.requirements(model, usage);
                return complete(CaseSetup.of(model, usage, flattening));
            } catch (ModelFault e) {
                return failed(e.getMessage(), false, e.elements());
            } catch (FaultException e) {
                return failed(e.getMessage(), false, List.of(usage.id()));
            } catch (RunFailure e) {
                return failed(e.getMessage(), e.reason() == RunFailure.Reason.CANCELLED, e.elements());
            } catch (OutOfMemoryError _) {
                return failed(OUT_OF_MEMORY, false, List.of(usage.id()));
            }
        }

        private CaseRun complete(CaseSetup setup) {
            Sequence recorded = Sequence.isRecording(model, usage) ? Sequence.of(model, usage, flattening) : null;
            Instance root = flattening.running(setup.system());
            Program program = ProgramBuilder.build(model, flattening);
            SortedSystem sorted = Sorting.sort(program.flat(), control);
            read.addAll(flattening.drainRead());
            int replications = program.isRandom() ? setup.randomness().replications() : 1;
            Replay replay = Replay.of(model, flattening, program, recorded);
            OneRun first =
                    OneRun.of(sorted, program, setup, replay, 0, OneRun.share(control, 0, replications), watcher);
            Recording recording = first.trajectory().record(setup.settings().interval());
            Fingerprint system = Fingerprint.of(model, read);
            RequirementJudge judge =
                    new RequirementJudge(model, flattening, root, first.trajectory(), recording, first.comparison());
            List<Judgement> judgements = judged(judge, setup);
            ReplicationStatistics statistics = new ReplicationStatistics(model);
            if (replications > 1) {
                statistics.add(first.trajectory(), judgements);
                judgements = replicated(judgements, root, sorted, program, setup, replay, statistics);
            }
            return new CaseRun(
                    usage.id(),
                    null,
                    false,
                    List.of(),
                    recording.times(),
                    series(sorted.flat(), flattening.declared(), recording, judge.shownIn()),
                    judgements.stream()
                            .map(judgement -> judgement.with(
                                    system.and(judgement.fingerprint()).withoutSpare(model)))
                            .toList(),
                    first.happened(),
                    statistics.all(),
                    first.comparison(),
                    system.withoutSpare(model));
        }

        private static List<Judgement> judged(RequirementJudge judge, CaseSetup setup) {
            return setup.requirements().stream()
                    .flatMap(requirement -> judge.judge(requirement).stream())
                    .toList();
        }

        /** Runs are made on all cores; what each gives is judged here, one after the other. */
        private List<Judgement> replicated(
                List<Judgement> first,
                Instance root,
                SortedSystem sorted,
                Program program,
                CaseSetup setup,
                Replay replay,
                ReplicationStatistics statistics) {
            Replications all = new Replications(setup.randomness().leastShare());
            all.add(first);
            int replications = setup.randomness().replications();
            int atOnce = Runtime.getRuntime().availableProcessors();
            for (int from = 1; from < replications; from += atOnce) {
                IntStream.range(from, Math.min(from + atOnce, replications))
                        .parallel()
                        .mapToObj(replication -> OneRun.of(
                                sorted,
                                program,
                                setup,
                                replay,
                                replication,
                                OneRun.share(control, replication, replications),
                                Watcher.NOBODY))
                        .toList()
                        .forEach(run -> {
                            List<Judgement> judged = judged(
                                    new RequirementJudge(
                                            model, flattening, root, run.trajectory(), null, run.comparison()),
                                    setup);
                            statistics.add(run.trajectory(), judged);
                            all.add(judged);
                        });
            }
            return all.overall();
        }

        /** One run to its end. */
        private record OneRun(
                Trajectory trajectory,
                Happened happened,
                @Nullable SequenceComparison comparison) {
            static OneRun of(
                    SortedSystem sorted,
                    Program program,
                    CaseSetup setup,
                    Replay replay,
                    int replication,
                    RunControl control,
                    Watcher watcher) {
                Witness witness = replay.witness();
                WatchedRun watched = new WatchedRun(witness, watcher);
                Engine engine = new Engine(
                        program,
                        setup.randomness().seed(),
                        replication,
                        replay.stimuli(),
                        watcher == Watcher.NOBODY ? witness : watched);
                watched.log(engine::log);
                Simulation simulation = Simulation.of(sorted, setup.settings(), control, engine);
                simulation.begin();
                simulation.advance(setup.settings().stop());
                return new OneRun(simulation.trajectory(), engine.happened(), replay.comparison(witness));
            }

            /** Progress of one of several runs. */
            private static RunControl share(RunControl control, int replication, int replications) {
                return replications == 1
                        ? control
                        : new RunControl() {
                            @Override
                            public void progress(double fraction) {
                                control.progress((replication + fraction) / replications);
                            }

                            @Override
                            public boolean isCancelled() {
                                return control.isCancelled();
                            }
                        };
            }
        }

        /** In the order in which the attributes are declared. */
        private static List<Series> series(
                FlatSystem flat, List<String> declared, Recording recording, Map<String, DisplayUnit> shownIn) {
            Map<String, Integer> places = new HashMap<>();
            declared.forEach(path -> places.putIfAbsent(path, places.size()));
            return IntStream.range(0, flat.variables().size())
                    .filter(i -> flat.variables().get(i).role() != Variable.Role.RATE
                            && flat.variables().get(i).role() != Variable.Role.COUNT)
                    .boxed()
                    .sorted(Comparator.comparing(
                            i -> places.getOrDefault(flat.variables().get(i).path(), Integer.MAX_VALUE)))
                    .map(i -> series(flat.variables().get(i), recording.column(i), shownIn))
                    .toList();
        }

        /** In the unit of the limit it is held against, if it is held against one. */
        private static Series series(Variable variable, double[] si, Map<String, DisplayUnit> shownIn) {
            DisplayUnit unit = shownIn.getOrDefault(variable.path(), variable.unit());
            return new Series(
                    variable.path(),
                    variable.feature(),
                    unit.symbol(),
                    java.util.Arrays.stream(si).map(unit.unit()::fromSi).toArray());
        }

        private CaseRun failed(String reason, boolean cancelled, List<ElementId> culprits) {
            read.addAll(flattening.drainRead());
            read.add(usage.id());
            Fingerprint fingerprint = Fingerprint.of(model, read);
            VerdictKind verdict = cancelled ? VerdictKind.INCONCLUSIVE : VerdictKind.ERROR;
            List<Judgement> judgements = requirements.stream()
                    .flatMap(requirement -> subjects(requirement).stream()
                            .map(subject -> RequirementJudge.unjudged(requirement, subject, verdict, reason)
                                    .with(fingerprint.and(Fingerprint.of(model, List.of(requirement.id()))))))
                    .toList();
            return new CaseRun(
                    usage.id(),
                    reason,
                    cancelled,
                    culprits,
                    new double[0],
                    List.of(),
                    judgements,
                    Happened.NOTHING,
                    List.of(),
                    null,
                    fingerprint);
        }

        /** The parts of what should have run that are to satisfy a requirement; an empty name if there are none. */
        private List<String> subjects(Element requirement) {
            try {
                List<String> within = Subjects.within(model, CaseSetup.system(model, usage, flattening), requirement);
                return within.isEmpty() ? List.of("") : within;
            } catch (ModelFault _) {
                return List.of("");
            }
        }
    }
}
