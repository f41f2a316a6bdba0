package underbaton.core.perform;

import java.util.List;
import java.util.PriorityQueue;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Wording;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;

/**
 * The outgoing queue of one device, emptied in the order of the times by a thread of its own, so that a device that is
 * dead or slow delays nobody else. The thread parks until the next message is due. What cannot leave is logged and dropped, never kept for later: a cue that arrives late is worse than one that
 * does not arrive.
 */
public final class Lane {

    private static final int MOST_WAITING = 1024;
    private static final long LONGEST_NAP_NANOS = 1_000_000_000L;

    private final int showId;
    private volatile Device device;
    private final Outlet outlet;
    private final Clock clock;
    private final Traffic traffic;
    private final PriorityQueue<Place> waiting = new PriorityQueue<>();
    private long count;
    private volatile boolean closed;
    private final Thread thread;
    private volatile Last last = new Last(0, 0, "");

    /** What waits, in the order of the times, and of coming where these are the same. */
    private record Place(Sending sending, long count) implements Comparable<Place> {
        @Override
        public int compareTo(Place other) {
            int byTime = Long.signum(sending.dueNanos() - other.sending.dueNanos());
            return byTime != 0 ? byTime : Long.compare(count, other.count);
        }
    }

    /**
     * How the last message went.
     *
     * @param atNanos by the clock, 0 before the first
     * @param lateMicros how long after its due time it left
     * @param trouble empty when it left
     */
    public record Last(long atNanos, long lateMicros, String trouble) {}

    public Lane(int showId, Device device, Outlet outlet, Clock clock, Traffic traffic, ThreadFactory threads) {
        this.showId = showId;
        this.device = device;
        this.outlet = outlet;
        this.clock = clock;
        this.traffic = traffic;
        this.thread = threads.newThread(this::run);
        thread.start();
    }

    /** Takes a message to be sent when it is due and those due before it have left; returns at once. */
    public void send(Sending sending) {
        boolean room;
        synchronized (waiting) {
            room = waiting.size() < MOST_WAITING;
            if (room) {
                waiting.add(new Place(sending, count++));
            }
        }
        if (room) {
            LockSupport.unpark(thread);
        } else {
            log(sending.message(), Bytes.NONE, sending.cause(), 0, MOST_WAITING + " messages are waiting already");
        }
    }

    /** Forgets what has not left yet, but for the ends of notes: they leave now, so that nothing goes on sounding. */
    public void clear() {
        long now = clock.nanos();
        synchronized (waiting) {
            List<Place> ends = waiting.stream()
                    .filter(p -> p.sending.message() instanceof NoteOff)
                    .sorted()
                    .toList();
            waiting.clear();
            for (Place end : ends) {
                Sending s = end.sending;
                waiting.add(new Place(new Sending(s.deviceId(), s.message(), now, s.cause()), end.count));
            }
        }
        LockSupport.unpark(thread);
    }

    public Last last() {
        return last;
    }

    /** Same device, other name or numbers: what the log prints from now on. */
    public void rename(Device changed) {
        device = changed;
    }

    public void close() {
        closed = true;
        LockSupport.unpark(thread);
    }

    private void run() {
        while (!closed) {
            Sending next = takeDue();
            if (next == null) {
                LockSupport.parkNanos(this, nanosToNext());
            } else {
                try {
                    deliver(next);
                } catch (RuntimeException fault) {
                    log(next.message(), Bytes.NONE, next.cause(), 0, "a fault in Under Baton: " + fault);
                }
            }
        }
    }

    /** @return the first that is due, or null */
    private Sending takeDue() {
        synchronized (waiting) {
            Place first = waiting.peek();
            return first == null || first.sending.dueNanos() - clock.nanos() > 0 ? null : waiting.poll().sending;
        }
    }

    private long nanosToNext() {
        synchronized (waiting) {
            Place first = waiting.peek();
            return first == null
                    ? LONGEST_NAP_NANOS
                    : Math.min(LONGEST_NAP_NANOS, first.sending.dueNanos() - clock.nanos());
        }
    }

    private void deliver(Sending sending) {
        Outlet.Outcome outcome = outlet.send(sending.message());
        long now = clock.nanos();
        long lateMicros = Math.max(0, (now - sending.dueNanos()) / 1000);
        if (outcome instanceof Outlet.Sent sent) {
            last = new Last(now, lateMicros, "");
            log(sending.message(), sent.bytes(), sending.cause(), lateMicros, "");
        } else {
            String reason = ((Outlet.NotSent) outcome).reason();
            last = new Last(now, lateMicros, reason);
            log(sending.message(), Bytes.NONE, sending.cause(), lateMicros, reason);
        }
    }

    private void log(Message message, Bytes bytes, String cause, long lateMicros, String trouble) {
        Device to = device;
        traffic.add(new Entry(
                0,
                clock.epochMicros(),
                Entry.Direction.OUT,
                showId,
                to.id(),
                to.name(),
                bytes,
                new Wording(to.numbering()).tell(message),
                cause,
                lateMicros,
                trouble));
    }
}
