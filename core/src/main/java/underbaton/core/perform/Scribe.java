package underbaton.core.perform;

import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;

/**
 * Writes into the log what left, on a thread of its own: words take longer than bytes, and a lane that writes them itself
 * has used its time up when the next message is due. It rests 20 ms between looks, so that many messages cost
 * one waking; an entry is in the log that much later and says when its message really left.
 */
public final class Scribe implements AutoCloseable {

    private static final long REST_NANOS = 20_000_000;

    private final Traffic traffic;
    private final Queue<Supplier<Entry>> waiting = new ConcurrentLinkedQueue<>();
    private final Loop loop;
    private volatile boolean idle;

    /** Begins at once, on a loop of its own. */
    public Scribe(Traffic traffic, Loops loops) {
        this.traffic = traffic;
        this.loop = loops.start("scribe", this::turn);
    }

    /** Takes an entry to be worded and written soon; returns at once. May be called from any thread. */
    public void later(Supplier<Entry> entry) {
        waiting.add(entry);
        if (idle) {
            loop.wake();
        }
    }

    /** What still waits is written before it returns. */
    @Override
    public void close() {
        loop.close();
        write();
    }

    private void turn() {
        idle = true;
        if (waiting.isEmpty()) {
            LockSupport.park(this);
        }
        idle = false;
        if (!loopIsClosed()) {
            LockSupport.parkNanos(this, REST_NANOS);
        }
        write();
    }

    private boolean loopIsClosed() {
        return loop != null && loop.isClosed();
    }

    private void write() {
        for (Supplier<Entry> entry = waiting.poll(); entry != null; entry = waiting.poll()) {
            traffic.add(entry.get());
        }
    }
}
