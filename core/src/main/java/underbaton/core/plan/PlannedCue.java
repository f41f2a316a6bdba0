package underbaton.core.plan;

import java.util.List;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Start;

/** A cue ready to be performed, with the item it belongs to. */
public record PlannedCue(int cueId, CueNumber number, String what, Start start, Item item, List<PlannedCall> calls) {

    public boolean byHand() {
        return start instanceof Start.ByHand;
    }
}
