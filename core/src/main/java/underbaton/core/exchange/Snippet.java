package underbaton.core.exchange;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Placing;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start.AtPosition;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap;
import underbaton.core.score.BarMap.MeterMark;
import underbaton.core.score.Meter;
import underbaton.core.score.Score;

/**
 * A block of cues that is used again, in any song of any show. Its places are bars of one meter, counted from the bar in
 * which its first cue stands, and its calls are phrases' names.
 *
 * @param name 1 to 60 characters
 * @param meter of the bars that its places are counted in
 * @param cues as a table, so that it knows no machine of any show
 */
public record Snippet(String name, Meter meter, CueTable cues) {

    public Snippet {
        name = Refusal.requireName("name", name, 60);
    }

    /**
     * @param itemId of a song with bars
     * @throws Refusal when none of the cues stands on a beat
     */
    public static Snippet of(String name, Show show, int itemId, Collection<Integer> cueIds) {
        Placing placing = new Placing(show, itemId);
        Item item = show.item(itemId).orElseThrow();
        List<Cue> cues =
                item.cues().stream().filter(c -> cueIds.contains(c.id())).toList();
        OptionalLong first = cues.stream()
                .flatMap(c -> placing.tickOf(c).stream())
                .mapToLong(t -> t)
                .min();
        if (first.isEmpty()) {
            throw new Refusal("cue", "None of these cues stands on a beat; choose some that do.");
        }
        BarMap bars = item.score().map(Score::bars).orElseThrow();
        int bar = bars.position(first.getAsLong()).bar();
        BarMap own = bars(bars.meter(bar));
        List<Cue> counted = cues.stream()
                .map(c -> placing.tickOf(c)
                        .map(t -> c.withStart(new AtPosition(own.position(t - bars.tickOfBar(bar)), offset(c))))
                        .orElse(c))
                .toList();
        Show alone = show.withoutItem(itemId).withItem(new Item(0, item.kind(), item.name(), 0, List.of()), 0);
        Show with = alone.withCues(alone.items().get(0).id(), counted);
        CueTable table = CueTable.of(
                with, with.items().get(0).cues().stream().map(Cue::id).toList());
        return new Snippet(name, bars.meter(bar), table);
    }

    private static int offset(Cue cue) {
        return cue.start() instanceof AtPosition at ? at.offsetMs() : 0;
    }

    private static BarMap bars(Meter meter) {
        return new BarMap(0, List.of(new MeterMark(1, meter)));
    }

    /** How many cues it has. */
    public int size() {
        return cues.rows().size();
    }

    /**
     * Puts it into a song, its first cue at a tick.
     *
     * @throws Refusal when the item has no bars
     */
    public Taken drop(Show show, int itemId, long tick) {
        Placing placing = new Placing(show, itemId);
        Repointing machines = new Repointing(show, cues.machines(), true);
        List<Cue> here = machines.cues(cues);
        BarMap own = bars(meter);
        long first = here.stream()
                .flatMap(c -> tick(own, c).stream())
                .mapToLong(t -> t)
                .min()
                .orElse(0);
        Show dropped = placing.land(here, c -> tick(own, c).map(t -> t - first + tick));
        return new Taken(dropped, here.size(), machines.left());
    }

    private static Optional<Long> tick(BarMap own, Cue cue) {
        return cue.start() instanceof AtPosition at ? Optional.of(own.tick(at.position())) : Optional.empty();
    }
}
