package underbaton.web.log;

import jakarta.annotation.PreDestroy;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;

/**
 * Writes the log to the database in batches, on a thread of its own. While the database is away entries are kept, up to
 * a limit far beyond a show's length, and written when it returns.
 */
@Component
public class Journal {

    private static final Logger LOG = LoggerFactory.getLogger(Journal.class);
    private static final int MOST_KEPT = 200_000;
    private static final int BATCH = 500;
    private static final long PAUSE_NANOS = TimeUnit.MILLISECONDS.toNanos(200);

    private final Traffic traffic;
    private final TrafficMapper mapper;
    private final TransactionTemplate transactions;
    private final Deque<Entry> unwritten = new ArrayDeque<>();
    private long taken;
    private boolean away;
    private volatile boolean closed;
    private final Thread thread;

    Journal(Traffic traffic, TrafficMapper mapper, TransactionTemplate transactions, ThreadFactory threads) {
        this.traffic = traffic;
        this.mapper = mapper;
        this.transactions = transactions;
        this.taken = mapper.last();
        traffic.continueAfter(taken);
        this.thread = threads.newThread(this::run);
        thread.start();
    }

    private void run() {
        while (!closed) {
            LockSupport.parkNanos(this, PAUSE_NANOS);
            take();
            write();
        }
    }

    /** Out of the ring before it turns over, whether the database is there or not. */
    private void take() {
        List<Entry> entries = traffic.after(taken, Integer.MAX_VALUE);
        for (Entry entry : entries) {
            unwritten.add(entry);
            taken = entry.number();
        }
        while (unwritten.size() > MOST_KEPT) {
            unwritten.removeFirst();
        }
    }

    private void write() {
        while (!unwritten.isEmpty()) {
            List<Entry> batch = new ArrayList<>(unwritten).subList(0, Math.min(BATCH, unwritten.size()));
            try {
                transactions.executeWithoutResult(t -> batch.forEach(e -> mapper.put(row(e))));
                batch.forEach(e -> unwritten.removeFirst());
                away = false;
            } catch (RuntimeException gone) {
                if (!away) {
                    LOG.warn(
                            "The log cannot be written to the database; it is kept until that works again: {}",
                            gone.toString());
                }
                away = true;
                return;
            }
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
                e.meaning(),
                e.cause(),
                e.lateMicros(),
                e.trouble());
    }

    /** How many entries the database has of a show. */
    public long written(int showId) {
        return mapper.count(showId);
    }

    @PreDestroy
    void close() throws InterruptedException {
        closed = true;
        LockSupport.unpark(thread);
        thread.join(TimeUnit.SECONDS.toMillis(3));
    }
}
