package underbaton.core.loop;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.atomic.AtomicReference;

/**
 * Makes the loops of the application and knows which of them are broken: those whose turns have failed one after the other
 * several times. Any thread may call it.
 */
public final class Loops {

    /** Hears of every fault, on the thread that met it; must return soon and throw nothing. */
    @FunctionalInterface
    public interface FaultListener {
        /**
         * @param loop its name
         * @param inARow how many turns have failed without one that worked between, 1 or above
         */
        void faulted(String loop, Throwable fault, int inARow);
    }

    /** So many faults in a row are no chance any more. */
    private static final int BROKEN = 3;

    private final ThreadFactory threads;
    private final FaultListener listener;
    private final Map<String, String> broken = new ConcurrentSkipListMap<>();

    /** @param threads makes a new thread for each loop; its name and priority are set here, and it keeps no virtual machine alive */
    public Loops(ThreadFactory threads, FaultListener listener) {
        this.threads = threads;
        this.listener = listener;
    }

    /** Faults are told to the thread's own handler: for tests and measurements. */
    public Loops(ThreadFactory threads) {
        this(threads, (loop, fault, inARow) -> {
            Thread now = Thread.currentThread();
            now.getUncaughtExceptionHandler().uncaughtException(now, fault);
        });
    }

    /** @param name of the thread, for people who look at one */
    public Loop start(String name, Loop.Turn turn) {
        return new Loop(name, threads, Thread.NORM_PRIORITY, new Watching(), turn).start();
    }

    /** A loop on whose promptness the show depends; its thread asks for the highest priority. */
    public Loop startUrgent(String name, Loop.Turn turn) {
        return new Loop(name, threads, Thread.MAX_PRIORITY, new Watching(), turn).start();
    }

    /** Something that is done once, on a thread of its own and behind the same barrier. */
    public Loop once(String name, Loop.Turn work) {
        AtomicReference<Loop> itself = new AtomicReference<>();
        Loop loop = new Loop(name, threads, Thread.NORM_PRIORITY, new Watching(), () -> {
            itself.get().end();
            work.run();
        });
        itself.set(loop);
        return loop.start();
    }

    /** The loops that are broken now, with what is wrong, a sentence each. */
    public List<String> broken() {
        return List.copyOf(broken.values());
    }

    private final class Watching implements Loop.Watch {
        @Override
        public void faulted(Loop loop, Throwable fault, int inARow) {
            if (inARow >= BROKEN) {
                broken.put(key(loop), loop.name() + " fails again and again (" + fault + ")");
            }
            listener.faulted(loop.name(), fault, inARow);
        }

        @Override
        public void recovered(Loop loop) {
            broken.remove(key(loop));
        }

        @Override
        public void ended(Loop loop) {
            broken.remove(key(loop));
        }

        @Override
        public void doesNotEnd(Loop loop) {
            listener.faulted(loop.name(), new IllegalStateException(loop.name() + " was closed and does not end"), 1);
        }

        private String key(Loop loop) {
            return loop.name() + " " + System.identityHashCode(loop);
        }
    }
}
