package underbaton.core.plan;

import java.util.List;

/**
 * Something of a playing item that comes by itself.
 *
 * @param nanos when, since the item began; never below 0
 * @param order place of the cue in its item
 * @param cue to which it belongs
 * @param calls what leaves then
 * @param strikes whether this is the cue's own moment: calls of machines that must be told early come before it
 */
public record Landing(long nanos, int order, PlannedCue cue, List<PlannedCall> calls, boolean strikes)
        implements Comparable<Landing> {

    /** When its cue strikes, since the item began. */
    public long cueNanos() {
        return cue.atNanos().orElse(0);
    }

    @Override
    public int compareTo(Landing other) {
        return nanos != other.nanos ? Long.compare(nanos, other.nanos) : Integer.compare(order, other.order);
    }
}
