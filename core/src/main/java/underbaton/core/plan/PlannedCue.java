package underbaton.core.plan;

import java.util.List;
import java.util.OptionalLong;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Start;

/**
 * A cue ready to be performed, with the item it belongs to.
 *
 * @param atNanos for a cue that lands by itself, or follows one that does: when, in ns since its item began
 * @param calls in the order in which each device gets them
 * @param copy the letter of the linked section in which this copy stands; empty for the cue itself
 */
public record PlannedCue(
        int cueId,
        CueNumber number,
        String what,
        Start start,
        OptionalLong atNanos,
        Item item,
        List<PlannedCall> calls,
        String copy) {

    PlannedCue withCalls(List<PlannedCall> newCalls) {
        return new PlannedCue(cueId, number, what, start, atNanos, item, newCalls, copy);
    }

    /** Also a cue at a beat that its item does not have. */
    public boolean byHand() {
        return start instanceof Start.ByHand || start instanceof Start.Landing && atNanos.isEmpty();
    }

    /** {@code 12}, or {@code 12 in C} for its copy in section C. */
    public String label() {
        return copy.isEmpty() ? number.toString() : number + " in " + copy;
    }
}
