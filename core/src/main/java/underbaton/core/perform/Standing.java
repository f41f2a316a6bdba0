package underbaton.core.perform;

import java.util.Optional;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.PlannedItem.VampSpan;

/**
 * Where a running show stands; never changes once made.
 *
 * @param standby place of the standby cue in the plan; the number of cues when the book is at its end
 * @param last the cue fired last
 * @param pending a cue that will come by itself
 * @param playing the item whose music runs, or stands still in a pause
 * @param stopped whether stop all was the last thing done
 */
public record Standing(
        Plan plan,
        int standby,
        Optional<Fired> last,
        Optional<Pending> pending,
        Optional<Playing> playing,
        boolean stopped) {

    /** @param epochMicros when it was fired, µs since 1970 */
    public record Fired(PlannedCue cue, long epochMicros) {}

    /**
     * @param dueNanos when it comes, by the performer's clock
     * @param dueEpochMicros the same moment as time of day, µs since 1970
     */
    public record Pending(PlannedCue cue, long dueNanos, long dueEpochMicros) {}

    /**
     * Where the music is.
     *
     * @param positionNanos since the item began, at the moment told
     * @param epochMicros that moment, µs since 1970
     * @param vamp the one that the music is in, or comes to next
     * @param pass which time it is played, from 1
     * @param released whether it is about to be left
     * @param vamping whether the music is in it, so that GO releases it
     */
    public record Playing(
            PlannedItem item,
            long positionNanos,
            long epochMicros,
            boolean paused,
            Optional<VampSpan> vamp,
            int pass,
            boolean released,
            boolean vamping) {}

    public Optional<PlannedCue> standbyCue() {
        return standby < plan.cues().size() ? Optional.of(plan.cues().get(standby)) : Optional.empty();
    }
}
