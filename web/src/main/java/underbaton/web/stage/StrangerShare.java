package underbaton.web.stage;

import java.util.HashMap;
import java.util.Map;
import underbaton.core.loop.Clock;

/**
 * How much of something each of those may have who belong to no rig, lines of the log or answers: so much a second, and the rest is
 * counted. Thread-safe.
 */
final class StrangerShare {

    private static final int MOST_STRANGERS = 500;

    private final Clock clock;
    private final int most;
    private final long windowNanos;
    private final Map<String, Count> counts = new HashMap<>();

    private static final class Count {
        private long window;
        private int so;
        private int untold;
    }

    /**
     * @param listed whether this message gets a line
     * @param untold how many of the window that is over got none; told once
     */
    record Verdict(boolean listed, int untold) {}

    /** @param most so much in each window for each */
    StrangerShare(Clock clock, int most, long windowNanos) {
        this.clock = clock;
        this.most = most;
        this.windowNanos = windowNanos;
    }

    synchronized Verdict of(String name) {
        long now = Math.floorDiv(clock.nanos(), windowNanos);
        if (counts.size() >= MOST_STRANGERS && !counts.containsKey(name)) {
            counts.values().removeIf(c -> c.window != now);
            if (counts.size() >= MOST_STRANGERS) {
                return new Verdict(false, 0);
            }
        }
        Count count = counts.computeIfAbsent(name, n -> new Count());
        int untold = 0;
        if (count.window != now) {
            untold = count.untold;
            count.window = now;
            count.so = 0;
            count.untold = 0;
        }
        boolean listed = ++count.so <= most;
        count.untold += listed ? 0 : 1;
        return new Verdict(listed, untold);
    }
}
