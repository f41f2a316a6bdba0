package underbaton.web.record;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The runs of the shows, what happened in them, and the places that were written down. */
@Mapper
public interface PerformanceMapper {

    /** @param endedMicros null while it goes on, and for one that a crash has cut short */
    public record RunRow(long beganMicros, int showId, Long endedMicros) {}

    public record MomentRow(
            long performance,
            int number,
            long epochMicros,
            String kind,
            int itemId,
            int cueId,
            long positionNanos,
            String words) {}

    /** @param positionNanos where in the item, ns since it began */
    public record PlaceRow(int showId, int cueId, int itemId, long positionNanos, long epochMicros) {}

    @Insert("INSERT IGNORE INTO performances (began_micros, show_id) VALUES (#{beganMicros}, #{showId})")
    void begin(@Param("beganMicros") long beganMicros, @Param("showId") int showId);

    @Update("UPDATE performances SET ended_micros = #{ended} WHERE began_micros = #{began}")
    void end(@Param("began") long began, @Param("ended") long ended);

    @Select("SELECT began_micros, show_id, ended_micros FROM performances WHERE show_id = #{showId}"
            + " ORDER BY began_micros DESC LIMIT 200")
    List<RunRow> runs(int showId);

    @Select("SELECT began_micros, show_id, ended_micros FROM performances WHERE began_micros = #{began}")
    Optional<RunRow> run(long began);

    @Delete("DELETE FROM performances WHERE began_micros = #{began}")
    void forget(long began);

    @Delete("DELETE FROM performance_moments WHERE performance = #{began}")
    void forgetMoments(long began);

    /** What was written before, but of whose success we did not hear, is passed over. */
    @Insert(
            """
            <script>
            INSERT IGNORE INTO performance_moments (performance, number, epoch_micros, kind, item_id, cue_id,
              position_nanos, words) VALUES
            <foreach collection="rows" item="r" separator=",">
            (#{r.performance}, #{r.number}, #{r.epochMicros}, #{r.kind}, #{r.itemId}, #{r.cueId}, #{r.positionNanos},
              #{r.words})
            </foreach>
            </script>""")
    void put(@Param("rows") List<MomentRow> rows);

    @Select("SELECT performance, number, epoch_micros, kind, item_id, cue_id, position_nanos, words"
            + " FROM performance_moments WHERE performance = #{began} ORDER BY number")
    List<MomentRow> moments(long began);

    @Insert("INSERT INTO written_down (show_id, cue_id, item_id, position_nanos, epoch_micros)"
            + " VALUES (#{showId}, #{cueId}, #{itemId}, #{positionNanos}, #{epochMicros})"
            + " ON DUPLICATE KEY UPDATE item_id = #{itemId}, position_nanos = #{positionNanos},"
            + " epoch_micros = #{epochMicros}")
    void write(PlaceRow place);

    @Select("SELECT show_id, cue_id, item_id, position_nanos, epoch_micros FROM written_down"
            + " WHERE show_id = #{showId} ORDER BY item_id, position_nanos")
    List<PlaceRow> written(int showId);

    @Delete("DELETE FROM written_down WHERE show_id = #{showId} AND cue_id = #{cueId}")
    void forgetPlace(@Param("showId") int showId, @Param("cueId") int cueId);
}
