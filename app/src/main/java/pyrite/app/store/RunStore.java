package pyrite.app.store;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import pyrite.core.execution.Happened;
import pyrite.core.execution.HappenedBytes;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.Fingerprint;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.Margin;
import pyrite.core.verification.Statistic;
import pyrite.core.verification.VerdictKind;
import pyrite.core.verification.VerdictPlot;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Stores runs with their series and verdicts. */
@Repository
public class RunStore {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** So many verdicts of one subject are looked at for one that an undo made fresh again. */
    private static final int EARLIER_VERDICTS = 20;

    /** So many events of runs looked at are kept as they were read: a timeline is asked for with every move. */
    private static final int MOST_EVENTS = 4_000_000;

    private final RunMapper mapper;
    private final Cache<Long, Happened> happened = Caffeine.newBuilder()
            .maximumWeight(MOST_EVENTS)
            .weigher((Long _, Happened read) -> read.log().size())
            .build();
    private final InstantSource clock;
    private final int keptSeries;

    /**
     * @param keptSeries so many of the newest runs of each case keep their series, 0 for all; verdicts and their
     *     pictures are kept anyway
     */
    public RunStore(RunMapper mapper, InstantSource clock, @Value("${pyrite.runs.keep-series}") int keptSeries) {
        this.mapper = mapper;
        this.clock = clock;
        this.keptSeries = keptSeries;
    }

    /** Notes a run that is to be begun, and gives its id. */
    public long queue(Branch branch, Element usage, String name, int revision, Person person) {
        RunMapper.NewRun run =
                new RunMapper.NewRun(branch.id(), usage.id().value(), name, revision, person.id(), clock.instant());
        mapper.add(run);
        return run.id;
    }

    /** Keeps what came of a run. Its events do not change from then on. */
    @Transactional
    public void end(RunRecord run, CaseRun result) {
        long id = run.id();
        RunRecord.Status status = result.cancelled()
                ? RunRecord.Status.CANCELLED
                : result.failure() != null ? RunRecord.Status.FAILED : RunRecord.Status.DONE;
        mapper.end(
                id,
                clock.instant(),
                status,
                result.failure() == null ? "" : result.failure(),
                write(result.fingerprint()));
        if (result.times().length > 0) {
            mapper.addSeries(id, 0, "time", null, "s", SeriesBytes.pack(result.times()));
        }
        for (int i = 0; i < result.series().size(); i++) {
            CaseRun.Series series = result.series().get(i);
            mapper.addSeries(
                    id,
                    i + 1,
                    series.path(),
                    series.feature().value(),
                    series.unit(),
                    SeriesBytes.pack(series.values()));
        }
        if (result.happened().log().size() > 0) {
            mapper.addHappened(id, HappenedBytes.write(result.happened()));
        }
        if (!result.statistics().isEmpty()) {
            mapper.addStatistics(id, JSON.writeValueAsString(result.statistics()));
        }
        if (result.comparison() != null) {
            mapper.addCompared(id, JSON.writeValueAsString(ComparedSequence.of(result.comparison())));
        }
        if (!result.cancelled()) {
            result.judgements().forEach(judgement -> mapper.addVerdict(id, row(judgement, result.fingerprint())));
        }
        if (keptSeries > 0) {
            mapper.prune(run.branchId(), run.caseId(), keptSeries);
            mapper.pruneHappened(run.branchId(), run.caseId(), keptSeries);
        }
    }

    /** Notes that a run has begun; false if it was cancelled before. */
    public boolean started(long id) {
        return mapper.started(id) == 1;
    }

    public void cancelled(long id) {
        mapper.end(id, clock.instant(), RunRecord.Status.CANCELLED, "cancelled before it began", "{}");
    }

    /** Runs that have not begun yet, the oldest first. */
    public List<RunRecord> queued() {
        return mapper.queued();
    }

    /** Notes that a run ended by a fault of Pyrite itself. */
    public void fail(long id, String message) {
        mapper.end(id, clock.instant(), RunRecord.Status.FAILED, message, "{}");
    }

    /** Runs that a stop of the program cut off are marked so. */
    public int interruptAll() {
        return mapper.interruptAll(clock.instant(), "the program stopped while it ran; start it again");
    }

    public List<RunRecord> newest(Branch branch, int most) {
        return mapper.newest(branch.id(), most);
    }

    /** The run of the same case before, if one came to its end. */
    public Optional<RunRecord> before(RunRecord run) {
        return mapper.before(run);
    }

    public RunRecord get(long id) {
        return mapper.get(id);
    }

    public Optional<RunRecord> find(Branch branch, long id) {
        return mapper.find(branch.id(), id);
    }

    public Map<ElementId, RunRecord> newestOfEachCase(Branch branch) {
        return mapper.newestOfEachCase(branch.id()).stream()
                .collect(Collectors.toMap(run -> ElementId.of(run.caseId()), run -> run));
    }

    /** The recorded instants in s and the series over them; both empty if nothing was recorded. */
    public record Recorded(double[] times, List<CaseRun.Series> series) {}

    public Recorded series(long run) {
        return recorded(mapper.series(run));
    }

    /** Some series, by their paths. */
    public Recorded series(long run, List<String> paths) {
        return recorded(mapper.seriesOf(run, paths));
    }

    /** The paths and units of all series of a run; none if they were pruned. */
    public List<RunMapper.SeriesName> seriesNames(long run) {
        return mapper.seriesNames(run);
    }

