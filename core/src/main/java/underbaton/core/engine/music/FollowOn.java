package underbaton.core.engine.music;

import java.util.Optional;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;

/**
 * A cue that follows the one before it by itself. Immutable.
 *
 * @param dueNanos when it comes, by the clock of the events
 * @param sinceCueId the cue whose GO it follows; 0 for where the item began
 * @param sinceNanos the moment of that GO
 */
public record FollowOn(PlannedCue cue, long dueNanos, int sinceCueId, long sinceNanos) {

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public FollowOn shifted(long by) {
        return new FollowOn(cue, dueNanos + by, sinceCueId, sinceNanos + by);
    }

    /** The same in a changed book; empty when its cue is gone. */
    public Optional<FollowOn> in(Plan plan) {
        int index = plan.indexOf(cue);
        return index < 0
                ? Optional.empty()
                : Optional.of(new FollowOn(plan.cues().get(index), dueNanos, sinceCueId, sinceNanos));
    }
}
