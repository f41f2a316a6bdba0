package underbaton.web.record;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Step;
import underbaton.core.engine.out.Happening;
import underbaton.core.loop.Clock;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.SignalNumber;
import underbaton.core.signal.Source;
import underbaton.web.live.Live;

/** What came in lately to the show on the desk, and what became of it. */
@Component
public class CameIn {

    private static final int MOST = 200;
    private static final int LOOKED_BACK = 8;
    private static final long PAIR_MICROS = 100_000;

    private final Clock clock;
    private final Live live;
    private final Deque<Came> newest = new ArrayDeque<>();
    private long count;

    /**
     * @param number counts up from 1
     * @param times how often the same came, and nothing became of it
     */
    public record Came(long number, int showId, long epochMicros, Outcome outcome, int times) {

        boolean isSame(int ofShow, Outcome other) {
            return showId == ofShow
                    && !outcome.isTaken()
                    && !other.isTaken()
                    && outcome.source().equals(other.source())
                    && outcome.why().equals(other.why())
                    && outcome.signal().message().equals(other.signal().message());
        }
    }

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
        // A click that nobody listens for must not push away what somebody looks for.
        Optional<Came> same = newest.stream()
                .limit(LOOKED_BACK)
                .filter(c -> c.isSame(showId, outcome))
                .findFirst();
        same.ifPresent(newest::remove);
        int times = same.map(Came::times).orElse(0) + 1;
        newest.addFirst(new Came(same.map(Came::number).orElseGet(() -> ++count), showId, at, outcome, times));
        if (newest.size() > MOST) {
            newest.removeLast();
        }
        live.changed("came");
    }

    /** The newest first. */
    public synchronized List<Came> of(int showId, int most) {
        List<Came> all = new ArrayList<>();
        for (Came came : newest) {
            if (came.showId == showId && all.size() < most) {
                all.add(came);
            }
        }
        return Collections.unmodifiableList(all);
    }

    /**
     * What was touched, as a whole.
     *
     * @param fine whether it is a control of 14 bits, of which the message says the higher half
     */
    public record Gesture(Source source, Message message, boolean fine) {}

    /** Both halves of a control of 14 bits that came within a tenth of a second are one gesture. */
    public synchronized Optional<Gesture> gesture(long number) {
        Optional<Came> came = numbered(number);
        Optional<Gesture> whole = came.flatMap(this::pair);
        return whole.or(() ->
                came.map(c -> new Gesture(c.outcome.source(), c.outcome.signal().message(), false)));
    }

    private Optional<Gesture> pair(Came came) {
        if (!(came.outcome.signal().message() instanceof ControlChange touched)
                || touched.controller() >= 2 * SignalNumber.LOWER_HALF) {
            return Optional.empty();
        }
        boolean lower = touched.controller() >= SignalNumber.LOWER_HALF;
        int other = touched.controller() + (lower ? -1 : 1) * SignalNumber.LOWER_HALF;
        return newest.stream()
                .filter(c -> Math.abs(c.epochMicros - came.epochMicros) < PAIR_MICROS
                        && c.outcome.source().equals(came.outcome.source())
                        && c.outcome.signal().message() instanceof ControlChange half
                        && half.channel() == touched.channel()
                        && half.controller() == other)
                .findFirst()
                .map(half -> lower ? half : came)
                .map(higher -> new Gesture(
                        higher.outcome.source(), higher.outcome.signal().message(), true));
    }

    /** The number of what came in last, to whatever show. */
    public synchronized long last() {
        return count;
    }

    /** What was touched first since then, but for what is let go and what is a listener's already. */
    public synchronized Optional<Outcome> touchedSince(long number, int showId) {
        return newest.stream()
                .filter(c -> c.number > number && c.showId == showId && !c.outcome.isTaken() && !isRelease(c))
                .min(Comparator.comparingLong(Came::number))
                .map(Came::outcome);
    }

    private static boolean isRelease(Came came) {
        Message message = came.outcome.signal().message();
        return ChannelMessage.endsNote(message) || message instanceof ControlChange change && change.value() == 0;
    }

    public synchronized Optional<Came> numbered(long number) {
        return newest.stream().filter(c -> c.number == number).findFirst();
    }
}
