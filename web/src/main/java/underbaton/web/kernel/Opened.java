package underbaton.web.kernel;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import underbaton.core.rig.Refusal;

/** Files that were opened and wait to be taken in, the newest of each show. */
public final class Opened<T> {

    private final AtomicLong count = new AtomicLong();
    private final Map<Integer, Waiting<T>> waiting = new ConcurrentHashMap<>();

    /** @param number that the page names when it takes it in */
    public record Waiting<T>(long number, T content) {}

    public Waiting<T> put(int showId, T content) {
        Waiting<T> now = new Waiting<>(count.incrementAndGet(), content);
        waiting.put(showId, now);
        return now;
    }

    /** @throws Refusal when it is there no more */
    public T get(int showId, long number) {
        return Optional.ofNullable(waiting.get(showId))
                .filter(w -> w.number == number)
                .map(Waiting::content)
                .orElseThrow(() -> new Refusal(
                        "file", "Another file has been opened meanwhile, or this one was taken in; open it again."));
    }

    public void done(int showId, long number) {
        waiting.computeIfPresent(showId, (id, w) -> w.number == number ? null : w);
    }
}
