package pyrite.app.store;

import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface CheckpointMapper {
    /** All elements of a branch after a revision, as {@link CheckpointWriter} encodes them. */
    record Checkpoint(int number, byte[] content) {}

    @Select("select number, content from checkpoint where branch_id = #{branch}")
    Optional<Checkpoint> of(long branch);

    @Select("select number from checkpoint where branch_id = #{branch}")
    Optional<Integer> numberOf(long branch);

    @Insert(
            "merge into checkpoint (branch_id, number, content) key (branch_id) values (#{branch}, #{number}, #{content})")
    void put(@Param("branch") long branch, @Param("number") int number, @Param("content") byte[] content);
}
