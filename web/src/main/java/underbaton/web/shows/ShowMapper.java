package underbaton.web.shows;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import underbaton.web.shows.ShowRows.CallRow;
import underbaton.web.shows.ShowRows.CueRow;
import underbaton.web.shows.ShowRows.DeviceRow;
import underbaton.web.shows.ShowRows.ItemRow;
import underbaton.web.shows.ShowRows.PhraseRow;
import underbaton.web.shows.ShowRows.ShowRow;

/** The tables of the shows. {@code put} adds a row or exchanges the one with its key. */
@Mapper
interface ShowMapper {

    @Select("SELECT * FROM shows ORDER BY id")
    List<ShowRow> shows();

    /** The highest id that any show ever had, also one that is gone and only the log still knows. */
    @Select("SELECT GREATEST((SELECT COALESCE(MAX(id), 0) FROM shows), (SELECT COALESCE(MAX(show_id), 0) FROM traffic),"
            + " (SELECT COALESCE(MAX(show_id), 0) FROM line_checks))")
    int lastId();

    @Insert(
            """
            INSERT INTO shows (id, name, revision, next_id) VALUES (#{id}, #{name}, #{revision}, #{nextId})
            ON DUPLICATE KEY UPDATE name = #{name}, revision = #{revision}, next_id = #{nextId}""")
    void putShow(ShowRow row);

    @Delete("DELETE FROM shows WHERE id = #{id}")
    void deleteShow(int id);

    @Select("SELECT * FROM devices WHERE show_id = #{showId} ORDER BY place")
    List<DeviceRow> devices(int showId);

    @Insert(
            """
            INSERT INTO devices (show_id, id, place, name, department, wire, host, port, question, channel, first_program, bank_size, value_style, first_octave, flats, first_place, lead_ms, settle_ms, levels, list_kind, list_first)
            VALUES (#{showId}, #{id}, #{place}, #{name}, #{department}, #{wire}, #{host}, #{port}, #{question}, #{channel}, #{firstProgram}, #{bankSize}, #{valueStyle}, #{firstOctave}, #{flats}, #{firstPlace}, #{leadMs}, #{settleMs}, #{levels}, #{listKind}, #{listFirst})
            ON DUPLICATE KEY UPDATE
            place = #{place}, name = #{name}, department = #{department}, wire = #{wire}, host = #{host}, port = #{port}, question = #{question}, channel = #{channel}, first_program = #{firstProgram}, bank_size = #{bankSize}, value_style = #{valueStyle}, first_octave = #{firstOctave}, flats = #{flats}, first_place = #{firstPlace}, lead_ms = #{leadMs}, settle_ms = #{settleMs}, levels = #{levels}, list_kind = #{listKind}, list_first = #{listFirst}""")
    void putDevice(DeviceRow row);

    @Delete("DELETE FROM devices WHERE show_id = #{showId} AND id = #{id}")
    void deleteDevice(DeviceRow row);

    @Select("SELECT * FROM phrases WHERE show_id = #{showId} ORDER BY place")
    List<PhraseRow> phrases(int showId);

    @Insert(
            """
            INSERT INTO phrases (show_id, id, device_id, place, name, says, argument, effect, guarded, listed, mark, note, heading)
            VALUES (#{showId}, #{id}, #{deviceId}, #{place}, #{name}, #{says}, #{argument}, #{effect}, #{guarded}, #{listed}, #{mark}, #{note}, #{heading})
            ON DUPLICATE KEY UPDATE
            device_id = #{deviceId}, place = #{place}, name = #{name}, says = #{says}, argument = #{argument}, effect = #{effect}, guarded = #{guarded}, listed = #{listed}, mark = #{mark}, note = #{note}, heading = #{heading}""")
    void putPhrase(PhraseRow row);

    @Delete("DELETE FROM phrases WHERE show_id = #{showId} AND id = #{id}")
    void deletePhrase(PhraseRow row);

    @Select("SELECT * FROM items WHERE show_id = #{showId} ORDER BY place")
    List<ItemRow> items(int showId);

    @Insert(
            """
            INSERT INTO items (show_id, id, place, kind, name, planned_seconds, score)
            VALUES (#{showId}, #{id}, #{place}, #{kind}, #{name}, #{plannedSeconds}, #{score})
            ON DUPLICATE KEY UPDATE
            place = #{place}, kind = #{kind}, name = #{name}, planned_seconds = #{plannedSeconds}, score = #{score}""")
    void putItem(ItemRow row);

    @Delete("DELETE FROM items WHERE show_id = #{showId} AND id = #{id}")
    void deleteItem(ItemRow row);

    @Select("SELECT * FROM cues WHERE show_id = #{showId} ORDER BY number")
    List<CueRow> cues(int showId);

    @Insert(
            """
            INSERT INTO cues (show_id, id, item_id, number, starts, what, mark, note, version)
            VALUES (#{showId}, #{id}, #{itemId}, #{number}, #{starts}, #{what}, #{mark}, #{note}, #{version})
            ON DUPLICATE KEY UPDATE
            item_id = #{itemId}, number = #{number}, starts = #{starts}, what = #{what}, mark = #{mark}, note = #{note}, version = #{version}""")
    void putCue(CueRow row);

    @Delete("DELETE FROM cues WHERE show_id = #{showId} AND id = #{id}")
    void deleteCue(CueRow row);

    @Select("SELECT * FROM calls WHERE show_id = #{showId} ORDER BY cue_id, place")
    List<CallRow> calls(int showId);

    @Insert(
            """
            INSERT INTO calls (show_id, cue_id, place, device_id, phrase_id, amount, motion, late)
            VALUES (#{showId}, #{cueId}, #{place}, #{deviceId}, #{phraseId}, #{amount}, #{motion}, #{late})
            ON DUPLICATE KEY UPDATE
            device_id = #{deviceId}, phrase_id = #{phraseId}, amount = #{amount}, motion = #{motion}, late = #{late}""")
    void putCall(CallRow row);

    @Delete("DELETE FROM calls WHERE show_id = #{showId} AND cue_id = #{cueId} AND place = #{place}")
    void deleteCall(CallRow row);
}
