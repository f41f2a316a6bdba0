package underbaton.web.record;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** The table of the log. */
@Mapper
public interface TrafficMapper {

    /** An entry as its row; the bytes as an array. */
    record Row(
            long number,
            long epochMicros,
            String direction,
            int showId,
            int deviceId,
            String device,
            byte[] bytes,
            String meaning,
            String cause,
            long lateMicros,
            String trouble) {}

    /**
     * What is looked for.
     *
     * @param before lines with smaller numbers
     * @param device 0 for all
     * @param direction OUT, IN or ORDER; empty for all
     * @param trouble whether only what was not sent
     * @param text in lower case; empty for all
     * @param hex the same as hexadecimal digits without blanks, where it can be
     */
    record Wanted(
            int showId,
            long before,
            int device,
            String direction,
            boolean trouble,
            String text,
            String hex,
            int most) {}

    @Select("SELECT COALESCE(MAX(number), 0) FROM traffic")
    long last();

    /** A batch that was written before, but whose success we did not hear of, is passed over. */
    @Insert(
            """
            <script>
            INSERT IGNORE INTO traffic (number, epoch_micros, direction, show_id, device_id, device, bytes, meaning,
              cause, late_micros, trouble) VALUES
            <foreach collection="rows" item="r" separator=",">
            (#{r.number}, #{r.epochMicros}, #{r.direction}, #{r.showId}, #{r.deviceId}, #{r.device}, #{r.bytes},
              #{r.meaning}, #{r.cause}, #{r.lateMicros}, #{r.trouble})
            </foreach>
            </script>""")
    void put(List<Row> rows);

    @Select("SELECT COUNT(*) FROM traffic WHERE show_id = #{showId}")
    long count(int showId);

    @Select(
            """
            <script>
            SELECT number, epoch_micros, direction, show_id, device_id, device, bytes, meaning, cause, late_micros, trouble
            FROM traffic WHERE show_id = #{showId} AND number &lt; #{before}
            <if test="device != 0">AND device_id = #{device}</if>
            <if test="direction != ''">AND direction = #{direction}</if>
            <if test="trouble">AND trouble &lt;&gt; ''</if>
            <if test="text != ''">AND (LOWER(CONCAT_WS(' ', device, meaning, cause, trouble)) LIKE CONCAT('%', #{text}, '%')
              <if test="hex != ''">OR HEX(bytes) LIKE CONCAT('%', #{hex}, '%')</if>)</if>
            ORDER BY number DESC LIMIT #{most}
            </script>""")
    List<Row> older(Wanted wanted);

    /** @return how many went, at most so many */
    @Delete("DELETE FROM traffic WHERE epoch_micros < #{epochMicros} LIMIT 5000")
    int forgetBefore(long epochMicros);

    /** @return how many went, at most so many */
    @Delete("DELETE FROM traffic WHERE number <= #{number} LIMIT 5000")
    int forgetUpTo(long number);
}
