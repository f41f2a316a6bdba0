package underbaton.web.record;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.rig.Cut;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Entry.Direction;
import underbaton.core.traffic.Traffic;
import underbaton.web.kernel.Alarm;
import underbaton.web.kernel.KnownDays;
import underbaton.web.kernel.Settings;

/**
 * Keeps the log: first on disk ({@link Spool}), twenty times a second, and from there in the database, in portions, on a
 * loop of its own each; so a database that is slow, away or gone for a night costs nothing of it, nor does a crash. When
 * room runs short, strangers' lines go first.
 */
@Component
public class Journal implements Alarm {

    private static final Logger LOG = LoggerFactory.getLogger(Journal.class);
    private static final long SPOOL_EVERY_NANOS = TimeUnit.MILLISECONDS.toNanos(50);
    private static final long WRITE_EVERY_NANOS = TimeUnit.MILLISECONDS.toNanos(100);
    private static final long RETRY_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final long PRUNE_EVERY_NANOS = TimeUnit.MINUTES.toNanos(30);
    private static final long MOST_BYTES = 512L << 20;
    private static final double STRANGERS_YIELD = 0.5;
    private static final int MOST_IN_MEMORY = 100_000;
    private static final int BATCH = 500;
    /** Kept in the database, by age and by number. */
    private static final long KEPT_MICROS =
            TimeUnit.MILLISECONDS.toMicros(Duration.ofDays(90).toMillis());

    private static final long MOST_KEPT = 2_000_000;

    private final TrafficMapper mapper;
    private final TransactionTemplate transactions;
    private final Clock clock;
    private final Queue<Entry> coming = new ConcurrentLinkedQueue<>();
    /** What the disk does not take. */
    private final Deque<Entry> inMemory = new ArrayDeque<>();

    private final Spool spool;
    private final Loop spooling;
    private final Loop writing;
    private volatile String diskTrouble = "";
    private volatile boolean away;
    private volatile long lost;
    private long nextDiskTrial;
    private long nextPrune;
    private final KnownDays days;

    Journal(
            Traffic traffic,
            TrafficMapper mapper,
            TransactionTemplate transactions,
            Clock clock,
            Loops loops,
            Settings settings,
            KnownDays days)
            throws IOException {
        this.days = days;
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.spool = new Spool(settings.data().resolve("log").resolve("waiting.jsonl"), MOST_BYTES);
        // What an earlier run left on disk is brought in beside the running show; only its numbers must not be given
        // out again.
        traffic.continueAfter(Math.max(mapper.last(), spool.lastNumber()));
        traffic.taken(coming::add);
        this.nextPrune = clock.nanos();
        this.nextDiskTrial = clock.nanos();
        this.spooling = loops.start("log to disk", this::spoolTurn);
        this.writing = loops.start("log to database", this::writeTurn);
    }

    // ---- to disk

    private void spoolTurn() {
        LockSupport.parkNanos(this, SPOOL_EVERY_NANOS);
        spoolWhatCame();
    }

    private void spoolWhatCame() {
        List<Entry> came = new ArrayList<>();
        for (Entry entry = coming.poll(); entry != null; entry = coming.poll()) {
            came.add(entry);
        }
        if (came.isEmpty()) {
            tryDiskAgain();
            return;
        }
        List<Entry> kept = came;
        double full = spool.full();
        if (full > STRANGERS_YIELD) {
            kept = full > 1
                    ? List.of()
                    : came.stream().filter(e -> !isStrangers(e)).toList();
            lost += came.size() - kept.size();
        }
        try {
            if (!kept.isEmpty()) {
                spool.append(kept);
            }
            diskTrouble = "";
        } catch (IOException refused) {
            if (diskTrouble.isEmpty()) {
                LOG.warn("The log cannot be written to disk: {}", refused.toString());
            }
            diskTrouble = refused.getMessage();
            keepInMemory(kept);
        }
    }

    /** In a pause of the show nothing is written, and what was wrong must not be told for ever. */
    private void tryDiskAgain() {
        if (diskTrouble.isEmpty() || clock.nanos() - nextDiskTrial < 0) {
            return;
        }
        nextDiskTrial = clock.nanos() + RETRY_NANOS;
        try {
            spool.tryDisk();
            diskTrouble = "";
        } catch (IOException stillFull) {
            diskTrouble = stillFull.getMessage();
        }
    }

    private static boolean isStrangers(Entry entry) {
        return entry.direction() == Direction.IN && entry.deviceId() == 0;
    }

