package underbaton.core.engine.music;

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
public record ItemProgress(int itemId, long nanos, Optional<Suspended> suspended, PMap<Given, Where> given) {

    /** In the place of where a cue was given: where the book has it. */
    public static final long BEFORE = -1;

    /** In the place of where a cue was given: it was not. */
    public static final long NOT_GIVEN = -2;

    /** A cue, or the copy of it in a linked section. */
    public record Given(int cueId, String copy) {

        static Given of(PlannedCue cue) {
            return new Given(cue.cueId(), cue.copy());
        }
    }

    /**
     * Where a cue was given.
     *
     * @param nanos where in the item, ns since it began; {@link #BEFORE} for where the book has it
     * @param stoodNanos how long the music had stood there already, ns; 0 while it went on
     */
    public record Where(long nanos, long stoodNanos) {

        static final Where BEFORE = new Where(ItemProgress.BEFORE, 0);
    }

    public static final ItemProgress NONE = new ItemProgress(0, Long.MIN_VALUE, Optional.empty(), HashTreePMap.empty());

    /** An item that has just begun, at this moment in ns. */
    public static ItemProgress of(int itemId, long nanos) {
        return new ItemProgress(itemId, nanos, Optional.empty(), HashTreePMap.empty());
    }

    /** Whether the band has stopped in the middle of it. */
    public boolean held() {
        return suspended.isPresent();
    }

    /** The band has stopped, and this was put aside. */
    public ItemProgress holding(Suspended what) {
        return new ItemProgress(itemId, nanos, Optional.of(what), given);
    }

    /** The band plays again. */
    public ItemProgress goingOn() {
        return held() ? new ItemProgress(itemId, nanos, Optional.empty(), given) : this;
    }

    /** A cue was given, if it is one of this item. */
    ItemProgress gave(PlannedCue cue, long position, long stoodNanos) {
        Where where = new Where(Math.max(0, position), stoodNanos);
        return cue.item().id() != itemId ? this : gave(Given.of(cue), where);
    }

    /** A cue was given at this place of the item. */
    public ItemProgress gave(Given it, Where where) {
        return new ItemProgress(itemId, nanos, suspended, given.plus(it, where));
    }

    /** A cue is yet to come, though it may have been given before. */
    ItemProgress without(PlannedCue cue) {
        Given it = Given.of(cue);
        return given.containsKey(it) ? new ItemProgress(itemId, nanos, suspended, given.minus(it)) : this;
    }

    /** The first so many cues of the item count as given. */
    public ItemProgress gaveAllBefore(PlannedItem item, int order) {
        PMap<Given, Where> all = given;
        for (PlannedCue cue : item.cues().subList(0, order)) {
            all = all.containsKey(Given.of(cue)) ? all : all.plus(Given.of(cue), Where.BEFORE);
        }
        return new ItemProgress(itemId, nanos, suspended, all);
    }

    /** None counts as given that is not among the first so many. */
    public ItemProgress withoutFrom(PlannedItem item, int order) {
        PMap<Given, Where> all = given;
        for (PlannedCue cue : item.cues().subList(order, item.cues().size())) {
            all = all.minus(Given.of(cue));
        }
        return new ItemProgress(itemId, nanos, suspended, all);
    }

    /** Where a cue was given, ns since the item began; {@link #BEFORE} or {@link #NOT_GIVEN}. */
    public long whereGiven(PlannedCue cue) {
        Where where = given.get(Given.of(cue));
        return where == null ? NOT_GIVEN : where.nanos;
    }

    /** How long the music had stood when a cue was given, ns; 0 while it went on, or where it was not given. */
    public long stoodWhenGiven(PlannedCue cue) {
        Where where = given.get(Given.of(cue));
        return where == null ? 0 : where.stoodNanos;
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public ItemProgress shifted(long by) {
        return itemId == 0 ? this : new ItemProgress(itemId, nanos + by, suspended.map(s -> s.shifted(by)), given);
    }
}
