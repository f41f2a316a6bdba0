package underbaton.core.engine.instep;

import java.util.Optional;
import underbaton.core.rig.InStep;
import underbaton.core.score.Anchor;
import underbaton.core.score.TempoMap;

/**
 * How far one machine was given the time. Immutable.
 *
 * @param how in which ways
 * @param itemId the item whose time it has; 0 when nothing plays, {@link #AWAY} while it cannot hear
 * @param tempi of that item, where it has a score
 * @param anchor of the music when it was told last
 * @param runs whether it was told to run
 * @param place where it was told to stand while it does not, ns of the music since the item began
 * @param beats of the clock; empty where it gets none, or the item has no score
 * @param frames of the code
 */
record Given(
        InStep how,
        int itemId,
        Optional<TempoMap> tempi,
        Anchor anchor,
        boolean runs,
        long place,
        Optional<Beats> beats,
        Frames frames) {

    /** It may be on as it was told last, whatever the music does. */
    static final int AWAY = -1;

    /** After a crash nobody knows whether it was told to run. */
    static Given unknown(InStep how) {
        Optional<Beats> beats = how.clock() ? Optional.of(new Beats(0, 0, false)) : Optional.empty();
        Anchor anchor = new Anchor(0, 0, Anchor.AS_WRITTEN);
        return new Given(how, AWAY, Optional.empty(), anchor, true, 0, beats, Frames.from(how.rate(), 0, 0));
    }

    /** From now on it cannot hear. */
    Given away() {
        return new Given(how, AWAY, tempi, anchor, runs, place, beats, frames);
    }

    boolean isAway() {
        return itemId == AWAY;
    }

    /** Nothing plays. */
    Given resting() {
        return new Given(how, 0, Optional.empty(), anchor, false, 0, Optional.empty(), frames);
    }

    Given standing(long at) {
        return new Given(how, itemId, tempi, anchor, false, at, Optional.empty(), frames);
    }

    Given with(Optional<Beats> newBeats, Frames newFrames) {
        return new Given(how, itemId, tempi, anchor, runs, place, newBeats, newFrames);
    }

    /** The same machine, which goes on by another anchor and other tempi. */
    Given by(Optional<TempoMap> newTempi, Anchor newAnchor) {
        return new Given(how, itemId, newTempi, newAnchor, runs, place, beats, frames);
    }

    /** When it is to be told something next, by the clock of the events; far away for never. */
    long nextNanos() {
        long next = Long.MAX_VALUE;
        if (isAway()) {
            return next;
        }
        if (runs && beats.isPresent()) {
            next = anchor.dueAt(beats.get().nextNanos(tempi.orElseThrow()));
        }
        if (runs && how.code()) {
            next = Math.min(next, anchor.dueAt(frames.nextNanos()));
        }
        return next;
    }

    Given shifted(long nanos) {
        return new Given(how, itemId, tempi, anchor.shifted(nanos), runs, place, beats, frames);
    }
}
