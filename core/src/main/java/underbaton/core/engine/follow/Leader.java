package underbaton.core.engine.follow;

import java.util.OptionalLong;
import underbaton.core.follow.ClockHeard;
import underbaton.core.follow.CodeHeard;
import underbaton.core.follow.Following;
import underbaton.core.follow.Following.Kind;
import underbaton.core.follow.TimeHeard;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.score.BeatUnit;
import underbaton.core.score.Score;

/**
 * A machine's time as it looks from an item that goes by it.
 *
 * @param heard what the machine has said
 */
record Leader(Plan plan, PlannedItem item, Following how, TimeHeard heard) {

    private static final int CLOCK_TICKS = BeatUnit.QUARTER_TICKS / 24;
    private static final int QUARTERS = 4;
    /** How long an item without bars and without a planned length may take: until the hour of the next one. */
    private static final long LONGEST_NANOS = 3_600_000_000_000L;

    private static final long SECOND = 1_000_000_000L;

    private boolean isCode() {
        return how.kind() == Kind.CODE;
    }

    private CodeHeard code() {
        return heard.code();
    }

    private ClockHeard clock() {
        return heard.clock();
    }

    /** Whether its time goes on; what stands, or of which nothing is known, does not. */
    boolean runs() {
        return isCode() ? code().place().isPresent() && code().moves() : clock().runs() && clock().known();
    }

    /** Another number at each new place. */
    int run() {
        return isCode() ? code().run() : clock().run();
    }

    /** When it was heard last. */
    long atNanos() {
        return isCode() ? code().atNanos() : clock().atNanos();
    }

    /** Whether it sends code, and at another rate than is expected. */
    boolean isOfAnotherRate() {
        return isCode() && code().place().filter(p -> p.rate() != how.rate()).isPresent();
    }

    /** Where in the item it was when it was heard last, ns, below 0 before it; empty while nobody knows. */
    OptionalLong place() {
        if (isCode()) {
            return isOfAnotherRate() || code().place().isEmpty()
                    ? OptionalLong.empty()
                    : OptionalLong.of(how.rate()
                            .quarterNanos(code().place().get().quarter()
                                    - QUARTERS * plan.firstFrame(item.item().id(), how.rate())));
        }
        boolean told = clock().known() && clock().told();
        return told && item.times().isPresent() ? OptionalLong.of(ofClock(clock().next() - 1)) : OptionalLong.empty();
    }

    private long ofClock(long number) {
        return item.times()
                .map(Score.Times::tempi)
                .map(t -> t.nanos(number * CLOCK_TICKS))
                .orElse(0L);
    }

    /** Where in the item the next thing is heard of it, ns; a written hold lies before it. */
    long nextPlace() {
        return isCode() ? 0 : ofClock(clock().next());
    }

    boolean isWithin(long place) {
        long end = item.times().isPresent() ? item.scoreNanos() : item.item().plannedSeconds() * SECOND;
        return place >= 0 && place < (end > 0 ? end : LONGEST_NANOS);
    }
}
