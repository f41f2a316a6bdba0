package underbaton.core.engine.music;

import java.util.List;
import java.util.Optional;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.TimedCalls;

/**
 * Where a show stands in its book, and what of it time brings. Immutable.
 *
 * @param standby place of the standby cue in the plan; the number of cues when the book is at its end
 * @param last the cue fired last
 * @param followOn a cue that follows the one before it by itself
 * @param playing the item whose music runs, or stands still in a pause
 * @param progress the item that began last, and what of it was given
 * @param stopped whether stop all was the last thing done
 */
public record MusicState(
        int standby,
        Optional<Fired> last,
        Optional<FollowOn> followOn,
        Optional<Playing> playing,
        ItemProgress progress,
        boolean stopped) {

    /** @param atNanos when it was fired, by the clock of the events */
    public record Fired(PlannedCue cue, long atNanos) {}

    /** Nothing has been played. @param standby place of the standby cue in the plan */
    public static MusicState first(int standby) {
        return beginning(standby, Optional.empty());
    }

    /** An item is about to begin, perhaps by itself. */
    public static MusicState beginning(int standby, Optional<FollowOn> followOn) {
        return new MusicState(standby, Optional.empty(), followOn, Optional.empty(), ItemProgress.NONE, false);
    }

    /** Nothing comes by itself any more. */
    public MusicState silent() {
        return new MusicState(standby, last, Optional.empty(), Optional.empty(), progress, stopped);
    }

    /** What of the playing item is still to come, though the book puts it before a cue. @param index of the cue in the plan */
    public List<TimedCalls> skippedBefore(Plan plan, int index) {
        if (playing.isEmpty()) {
            return List.of();
        }
        Playing p = playing.get();
        int first = plan.firstOf(p.item().item().id());
        return p.before(
                index < first ? 0 : Math.min(index - first, p.item().cues().size()));
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public MusicState shifted(long nanos) {
        return new MusicState(
                standby,
                last.map(l -> new Fired(l.cue, l.atNanos + nanos)),
                followOn.map(f -> f.shifted(nanos)),
                playing.map(p -> p.shifted(nanos)),
                progress.shifted(nanos),
                stopped);
    }
}