    private void keepInMemory(List<Entry> entries) {
        synchronized (inMemory) {
            inMemory.addAll(entries);
            if (inMemory.size() > MOST_IN_MEMORY) {
                int before = inMemory.size();
                inMemory.removeIf(Journal::isStrangers);
                while (inMemory.size() > MOST_IN_MEMORY) {
                    inMemory.removeFirst();
                }
                lost += before - inMemory.size();
            }
        }
    }

    // ---- to the database

    private void writeTurn() throws IOException {
        LockSupport.parkNanos(this, away ? RETRY_NANOS : WRITE_EVERY_NANOS);
        writeWhatWaits();
        if (!away && clock.nanos() - nextPrune >= 0) {
            nextPrune = clock.nanos() + PRUNE_EVERY_NANOS;
            prune();
        }
    }

    private void writeWhatWaits() throws IOException {
        try {
            for (List<Entry> next = spool.next(BATCH); !next.isEmpty(); next = spool.next(BATCH)) {
                put(next);
                spool.taken(next.size());
                away = false;
            }
            spool.taken(0);
            List<Entry> rest;
            synchronized (inMemory) {
                rest = inMemory.stream().limit(BATCH).toList();
            }
            if (!rest.isEmpty()) {
                put(rest);
                synchronized (inMemory) {
                    rest.forEach(inMemory::remove);
                }
            }
        } catch (DataAccessException | TransactionException gone) {
            if (!away) {
                LOG.warn("The log waits on disk until the database answers again: {}", gone.toString());
            }
            away = true;
        }
    }

    private void put(List<Entry> entries) {
        List<TrafficMapper.Row> rows = entries.stream().map(Journal::row).toList();
        try {
            transactions.executeWithoutResult(t -> mapper.put(rows));
        } catch (DataIntegrityViolationException refused) {
            // One entry the database never takes must not keep all later ones waiting.
            for (TrafficMapper.Row row : rows) {
                try {
                    transactions.executeWithoutResult(t -> mapper.put(List.of(row)));
                } catch (DataIntegrityViolationException one) {
                    LOG.error("The database refuses an entry of the log, which is left out: {}", row, one);
                }
            }
        }
    }

    private void prune() {
        try {
            long before = clock.epochMicros() - KEPT_MICROS;
            while (days.agree() && mapper.forgetBefore(before) > 0) {
                LockSupport.parkNanos(this, WRITE_EVERY_NANOS);
            }
            long first = mapper.last() - MOST_KEPT;
            while (first > 0 && mapper.forgetUpTo(first) > 0) {
                LockSupport.parkNanos(this, WRITE_EVERY_NANOS);
            }
        } catch (DataAccessException gone) {
            LOG.info("The log will be pruned later: {}", gone.toString());
        }
    }

    private static TrafficMapper.Row row(Entry e) {
        return new TrafficMapper.Row(
                e.number(),
                e.epochMicros(),
                e.direction().name(),
                e.showId(),
                e.deviceId(),
                e.device(),
                e.bytes().toArray(),
                Cut.shown(8000, e.meaning()),
                Cut.shown(200, e.cause()),
                e.lateMicros(),
                Cut.shown(500, e.trouble()));
    }

    // ---- asking

    /** How many entries the database has of a show. */
    public long written(int showId) {
        return mapper.count(showId);
    }

    /** Older lines out of the database, the newest first. */
    public List<Entry> older(TrafficMapper.Wanted wanted) {
        return mapper.older(wanted).stream()
                .map(r -> new Entry(
                        r.number(),
                        r.epochMicros(),
                        Direction.valueOf(r.direction()),
                        r.showId(),
                        r.deviceId(),
                        r.device(),
                        Bytes.copyOf(r.bytes()),
                        r.meaning(),
                        r.cause(),
                        r.lateMicros(),
                        r.trouble()))
                .toList();
    }

    @Override
    public List<String> alarms() {
        return Stream.of(trouble()).filter(words -> !words.isEmpty()).toList();
    }

    private String trouble() {
        String gone = lost == 0 ? "" : " " + lost + " lines had no room and are lost.";
        if (!diskTrouble.isEmpty()) {
            return "The log cannot be written to disk (" + diskTrouble + ") and is kept in memory: make room." + gone;
        }
        if (away) {
            return "The log waits on disk, " + spool.waiting() + " lines so far." + gone;
        }
        return gone.strip();
    }

    /** What has come is on disk when it returns, and in the database where that answers. */
    @PreDestroy
    void close() throws IOException {
        spooling.close();
        spoolWhatCame();
        writing.close();
        if (!away) {
            writeWhatWaits();
        }
        spool.close();
    }
}
