package underbaton.core.perform;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.Step;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Clock;
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
 *
 * <p>Holds at all times: each message of the history that led to {@link #state()} has been handed to the outbox just once
 * ({@link #unaccounted()} is 0), and the watcher is told of just that history, never of a future that an order has undone. A
 * fault in a step leaves everything as it was before it: what was taken back for it is handed over again. A step that takes longer
 * than a second is stepped over ({@link #watch()}): whoever is at it may go on, but nothing comes of it any more.
 */
public final class Performer {

    /** So many messages are sent by whoever plays them; more go to the lanes, which work side by side. */
    private static final int FEW = 4;

    /** What is sooner by less is not sooner. */
    private static final long EARLIER_NANOS = 20_000;

    /** How long before its time a message is handed over, ns. */
    static final long AHEAD_NANOS = 5_000_000;

    /** A step takes some 100 µs; one that takes so long will not end in time for anything. */
    private static final long LONGEST_STEP_NANOS = 1_000_000_000;

    private static final long WAIT_MILLIS = 50;

    /** So long after its moment the watcher is told what time has brought: the lanes have the cores to themselves until then. */
    private static final long TOLD_NANOS = 1_000_000;

    private final Clock clock;
    private final Outbox outbox;
    private final Consumer<Step> watcher;
    private final Queue<Event> orders = new ConcurrentLinkedQueue<>();
    private final Queue<Throwable> faults = new ConcurrentLinkedQueue<>();
    /** The engine; in a test perhaps a worse one. */
    private final Stepper engine;
    /** Exchanged when what is at work is stepped over. */
    private volatile Working working = new Working();
    /** Whether the order at hand is carried out by whoever brought it. */
    private boolean atOnce;

    private volatile long sleepsUntil = Long.MAX_VALUE;
    private volatile Runnable wake = () -> {};
    /** As far as it is played ahead. */
    private volatile Step ahead;
    /** The states before it: one at least is of a moment that has come. */
    private final Deque<PlaybackState> behind = new ArrayDeque<>();
    /** What was played ahead and the watcher has not been told of. */
    private final Deque<Step> untold = new ArrayDeque<>();
    /** The moment of the first of them; far away for none. */
    private volatile long untoldNanos = Long.MAX_VALUE;
    /** The moment up to which the watcher knows; nothing of it can be undone. */
    private long toldNanos = Long.MIN_VALUE;
    /** Of the messages that the state has brought forth, how many were handed over and not taken back. */
    private long handedOver;

    private volatile long unaccounted;

    /** {@link Engine#step}. */
    interface Stepper {
        Step step(PlaybackState state, Event event);
    }

    /** @param watcher gets every step in which something happened, on the performer's thread; must return at once */
    public Performer(Clock clock, PlaybackState state, Outbox outbox, Consumer<Step> watcher) {
        this(clock, state, outbox, watcher, Engine::step);
    }

    Performer(Clock clock, PlaybackState state, Outbox outbox, Consumer<Step> watcher, Stepper engine) {
        this.engine = engine;
        this.clock = clock;
        this.outbox = outbox;
        this.watcher = watcher;
        this.ahead = engine.step(state, Event.pass(state.nowNanos()));
        this.handedOver = state.brought();
        handOver(ahead.messages());
    }

    /** At the top of the show, with nothing told. */
    public Performer(Clock clock, Plan plan, Outbox outbox, Consumer<Step> watcher) {
        this(clock, PlaybackState.of(plan, clock.nanos()), outbox, watcher);
    }

    /** Takes an order to be carried out at once; from any thread. @param by who gave it, in words */
    public void order(String by, Order order) {
        orders.add(new Event(clock.nanos(), by, order));
        wake.run();
    }

    /** Nobody's own order, now. Any thread; returns at once. */
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
        Working mine = working;
        if (mine.lock.isHeldByCurrentThread() || !mine.lock.tryLock()) {
            wake.run();
            return;
        }
        boolean faulted = false;
        try {
            if (mine == working) {
                atOnce = true;
                carryOutAll(mine);
            }
        } catch (SteppedOver given) {
            // Told by who stepped over it; somebody else is at work by now.
            return;
        } catch (RuntimeException | StackOverflowError fault) {
            faults.add(fault);
            faulted = true;
        } finally {
            if (mine == working) {
                atOnce = false;
            }
            mine.lock.unlock();
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
        Working mine = atWork();
        try {
            sleepsUntil = Long.MIN_VALUE;
            tellFault();
            carryOutAll(mine);
        } catch (SteppedOver given) {
            // Somebody else is at work by now.
            return;
        } finally {
            mine.lock.unlock();
        }
    }

    /** With its lock held; one that is stepped over while it is waited for is not waited for any more. */
    private Working atWork() {
        while (true) {
            Working mine = working;
            try {
                if (mine.lock.tryLock(WAIT_MILLIS, TimeUnit.MILLISECONDS)) {
                    if (mine == working) {
                        return mine;
                    }
                    mine.lock.unlock();
                }
            } catch (InterruptedException hurried) {
                Thread.currentThread().interrupt();
                mine.lock.lock();
                return mine;
            }
        }
    }

    /**
     * Steps over what has been at work for more than a second, so that the show goes on without it: an order is given up, and where it is
     * what time brings, the music stands. May be called from any thread.
     *
     * @return what was given up, in words; empty when nothing was
     */
    public Optional<String> watch() {
        Working stuck = working;
        Event event = stuck.giveUp(clock.nanos() - LONGEST_STEP_NANOS);
        if (event == null) {
            return Optional.empty();
        }
        // Its thread changes nothing any more, and nobody else is at work.
        handOver(stuck.takenBack);
        boolean time = event.order() instanceof Order.Pass;
        if (time) {
            PlaybackState stands = ahead.next().withNothingToCome();
            ahead = new Step(stands, List.of(), List.of(), Long.MAX_VALUE);
        }
        unaccounted = ahead.next().brought() - handedOver;
        atOnce = false;
        working = new Working();
        wake.run();
        String what = time ? "what time brings" : event.order().getClass().getSimpleName();
        return Optional.of(what + " took longer than a second and was given up"
                + (time ? "; the music stands, and a jump goes on" : ""));
    }

    /** Who is at work, on what, and since when. */
    private static final class Working {

        private final ReentrantLock lock = new ReentrantLock();
        private Event event;
        private long sinceNanos;
        private boolean givenUp;
        /** What was taken back for the order at hand. */
        private List<ScheduledMessage> takenBack = List.of();

        synchronized void begin(Event what, long nanos) {
            event = what;
            sinceNanos = nanos;
        }

        synchronized void end() {
            event = null;
            if (givenUp) {
                throw new SteppedOver();
            }
        }

        /** @return what is at work since before a moment, and is so no longer; null for nothing */
        synchronized Event giveUp(long beforeNanos) {
            boolean stuck = event != null && !givenUp && sinceNanos - beforeNanos < 0;
            givenUp |= stuck;
            return stuck ? event : null;
        }
    }

    /** What was computed is of no use any more. */
    private static final class SteppedOver extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    private Step step(Working mine, PlaybackState state, Event event) {
        mine.begin(event, clock.nanos());
        try {
            return engine.step(state, event);
        } finally {
            mine.end();
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

    private void carryOutAll(Working mine) {
        for (Event order = orders.poll(); order != null; order = orders.poll()) {
            carryOut(mine, order);
        }
        long now = clock.nanos();
        if (ahead.wakeNanos() - now <= AHEAD_NANOS) {
            Step next = step(mine, ahead.next(), Event.pass(now + AHEAD_NANOS));
            behind.add(ahead.next());
            ahead = next;
            handOver(next.messages());
            if (!next.happenings().isEmpty()) {
                untold.add(next);
            }
        }
        while (behind.size() > 1 && second().nowNanos() <= now) {
            behind.poll();
        }
        unaccounted = ahead.next().brought() - handedOver;
        tellWhatCame(now - TOLD_NANOS);
    }

    private PlaybackState second() {
        var states = behind.iterator();
        states.next();
        return states.next();
    }

    private void tellWhatCame(long until) {
        while (!untold.isEmpty() && untold.peek().next().nowNanos() <= until) {
            tell(untold.poll());
        }
        untoldNanos = untold.isEmpty() ? Long.MAX_VALUE : untold.peek().next().nowNanos();
    }

    private void tell(Step step) {
        toldNanos = Math.max(toldNanos, step.next().nowNanos());
        watcher.accept(step);
    }

    private void carryOut(Working mine, Event order) {
        Outbox.Withdrawn withdrawn = outbox.withdraw(order.atNanos());
        handedOver -= withdrawn.messages().size();
        mine.takenBack = withdrawn.messages();
        Step passed;
        Step done;
        PlaybackState then;
        try {
            long earliest = Math.max(toldNanos, Math.max(order.atNanos(), withdrawn.leftNanos()));
            then = stateAt(earliest);
            long moment = Math.max(then.nowNanos(), earliest);
            boolean due = then != ahead.next() || ahead.wakeNanos() <= moment;
            passed = due ? step(mine, then, Event.pass(moment)) : null;
            PlaybackState reached = due ? passed.next() : then;
            done = step(mine, reached, new Event(moment, order.by(), order.order()));
        } catch (SteppedOver given) {
            throw given;
        } catch (RuntimeException | StackOverflowError fault) {
            handOver(withdrawn.messages());
            unaccounted = ahead.next().brought() - handedOver;
            throw fault;
        }
        mine.takenBack = List.of();
        // What was taken back though its moment has come leaves nevertheless.
        long moment = done.next().nowNanos();
        for (ScheduledMessage message : withdrawn.messages()) {
            if (message.bornNanos() <= moment) {
                handOver(List.of(message));
            }
        }
        boolean playedAhead = then != ahead.next();
        if (passed != null && !playedAhead) {
            // The moment was further on than we had come: nobody has handed this over yet.
            handOver(passed.messages());
        }
        behind.clear();
        ahead = done;
        handOver(done.messages());
        // What lies behind the state that was gone back to is told as it came out in the end.
        untold.removeIf(s -> s.next().nowNanos() > then.nowNanos());
        tellWhatCame(then.nowNanos());
        if (passed != null && !passed.happenings().isEmpty()) {
            tell(passed);
        }
        tell(done);
    }

    /** The newest state that is not ahead of a moment. */
    private PlaybackState stateAt(long moment) {
        PlaybackState newest = ahead.next();
        var earlier = behind.descendingIterator();
        while (newest.nowNanos() > moment && earlier.hasNext()) {
            newest = earlier.next();
        }
        return newest;
    }

    private void handOver(List<ScheduledMessage> messages) {
        boolean few = atOnce && messages.size() <= FEW;
        messages.forEach(few ? outbox::sendAtOnce : outbox::send);
        handedOver += messages.size();
    }

    /**
     * How many messages the state says were sent though nobody handed them over, or, below 0, the other way round, as of the last order;
     * always 0. Anything else is a fault of this class. May be read from any thread.
     */
    public long unaccounted() {
        return unaccounted;
    }

    /** Nanoseconds until the watcher is to be told of something; {@code Long.MAX_VALUE} for nothing. */
    long nanosToTell() {
        long first = untoldNanos;
        return first == Long.MAX_VALUE ? first : Math.max(0, first + TOLD_NANOS - clock.nanos());
    }

    /** Nanoseconds until there is work by itself: 0 when it is due, {@code Long.MAX_VALUE} when nothing waits. */
    public long nanosToNext() {
        long next = ahead.wakeNanos();
        return next == Long.MAX_VALUE ? next : Math.max(0, next - AHEAD_NANOS - clock.nanos());
    }
}
