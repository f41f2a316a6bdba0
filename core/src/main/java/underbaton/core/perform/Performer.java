package underbaton.core.perform;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.ReentrantLock;
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
 * <p>An agent: orders come in from any thread and are carried out by whoever calls {@link #work()}, one at a time: a
 * {@link PerformerThread} in the application, the test itself in a test, and the thread that brings something that is played
 * ({@link #orderAtOnce}), since every hand-over from thread to thread takes as long as all the rest. It waits for nobody: messages go to an outbox
 * that must take them at once, and the state goes out as an immutable {@link PlaybackState}.
 *
 * <p>It plays a few milliseconds ahead: what comes by itself is handed to the outbox before its time, with that time on it,
 * so that the wait to the very moment lies with the queue of each device and neither this agent's work nor another device's
 * comes in between. An order in those milliseconds makes another future of them: the state of the order's own moment is
 * still there, what has not left is taken back, and the playing goes on from the order. So an order waits for nothing that
 * was handed over, and what each device has been told is known to the moment.
 */
public final class Performer {

    /** So many messages are sent by whoever plays them; more go to the lanes, which work side by side. */
    private static final int FEW = 4;

    /** What is sooner by less is not sooner. */
    private static final long EARLIER_NANOS = 20_000;

    /** How long before its time a message is handed over, ns. */
    static final long AHEAD_NANOS = 5_000_000;

    private final Clock clock;
    private final Outbox outbox;
    private final Consumer<Step> watcher;
    private final Queue<Event> orders = new ConcurrentLinkedQueue<>();
    private final Queue<Throwable> faults = new ConcurrentLinkedQueue<>();
    private final ReentrantLock working = new ReentrantLock();
    /** Whether the order at hand is carried out by whoever brought it. */
    private boolean atOnce;

    private volatile long sleepsUntil = Long.MAX_VALUE;
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

    /**
     * Takes an order and carries it out on the caller's own thread, unless somebody is at work already. For a thread that is as urgent as
     * the performer's. A fault is told to the performer's thread, not to the caller.
     */
    public void orderAtOnce(String by, Order order) {
        orders.add(new Event(clock.nanos(), by, order));
        if (working.isHeldByCurrentThread() || !working.tryLock()) {
            wake.run();
            return;
        }
        boolean faulted = false;
        try {
            atOnce = true;
            carryOutAll();
        } catch (RuntimeException | StackOverflowError fault) {
            faults.add(fault);
            faulted = true;
        } finally {
            atOnce = false;
            working.unlock();
        }
        long next = nanosToNext();
        if (faulted || next != Long.MAX_VALUE && clock.nanos() + next < sleepsUntil) {
            wake.run();
        }
    }

    /** Whoever calls {@link #work()} will sleep for so long, unless he is woken. @return whether there is work before that after all */
    boolean sleeps(long nanos) {
        sleepsUntil = clock.nanos() + nanos;
        return nanosToNext() < nanos - EARLIER_NANOS || !orders.isEmpty() || !faults.isEmpty();
    }

    void wakeWith(Runnable newWake) {
        wake = newWake;
    }

    // ---- the work, on one thread

    /** Carries out what has been ordered and what is due. @throws RuntimeException a fault of an order, the others being carried out later */
    public void work() {
        working.lock();
        try {
            sleepsUntil = Long.MIN_VALUE;
            tellFault();
            carryOutAll();
        } finally {
            working.unlock();
        }
    }

    private void tellFault() {
        Throwable fault = faults.poll();
        if (fault instanceof Error error) {
            throw error;
        }
        if (fault != null) {
            throw (RuntimeException) fault;
        }
    }

    private void carryOutAll() {
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
        // What time has brought since is sent already, unless nothing was due.
        boolean due = then != ahead.next() || ahead.wakeNanos() <= moment;
        PlaybackState reached = due ? Engine.step(then, Event.pass(moment)).next() : then;
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
        boolean few = atOnce && step.messages().size() <= FEW;
        step.messages().forEach(few ? outbox::sendAtOnce : outbox::send);
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
