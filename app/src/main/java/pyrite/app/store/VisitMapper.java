package pyrite.app.store;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** When people last looked at a branch, and its newest revision then. */
@Mapper
public interface VisitMapper {
    /**
     * @param beforeNumber the newest revision at the previous visit
     * @param seenNumber the newest revision at this visit
     */
    record Visit(int beforeNumber, int seenNumber, Instant seenAt) {}

    @Select(
            "select before_number, seen_number, seen_at from visit where person_id = #{person} and branch_id = #{branch}")
    Optional<Visit> find(@Param("person") long person, @Param("branch") long branch);

    @Update("""
            merge into visit (person_id, branch_id, before_number, seen_number, seen_at) key (person_id, branch_id)
            values (#{person}, #{branch}, #{v.beforeNumber}, #{v.seenNumber}, #{v.seenAt})""")
    void put(@Param("person") long person, @Param("branch") long branch, @Param("v") Visit visit);
}
