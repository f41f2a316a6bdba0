package underbaton.core.perform;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Controllers;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Wording;
import underbaton.core.traffic.Entry;

/**
 * The outgoing queue of one device, emptied in the order of the times by a {@link Timekeeper}: by one of its own where the way out
 * may block, so that a device that is dead or slow delays nobody else, or by one that it shares with other prompt ones. What cannot
 * leave is logged and dropped, never kept for later: a cue that arrives late is worse than one that does not arrive.
 */
public final class Lane {

    private static final int MOST_WAITING = 1024;
    private static final String PUT_AWAY = "its show was put away before it was due";
    private static final long NOTHING_NANOS = Long.MAX_VALUE;
    /** No longer does what comes behind a step wait for the machine to take it. */
    private static final long LONGEST_WAIT_NANOS = 250_000_000L;

    private final int showId;
    private volatile Device device;
    private volatile StepGaps gaps;
    private final Outlet outlet;
    private final Clock clock;
    private final Scribe scribe;
    private final PriorityQueue<Place> waiting = new PriorityQueue<>();
    /** By list, when the machine takes its next step; held by whoever holds {@code waiting}. */
    private final Map<String, Long> takesNext = new HashMap<>();

    private long count;
    /** The latest moment that brought forth something which was taken from here to be sent. */
    private long leftNanos = Long.MIN_VALUE;

    /** Held by whoever takes the next message and sends it. */
    private final Lock delivering = new ReentrantLock();

    private final Timekeeper time;
    private final boolean timeIsOwn;
    private volatile boolean closed;
    private volatile Last last = new Last(0, 0, "");
    private final Pulses pulses = new Pulses();

    /** What waits, in the order of the times, and of coming where these are the same. @param at when it leaves: when it is due, or later */
    private record Place(ScheduledMessage message, long count, long at) implements Comparable<Place> {
        Place(ScheduledMessage message, long count) {
            this(message, count, message.dueNanos());
        }

