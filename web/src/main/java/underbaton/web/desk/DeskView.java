package underbaton.web.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.perform.Standing;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;

/**
 * The open page of the prompt book as the Desk shows it.
 *
 * @param now the item of the cue fired last, or of the standby before the first GO
 * @param itemPlace its place in the running order, from 1
 * @param seconds how long that item lasts, as planned or by its score; 0 when nobody knows
 * @param vamp what goes round now and what GO does about it
 * @param coming the standby's followers, then the cues after them
 */
public record DeskView(
        Show show,
        Optional<Item> now,
        int itemPlace,
        int seconds,
        Optional<Row> standby,
        Optional<Row> last,
        long lastEpochMillis,
        Optional<Row> pending,
        long pendingEpochMillis,
        List<Row> coming,
        String goNumber,
        String nextNumber,
        String backNumber,
        Optional<String> vamp,
        boolean stopped) {

    private static final int MOST_COMING = 40;

    /**
     * One cue on the page.
     *
     * @param heading the item that begins with this cue, where a new one does
     */
    public record Row(PlannedCue cue, List<Said> said, Optional<Item> heading) {}

    /** What one device gets. */
    public record Said(Device device, String phrase) {}

    static DeskView of(Show show, Standing standing) {
        List<PlannedCue> cues = standing.plan().cues();
        Optional<PlannedCue> standby = standing.standbyCue();
        Optional<Item> now = standing.last().map(f -> f.cue().item()).or(() -> standby.map(PlannedCue::item));
        int next = standing.plan().byHandFrom(standing.standby() + 1);
        int back = standing.plan().byHandBefore(standing.standby());
        return new DeskView(
                show,
                now,
                now.map(i -> 1 + place(show, i)).orElse(0),
                now.flatMap(i -> standing.plan().item(i.id()))
                        .map(PlannedItem::seconds)
                        .orElse(0),
                standby.map(c -> row(show, c, Optional.empty())),
                standing.last().map(f -> row(show, f.cue(), Optional.empty())),
                standing.last().map(f -> f.epochMicros() / 1000).orElse(0L),
                standing.pending().map(p -> row(show, p.cue(), Optional.empty())),
                standing.pending().map(p -> p.dueEpochMicros() / 1000).orElse(0L),
                coming(show, cues, standing.standby() + 1, standby),
                standby.map(c -> c.label()).orElse(""),
                next < cues.size() ? cues.get(next).number().toString() : "",
                back < standing.standby() ? cues.get(back).number().toString() : "",
                vamp(standing),
                standing.stopped());
    }

    /** While a vamp goes round, GO does not fire the standby cue: it lets the music go on. */
    private static Optional<String> vamp(Standing standing) {
        return standing.playing().filter(Standing.Playing::vamping).flatMap(p -> p.vamp()
                .map(v -> "Vamp, bars %d to %d, time %d: GO leaves it %s"
                        .formatted(
                                v.vamp().bar(),
                                v.vamp().after() - 1,
                                p.pass(),
                                v.vamp().leave().words())));
    }

    private static int place(Show show, Item item) {
        List<Integer> ids = show.items().stream().map(Item::id).toList();
        return ids.indexOf(item.id());
    }

    private static List<Row> coming(Show show, List<PlannedCue> cues, int from, Optional<PlannedCue> before) {
        List<Row> rows = new ArrayList<>();
        int itemId = before.map(c -> c.item().id()).orElse(0);
        for (int i = from; i < cues.size() && rows.size() < MOST_COMING; i++) {
            PlannedCue cue = cues.get(i);
            boolean first = cue.item().id() != itemId;
            rows.add(row(show, cue, first ? Optional.of(cue.item()) : Optional.empty()));
            itemId = cue.item().id();
        }
        return rows;
    }

    private static Row row(Show show, PlannedCue cue, Optional<Item> heading) {
        List<Said> said = new ArrayList<>();
        for (Device device : show.devices()) {
            List<String> phrases = cue.calls().stream()
                    .filter(c -> c.deviceId() == device.id())
                    .map(PlannedCall::phrase)
                    .toList();
            if (!phrases.isEmpty()) {
                said.add(new Said(device, String.join(" + ", phrases)));
            }
        }
        return new Row(cue, said, heading);
    }
}
