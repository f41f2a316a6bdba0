package underbaton.core.engine;

import java.util.Optional;
import org.pcollections.HashTreePSet;
import org.pcollections.PSet;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;

/**
 * The item that began last, and what of it has been done: not where it is, but what was given. Immutable.
 *
 * @param itemId 0 for none
 * @param nanos when it began, by the clock of the events
 * @param suspended what waits while the band has stopped in the middle of it; empty while it goes on
 * @param given its cues that were given since it began, by hand or by themselves, and those that count as given since it was begun
 *     behind them
 */
public record Begun(int itemId, long nanos, Optional<Suspended> suspended, PSet<Given> given) {

    /** A cue, or the copy of it in a linked section. */
    public record Given(int cueId, String copy) {

        static Given of(PlannedCue cue) {
            return new Given(cue.cueId(), cue.copy());
        }
    }

    static final Begun NONE = new Begun(0, Long.MIN_VALUE, Optional.empty(), HashTreePSet.empty());

    static Begun of(int itemId, long nanos) {
        return new Begun(itemId, nanos, Optional.empty(), HashTreePSet.empty());
    }

    /** Whether the band has stopped in the middle of it. */
    public boolean held() {
        return suspended.isPresent();
    }

    Begun holding(Suspended what) {
        return new Begun(itemId, nanos, Optional.of(what), given);
    }

    Begun goingOn() {
        return held() ? new Begun(itemId, nanos, Optional.empty(), given) : this;
    }

    Begun gave(PlannedCue cue) {
        Given it = Given.of(cue);
        return cue.item().id() != itemId || given.contains(it)
                ? this
                : new Begun(itemId, nanos, suspended, given.plus(it));
    }

    /** The first so many cues of the item count as given. */
    Begun gaveAllBefore(PlannedItem item, int order) {
        PSet<Given> all = given;
        for (PlannedCue cue : item.cues().subList(0, order)) {
            all = all.plus(Given.of(cue));
        }
        return new Begun(itemId, nanos, suspended, all);
    }

    /** None counts as given that is not among the first so many. */
    Begun withoutFrom(PlannedItem item, int order) {
        PSet<Given> all = given;
        for (PlannedCue cue : item.cues().subList(order, item.cues().size())) {
            all = all.minus(Given.of(cue));
        }
        return new Begun(itemId, nanos, suspended, all);
    }

    boolean hasGiven(PlannedCue cue) {
        return given.contains(Given.of(cue));
    }

    Begun shifted(long by) {
        return itemId == 0 ? this : new Begun(itemId, nanos + by, suspended.map(s -> s.shifted(by)), given);
    }
}
