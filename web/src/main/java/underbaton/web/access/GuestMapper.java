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

    /** A device without its pages. */
    record Kept(long id, String name, Role role, byte[] digest, String address, long sinceMs, long untilMs) {}

    /** Which device was given a page. */
    record KeptPage(long guestId, int showId, int pageId) {}

    @Select("SELECT id, name, role, digest, address, since_ms, until_ms FROM guests ORDER BY id")
    List<Kept> all();

    @Select("SELECT guest_id, show_id, page_id FROM guest_pages")
    List<KeptPage> pages();

    @Insert("INSERT INTO guest_pages (guest_id, show_id, page_id) VALUES (#{id}, #{p.showId}, #{p.pageId})")
    void addPage(@Param("id") long id, @Param("p") GivenPage page);

    @Delete("DELETE FROM guest_pages WHERE guest_id = #{id} AND show_id = #{showId}")
    void deletePages(long id, int showId);

    @Insert("INSERT INTO guests (id, name, role, digest, address, since_ms, until_ms)"
            + " VALUES (#{g.id}, #{g.name}, #{g.role}, #{g.digest}, #{g.address}, #{g.sinceMs}, #{g.untilMs})")
    void add(@Param("g") Guest guest);

    @Update("UPDATE guests SET role = #{role} WHERE id = #{id}")
    void role(long id, Role role);

    @Delete("DELETE FROM guests WHERE id = #{id}")
    void delete(long id);
}
