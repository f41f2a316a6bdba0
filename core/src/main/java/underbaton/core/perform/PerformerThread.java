package underbaton.core.perform;

import java.util.concurrent.ThreadFactory;
import java.util.concurrent.locks.LockSupport;

/**
 * The thread that a performer works on. It parks until an order wakes it or the next follow-on is due, so an idle show
 * costs nothing and a GO is taken up in the time of one unpark.
 */
public final class PerformerThread implements AutoCloseable {

    private static final long LONGEST_NAP_NANOS = 1_000_000_000L;

    private final Performer performer;
    private final Thread thread;
    private volatile boolean closed;

    public PerformerThread(Performer performer, ThreadFactory threads) {
        this.performer = performer;
        this.thread = threads.newThread(this::run);
        thread.setPriority(Thread.MAX_PRIORITY);
        performer.wakeWith(() -> LockSupport.unpark(thread));
        thread.start();
    }

    private void run() {
        while (!closed) {
            try {
                performer.work();
            } catch (RuntimeException fault) {
                // A fault in one order must not end the show; whoever made the thread hears of it.
                thread.getUncaughtExceptionHandler().uncaughtException(thread, fault);
            }
            LockSupport.parkNanos(this, Math.min(performer.nanosToNext(), LONGEST_NAP_NANOS));
        }
    }

    @Override
    public void close() {
        closed = true;
        LockSupport.unpark(thread);
    }
}
