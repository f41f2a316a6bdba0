package underbaton.web.library;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.flywaydb.core.api.MigrationVersion;
import org.flywaydb.core.api.migration.Context;
import org.flywaydb.core.api.migration.JavaMigration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.DataClassRowMapper;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;
import org.springframework.stereotype.Component;
import underbaton.core.exchange.CueTable;
import underbaton.core.exchange.Snippet;
import underbaton.core.score.Meter;
import underbaton.core.store.StoredForm;
import underbaton.web.library.OldRows.CallRow;
import underbaton.web.library.OldRows.CueRow;
import underbaton.web.library.OldRows.DeviceRow;
import underbaton.web.library.OldRows.ItemRow;
import underbaton.web.library.OldRows.PhraseRow;

/**
 * Version 9 of the database: carries the rows whose columns held words over into {@code parts}. What cannot be read goes
 * over as the raw row, so that its show stands on the shelf with what is wrong and nothing is lost.
 */
@Component
class WordsBecomeParts implements JavaMigration {

    private static final Logger LOG = LoggerFactory.getLogger(WordsBecomeParts.class);
    private static final String PUT =
            "INSERT INTO parts (show_id, kind, id, parent, place, version, content) VALUES (?, ?, ?, ?, ?, ?, ?)";

    private final List<Object[]> rows = new ArrayList<>();

    @Override
    public MigrationVersion getVersion() {
        return MigrationVersion.fromVersion("9");
    }

    @Override
    public String getDescription() {
        return "words become parts";
    }

    @Override
    public Integer getChecksum() {
        return null;
    }

    @Override
    public boolean canExecuteInTransaction() {
        return true;
    }

    @Override
    public void migrate(Context context) {
        JdbcTemplate sql = new JdbcTemplate(new SingleConnectionDataSource(context.getConnection(), true));
        rows.clear();
        Map<Integer, Integer> places = new LinkedHashMap<>();
        for (DeviceRow d : all(sql, "devices ORDER BY show_id, place", DeviceRow.class)) {
            add(d.showId(), "device", d.id(), 0, next(places, d.showId()), 0, d, () -> OldRows.device(d));
        }
        places.clear();
        for (PhraseRow p : all(sql, "phrases ORDER BY show_id, place", PhraseRow.class)) {
            int place = next(places, 31 * p.showId() + p.deviceId());
            add(p.showId(), "phrase", p.id(), p.deviceId(), place, 0, p, () -> OldRows.phrase(p));
        }
        places.clear();
        for (ItemRow i : all(sql, "items ORDER BY show_id, place", ItemRow.class)) {
            add(i.showId(), "item", i.id(), 0, next(places, i.showId()), 0, i, () -> OldRows.item(i));
        }
        Map<List<Integer>, List<CallRow>> calls =
                all(sql, "calls ORDER BY show_id, cue_id, place", CallRow.class).stream()
                        .collect(Collectors.groupingBy(c -> List.of(c.showId(), c.cueId())));
        for (CueRow c : all(sql, "cues ORDER BY show_id, id", CueRow.class)) {
            List<CallRow> its = calls.getOrDefault(List.of(c.showId(), c.id()), List.of());
            Map<String, Object> raw = Map.of("cue", c, "calls", its);
            add(c.showId(), "cue", c.id(), c.itemId(), 0, c.version(), raw, () -> OldRows.cue(c, its));
        }
        sql.batchUpdate(PUT, rows);
        sql.query("SELECT id, name, meter, content FROM snippets", row -> {
            snippet(sql, row.getInt("id"), row.getString("name"), row.getString("meter"), row.getString("content"));
        });
        rows.clear();
    }

    private static <T> List<T> all(JdbcTemplate sql, String from, Class<T> row) {
        return sql.query("SELECT * FROM " + from, new DataClassRowMapper<>(row));
    }

    private static int next(Map<Integer, Integer> places, int of) {
        return places.merge(of, 1, Integer::sum) - 1;
    }

    private void add(
            int showId, String kind, int id, int parent, int place, int version, Object raw, Supplier<?> read) {
        String content;
        try {
            content = StoredForm.write(read.get());
        } catch (RuntimeException unread) {
            LOG.warn(
                    "The {} {} of show {} cannot be read and is kept as it is: {}",
                    kind,
                    id,
                    showId,
                    unread.toString());
            content = StoredForm.write(Map.of("unreadWords", raw));
        }
        rows.add(new Object[] {showId, kind, id, parent, place, version, content});
    }

    private static void snippet(JdbcTemplate sql, int id, String name, String meter, String content) {
        try {
            Snippet snippet = new Snippet(name, Meter.of(meter), CueTable.read(content));
            sql.update("UPDATE snippets SET content = ? WHERE id = ?", StoredForm.write(snippet), id);
        } catch (RuntimeException unread) {
            LOG.warn("The snippet {} cannot be read and is kept as it is: {}", name, unread.toString());
        }
    }
}
