package pyrite.app.store;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** The largest number ever assigned for each prefix of requirement ids, per project. */
@Mapper
public interface NumberMapper {
    @Insert("""
            merge into requirement_number t using (select project_id, cast(#{prefix} \
            as varchar) as prefix, cast(#{number} as int) as number from branch where id = #{branch}) s
            on t.project_id = s.project_id and t.prefix = s.prefix
            when matched then update set highest = greatest(t.highest, s.number)
            when not matched then insert (project_id, prefix, highest) values (s.project_id, s.prefix, s.number)""")
    void seen(@Param("branch") long branch, @Param("prefix") String prefix, @Param("number") int number);

    @Select("""
            select coalesce(max(n.highest), 0) from requirement_number n join branch b on b.project_id = n.project_id
            where b.id = #{branch} and n.prefix = #{prefix}""")
    int highest(@Param("branch") long branch, @Param("prefix") String prefix);
}
