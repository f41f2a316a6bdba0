package underbaton.web.kernel;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;

/**
 * What everybody has to know, at the top of every page from the moment it is so till it ends: what is wrong, what still
 * works, what to do. Looked at every second, on a loop of its own.
 */
@Component
public class Alarms {

    private static final Logger LOG = LoggerFactory.getLogger(Alarms.class);
    private static final long LOOK_EVERY_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final long LITTLE_BYTES = 200L << 20;

    private final JdbcTemplate database;
    private final Path data;
    private final List<Alarm> others;
    private final Loops loops;
    private final Live live;
    private final Loop loop;
    private volatile List<String> now = List.of();
    private volatile boolean answered = true;

    Alarms(DataSource database, Settings settings, List<Alarm> others, Loops loops, Live live, Painting painting) {
        this.database = new JdbcTemplate(database);
        this.data = settings.data();
        this.others = others;
        this.loops = loops;
        this.live = live;
        live.paints("alarms", showId -> painting.of("page/alarms", "alarms", Map.of("alarms", now)));
        loop = loops.start("alarms", this::turn);
    }

    /** A sentence or two each; empty when all is well. */
    public List<String> now() {
        return now;
    }

    /** Whether the database answered when it was asked last. */
    public boolean databaseAnswers() {
        return answered;
    }

    private void turn() {
        List<String> found = look();
        if (!found.equals(now)) {
            LOG.warn("What everybody has to know: {}", found.isEmpty() ? "nothing any more" : found);
            now = found;
            live.changed("alarms");
        }
        LockSupport.parkNanos(this, LOOK_EVERY_NANOS);
    }

    private List<String> look() {
        List<String> found = new ArrayList<>();
        answered = answers();
        if (!answered) {
            found.add(
                    "The database does not answer. The show runs on from memory, and pages that are open can be read; "
                            + "edits are refused and stay in their fields. ./baton start brings it back.");
        }
        disk(found);
        others.forEach(o -> found.addAll(o.alarms()));
        loops.broken()
                .forEach(b -> found.add("Something within Under Baton does not work: " + b
                        + ". The rest goes on; restart it in the next pause (./baton stop, ./baton start)."));
        return List.copyOf(found);
    }

    private boolean answers() {
        try {
            database.queryForObject("SELECT 1", Integer.class);
            return true;
        } catch (DataAccessException gone) {
            return false;
        }
    }

    private void disk(List<String> found) {
        try {
            FileStore store = Files.getFileStore(Files.createDirectories(data));
            if (store.getUsableSpace() < LITTLE_BYTES) {
                found.add("The disk is nearly full (" + store.getUsableSpace() / 1_000_000
                        + " MB left). The show runs on; make room, or edits, backups and the log will be refused.");
            }
        } catch (IOException unreadable) {
            found.add("The data folder cannot be used: " + unreadable.getMessage() + ".");
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
