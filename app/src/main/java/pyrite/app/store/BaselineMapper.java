package pyrite.app.store;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** The baselines of branches. */
@Mapper
public interface BaselineMapper {
    @Select("""
            select b.id, b.number, b.name, b.note, p.name as person, b.at from baseline b join person p on p.id = b.person_id
            where b.branch_id = #{branch} order by b.number desc, b.id desc""")
    List<Baseline> of(long branch);

    @Insert("insert into baseline (branch_id, number, name, note, person_id, at) values (#{branch}, #{number}, "
            + "#{name}, #{note}, #{person}, #{at})")
    void add(
            @Param("branch") long branch,
            @Param("number") int number,
            @Param("name") String name,
            @Param("note") String note,
            @Param("person") long person,
            @Param("at") Instant at);

    @Delete("delete from baseline where branch_id = #{branch} and id = #{id}")
    int remove(@Param("branch") long branch, @Param("id") long id);
}
