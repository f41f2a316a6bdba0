package underbaton.web.library;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The tables of the shows. {@code put} adds rows or exchanges those with their keys. */
@Mapper
interface ShowMapper {

    /** Those on the shelf and those that can be brought back. */
    @Select("SELECT id, name, revision, next_id, deleted_millis FROM shows ORDER BY id")
    List<ShowRow> shows();

    /** The highest id that any show ever had, also one that is gone and only the log still knows. */
    @Select("SELECT GREATEST((SELECT COALESCE(MAX(id), 0) FROM shows), (SELECT COALESCE(MAX(show_id), 0) FROM traffic),"
            + " (SELECT COALESCE(MAX(show_id), 0) FROM line_checks))")
    int lastId();

    @Insert(
            """
            INSERT INTO shows (id, name, revision, next_id, deleted_millis)
            VALUES (#{id}, #{name}, #{revision}, #{nextId}, #{deletedMillis})
            ON DUPLICATE KEY UPDATE
            name = #{name}, revision = #{revision}, next_id = #{nextId}, deleted_millis = #{deletedMillis}""")
    void putShow(ShowRow row);

    @Update("UPDATE shows SET deleted_millis = #{millis} WHERE id = #{id}")
    void markDeleted(int id, Long millis);

    @Delete("DELETE FROM shows WHERE deleted_millis < #{millis}")
    void forgetDeletedBefore(long millis);

    @Select("SELECT * FROM parts WHERE show_id = #{showId} ORDER BY place, id")
    List<PartRow> parts(int showId);

    @Insert(
            """
            <script>
            INSERT INTO parts (show_id, kind, id, parent, place, version, content) VALUES
            <foreach collection="rows" item="r" separator=",">
              (#{r.showId}, #{r.kind}, #{r.id}, #{r.parent}, #{r.place}, #{r.version}, #{r.content})
            </foreach>
            ON DUPLICATE KEY UPDATE parent = VALUES(parent), place = VALUES(place), version = VALUES(version),
            content = VALUES(content)
            </script>""")
    void putParts(List<PartRow> rows);

    @Delete("DELETE FROM parts WHERE show_id = #{showId} AND kind = #{kind} AND id = #{id}")
    void deletePart(PartRow row);

    @Delete("DELETE FROM parts WHERE show_id = #{showId}")
    void deleteParts(int showId);
}
