package underbaton.core.perform;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;

/**
 * The thread that a performer works on. It parks until an order wakes it or the next follow-on is due, so an idle show
 * costs nothing and a GO is taken up in the time of one unpark. A fault in one order does not end the show. A second thread looks four
 * times a second whether the first is stuck; then a new one takes its place, and the stuck one ends when it can.
 */
public final class PerformerThread implements AutoCloseable {

    private static final long LONGEST_NAP_NANOS = 1_000_000_000L;
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(250);

    private final Performer performer;
    private final Loops loops;
    private final Consumer<String> givenUp;
    private final Loop watch;
    private volatile Loop loop;

    /** Begins at once; faults are told to nobody beside the log. */
    public PerformerThread(Performer performer, Loops loops) {
        this(performer, loops, words -> {});
    }

    /** @param givenUp is told in words what was stepped over, on a thread of its own */
    public PerformerThread(Performer performer, Loops loops, Consumer<String> givenUp) {
        this.performer = performer;
        this.loops = loops;
        this.givenUp = givenUp;
        loop = working();
        performer.wakeWith(() -> loop.wake());
        // For what was ordered before it could be woken.
        loop.wake();
        watch = loops.start("performer's watch", this::look);
    }

    private Loop working() {
        return loops.startUrgent("performer", () -> {
            performer.work();
            long nap = Math.min(Math.min(performer.nanosToNext(), performer.nanosToTell()), LONGEST_NAP_NANOS);
            if (!performer.sleeps(nap)) {
                LockSupport.parkNanos(performer, nap);
            }
        });
    }

    private void look() {
        LockSupport.parkNanos(this, LOOK_NANOS);
        performer.watch().ifPresent(words -> {
            loop.end();
            loop = working();
            givenUp.accept(words);
        });
    }

    /** When it returns, nothing of the performer's is under way any more. */
    @Override
    public void close() {
        watch.close();
        loop.close();
    }
}
