package underbaton.core.perform;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.ScheduledMessage;
import underbaton.core.engine.Step;
import underbaton.core.plan.Plan;

/**
 * The engine in real time: a queue of orders, a clock, and {@link Engine#step}.
 *
 * <p>An agent: orders come in from any thread and are carried out by whoever calls {@link #work()}, one thread alone (a
 * {@link PerformerThread} in the application, the test itself in a test). It waits for nobody: messages go to an outbox
 * that must take them at once, and the state goes out as an immutable {@link PlaybackState}.
 *
 * <p>It plays a few milliseconds ahead: what comes by itself is handed to the outbox before its time, with that time on it,
 * so that the wait to the very moment lies with the queue of each device and neither this agent's work nor another device's
 * comes in between. An order in those milliseconds makes another future of them: the state of the order's own moment is
 * still there, what has not left is taken back, and the playing goes on from the order. So an order waits for nothing that
 * was handed over, and what each device has been told is known to the moment.
 */
public final class Performer {

    /** How long before its time a message is handed over, ns. */
    static final long AHEAD_NANOS = 5_000_000;

    private final Clock clock;
    private final Outbox outbox;
    private final Consumer<Step> watcher;
    private final Queue<Event> orders = new ConcurrentLinkedQueue<>();
    private volatile Runnable wake = () -> {};
    /** As far as it is played ahead. */
    private volatile Step ahead;
    /** The states before it: one at least is of a moment that has come. */
    private final Deque<PlaybackState> behind = new ArrayDeque<>();

    /** @param watcher gets every step in which something happened, on the performer's thread; must return at once */
    public Performer(Clock clock, PlaybackState state, Outbox outbox, Consumer<Step> watcher) {
        this.clock = clock;
        this.outbox = outbox;
        this.watcher = watcher;
        this.ahead = Engine.step(state, Event.pass(state.nowNanos()));
    }

    public Performer(Clock clock, Plan plan, Outbox outbox, Consumer<Step> watcher) {
        this(clock, PlaybackState.of(plan, clock.nanos()), outbox, watcher);
    }

    /** Takes an order to be carried out at once; from any thread. @param by who gave it, in words */
    public void order(String by, Order order) {
        orders.add(new Event(clock.nanos(), by, order));
        wake.run();
    }

    public void order(Order order) {
        order("", order);
    }

    /** The newest state; may be read from any thread. Up to 5 ms of it are still to come. */
    public PlaybackState state() {
        return ahead.next();
    }

    void wakeWith(Runnable newWake) {
        wake = newWake;
    }

    // ---- the work, on one thread

    /** Carries out what has been ordered and what is due. */
    public void work() {
        for (Event order = orders.poll(); order != null; order = orders.poll()) {
            carryOut(order);
        }
        long now = clock.nanos();
        if (ahead.wakeNanos() - now <= AHEAD_NANOS) {
            take(Engine.step(ahead.next(), Event.pass(now + AHEAD_NANOS)), false);
        }
        while (behind.size() > 1 && second().nowNanos() <= now) {
            behind.poll();
        }
    }

    private PlaybackState second() {
        var states = behind.iterator();
        states.next();
        return states.next();
    }

    private void carryOut(Event order) {
        Outbox.Withdrawn withdrawn = outbox.withdraw(order.atNanos());
        PlaybackState then = stateAt(Math.max(order.atNanos(), withdrawn.leftNanos()));
        long moment = Math.max(then.nowNanos(), Math.max(order.atNanos(), withdrawn.leftNanos()));
        // What was taken back though its moment has come leaves nevertheless.
        for (ScheduledMessage message : withdrawn.messages()) {
            if (message.bornNanos() <= moment) {
                outbox.send(message);
            }
        }
        PlaybackState reached = Engine.step(then, Event.pass(moment)).next();
        take(Engine.step(reached, new Event(moment, order.by(), order.order())), true);
    }

    /** The newest state that is not ahead of a moment; those behind it are of no use any more. */
    private PlaybackState stateAt(long moment) {
        PlaybackState newest = ahead.next();
        while (newest.nowNanos() > moment && !behind.isEmpty()) {
            newest = behind.pollLast();
        }
        behind.clear();
        return newest;
    }

    private void take(Step step, boolean ordered) {
        if (!ordered) {
            behind.add(ahead.next());
        }
        ahead = step;
        step.messages().forEach(outbox::send);
        if (ordered || !step.happenings().isEmpty()) {
            watcher.accept(step);
        }
    }

    /** Nanoseconds until there is work by itself: 0 when it is due, {@code Long.MAX_VALUE} when nothing waits. */
    public long nanosToNext() {
        long next = ahead.wakeNanos();
        return next == Long.MAX_VALUE ? next : Math.max(0, next - AHEAD_NANOS - clock.nanos());
    }
}
