package underbaton.web.linecheck;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The table of line checks. */
@Mapper
interface LineCheckMapper {

    /** @param seen {@code yes}, {@code no}, or empty while nobody has said */
    record Row(
            int id,
            int showId,
            int deviceId,
            long epochMillis,
            String phrase,
            boolean sent,
            boolean acknowledged,
            String seen,
            long roundTripMicros,
            String trouble) {}

    @Insert(
            """
            INSERT INTO line_checks (show_id, device_id, epoch_millis, phrase, sent, acknowledged, seen,
              round_trip_micros, trouble)
            VALUES (#{showId}, #{deviceId}, #{epochMillis}, #{phrase}, #{sent}, #{acknowledged}, #{seen},
              #{roundTripMicros}, #{trouble})""")
    void add(Row row);

    @Update("UPDATE line_checks SET seen = #{seen} WHERE id = #{id} AND show_id = #{showId}")
    void see(int showId, int id, String seen);

    /** The newest results of a device, newest first. */
    @Select("SELECT * FROM line_checks WHERE show_id = #{showId} AND device_id = #{deviceId} ORDER BY id DESC LIMIT 2")
    List<Row> newest(int showId, int deviceId);
}
