package underbaton.core.perform;

import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;

/**
 * The thread that a performer works on. It parks until an order wakes it or the next follow-on is due, so an idle show
 * costs nothing and a GO is taken up in the time of one unpark. A fault in one order does not end the show.
 */
public final class PerformerThread implements AutoCloseable {

    private static final long LONGEST_NAP_NANOS = 1_000_000_000L;

    private final Loop loop;

    public PerformerThread(Performer performer, Loops loops) {
        loop = loops.startUrgent("performer", () -> {
            performer.work();
            long nap = Math.min(Math.min(performer.nanosToNext(), performer.nanosToTell()), LONGEST_NAP_NANOS);
            if (!performer.sleeps(nap)) {
                LockSupport.parkNanos(performer, nap);
            }
        });
        performer.wakeWith(loop::wake);
        // For what was ordered before it could be woken.
        loop.wake();
    }

    /** When it returns, nothing of the performer's is under way any more. */
    @Override
    public void close() {
        loop.close();
    }
}
