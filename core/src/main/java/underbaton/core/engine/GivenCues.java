package underbaton.core.engine;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.music.Playing;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;

/** Which cues of an item are given, by their places in it. Immutable. */
@FunctionalInterface
interface GivenCues {

    /** Where a cue is given, as {@link ItemProgress#whereGiven} says. */
    long where(int order);

    /** How long the music has stood there when it is given, ns. */
    default long stood(int order) {
        return 0;
    }

    /** The cues that have a time, and have come before it. */
    default Set<Integer> ahead() {
        return Set.of();
    }

    /** Those that were given in the item that a show plays, or has left. */
    static GivenCues in(PlaybackState state, PlannedItem item) {
        ItemProgress progress = state.progress();
        List<PlannedCue> cues = item.cues();
        Set<Integer> ahead = ahead(state, item);
        return new GivenCues() {

            @Override
            public long where(int order) {
                return progress.whereGiven(cues.get(order));
            }

            @Override
            public long stood(int order) {
                return progress.stoodWhenGiven(cues.get(order));
            }

            @Override
            public Set<Integer> ahead() {
                return ahead;
            }
        };
    }

    /** What GO has brought with it, and what had come when the music was put back a little. */
    private static Set<Integer> ahead(PlaybackState state, PlannedItem item) {
        Playing playing = state.playing()
                .filter(p -> p.item().item().id() == item.item().id())
                .orElse(null);
        if (playing == null) {
            return Set.of();
        }
        long here = playing.position(state.nowNanos());
        Set<Integer> comes = playing.ahead().stream()
                .filter(TimedCalls::strikes)
                .map(TimedCalls::order)
                .collect(Collectors.toSet());
        Set<Integer> ahead = new HashSet<>();
        for (int order = 0; order < item.cues().size(); order++) {
            PlannedCue cue = item.cues().get(order);
            boolean isLater = cue.atNanos().orElse(Long.MIN_VALUE) > here;
            if (isLater && state.progress().whereGiven(cue) >= 0 && !comes.contains(order)) {
                ahead.add(order);
            }
        }
        return ahead;
    }
}
