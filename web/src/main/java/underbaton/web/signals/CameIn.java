package underbaton.web.signals;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Happening;
import underbaton.core.engine.Step;
import underbaton.core.perform.Clock;
import underbaton.core.signal.Outcome;
import underbaton.web.live.Live;

/** What came in lately to the show on the desk, and what became of it. */
@Component
public class CameIn {

    private static final int MOST = 200;

    private final Clock clock;
    private final Live live;
    private final Deque<Came> newest = new ArrayDeque<>();
    private long count;

    /** @param number counts up from 1 */
    public record Came(long number, int showId, long epochMicros, Outcome outcome) {}

    CameIn(Clock clock, Live live) {
        this.clock = clock;
        this.live = live;
    }

    /** What a step of the engine did; on the performer's thread, returns at once. */
    public void saw(int showId, Step step) {
        for (Happening happening : step.happenings()) {
            if (happening instanceof Happening.Heard heard) {
                add(showId, heard.outcome());
            }
        }
    }

    private synchronized void add(int showId, Outcome outcome) {
        long at = clock.epochMicrosAt(outcome.signal().arrivalNanos());
        newest.addFirst(new Came(++count, showId, at, outcome));
        if (newest.size() > MOST) {
            newest.removeLast();
        }
        live.changed("came");
    }

    /** The newest first. */
    synchronized List<Came> of(int showId, int most) {
        List<Came> all = new ArrayList<>();
        for (Came came : newest) {
            if (came.showId == showId && all.size() < most) {
                all.add(came);
            }
        }
        return Collections.unmodifiableList(all);
    }

    synchronized Optional<Came> numbered(long number) {
        return newest.stream().filter(c -> c.number == number).findFirst();
    }
}
