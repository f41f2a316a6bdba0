package underbaton.core.plan;

import java.util.List;
import java.util.OptionalLong;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Start;

/**
 * A cue ready to be performed, with the item it belongs to.
 *
 * @param atNanos for a cue that lands by itself, when: ns since its item began
 */
public record PlannedCue(
        int cueId,
        CueNumber number,
        String what,
        Start start,
        OptionalLong atNanos,
        Item item,
        List<PlannedCall> calls) {

    /** Also a cue at a beat that its item does not have. */
    public boolean byHand() {
        return start instanceof Start.ByHand || start instanceof Start.AtPosition && atNanos.isEmpty();
    }
}
