package underbaton.web.book;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.file.CueTable;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;

/**
 * A stretch of the book that is drawn, sent and folded as one: the cues of an item, or of a long one a part of them.
 *
 * @param place of the item in the running order, from 1
 * @param part of the item, from 0; the first one has the item's head
 * @param seconds the item's planned length, or else that of its score; 0 when nobody knows
 * @param states what every machine is doing before the first cue, and then after each of them
 * @param since the show's revision since which it is drawn as it is
 * @param listedSince the revision since which its head and the list of its cues are as they are
 */
public record Leaf(
        Item item,
        int place,
        int part,
        int seconds,
        List<Cue> cues,
        List<Map<Integer, PlannedCall>> states,
        int since,
        int listedSince) {

    public record Row(Cue cue, List<Cell> cells) {}

    /**
     * What a machine gets at a cue, and what it is doing then.
     *
     * @param text the phrases called, as they are typed; empty for none
     * @param ends whether the call ends what was held
     * @param held the phrase whose state the machine is in after the cue; empty for none
     */
    public record Cell(Device device, String text, boolean ends, String held) {
        public boolean tied() {
            return !held.isEmpty();
        }
    }

    /** What a page calls it. */
    public String id() {
        return item.id() + "-" + part;
    }

    public boolean first() {
        return part == 0;
    }

    /** Its cues, as a page keeps them of leaves that it has not drawn: id, version and number of each. */
    public String list() {
        return cues.stream()
                .map(c -> c.id() + ":" + c.version() + ":" + c.number())
                .collect(Collectors.joining(" "));
    }

    public List<Row> rows(Show show) {
        return IntStream.range(0, cues.size())
                .mapToObj(i -> new Row(
                        cues.get(i),
                        show.devices().stream()
                                .map(d -> cell(show, d, cues.get(i), states.get(i + 1)))
                                .toList()))
                .toList();
    }

    private static Cell cell(Show show, Device device, Cue cue, Map<Integer, PlannedCall> after) {
        PlannedCall held = after.get(device.id());
        boolean stops = cue.callsFor(device.id()).stream()
                .flatMap(c -> show.phrase(c).stream())
                .anyMatch(p -> p.effect().kind() == Effect.Kind.STOPS);
        return new Cell(device, CueTable.cell(cue, device), stops && held == null, held == null ? "" : held.phrase());
    }

    /** Which machines come in holding something. */
    public List<Boolean> ties(Show show) {
        return show.devices().stream()
                .map(d -> states.get(0).containsKey(d.id()))
                .toList();
    }

    /**
     * This leaf, with the revisions since which it is the same as it was before; the machines have not changed.
     *
     * @param before null where it was not there
     */
    Leaf after(Leaf before) {
        if (before == null || !sameHead(before) || !cues.equals(before.cues)) {
            return this;
        }
        return new Leaf(
                item,
                place,
                part,
                seconds,
                cues,
                states,
                sameStates(before) ? before.since : since,
                before.listedSince);
    }

    private boolean sameHead(Leaf other) {
        return place == other.place
                && seconds == other.seconds
                && item.kind() == other.item.kind()
                && item.plannedSeconds() == other.item.plannedSeconds()
                && item.name().equals(other.item.name());
    }

    private boolean sameStates(Leaf other) {
        return IntStream.range(0, states.size()).allMatch(i -> sameState(states.get(i), other.states.get(i)));
    }

    /** As far as it is drawn: by the phrases' names. */
    private static boolean sameState(Map<Integer, PlannedCall> one, Map<Integer, PlannedCall> other) {
        if (one == other) {
            return true;
        }
        return one.size() == other.size()
                && one.entrySet().stream().allMatch(e -> sameCall(e.getValue(), other.get(e.getKey())));
    }

    private static boolean sameCall(PlannedCall one, PlannedCall other) {
        return one == other || other != null && one.phrase().equals(other.phrase());
    }
}
