package underbaton.web.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.plan.PlannedItem;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.score.Section;

/**
 * When each beat and section of an item comes: what a page needs to say where the music is. All times are ms since the
 * item began.
 *
 * @param item its id
 * @param beats time, bar and beat of each
 * @param end how long the item lasts; 0 when nobody knows
 */
record Beats(int item, List<long[]> beats, List<Begin> sections, long end) {

    private static final int MOST_BARS = 2000;

    /** @param name letter and name */
    record Begin(long at, String name) {}

    static Beats of(PlannedItem planned) {
        Optional<Score.Times> times = planned.times();
        return new Beats(
                planned.item().id(),
                times.map(Beats::beats).orElse(List.of()),
                times.map(Beats::sections).orElse(List.of()),
                // What it plays is known better than what was planned.
                times.isPresent() ? planned.scoreNanos() / 1_000_000 : planned.seconds() * 1000L);
    }

    private static List<long[]> beats(Score.Times times) {
        int last = Math.min(MOST_BARS, times.score().endBar());
        long end = times.bars().tickOfBar(last + 1);
        List<long[]> beats = new ArrayList<>();
        for (long tick = 0; tick < end; ) {
            Position place = times.bars().position(tick);
            beats.add(new long[] {times.tempi().nanos(tick) / 1_000_000, place.bar(), place.beat()});
            tick += times.bars().meter(place.bar()).beatTicks() - place.tick();
        }
        return beats;
    }

    private static List<Begin> sections(Score.Times times) {
        return times.score().sections().stream()
                .map((Section s) ->
                        new Begin(times.nanosOfBar(s.bar()) / 1_000_000, (s.letter() + " " + s.name()).strip()))
                .toList();
    }
}
