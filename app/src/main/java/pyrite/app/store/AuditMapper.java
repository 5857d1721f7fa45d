package pyrite.app.store;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** The audit record of sign-ins and administration; entries are only ever added. */
@Mapper
public interface AuditMapper {
    /**
     * @param signIn the name given by the person who acted
     * @param about the person or thing concerned
     * @param address the network address of the request
     */
    record Entry(Instant at, String signIn, String act, String about, String address) {}

    @Insert(
            "insert into audit (at, sign_in, act, about, address) values (#{e.at}, #{e.signIn}, #{e.act}, #{e.about}, #{e.address})")
    void add(@Param("e") Entry entry);

    @Select("""
            <script>select at, sign_in, act, about, address from audit
            <if test='who != ""'>where sign_in = #{who} or about = #{who}</if>
            order by id desc limit #{most}</script>""")
    List<Entry> newest(@Param("who") String who, @Param("most") int most);
}
