package underbaton.web.book;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.plan.Held;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/** The book as rows and columns: a row a cue under its item, a column a machine. */
public record BookView(Show show, List<ItemRows> items, long cueCount) {

    public record ItemRows(Item item, int place, List<CueRow> cues, List<Boolean> ties) {}

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

    static BookView of(Show show) {
        Held held = Held.in(Planner.plan(show));
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
                text(show, cue, device.id()),
                phrases.stream().anyMatch(p -> p.effect().kind() == Effect.Kind.STOPS) && held == null,
                held == null ? "" : held.phrase());
    }

    /** What is typed for a cell now, read back: used to tell a late editor what stands there. */
    static String text(Show show, Cue cue, int deviceId) {
        Optional<Device> device = show.device(deviceId);
        return cue.callsFor(deviceId).stream()
                .map(c -> c.tell(device.orElseThrow()))
                .filter(told -> !told.isEmpty())
                .collect(Collectors.joining(" + "));
    }
}
