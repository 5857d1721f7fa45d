package pyrite.app.store;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Personal access tokens, by the SHA-256 of the secret. */
@Mapper
public interface TokenMapper {
    record Token(
            long id,
            String name,
            Instant createdAt,
            Instant expiresAt,
            @Nullable Instant usedAt) {}

    @Select(
            "select id, name, created_at, expires_at, used_at from access_token where person_id = #{person} order by id desc")
    List<Token> of(long person);

    @Insert("""
            insert into access_token (person_id, name, hash, created_at, expires_at)
            values (#{person}, #{name}, #{hash}, #{created}, #{expires})""")
    void add(
            @Param("person") long person,
            @Param("name") String name,
            @Param("hash") String hash,
            @Param("created") Instant created,
            @Param("expires") Instant expires);

    /** Gives how many were there: 0 if it is another person's. */
    @Delete("delete from access_token where id = #{id} and person_id = #{person}")
    int remove(@Param("id") long id, @Param("person") long person);

    /** The sign-in of the active person whose token this is, unless it has expired. */
    @Select("""
            select p.sign_in from access_token t join person p on p.id = t.person_id
            where t.hash = #{hash} and t.expires_at > #{now} and p.active""")
    Optional<String> holder(@Param("hash") String hash, @Param("now") Instant now);

    @Update("update access_token set used_at = #{now} where hash = #{hash}")
    void used(@Param("hash") String hash, @Param("now") Instant now);
}
