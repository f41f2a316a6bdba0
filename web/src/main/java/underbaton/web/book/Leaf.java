package underbaton.web.book;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Doubt;
import underbaton.core.cue.Item;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.exchange.CueTable;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/**
 * A stretch of the book that is drawn, sent and folded as one: the cues of an item, or of a long one a part of them.
 *
 * @param place of the item in the running order, from 1
 * @param part of the item, from 0; the first one has the item's head
 * @param seconds the item's planned length, or else that of its score; 0 when nobody knows
 * @param entering what every machine is doing before the first cue
 * @param since the show's revision since which it is drawn as it is
 * @param listedSince the revision since which its head and the list of its cues are as they are
 */
public record Leaf(
        Item item,
        int place,
        int part,
        int seconds,
        Map<Integer, PlannedCall> entering,
        List<Row> rows,
        int since,
        int listedSince) {

    /** {@code 2:10 planned}; empty when nobody knows. */
    public String length() {
        return seconds == 0
                ? ""
                : PlannedLength.tell(seconds) + (item.plannedSeconds() > 0 ? " planned" : " by its score");
    }

    /**
     * A cue's row.
     *
     * @param behind why it lies behind the item's end; empty when it does not
     * @param after what every machine is doing after the cue
     * @param ahead copies in linked sections that come before it; only before an item's first cue
     * @param again copies in linked sections that come after it and before the next cue
     * @param untold what becomes of its fades of which nobody knows where they begin, by machine
     * @param since the revision since which it stands in this leaf and is drawn as it is
     */
    public record Row(
            Cue cue,
            String behind,
            Map<Integer, PlannedCall> after,
            List<Again> ahead,
            List<Again> again,
            Map<Integer, String> untold,
            int since) {

        public List<Cell> cells(Show show) {
            return cells(show, cue, after, untold);
        }

        /** What every machine is doing when the next row begins. */
        Map<Integer, PlannedCall> leaves() {
            return again.isEmpty() ? after : again.get(again.size() - 1).after;
        }

        private static List<Cell> cells(
                Show show, Cue cue, Map<Integer, PlannedCall> after, Map<Integer, String> untold) {
            return show.told().stream()
                    .map(d -> cell(show, cue, d, after, untold.getOrDefault(d.id(), "")))
                    .toList();
        }

        private static Cell cell(Show show, Cue cue, Device device, Map<Integer, PlannedCall> after, String untold) {
            PlannedCall held = after.get(device.id());
            List<Phrase> phrases = cue.callsFor(device.id()).stream()
                    .flatMap(c -> show.phrase(c).stream())
                    .toList();
            boolean stops = phrases.stream().anyMatch(p -> p.effect().kind() == Effect.Kind.STOPS);
            return new Cell(
                    device,
                    CueTable.cell(cue, device),
                    stops && held == null,
                    phrases.stream().anyMatch(Phrase::guarded),
                    Doubt.of(cue, device).orElse(""),
                    untold,
                    held == null ? "" : held.phrase());
        }

        /** @param before null where there was none */
        private Row after(Row before) {
            boolean same = before != null
                    && cue.equals(before.cue)
                    && behind.equals(before.behind)
                    && sameState(after, before.after)
                    && untold.equals(before.untold)
                    && same(ahead, before.ahead)
                    && same(again, before.again);
            return same ? new Row(cue, behind, after, ahead, again, untold, before.since) : this;
        }

        private static boolean same(List<Again> one, List<Again> other) {
            return one.size() == other.size()
                    && IntStream.range(0, one.size()).allMatch(i -> one.get(i).same(other.get(i)));
        }
    }

    /**
     * A cue's copy in a section that is another again: shown where it comes, written at the cue itself.
     *
     * @param label {@code 12 in C}
     * @param starts {@code at 33:1}
     */
    public record Again(Cue cue, String label, String starts, Map<Integer, PlannedCall> after) {

        public List<Cell> cells(Show show) {
            return Row.cells(show, cue, after, Map.of());
        }

        public String id() {
            return label.replace(' ', '-');
        }

        private boolean same(Again other) {
            return cue.equals(other.cue)
                    && label.equals(other.label)
                    && starts.equals(other.starts)
                    && sameState(after, other.after);
        }
    }

    /**
     * What a machine gets at a cue, and what it is doing then.
     *
     * @param text the phrases called, as they are typed; empty for none
     * @param ends whether the call ends what was held
     * @param guarded whether one of them is guarded
     * @param doubt what cannot be meant as it is written, in words; empty when all is well
     * @param untold what becomes of its fade, where nobody knows where that begins: {@code is at its amount at once}
     * @param held the phrase whose state the machine is in after the cue; empty for none
     */
    public record Cell(
            Device device, String text, boolean ends, boolean guarded, String doubt, String untold, String held) {
        /** What more there is to say of it; null for nothing. */
        public String more() {
            if (!doubt.isEmpty()) {
                return doubt;
            }
            if (!untold.isEmpty()) {
                return "nobody knows where it stands, so the fade " + untold;
            }
            return text.isEmpty() && tied() ? "still " + held : null;
        }

        /** How it is drawn. */
        public String kinds() {
            return (ends ? "off" : "")
                    + (guarded ? " guarded" : "")
                    + (doubt.isEmpty() ? "" : " astray")
                    + (untold.isEmpty() ? "" : " untold");
        }

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
        return rows.stream()
                .map(Row::cue)
                .map(c -> c.id() + ":" + c.version() + ":" + c.number())
                .collect(Collectors.joining(" "));
    }

    boolean has(int cueId) {
        return rows.stream().anyMatch(r -> r.cue.id() == cueId);
    }

    /** Which machines come in holding something. */
    public List<Boolean> ties(Show show) {
        return show.told().stream().map(d -> entering.containsKey(d.id())).toList();
    }

    /**
     * This leaf, with the revisions since which it and its rows are the same as they were before; the machines have not
     * changed.
     *
     * @param before null where it was not there
     */
    Leaf after(Leaf before) {
        if (before == null) {
            return this;
        }
        Map<Integer, Row> known = before.rows.stream().collect(Collectors.toMap(r -> r.cue.id(), Function.identity()));
        List<Row> now = rows.stream().map(r -> r.after(known.get(r.cue.id()))).toList();
        boolean sameList = sameHead(before) && cues(now).equals(cues(before.rows));
        boolean same =
                sameList && sameState(entering, before.entering) && now.stream().allMatch(r -> r.since <= before.since);
        return new Leaf(
                item,
                place,
                part,
                seconds,
                entering,
                now,
                same ? before.since : since,
                sameList ? before.listedSince : listedSince);
    }

    private static List<Cue> cues(List<Row> rows) {
        return rows.stream().map(Row::cue).toList();
    }

    private boolean sameHead(Leaf other) {
        return place == other.place
                && seconds == other.seconds
                && item.kind() == other.item.kind()
                && item.plannedSeconds() == other.item.plannedSeconds()
                && item.name().equals(other.item.name());
    }

    /** As far as it is drawn: by the phrases' names. */
    private static boolean sameState(Map<Integer, PlannedCall> one, Map<Integer, PlannedCall> other) {
        return one == other
                || one.size() == other.size()
                        && one.entrySet().stream().allMatch(e -> sameCall(e.getValue(), other.get(e.getKey())));
    }

    private static boolean sameCall(PlannedCall one, PlannedCall other) {
        return one == other || other != null && one.phrase().equals(other.phrase());
    }
}
