package pyrite.app.store;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
public interface RunMapper {
    /** A run to insert; the database assigns its id. */
    final class NewRun {
        public long id;
        public final long branchId;
        public final UUID caseId;
        public final String caseName;
        public final int revisionNumber;
        public final long personId;
        public final Instant startedAt;

        public NewRun(
                long branchId, UUID caseId, String caseName, int revisionNumber, long personId, Instant startedAt) {
            this.branchId = branchId;
            this.caseId = caseId;
            this.caseName = caseName;
            this.revisionNumber = revisionNumber;
            this.personId = personId;
            this.startedAt = startedAt;
        }
    }

    @Insert("""
            insert into run (branch_id, case_id, case_name, revision_number, person_id, started_at, status, message, fingerprint)
            values (#{branchId}, #{caseId}, #{caseName}, #{revisionNumber}, #{personId}, #{startedAt}, 'QUEUED', '', '{}')""")
    @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
    void add(NewRun run);

    @Update("""
            update run set ended_at = #{at}, status = #{status}, message = #{message}, fingerprint = #{fingerprint}
            where id = #{id}""")
    void end(
            @Param("id") long id,
            @Param("at") Instant at,
            @Param("status") RunRecord.Status status,
            @Param("message") String message,
            @Param("fingerprint") String fingerprint);

    @Update("update run set status = 'RUNNING' where id = #{id} and status = 'QUEUED'")
    int started(long id);

    @Update("update run set status = 'INTERRUPTED', ended_at = #{at}, message = #{message} where status = 'RUNNING'")
    int interruptAll(@Param("at") Instant at, @Param("message") String message);

    String RUN = """
            select r.id, r.branch_id, r.case_id, r.case_name, r.revision_number, p.name as person, r.started_at, r.ended_at, r.status,
                r.message, r.fingerprint
            from run r join person p on p.id = r.person_id
            """;

    @Select(RUN + " where r.branch_id = #{branch} order by r.branch_id desc, r.id desc limit #{most}")
    List<RunRecord> newest(@Param("branch") long branch, @Param("most") int most);

    @Select(RUN
            + " where r.branch_id = #{r.branchId} and r.case_id = #{r.caseId} and r.id < #{r.id} "
            + "and r.status = 'DONE' order by r.id desc limit 1")
    Optional<RunRecord> before(@Param("r") RunRecord run);

    @Select(RUN + " where r.id = #{id}")
    RunRecord get(long id);

    @Select(RUN + " where r.branch_id = #{branch} and r.id = #{id}")
    Optional<RunRecord> find(@Param("branch") long branch, @Param("id") long id);

    @Select(
            RUN
                    + " where r.branch_id = #{branch} and r.id in (select max(id) from run where branch_id = #{branch} group by case_id)")
    List<RunRecord> newestOfEachCase(long branch);

    @Insert("""
            insert into run_series (run_id, position, path, element_id, unit, content)
            values (#{run}, #{position}, #{path}, #{element}, #{unit}, #{content})""")
    void addSeries(
            @Param("run") long run,
            @Param("position") int position,
            @Param("path") String path,
            @Param("element") @Nullable UUID element,
            @Param("unit") String unit,
            @Param("content") byte[] content);

    @Insert("insert into run_happened (run_id, content) values (#{run}, #{content})")
    void addHappened(@Param("run") long run, @Param("content") byte[] content);

    @Insert("insert into run_compared (run_id, content) values (#{run}, #{content})")
    void addCompared(@Param("run") long run, @Param("content") String content);

    @Select("select content from run_compared where run_id = #{run}")
    Optional<String> compared(long run);

    @Insert("insert into run_statistics (run_id, content) values (#{run}, #{content})")
    void addStatistics(@Param("run") long run, @Param("content") String content);

    @Select("select content from run_statistics where run_id = #{run}")
    Optional<String> statistics(long run);

    @Select("select content from run_happened where run_id = #{run}")
    Optional<byte[]> happened(long run);

    /** Drops the events of a case's older runs, as {@link #prune} does their series. */
    @Update("""
            delete from run_happened where run_id in (
                select id from run where branch_id = #{branch} and case_id = #{caseId} order by id desc offset #{kept} rows)""")
    int pruneHappened(@Param("branch") long branch, @Param("caseId") UUID caseId, @Param("kept") int kept);

    @Select(RUN + " where r.status = 'QUEUED' order by r.id")
    List<RunRecord> queued();

    /** The name of a stored series. */
    record SeriesName(String path, String unit) {}

    @Select("select path, unit from run_series where run_id = #{run} and position > 0 order by position")
    List<SeriesName> seriesNames(long run);

