package underbaton.core.plan;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.Item;
import underbaton.core.score.Score;
import underbaton.core.score.Vamp;

/**
 * One item worked out.
 *
 * @param times of its score, where it has one
 * @param cues in the order in which GO takes them; copies of linked sections among them
 * @param timed what comes by itself, in the order of the times
 * @param vamps in the order of their times
 * @param armed whether it takes part tonight; one that does not is passed over
 */
public record PlannedItem(
        Item item,
        Optional<Score.Times> times,
        List<PlannedCue> cues,
        List<TimedCalls> timed,
        List<VampSpan> vamps,
        boolean armed) {

    PlannedItem(
            Item item,
            Optional<Score.Times> times,
            List<PlannedCue> cues,
            List<TimedCalls> timed,
            List<VampSpan> vamps) {
        this(item, times, cues, timed, vamps, true);
    }

    /** The item as it is played when some of it does not take part; itself where all does. */
    PlannedItem tonight(OutTonight out) {
        boolean whole = out.items().contains(item.id());
        boolean touched = whole || cues.stream().anyMatch(c -> out.cues().contains(c.cueId()));
        if (!touched) {
            return this;
        }
        List<PlannedCue> left = cues.stream()
                .map(c -> whole || out.cues().contains(c.cueId()) ? c.disarmed() : c)
                .toList();
        List<TimedCalls> comes = timed.stream()
                .filter(t -> !whole && !out.cues().contains(t.cue().cueId()))
                .toList();
        return new PlannedItem(item, times, left, comes, vamps, !whole);
    }

    /** When a cue of it starts, in words: {@code at 17:1}; of a copy in a linked section, where that copy comes. */
    public String starts(PlannedCue cue) {
        return cue.copy().isEmpty() || times.isEmpty()
                ? cue.start().toString()
                : "at "
                        + times.get()
                                .bars()
                                .position(times.get().tempi().tick(cue.atNanos().orElse(0)));
    }

    /** How long it lasts as planned, or else by its score, vamps played once; s, 0 when nobody knows. */
    public int seconds() {
        return item.plannedSeconds() > 0
                ? item.plannedSeconds()
                : (int) ((scoreNanos() + 500_000_000L) / 1_000_000_000L);
    }

    /** How long its score lasts, vamps played once; ns, 0 without one. */
    public long scoreNanos() {
        return times.map(t -> t.nanosOfBar(t.score().endBar() + 1)).orElse(0L);
    }

    /**
     * Where the music stands when a cue is fired in the order of the book: at its own time, or, where it waits for GO, at
     * that of the last cue before it that has one.
     *
     * @param order place of the cue in the item
     * @return ns since the item began
     */
    public long placeOf(int order) {
        for (int i = order; i >= 0; i--) {
            if (cues.get(i).atNanos().isPresent()) {
                return cues.get(i).atNanos().getAsLong();
            }
        }
        return 0;
    }

    /** How many of its cues, in the order of the book, end with the last that lands before a position, ns since the item began. */
    public int behind(long position) {
        int count = 0;
        for (int i = 0; i < cues.size(); i++) {
            if (cues.get(i).atNanos().orElse(Long.MAX_VALUE) < position) {
                count = i + 1;
            }
        }
        return count;
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

    /** When a section begins, ns since the item began; empty where it has no such section. */
    public OptionalLong sectionNanos(String letter) {
        return times.flatMap(t -> t.score().section(letter).map(s -> t.nanosOfBar(s.bar())))
                .map(OptionalLong::of)
                .orElse(OptionalLong.empty());
    }
}
