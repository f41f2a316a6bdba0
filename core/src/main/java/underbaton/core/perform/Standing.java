package underbaton.core.perform;

import java.util.Optional;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;

/**
 * Where a running show stands; never changes once made.
 *
 * @param standby place of the standby cue in the plan; the number of cues when the book is at its end
 * @param last the cue fired last
 * @param pending a cue that will come by itself
 * @param stopped whether stop all was the last thing done
 */
public record Standing(Plan plan, int standby, Optional<Fired> last, Optional<Pending> pending, boolean stopped) {

    /** @param epochMicros when it was fired, µs since 1970 */
    public record Fired(PlannedCue cue, long epochMicros) {}

    /**
     * @param dueNanos when it comes, by the performer's clock
     * @param dueEpochMicros the same moment as time of day, µs since 1970
     */
    public record Pending(PlannedCue cue, long dueNanos, long dueEpochMicros) {}

    public Optional<PlannedCue> standbyCue() {
        return standby < plan.cues().size() ? Optional.of(plan.cues().get(standby)) : Optional.empty();
    }
}
