package underbaton.core.plan;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import underbaton.core.rig.Device;

/**
 * A whole show worked out: its cues in running order with the messages of each.
 *
 * @param devices those it was worked out for
 * @param items in running order
 * @param cues of all items, in the order in which GO takes them
 * @param resting by device id, the call that ends what the device has going
 */
public record Plan(
        List<Device> devices, List<PlannedItem> items, List<PlannedCue> cues, Map<Integer, PlannedCall> resting) {

    public static final Plan EMPTY = new Plan(List.of(), List.of());

    Plan(List<Device> devices, List<PlannedItem> items) {
        this(devices, items, items.stream().flatMap(i -> i.cues().stream()).toList(), resting(devices));
    }

    private static Map<Integer, PlannedCall> resting(List<Device> devices) {
        Map<Integer, PlannedCall> resting = new HashMap<>();
        devices.forEach(d -> d.restingPhrase().ifPresent(p -> resting.put(d.id(), PlannedCall.of(d, p))));
        return Map.copyOf(resting);
    }

    /** The dry run: every message of the show, item after item. */
    public Stream<PlannedMessage> messages() {
        return items.stream().flatMap(i -> i.messages().stream());
    }

    public Optional<PlannedItem> item(int itemId) {
        return items.stream().filter(i -> i.item().id() == itemId).findFirst();
    }

    /** @return the place of the cue itself, not of its copies, or −1 */
    public int indexOf(int cueId) {
        for (int i = 0; i < cues.size(); i++) {
            if (cues.get(i).cueId() == cueId && cues.get(i).copy().isEmpty()) {
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
