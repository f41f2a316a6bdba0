package underbaton.core.perform;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ThreadFactory;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Wording;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;

/**
 * The outgoing queue of one device, emptied by a thread of its own, so that a device that is dead or slow delays nobody
 * else. What cannot leave is logged and dropped, never kept for later: a cue that arrives late is worse than one that
 * does not arrive.
 */
public final class Lane {

    private static final int MOST_WAITING = 1024;

    private final int showId;
    private volatile Device device;
    private final Outlet outlet;
    private final Clock clock;
    private final Traffic traffic;
    private final BlockingQueue<Sending> waiting = new ArrayBlockingQueue<>(MOST_WAITING);
    private final Thread thread;
    private volatile Last last = new Last(0, 0, "");

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

    /** Takes a message to be sent as soon as those before it have left; returns at once. */
    public void send(Sending sending) {
        if (!waiting.offer(sending)) {
            log(sending.message(), Bytes.NONE, sending.cause(), 0, MOST_WAITING + " messages are waiting already");
        }
    }

    /** Forgets what has not left yet. */
    public void clear() {
        waiting.clear();
    }

    public Last last() {
        return last;
    }

    /** Same device, other name or numbers: what the log prints from now on. */
    public void rename(Device changed) {
        device = changed;
    }

    public void close() {
        thread.interrupt();
    }

    private void run() {
        try {
            while (true) {
                Sending next = waiting.take();
                try {
                    deliver(next);
                } catch (RuntimeException fault) {
                    log(next.message(), Bytes.NONE, next.cause(), 0, "a fault in Under Baton: " + fault);
                }
            }
        } catch (InterruptedException closed) {
            Thread.currentThread().interrupt();
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
