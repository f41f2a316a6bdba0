package underbaton.core.loop;

import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/**
 * A piece of work that is done again and again on a thread of its own until it is closed. It goes on whatever is thrown
 * within it, errors of the virtual machine included: the fault is told, and after a rest that grows while faults follow
 * each other, from 10 ms to a second, comes the next turn.
 *
 * <p>A turn waits for its work by itself, by parking or in a call; {@link #wake} ends a park, and a call that waits is
 * ended by whoever closes the loop, by closing what it waits for first. {@link #close} waits for the end, for two seconds
 * at most, unless it is called from within.
 */
public final class Loop implements AutoCloseable {

    /** One round of the work. */
    @FunctionalInterface
    public interface Turn {
        /** @throws Exception of any kind; the loop goes on */
        void run() throws Exception;
    }

    /** Is told what went wrong and when it works again. */
    interface Watch {
        void faulted(Loop loop, Throwable fault, int inARow);

        void recovered(Loop loop);

        void ended(Loop loop);

        /** It was closed and its thread goes on. */
        void doesNotEnd(Loop loop);
    }

    private static final long SHORTEST_REST_NANOS = TimeUnit.MILLISECONDS.toNanos(10);
    private static final long LONGEST_REST_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final long LONGEST_END_MILLIS = 2000;

    private final String name;
    private final Turn turn;
    private final Watch watch;
    private final Thread thread;
    private volatile boolean closed;

    Loop(String name, ThreadFactory threads, int priority, Watch watch, Turn turn) {
        this.name = name;
        this.turn = turn;
        this.watch = watch;
        thread = threads.newThread(this::run);
        thread.setName(name);
        thread.setDaemon(true);
        thread.setPriority(priority);
    }

    Loop start() {
        thread.start();
        return this;
    }

    /** Of its thread, for people who look at one. */
    public String name() {
        return name;
    }

    /** Ends the park that a turn may be in. */
    public void wake() {
        LockSupport.unpark(thread);
    }

    /** Whether a turn should come to its end. */
    public boolean isClosed() {
        return closed;
    }

    private void run() {
        int faults = 0;
        while (!closed) {
            try {
                turn.run();
                if (faults > 0) {
                    faults = 0;
                    watch.recovered(this);
                }
            } catch (InterruptedException stopped) {
                // Only who closes us interrupts; should somebody else, the next turn comes.
                continue;
            } catch (Throwable fault) {
                if (!closed) {
                    faults++;
                    watch.faulted(this, fault, faults);
                    rest(faults);
                }
            }
        }
        watch.ended(this);
    }

    private void rest(int faults) {
        long rest = Math.min(LONGEST_REST_NANOS, SHORTEST_REST_NANOS << Math.min(10, faults - 1));
        LockSupport.parkNanos(this, rest);
    }

    /** No further turn begins; may be called from within a turn, which then is the last. */
    public void end() {
        closed = true;
        LockSupport.unpark(thread);
    }

    /** Ends the loop and waits for it. What a turn waits for in a call must have been closed before. */
    @Override
    public void close() {
        end();
        if (Thread.currentThread() == thread || !thread.isAlive()) {
            return;
        }
        try {
            thread.join(LONGEST_END_MILLIS / 2);
            if (thread.isAlive()) {
                thread.interrupt();
                thread.join(LONGEST_END_MILLIS / 2);
            }
            if (thread.isAlive()) {
                watch.doesNotEnd(this);
            }
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
