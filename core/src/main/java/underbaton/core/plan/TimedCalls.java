package underbaton.core.plan;

import java.util.Comparator;
import java.util.List;

/**
 * Calls of a timed cue that leave together, or the cue's own moment.
 *
 * @param nanos when they leave, since the item began; never below 0
 * @param momentNanos when they are to be heard, since the item began: later than {@code nanos} by the machines' lead
 * @param lateNanos how long before the item's beginning they should have left; 0 for in time
 * @param order place of the cue in its item
 * @param cue to which they belong
 * @param calls in the order in which each device gets them
 * @param strikes whether this is the cue's own moment
 */
public record TimedCalls(
        long nanos,
        long momentNanos,
        long lateNanos,
        int order,
        PlannedCue cue,
        List<PlannedCall> calls,
        boolean strikes)
        implements Comparable<TimedCalls> {

    private static final Comparator<TimedCalls> BY_TIME = Comparator.comparingLong(TimedCalls::nanos)
            .thenComparingLong(t -> t.nanos - t.lateNanos)
            .thenComparingInt(TimedCalls::order);

    /** What leaves late leaves in the order in which it should have left. */
    @Override
    public int compareTo(TimedCalls other) {
        return BY_TIME.compare(this, other);
    }

    /** The same with some of its calls. */
    public TimedCalls calling(List<PlannedCall> some) {
        return some.size() == calls.size()
                ? this
                : new TimedCalls(nanos, momentNanos, lateNanos, order, cue, some, strikes);
    }

    /** The same so much later, and in time for that. */
    public TimedCalls later(long by) {
        return new TimedCalls(nanos - lateNanos + by, momentNanos + by, 0, order, cue, calls, strikes);
    }

    /** The same, told no earlier than at a place of the item. */
    public TimedCalls notBefore(long position) {
        return nanos >= position
                ? this
                : new TimedCalls(position, momentNanos, lateNanos + position - nanos, order, cue, calls, strikes);
    }

    /** What stays the same when an item is worked out anew and these calls have another time. @param leadNanos how early they are told */
    public record Key(int cueId, String copy, boolean strikes, long sinceCueNanos, long leadNanos) {}

    /** By what it is known in a plan, whatever the plan's revision. */
    public Key key() {
        return new Key(
                cue.cueId(),
                cue.copy(),
                strikes,
                momentNanos - cue.atNanos().orElse(0),
                momentNanos - (nanos - lateNanos));
    }
}
