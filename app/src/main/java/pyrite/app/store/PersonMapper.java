package pyrite.app.store;

import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface PersonMapper {
    @Select("select id, sign_in, name, password_hash, role from person where sign_in = #{signIn}")
    Optional<Person> bySignIn(String signIn);

    @Select("select count(*) from person")
    int count();

    @Insert("insert into person (sign_in, name, password_hash, role) values (#{signIn}, #{name}, #{passwordHash}, #{role})")
    void add(String signIn, String name, String passwordHash, Person.Role role);
}
