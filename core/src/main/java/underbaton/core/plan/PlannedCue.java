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
 * @param label {@code 12}, or {@code 12 in C} for its copy in section C
 * @param armed whether it takes part tonight; one that does not sends nothing
 */
public record PlannedCue(
        int cueId,
        CueNumber number,
        String what,
        Start start,
        OptionalLong atNanos,
        Item item,
        List<PlannedCall> calls,
        String copy,
        String label,
        boolean armed) {

    PlannedCue(
            int cueId,
            CueNumber number,
            String what,
            Start start,
            OptionalLong atNanos,
            Item item,
            List<PlannedCall> calls,
            String copy) {
        this(
                cueId,
                number,
                what,
                start,
                atNanos,
                item,
                calls,
                copy,
                copy.isEmpty() ? number.toString() : number + " in " + copy,
                true);
    }

    PlannedCue withCalls(List<PlannedCall> newCalls) {
        return new PlannedCue(cueId, number, what, start, atNanos, item, newCalls, copy, label, armed);
    }

    /** The same, which sends nothing tonight. */
    PlannedCue disarmed() {
        return new PlannedCue(cueId, number, what, start, atNanos, item, List.of(), copy, label, false);
    }

    /** Also a cue at a beat that its item does not have. */
    public boolean byHand() {
        return start instanceof Start.ByHand || start instanceof Start.Landing && atNanos.isEmpty();
    }

    /** Whether it comes at once or some time after the one before it, and that one has no time of its own. */
    public boolean follows() {
        return atNanos.isEmpty() && (start instanceof Start.WithPrevious || start instanceof Start.AfterPrevious);
    }

    /** Whether it comes in the same instant as the one before it, and that one has no time of its own. */
    public boolean comesWith() {
        return atNanos.isEmpty() && start instanceof Start.WithPrevious;
    }

    /** After the one before it, ns; 0 for with it, or for one that does not follow. */
    public long delayNanos() {
        return start instanceof Start.AfterPrevious after ? after.delayMs() * 1_000_000L : 0;
    }
}
