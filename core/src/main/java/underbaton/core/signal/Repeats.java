package underbaton.core.signal;

import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.midi.Message;

/**
 * How much was said lately, and how often the same. Immutable.
 *
 * @param sinceNanos when the counting began, by the clock of the events
 * @param all how many messages since then
 * @param counts how often each of them
 */
public record Repeats(long sinceNanos, int all, PMap<Message, Integer> counts) {

    public static final Repeats NONE = new Repeats(0, 0, HashTreePMap.empty());

    private static final long SECOND_NANOS = 1_000_000_000L;
    private static final int MOST_COUNTED = 128;

    /** With one more message counted; a second later the counting begins anew. */
    public Repeats with(Message message, long nanos) {
        boolean over = nanos - sinceNanos >= SECOND_NANOS;
        PMap<Message, Integer> before = over ? HashTreePMap.empty() : counts;
        boolean counted = before.size() < MOST_COUNTED || before.containsKey(message);
        return new Repeats(
                over ? nanos : sinceNanos,
                over ? 1 : all + 1,
                counted ? before.plus(message, before.getOrDefault(message, 0) + 1) : before);
    }

    /** Whether something was said more often than that in a second. */
    public boolean exceed(int most) {
        return counts.values().stream().anyMatch(c -> c > most);
    }
}
