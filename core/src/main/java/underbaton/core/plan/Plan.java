package underbaton.core.plan;

import java.util.List;
import java.util.Map;

/**
 * A whole show worked out: its cues in running order with the messages of each.
 *
 * @param cues in the order in which GO takes them
 * @param resting by device id, the call that ends what the device has going
 */
public record Plan(List<PlannedCue> cues, Map<Integer, PlannedCall> resting) {

    public static final Plan EMPTY = new Plan(List.of(), Map.of());

    public Plan {
        cues = List.copyOf(cues);
        resting = Map.copyOf(resting);
    }

    /** @return the place of the cue, or −1 */
    public int indexOf(int cueId) {
        for (int i = 0; i < cues.size(); i++) {
            if (cues.get(i).cueId() == cueId) {
                return i;
            }
        }
        return -1;
    }

    /** The first cue at or after a place that waits for GO; the number of cues when there is none. */
    public int byHandFrom(int index) {
        int i = Math.max(0, index);
        while (i < cues.size() && !waitsForGo(i)) {
            i++;
        }
        return i;
    }

    /** The last cue before a place that waits for GO; the place itself when there is none. */
    public int byHandBefore(int index) {
        for (int i = Math.min(index, cues.size()) - 1; i >= 0; i--) {
            if (waitsForGo(i)) {
                return i;
            }
        }
        return index;
    }

    /** The very first cue has nothing before it to follow, so it always waits. */
    private boolean waitsForGo(int index) {
        return index == 0 || cues.get(index).byHand();
    }
}
