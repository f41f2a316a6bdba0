package underbaton.core.plan;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.Item;
import underbaton.core.rig.Control;
import underbaton.core.score.Score;
import underbaton.core.score.Vamp;

/**
 * One item worked out.
 *
 * @param times of its score, where it has one
 * @param cues in the order in which GO takes them; copies of linked sections among them
 * @param landings what comes by itself, in the order of the times
 * @param vamps in the order of their times
 * @param messages the dry run, by the GO they count from and then by time
 * @param before where each control stood when it began, 0–127
 * @param after where each control stands at its end
 */
public record PlannedItem(
        Item item,
        Optional<Score.Times> times,
        List<PlannedCue> cues,
        List<Landing> landings,
        List<VampSpan> vamps,
        List<PlannedMessage> messages,
        Map<Control, Double> before,
        Map<Control, Double> after) {

    /** How long it lasts as planned, or else by its score, vamps played once; s, 0 when nobody knows. */
    public int seconds() {
        return item.plannedSeconds() > 0
                ? item.plannedSeconds()
                : times.map(t -> (int) ((t.nanosOfBar(t.score().endBar() + 1) + 500_000_000L) / 1_000_000_000L))
                        .orElse(0);
    }

    /**
     * A vamp in time.
     *
     * @param fromNanos since the item began
     * @param toNanos the end of its first pass
     */
    public record VampSpan(Vamp vamp, long fromNanos, long toNanos) {}

    static List<VampSpan> vamps(Optional<Score.Times> times) {
        return times.stream()
                .flatMap(t -> t.score().vamps().stream()
                        .map(v -> new VampSpan(v, t.nanosOfBar(v.bar()), t.nanosOfBar(v.after()))))
                .toList();
    }
}
