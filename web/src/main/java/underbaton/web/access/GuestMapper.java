package underbaton.web.access;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The devices that were let in, as they are kept. */
@Mapper
interface GuestMapper {

    @Select("SELECT id, name, role, digest, address, since_ms, until_ms FROM guests ORDER BY id")
    List<Guest> all();

    @Insert("INSERT INTO guests (id, name, role, digest, address, since_ms, until_ms)"
            + " VALUES (#{g.id}, #{g.name}, #{g.role}, #{g.digest}, #{g.address}, #{g.sinceMs}, #{g.untilMs})")
    void add(@Param("g") Guest guest);

    @Update("UPDATE guests SET role = #{role} WHERE id = #{id}")
    void role(long id, Role role);

    @Delete("DELETE FROM guests WHERE id = #{id}")
    void delete(long id);
}
