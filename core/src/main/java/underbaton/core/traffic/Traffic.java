package underbaton.core.traffic;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;

/**
 * The last messages out and in, kept in a ring of fixed size. Adding takes a short lock and never waits for a reader to
 * finish with what it got. Thread-safe.
 */
public final class Traffic {

    private final Entry[] ring;
    private long last;
    private final List<Runnable> watchers = new CopyOnWriteArrayList<>();
    private final List<Consumer<Entry>> takers = new CopyOnWriteArrayList<>();

    /** @param size how many entries are kept, at least 1 */
    public Traffic(int size) {
        ring = new Entry[size];
    }

    /** Called after each entry on the adding thread, so it must return at once. */
    public void watch(Runnable watcher) {
        watchers.add(watcher);
    }

    /** Gets each entry with its number, in their order, on the adding thread and within its lock: must only put it away. */
    public void taken(Consumer<Entry> taker) {
        takers.add(taker);
    }

    /** Numbers continue after this one; for a log that goes on from an earlier run. */
    public synchronized void continueAfter(long number) {
        last = Math.max(last, number);
    }

    /** @param entry its number is given here */
    public void add(Entry entry) {
        synchronized (this) {
            last++;
            Entry numbered = entry.numbered(last);
            ring[(int) (last % ring.length)] = numbered;
            takers.forEach(t -> t.accept(numbered));
        }
        watchers.forEach(Runnable::run);
    }

    /**
     * Entries after a number, oldest first.
     *
     * @param number the last one already known; what has fallen out of the ring since is missing
     * @param most how many at the most; of more, the oldest come
     */
    public synchronized List<Entry> after(long number, int most) {
        List<Entry> found = new ArrayList<>();
        for (long n = Math.max(number, last - ring.length) + 1; n <= last && found.size() < most; n++) {
            Entry entry = ring[(int) (n % ring.length)];
            if (entry != null && entry.number() == n) {
                found.add(entry);
            }
        }
        return found;
    }

    /** The number of the newest entry, 0 before the first. */
    public synchronized long last() {
        return last;
    }
}
