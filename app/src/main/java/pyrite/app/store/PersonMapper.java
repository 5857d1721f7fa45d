package pyrite.app.store;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
public interface PersonMapper {
    String PERSON = "select id, sign_in, name, password_hash, role, active from person";

    @Select(PERSON + " where sign_in = #{signIn}")
    Optional<Person> bySignIn(String signIn);

    @Select(PERSON + " order by active desc, name")
    List<Person> all();

    @Select("select count(*) from person")
    int count();

    @Insert(
            "insert into person (sign_in, name, password_hash, role) values (#{signIn}, #{name}, #{passwordHash}, #{role})")
    void add(
            @Param("signIn") String signIn,
            @Param("name") String name,
            @Param("passwordHash") String passwordHash,
            @Param("role") Person.Role role);

    @Update("update person set role = #{role}, active = #{active} where id = #{id}")
    void setRoleAndActive(@Param("id") long id, @Param("role") Person.Role role, @Param("active") boolean active);

    @Update("update person set password_hash = #{hash} where id = #{id}")
    void setPassword(@Param("id") long id, @Param("hash") String hash);
}
