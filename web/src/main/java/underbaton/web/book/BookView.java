package underbaton.web.book;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.file.CueTable;
import underbaton.core.plan.Held;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/** The book as rows and columns: a row a cue under its item, a column a machine. */
public record BookView(Show show, List<ItemRows> items, long cueCount) {

    /**
     * An item and its cues.
     *
     * @param seconds its planned length, or else that of its score; 0 when nobody knows
     * @param ties for each machine, whether it comes in holding something
     */
    public record ItemRows(Item item, int place, int seconds, List<CueRow> cues, List<Boolean> ties) {}

    public record CueRow(Cue cue, List<Cell> cells) {}

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

    static BookView of(Show show, Plan plan) {
        Held held = Held.in(plan);
        List<ItemRows> items = new ArrayList<>();
        Map<Integer, PlannedCall> before = Map.of();
        for (Item item : show.items()) {
            Map<Integer, PlannedCall> atStart = before;
            List<CueRow> rows = new ArrayList<>();
            for (Cue cue : item.cues()) {
                Map<Integer, PlannedCall> after = held.at(cue.id());
                rows.add(new CueRow(
                        cue,
                        show.devices().stream()
                                .map(d -> cell(show, d, cue, after))
                                .toList()));
                before = after;
            }
            items.add(new ItemRows(
                    item,
                    1 + items.size(),
                    plan.item(item.id()).map(PlannedItem::seconds).orElse(0),
                    rows,
                    show.devices().stream()
                            .map(d -> atStart.containsKey(d.id()))
                            .toList()));
        }
        return new BookView(show, items, show.cues().count());
    }

    private static Cell cell(Show show, Device device, Cue cue, Map<Integer, PlannedCall> after) {
        List<Phrase> phrases = cue.callsFor(device.id()).stream()
                .flatMap(c -> show.phrase(c).stream())
                .toList();
        PlannedCall held = after.get(device.id());
        return new Cell(
                device,
                CueTable.cell(cue, device),
                phrases.stream().anyMatch(p -> p.effect().kind() == Effect.Kind.STOPS) && held == null,
                held == null ? "" : held.phrase());
    }
}