        @Override
        public int compareTo(Place other) {
            int byTime = Long.signum(at - other.at);
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

    /** A lane with a thread of its own. */
    public Lane(int showId, Device device, Outlet outlet, Clock clock, Scribe scribe, Loops loops) {
        this(showId, device, outlet, clock, scribe, new Timekeeper("lane to " + device.name(), clock, loops), true);
    }

    /** @param time shared with others, which wait while this outlet sends; so it must be a prompt one */
    public Lane(int showId, Device device, Outlet outlet, Clock clock, Scribe scribe, Timekeeper time) {
        this(showId, device, outlet, clock, scribe, time, false);
    }

    private Lane(
            int showId, Device device, Outlet outlet, Clock clock, Scribe scribe, Timekeeper time, boolean timeIsOwn) {
        this.showId = showId;
        this.device = device;
        this.gaps = StepGaps.of(device);
        this.outlet = outlet;
        this.clock = clock;
        this.scribe = scribe;
        this.time = time;
        this.timeIsOwn = timeIsOwn;
        time.keep(this);
    }

    /**
     * Takes a message to be sent when it is due and those due before it have left; returns at once. Where too many wait already, one is
     * dropped and logged: a value of a control that another one follows, or else the message itself; what ends a note never.
     */
    public void send(ScheduledMessage message) {
        ScheduledMessage dropped;
        boolean first = false;
        String why = PUT_AWAY;
        synchronized (waiting) {
            dropped = message;
            if (!closed) {
                dropped = waiting.size() < MOST_WAITING ? null : leastImportant(message);
                why = MOST_WAITING + " messages are waiting already";
            }
            if (dropped != message) {
                Place place = new Place(message, count++);
                waiting.add(place);
                first = waiting.peek() == place;
            }
        }
        if (first) {
            time.wake();
        }
        if (dropped != null) {
            log(dropped, Bytes.NONE, clock.epochMicros(), 0, why);
        }
    }

    /** @return what is taken out, or the one that has come; null where neither may be dropped */
    private ScheduledMessage leastImportant(ScheduledMessage come) {
        Control moved = come.message() instanceof ControlChange ? Control.of(0, come.message()) : null;
        Place overtaken = null;
        for (Place place : waiting) {
            boolean same = moved != null
                    && place.message.message() instanceof ControlChange
                    && Control.of(0, place.message.message()).equals(moved);
            overtaken = same && (overtaken == null || place.compareTo(overtaken) < 0) ? place : overtaken;
        }
        if (overtaken != null) {
            waiting.remove(overtaken);
            return overtaken.message;
        }
        boolean ends = come.message() instanceof ControlChange change
                ? Controllers.ends(change)
                : ChannelMessage.endsNote(come.message());
        return ends ? null : come;
    }

    /** As {@link Outbox#sendAtOnce} says; what is due before it still leaves before it. */
    public void sendAtOnce(ScheduledMessage message) {
        if (!outlet.isPrompt() || message.dueNanos() - clock.nanos() > 0 || !delivering.tryLock()) {
            send(message);
            return;
        }
        try {
            if (isFirst(message)) {
                deliver(message);
            } else {
                send(message);
            }
        } finally {
            delivering.unlock();
        }
    }

    private boolean isFirst(ScheduledMessage message) {
        synchronized (waiting) {
            Place first = waiting.peek();
            boolean free = !closed && (first == null || first.at - message.dueNanos() > 0) && nanosTo(message) <= 0;
            leftNanos = free ? Math.max(leftNanos, message.bornNanos()) : leftNanos;
            return free;
        }
    }

    /** As {@link Outbox#withdraw} says, of this one queue. */
    public Outbox.Withdrawn withdraw(long afterNanos) {
        synchronized (waiting) {
            if (waiting.isEmpty()) {
                return new Outbox.Withdrawn(List.of(), leftNanos);
            }
            List<ScheduledMessage> back = waiting.stream()
                    .filter(p -> p.message.bornNanos() > afterNanos)
                    .sorted()
                    .map(Place::message)
                    .toList();
            if (!back.isEmpty()) {
                waiting.removeIf(p -> p.message.bornNanos() > afterNanos);
            }
            return new Outbox.Withdrawn(back, leftNanos);
        }
    }

    /** What left last, when, how late, and what was wrong. */
    public Last last() {
        return last;
    }

    /** Same device, other name or numbers: what the log prints from now on. */
    public void rename(Device changed) {
        device = changed;
        gaps = StepGaps.of(changed);
    }

    /** Whether nothing waits, and nothing is being sent. */
    public boolean isIdle() {
        synchronized (waiting) {
            if (!waiting.isEmpty()) {
                return false;
            }
        }
        if (!delivering.tryLock()) {
            return false;
        }
        delivering.unlock();
        return true;
    }

    /**
     * Ends the lane: what sounds is ended now, and what else was waiting is logged as dropped. When it returns nothing of
     * it will leave any more, so the way out can be given to another show.
     */
    public void close() {
        closed = true;
        time.forget(this);
        if (timeIsOwn) {
            time.close();
        }
        // Whoever is sending is done.
        delivering.lock();
        delivering.unlock();
        List<Place> left;
        synchronized (waiting) {
            left = waiting.stream().sorted().toList();
            waiting.clear();
        }
        for (Place place : left) {
            if (ChannelMessage.endsNote(place.message.message())) {
                deliver(place.message);
            } else {
                log(place.message, Bytes.NONE, clock.epochMicros(), 0, PUT_AWAY);
            }
        }
        synchronized (pulses) {
            tellPulses(clock.epochMicros(), false);
        }
    }

    /** Sends the first that waits, if it is due. @return whether one was sent */
    boolean deliverDue() {
        delivering.lock();
        try {
            ScheduledMessage next = takeDue();
            if (next != null) {
                deliver(next);
            }
            return next != null;
        } finally {
            delivering.unlock();
        }
    }

    /** @return the first that is due, or null */
    private ScheduledMessage takeDue() {
        synchronized (waiting) {
            Place first = waiting.peek();
            if (closed || first == null || first.at - clock.nanos() > 0) {
                return null;
            }
            long wait = nanosTo(first.message);
            if (wait > LONGEST_WAIT_NANOS) {
                // Whatever else this machine is to be told, stop all too, does not wait so long for a step.
                waiting.add(new Place(waiting.poll().message, first.count, clock.nanos() + wait));
                return null;
            }
            if (wait > 0) {
                return null;
            }
            leftNanos = Math.max(leftNanos, first.message.bornNanos());
            return waiting.poll().message;
        }
    }

    /** Until the first that waits can leave, 0 or less where it is due. */
    long nanosToNext() {
        synchronized (waiting) {
            Place first = waiting.peek();
            return first == null || closed ? NOTHING_NANOS : Math.max(first.at - clock.nanos(), nanosTo(first.message));
        }
    }

    /**
     * Until a message can leave: until it is due, and one that steps the machine on no sooner than the machine takes it, however late the
     * step before it was. What comes behind it waits too, since a step may show what that hides.
     */
    private long nanosTo(ScheduledMessage message) {
        long now = clock.nanos();
        StepGaps.Step step = gaps.of(message.message());
        Long free = step == null ? null : takesNext.get(step.list());
        long due = message.dueNanos() - now;
        return free == null ? due : Math.max(due, free - now);
    }

    private void stepped(ScheduledMessage message, long now) {
        StepGaps.Step step = gaps.of(message.message());
        if (step != null) {
            synchronized (waiting) {
                takesNext.put(step.list(), now + step.gapNanos());
            }
        }
    }

    private void deliver(ScheduledMessage message) {
        Outlet.Outcome outcome;
        try {
            outcome = outlet.send(message.message());
        } catch (RuntimeException fault) {
            outcome = new Outlet.NotSent("a fault in Under Baton: " + fault);
        }
        long now = clock.nanos();
        stepped(message, now);
        long lateMicros = Math.max(0, (now - message.dueNanos()) / 1000);
        last = new Last(now, lateMicros, outcome instanceof Outlet.NotSent not ? not.reason() : "");
        Bytes bytes = outcome instanceof Outlet.Sent sent ? sent.bytes() : Bytes.NONE;
        log(message, bytes, clock.epochMicros(), lateMicros, last.trouble());
    }

    private void log(ScheduledMessage message, Bytes bytes, long epochMicros, long lateMicros, String trouble) {
        boolean pulse = Pulses.is(message.message()) && trouble.isEmpty();
        synchronized (pulses) {
            tellPulses(epochMicros, pulse);
            if (pulse) {
                pulses.add(message, epochMicros, lateMicros);
                return;
            }
        }
        write(
                epochMicros,
                bytes,
                () -> new Wording(device.numbering()).tell(message.message()),
                message.cause().words(),
                lateMicros,
                trouble);
    }

    /** @param more whether it goes on */
    private void tellPulses(long epochMicros, boolean more) {
        if (more ? pulses.areToBeTold(epochMicros) : pulses.any()) {
            String words = pulses.words(epochMicros);
            write(epochMicros, Bytes.NONE, () -> words, pulses.cause(), pulses.latestMicros(), "");
            pulses.told();
        }
    }

    private void write(
            long epochMicros, Bytes bytes, Supplier<String> words, String cause, long lateMicros, String trouble) {
        Device to = device;
        scribe.later(() -> new Entry(
                0,
                epochMicros,
                Entry.Direction.OUT,
                showId,
                to.id(),
                to.name(),
                bytes,
                words.get(),
                cause,
                lateMicros,
                trouble));
    }
}