    /** Drops the series of a case's older runs; their times stay, by which the pictures of verdicts are drawn. */
    @Update("""
            delete from run_series where position > 0 and run_id in (
                select id from run where branch_id = #{branch} and case_id = #{caseId} order by id desc offset #{kept} rows)""")
    int prune(@Param("branch") long branch, @Param("caseId") UUID caseId, @Param("kept") int kept);

    /** A stored series. */
    record SeriesRow(int position, String path, @Nullable UUID elementId, String unit, byte[] content) {}

    @Select("select position, path, element_id, unit, content from run_series where run_id = #{run} order by position")
    List<SeriesRow> series(long run);

    @Select("""
            <script>select position, path, element_id, unit, content from run_series where run_id = #{run}
            and (position = 0 <if test='!paths.isEmpty()'>or path in
            <foreach item='path' collection='paths' open='(' separator=',' close=')'>#{path}</foreach></if>) order by position</script>""")
    List<SeriesRow> seriesOf(@Param("run") long run, @Param("paths") List<String> paths);

    @Insert("""
            insert into verdict (run_id, requirement_id, subject, verdict, margin, unit, worst_instant, first_violation, reason,
                exhibit, fingerprint)
            values (#{run}, #{v.requirementId}, #{v.subject}, #{v.verdict}, #{v.margin}, #{v.unit}, #{v.worstInstant},
                #{v.firstViolation}, #{v.reason}, #{v.exhibit}, #{v.fingerprint})""")
    void addVerdict(@Param("run") long run, @Param("v") VerdictRow verdict);

    /** A stored verdict; as JSON its plot, and the fingerprint of what it read beside what the whole run did. */
    record VerdictRow(
            UUID requirementId,
            String subject,
            String verdict,
            @Nullable Double margin,
            @Nullable String unit,
            @Nullable Double worstInstant,
            @Nullable Double firstViolation,
            String reason,
            String exhibit,
            String fingerprint) {}

    /** A stored verdict with its run. */
    record VerdictOfRun(
            long id,
            long runId,
            UUID caseId,
            String caseName,
            int revisionNumber,
            Instant endedAt,
            UUID requirementId,
            String subject,
            String verdict,
            @Nullable Double margin,
            @Nullable String unit,
            @Nullable Double worstInstant,
            @Nullable Double firstViolation,
            String reason,
            String fingerprint) {}

    @Select("select content from run_series where run_id = #{run} and position = 0")
    Optional<byte[]> times(long run);

    @Select("select exhibit from verdict where id = #{id}")
    Optional<String> exhibit(long id);

    @Select("select fingerprint from run where id = #{id}")
    String fingerprint(long id);

    /** How many runs of a branch have ended. */
    @Select("select count(*) from run where branch_id = #{branch} and ended_at is not null")
    long ended(long branch);

    String VERDICT = """
            select v.id, v.run_id, r.case_id, r.case_name, r.revision_number, r.ended_at, v.requirement_id, v.subject, v.verdict,
                v.margin, v.unit, v.worst_instant, v.first_violation, v.reason, v.fingerprint
            from verdict v join run r on r.id = v.run_id
            """;

    @Select(VERDICT + """
            where r.branch_id = #{branch} and v.id in (
                select max(v2.id) from verdict v2 join run r2 on r2.id = v2.run_id
                where r2.branch_id = #{branch} and r2.revision_number <= #{upTo} and r2.status in ('DONE', 'FAILED')
                group by v2.requirement_id, v2.subject, r2.case_id)""")
    List<VerdictOfRun> newestVerdicts(@Param("branch") long branch, @Param("upTo") int upTo);

    /** For some requirements the verdicts before the newest one of each subject in each case, the newest first. */
    @Select("<script>" + VERDICT + """
            where v.id in (
                select id from (
                    select v2.id, row_number() over (
                        partition by v2.requirement_id, v2.subject, r2.case_id order by v2.id desc) as age
                    from verdict v2 join run r2 on r2.id = v2.run_id
                    where r2.branch_id = #{branch} and r2.revision_number &lt;= #{upTo} and r2.status in ('DONE', 'FAILED')
                    and v2.requirement_id in
                    <foreach item='each' collection='requirements' open='(' separator=',' close=')'>#{each}</foreach>)
                where age between 2 and #{oldest})
            order by v.id desc</script>""")
    List<VerdictOfRun> earlierVerdicts(
            @Param("branch") long branch,
            @Param("upTo") int upTo,
            @Param("requirements") List<UUID> requirements,
            @Param("oldest") int oldest);

    @Select(VERDICT + " where v.run_id = #{run} order by v.id")
    List<VerdictOfRun> verdictsOf(long run);
}
