package underbaton.wire.osc;

import java.util.PriorityQueue;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;

/**
 * Keeps what a bundle's time tag wants later (OSC 1.0) until then. More than ten seconds ahead is taken for a clock that is
 * wrong, and so, like what is past or has no room, is done at once.
 */
final class OscDelay implements AutoCloseable {

    private static final int MOST_WAITING = 1000;
    private static final long FARTHEST_NANOS = 10_000_000_000L;
    private static final long SECONDS_FROM_1900_TO_1970 = 2_208_988_800L;
    private static final long LONGEST_NAP_NANOS = 1_000_000_000L;

    private final Clock clock;
    private final PriorityQueue<Waiting> waiting = new PriorityQueue<>();
    private final Loop loop;
    private long count;

    private record Waiting(long dueNanos, long number, Runnable work) implements Comparable<Waiting> {
        @Override
        public int compareTo(Waiting other) {
            int byTime = Long.signum(dueNanos - other.dueNanos);
            return byTime != 0 ? byTime : Long.compare(number, other.number);
        }
    }

    OscDelay(Clock clock, Loops loops) {
        this.clock = clock;
        loop = loops.start("OSC in time", this::turn);
    }

    /** How far ahead a time tag is, ns; 0 or below for at once. */
    long ahead(long timeTag) {
        if (timeTag == OscElements.AT_ONCE) {
            return 0;
        }
        long seconds = (timeTag >>> 32) - SECONDS_FROM_1900_TO_1970;
        long nanos = (timeTag & 0xFFFFFFFFL) * 1_000_000_000L >>> 32;
        long ahead = (seconds * 1_000_000L - clock.epochMicros()) * 1000 + nanos;
        return ahead > FARTHEST_NANOS ? 0 : ahead;
    }

    /** Does the work at its time, on another thread when that is later. */
    void at(long timeTag, Runnable work) {
        long ahead = ahead(timeTag);
        boolean later = false;
        if (ahead > 0) {
            synchronized (waiting) {
                later = waiting.size() < MOST_WAITING;
                if (later) {
                    waiting.add(new Waiting(clock.nanos() + ahead, count++, work));
                }
            }
        }
        if (later) {
            loop.wake();
        } else {
            work.run();
        }
    }

    private void turn() {
        Runnable due = null;
        long nap = LONGEST_NAP_NANOS;
        synchronized (waiting) {
            Waiting first = waiting.peek();
            long left = first == null ? LONGEST_NAP_NANOS : first.dueNanos - clock.nanos();
            if (first != null && left <= 0) {
                due = waiting.poll().work;
            } else {
                nap = Math.min(nap, left);
            }
        }
        if (due != null) {
            due.run();
        } else {
            LockSupport.parkNanos(this, nap);
        }
    }

    @Override
    public void close() {
        loop.close();
    }
}
