package underbaton.web.log;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** The table of the log. */
@Mapper
interface TrafficMapper {

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

    @Select("SELECT COALESCE(MAX(number), 0) FROM traffic")
    long last();

    /** A batch that was written before, but whose success we did not hear of, is passed over. */
    @Insert(
            """
            INSERT IGNORE INTO traffic (number, epoch_micros, direction, show_id, device_id, device, bytes, meaning,
              cause, late_micros, trouble)
            VALUES (#{number}, #{epochMicros}, #{direction}, #{showId}, #{deviceId}, #{device}, #{bytes}, #{meaning},
              #{cause}, #{lateMicros}, #{trouble})""")
    void put(Row row);

    @Select("SELECT COUNT(*) FROM traffic WHERE show_id = #{showId}")
    long count(int showId);
}
