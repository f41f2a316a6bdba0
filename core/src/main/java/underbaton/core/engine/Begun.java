package underbaton.core.engine;

import java.util.Optional;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;

/**
 * The item that began last, and what of it has been done: not where it is, but what was given. Immutable.
 *
 * @param itemId 0 for none
 * @param nanos when it began, by the clock of the events
 * @param suspended what waits while the band has stopped in the middle of it; empty while it goes on
 * @param given its cues that were given since it began, by hand or by themselves, and where in it, ns since it began; with
 *     {@link #BEFORE} those that count as given since it was begun behind them
 */
public record Begun(int itemId, long nanos, Optional<Suspended> suspended, PMap<Given, Long> given) {

    /** In the place of where a cue was given: where the book has it. */
    static final long BEFORE = -1;

    /** In the place of where a cue was given: it was not. */
    static final long NOT_GIVEN = -2;

    /** A cue, or the copy of it in a linked section. */
    public record Given(int cueId, String copy) {

        static Given of(PlannedCue cue) {
            return new Given(cue.cueId(), cue.copy());
        }
    }

    static final Begun NONE = new Begun(0, Long.MIN_VALUE, Optional.empty(), HashTreePMap.empty());

    static Begun of(int itemId, long nanos) {
        return new Begun(itemId, nanos, Optional.empty(), HashTreePMap.empty());
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

    /** @param position where in the item, ns since it began */
    Begun gave(PlannedCue cue, long position) {
        Given it = Given.of(cue);
        return cue.item().id() != itemId ? this : gave(it, Math.max(0, position));
    }

    Begun gave(Given it, long position) {
        return new Begun(itemId, nanos, suspended, given.plus(it, position));
    }

    /** The first so many cues of the item count as given. */
    Begun gaveAllBefore(PlannedItem item, int order) {
        PMap<Given, Long> all = given;
        for (PlannedCue cue : item.cues().subList(0, order)) {
            all = all.containsKey(Given.of(cue)) ? all : all.plus(Given.of(cue), BEFORE);
        }
        return new Begun(itemId, nanos, suspended, all);
    }

    /** None counts as given that is not among the first so many. */
    Begun withoutFrom(PlannedItem item, int order) {
        PMap<Given, Long> all = given;
        for (PlannedCue cue : item.cues().subList(order, item.cues().size())) {
            all = all.minus(Given.of(cue));
        }
        return new Begun(itemId, nanos, suspended, all);
    }

    /** Where a cue was given, ns since the item began; {@link #BEFORE} or {@link #NOT_GIVEN}. */
    long whereGiven(PlannedCue cue) {
        return given.getOrDefault(Given.of(cue), NOT_GIVEN);
    }

    Begun shifted(long by) {
        return itemId == 0 ? this : new Begun(itemId, nanos + by, suspended.map(s -> s.shifted(by)), given);
    }
}
