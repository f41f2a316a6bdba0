package underbaton.core.perform;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;

/**
 * The thread that waits for the moments of one lane, or of several whose ways out never block. Three threads that are woken in
 * one instant wait for each other's turn where every core is busy; one takes the three messages one after the other.
 *
 * <p>How it waits: the thread parks until shortly before the next message is due and turns in a loop, looking at the clock,
 * for what is left. A parked thread is woken by the kernel's timer some 50 µs late, so it asks to be woken that much early
 * and turns for a few µs. Turning longer looks safer and is worse: with every core busy, a thread that used its time up by
 * turning waits behind the others for a whole turn of the scheduler, some 3 ms ({@code docs/performance.md}). For
 * the same reason a {@link Scribe} writes the log, and the thread asks for the highest priority, which Linux grants where
 * the virtual machine runs with {@code -XX:ThreadPriorityPolicy=1} and may use it.
 */
public final class Timekeeper implements AutoCloseable {

    private static final long LONGEST_NAP_NANOS = 1_000_000_000L;
    /** How early the thread is woken, ns. */
    private static final long EARLY_NANOS = 50_000;

    private final Clock clock;
    private final List<Lane> lanes = new CopyOnWriteArrayList<>();
    private final Loop loop;
    /** Goes up with every change of what waits, so that the loop looks again. */
    private final AtomicInteger changes = new AtomicInteger();

    /** @param name of the thread, for people who look at one */
    public Timekeeper(String name, Clock clock, Loops loops) {
        this.clock = clock;
        this.loop = loops.startUrgent(name, this::turn);
    }

    void keep(Lane lane) {
        lanes.add(lane);
    }

    void forget(Lane lane) {
        lanes.remove(lane);
        wake();
    }

    /** Something comes sooner than was known. */
    void wake() {
        changes.incrementAndGet();
        loop.wake();
    }

    private void turn() {
        int seen = changes.get();
        boolean any = false;
        long away = LONGEST_NAP_NANOS;
        for (Lane lane : lanes) {
            any |= lane.deliverDue();
        }
        if (any) {
            return;
        }
        for (Lane lane : lanes) {
            away = Math.min(away, lane.nanosToNext());
        }
        if (away > EARLY_NANOS) {
            LockSupport.parkNanos(this, away - EARLY_NANOS);
        } else {
            spin(clock.nanos() + away, seen);
        }
    }

    private void spin(long until, int seen) {
        while (clock.nanos() - until < 0 && changes.get() == seen && !loop.isClosed()) {
            Thread.onSpinWait();
        }
    }

    @Override
    public void close() {
        loop.close();
    }
}