    private static Recorded recorded(List<RunMapper.SeriesRow> rows) {
        double[] times = new double[0];
        List<CaseRun.Series> series = new ArrayList<>();
        for (RunMapper.SeriesRow row : rows) {
            if (row.elementId() == null) {
                times = SeriesBytes.unpack(row.content());
            } else {
                series.add(new CaseRun.Series(
                        row.path(), ElementId.of(row.elementId()), row.unit(), SeriesBytes.unpack(row.content())));
            }
        }
        return new Recorded(times, series);
    }

    /** How several replications came out; empty for a single run. */
    public List<Statistic> statistics(long id) {
        return mapper.statistics(id)
                .map(json -> JSON.readValue(json, new TypeReference<List<Statistic>>() {}))
                .orElse(List.of());
    }

    /** Of the run of a recording, what was recorded beside what happened. */
    public Optional<ComparedSequence> compared(long id) {
        return mapper.compared(id).map(json -> JSON.readValue(json, ComparedSequence.class));
    }

    /** What happened in a run; nothing if nothing did, or if it is no longer kept. */
    public Optional<Happened> happened(long run) {
        Happened known = happened.getIfPresent(run);
        if (known != null) {
            return Optional.of(known);
        }
        Optional<Happened> read = mapper.happened(run).map(HappenedBytes::read);
        read.ifPresent(found -> happened.put(run, found));
        return read;
    }

    /** The recorded instants alone, s. */
    public double[] times(long run) {
        return mapper.times(run).map(SeriesBytes::unpack).orElse(new double[0]);
    }

    /** What to draw for a stored verdict of a run. */
    public VerdictPlot plot(long run, long verdict) {
        return mapper.exhibit(verdict)
                .map(json -> JSON.readValue(json, VerdictPlot.class).over(times(run)))
                .orElse(VerdictPlot.NONE);
    }

    /** How many runs of a branch have ended: whenever its verdicts change, so does this. */
    public long ended(Branch branch) {
        return mapper.ended(branch.id());
    }

    /** A stored verdict with its run. */
    public record Verdict(
            long id,
            long run,
            ElementId caseId,
            String caseName,
            int revision,
            ElementId requirement,
            String subject,
            VerdictKind kind,
            @Nullable Double margin,
            String unit,
            @Nullable Double worstInstant,
            @Nullable Double firstViolation,
            String reason,
            Fingerprint fingerprint) {}

    /**
     * For each requirement, subject and case the newest verdict of a run, at some revision or an earlier one, that came
     * to its end.
     */
    public List<Verdict> newestVerdicts(Branch branch, int upTo) {
        return verdicts(mapper.newestVerdicts(branch.id(), upTo)).stream()
                .sorted(Comparator.comparing(Verdict::run).reversed())
                .toList();
    }

    /** For some requirements some verdicts before the newest of each subject in each case, the newest first. */
    public List<Verdict> earlierVerdicts(Branch branch, int upTo, Collection<ElementId> requirements) {
        return requirements.isEmpty()
                ? List.of()
                : verdicts(mapper.earlierVerdicts(
                        branch.id(),
                        upTo,
                        requirements.stream().map(ElementId::value).toList(),
                        EARLIER_VERDICTS));
    }

    public List<Verdict> verdictsOf(long run) {
        return verdicts(mapper.verdictsOf(run));
    }

    /** What the whole run read is stored with the run and belongs to what each of its verdicts rests on. */
    private List<Verdict> verdicts(List<RunMapper.VerdictOfRun> rows) {
        Map<Long, Fingerprint> ofRuns = new HashMap<>();
        return rows.stream()
                .map(row -> verdict(
                        row, ofRuns.computeIfAbsent(row.runId(), id -> readFingerprint(mapper.fingerprint(id)))))
                .toList();
    }

    private static RunMapper.VerdictRow row(Judgement judgement, Fingerprint ofRun) {
        Margin margin = judgement.margin();
        return new RunMapper.VerdictRow(
                judgement.requirement().value(),
                judgement.subject(),
                judgement.verdict().name(),
                margin == null ? null : Double.valueOf(margin.shown()),
                margin == null ? null : margin.unit().symbol(),
                judgement.worstInstant(),
                judgement.firstViolation(),
                judgement.reason(),
                JSON.writeValueAsString(judgement.plot()),
                write(judgement.fingerprint().without(ofRun)));
    }

    private static Verdict verdict(RunMapper.VerdictOfRun row, Fingerprint ofRun) {
        return new Verdict(
                row.id(),
                row.runId(),
                ElementId.of(row.caseId()),
                row.caseName(),
                row.revisionNumber(),
                ElementId.of(row.requirementId()),
                row.subject(),
                VerdictKind.valueOf(row.verdict()),
                row.margin(),
                row.unit() == null ? "" : row.unit(),
                row.worstInstant(),
                row.firstViolation(),
                row.reason(),
                ofRun.and(readFingerprint(row.fingerprint())));
    }

    private static String write(Fingerprint fingerprint) {
        Map<String, String> hashes = new TreeMap<>();
        fingerprint.hashes().forEach((id, hash) -> hashes.put(id.toString(), hash));
        return JSON.writeValueAsString(hashes);
    }

    public static Fingerprint readFingerprint(String json) {
        TreeMap<ElementId, String> hashes = new TreeMap<>();
        JSON.readValue(json, new TypeReference<Map<String, String>>() {})
                .forEach((id, hash) -> hashes.put(ElementId.parse(id), hash));
        return new Fingerprint(hashes);
    }
}
