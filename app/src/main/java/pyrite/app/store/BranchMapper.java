package pyrite.app.store;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import pyrite.core.history.Revision;

@Mapper
public interface BranchMapper {
    String BRANCH = """
            select b.id, b.uuid, p.uuid as project_uuid, p.slug as project_slug, p.name as project_name, b.slug, b.name, b.head
            from branch b join project p on p.id = b.project_id
            """;

    @Select(BRANCH + " where p.slug = #{project} and b.slug = #{branch}")
    Optional<Branch> find(@Param("project") String project, @Param("branch") String branch);

    @Select(BRANCH + " where b.id = #{id}")
    Branch get(long id);

    @Select(BRANCH + " order by p.name, b.id")
    List<Branch> all();

    @Select(BRANCH
            + " join visit v on v.branch_id = b.id where v.person_id = #{person} order by v.seen_at desc limit 1")
    Optional<Branch> lastVisited(long person);

    @Select("select id from project where slug = #{slug}")
    Optional<Long> projectId(String slug);

    @Insert("insert into project (slug, name) values (#{slug}, #{name})")
    void addProject(@Param("slug") String slug, @Param("name") String name);

    @Insert("insert into branch (project_id, slug, name, head) values (#{project}, #{slug}, #{name}, 0)")
    void addBranch(@Param("project") long project, @Param("slug") String slug, @Param("name") String name);

    @Update("update branch set head = #{next} where id = #{branch} and head = #{next} - 1")
    int moveHead(@Param("branch") long branch, @Param("next") int next);

    @Insert("""
            insert into revision (branch_id, number, person_id, at, summary, act, of_number)
            values (#{branch}, #{number}, #{person}, #{at}, #{summary}, #{act}, #{of})""")
    void addRevision(
            @Param("branch") long branch,
            @Param("number") int number,
            @Param("person") long person,
            @Param("at") Instant at,
            @Param("summary") String summary,
            @Param("act") Revision.Act act,
            @Param("of") int of);

    @Update("""
            <script>update element_version set to_number = #{number} where branch_id = #{branch} and to_number is null and element_id in
            <foreach item='id' collection='elements' open='(' separator=',' close=')'>#{id}</foreach></script>""")
    int close(@Param("branch") long branch, @Param("elements") Collection<UUID> elements, @Param("number") int number);

    /** A stored state of an element. */
    record Version(UUID elementId, String content) {}

    /** The states in force at the later of two revisions that were not at the earlier one. */
    @Select("""
            select element_id, content from element_version where branch_id = #{branch} and from_number > #{from}
            and from_number <= #{to} and (to_number is null or to_number > #{to})""")
    List<Version> begun(@Param("branch") long branch, @Param("from") int from, @Param("to") int to);

    /** The states in force at the earlier of two revisions that were no longer at the later one. */
    @Select("""
            select element_id, content from element_version where branch_id = #{branch} and to_number > #{from}
            and to_number <= #{to} and from_number <= #{from}""")
    List<Version> ended(@Param("branch") long branch, @Param("from") int from, @Param("to") int to);

    /** How many states of elements revisions after one began. */
    @Select("select count(*) from element_version where branch_id = #{branch} and from_number > #{number}")
    int changesSince(@Param("branch") long branch, @Param("number") int number);

    @Select("""
            select element_id from element_version where branch_id = #{branch} and from_number > #{since}
            union select element_id from element_version where branch_id = #{branch} and to_number > #{since}""")
    List<UUID> changedSince(@Param("branch") long branch, @Param("since") int since);

    /** A revision with its author's name. */
    record Row(
            UUID uuid,
            int number,
            String author,
            String authorName,
            Instant at,
            String summary,
            Revision.Act act,
            int ofNumber) {
        Revision revision() {
            return new Revision(number, author, at, summary, act, ofNumber);
        }
    }

    String REVISION = """
            select r.uuid, r.number, p.sign_in as author, p.name as author_name, r.at, r.summary, r.act, r.of_number
            from revision r join person p on p.id = r.person_id
            """;

    /**
     * Revisions newest first, of one person or of all. Ordered by all that the index is ordered by: the database then
     * reads it from its end and not whole.
     */
    @Select("<script>" + REVISION + """
            where r.branch_id = #{branch} and r.number &lt;= #{upTo}
            <if test='author != null'>and r.person_id = (select id from person where sign_in = #{author})</if>
            order by r.branch_id desc, <if test='author != null'>r.person_id desc,</if> r.number desc
            limit #{most}</script>""")
    List<Row> revisions(
            @Param("branch") long branch,
            @Param("author") @Nullable String author,
            @Param("upTo") int upTo,
            @Param("most") int most);

    @Select("select branch_id as branch, number from revision where uuid = #{uuid}")
    Optional<BranchStore.Place> placeOf(UUID uuid);

    /**
     * Joined and not asked for with {@code in}: the database would look for each revision among all changes anew. It is
     * told the index, because it prefers to go through all elements of a branch.
     */
    @Select("<script>" + REVISION + """
            join (select from_number as changed from element_version use index (element_version_of)
                where branch_id = #{branch} and element_id in
                <foreach item='id' collection='elements' open='(' separator=',' close=')'>#{id}</foreach>
                union select to_number from element_version use index (element_version_of)
                where branch_id = #{branch} and element_id in
                <foreach item='id' collection='elements' open='(' separator=',' close=')'>#{id}</foreach>) on r.number = changed
            where r.branch_id = #{branch} order by r.number desc</script>""")
    List<Row> revisionsOf(@Param("branch") long branch, @Param("elements") Collection<UUID> elements);

    /** The number of the revision that changed an element last, among some. */
    record LastChange(UUID elementId, int number) {}

    @Select("""
            <script>select element_id, max(changed) as number from
            (select element_id, from_number as changed from element_version use index (element_version_of)
                where branch_id = #{branch} and element_id in
                <foreach item='id' collection='elements' open='(' separator=',' close=')'>#{id}</foreach>
                union all select element_id, to_number from element_version use index (element_version_of)
                where branch_id = #{branch} and element_id in
                <foreach item='id' collection='elements' open='(' separator=',' close=')'>#{id}</foreach>) as change
            where changed &gt; #{after} and changed &lt;= #{upTo} group by element_id</script>""")
    List<LastChange> lastChanges(
            @Param("branch") long branch,
            @Param("elements") Collection<UUID> elements,
            @Param("after") int after,
            @Param("upTo") int upTo);

    @Select("<script>" + REVISION + """
            where r.branch_id = #{branch} and r.number in
            <foreach item='number' collection='numbers' open='(' separator=',' close=')'>#{number}</foreach></script>""")
    List<Row> revisionsNumbered(@Param("branch") long branch, @Param("numbers") Collection<Integer> numbers);
}
