package underbaton.core.engine.operator;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.score.Anchor;

/**
 * What the operator's hand has done. Immutable.
 *
 * @param options how GO behaves
 * @param moved whether the standby was chosen since the last GO, and did not come by playing on
 * @param goneNanos when GO was carried out last; {@code Long.MIN_VALUE} for never
 * @param askedNanos since when a GO waits for a second press
 * @param firstAct of something guarded, which waits to be ordered once more
 * @param taps the moments of the last few taps of the tempo, the oldest first
 * @param paces by item, the tempo of the day that was set for it, 1,000 being as written
 * @param pace that was set last, in whatever item
 */
public record OperatorInput(
        GoOptions options,
        boolean moved,
        long goneNanos,
        OptionalLong askedNanos,
        Optional<FirstAct> firstAct,
        List<Long> taps,
        PMap<Integer, Integer> paces,
        int pace) {

    /** Further apart than this, taps are not of one tempo: 30 a minute. */
    private static final long TAPS_APART_NANOS = 2_000_000_000L;

    /** Nearer than this, they are one: a bouncing contact, or two listeners that took the same signal. */
    private static final long ONE_TAP_NANOS = 50_000_000L;

    private static final int MOST_TAPS = 5;

    /** How long the second act of something guarded is waited for. */
    public static final long GUARD_NANOS = 3_000_000_000L;

    /** Something that wants two acts. */
    public sealed interface Guarded {

        /** A phrase, fired on its own or by a signal. */
        record APhrase(int deviceId, int phraseId) implements Guarded {}

        /** A hand cue. */
        record AHandCue(int keyId) implements Guarded {}

        /** What a listener orders. */
        record AListener(int listenerId) implements Guarded {}
    }

    /** @param nanos when, by the clock of the events */
    public record FirstAct(Guarded of, long nanos) {}

    public static final OperatorInput FIRST = new OperatorInput(
            GoOptions.PLAIN,
            false,
            Long.MIN_VALUE,
            OptionalLong.empty(),
            Optional.empty(),
            List.of(),
            HashTreePMap.empty(),
            Anchor.AS_WRITTEN);

    /** From now on GO behaves so. */
    public OperatorInput with(GoOptions newOptions) {
        return new OperatorInput(newOptions, moved, goneNanos, askedNanos, firstAct, taps, paces, pace);
    }

    /** The standby was chosen, or has come by playing on; no GO waits any more. */
    public OperatorInput movedTo(boolean newMoved) {
        return new OperatorInput(options, newMoved, goneNanos, OptionalLong.empty(), firstAct, taps, paces, pace);
    }

    /** A GO waits for its second press. */
    OperatorInput asked(long nanos) {
        return new OperatorInput(options, moved, goneNanos, OptionalLong.of(nanos), firstAct, taps, paces, pace);
    }

    /** A GO is carried out. */
    OperatorInput gone(long nanos) {
        return new OperatorInput(options, false, nanos, OptionalLong.empty(), firstAct, taps, paces, pace);
    }

    /** As if GO had not been given. */
    OperatorInput withoutGo() {
        return new OperatorInput(options, moved, Long.MIN_VALUE, askedNanos, firstAct, taps, paces, pace);
    }

    /** Whether a GO waits for its second press. */
    public boolean waitsAt(long nanos) {
        return askedNanos.isPresent() && nanos - askedNanos.getAsLong() <= GoOptions.PATIENCE_NANOS;
    }

    /** Whether another GO at a moment would come too soon to be meant. */
    boolean isSoon(long nanos) {
        return goneNanos != Long.MIN_VALUE && nanos - goneNanos < options.againNanos();
    }

    OperatorInput with(Optional<FirstAct> act) {
        return new OperatorInput(options, moved, goneNanos, askedNanos, act, taps, paces, pace);
    }

    /** Whether something guarded was ordered once, and waits for its second act. */
    public boolean waitsAt(Guarded what, long nanos) {
        return firstAct.filter(a -> a.of.equals(what) && nanos - a.nanos <= GUARD_NANOS)
                .isPresent();
    }

    /** One beat of the tempo, as it is heard. */
    OperatorInput tapped(long nanos) {
        if (!taps.isEmpty() && nanos - taps.get(taps.size() - 1) < ONE_TAP_NANOS) {
            return this;
        }
        boolean anew = taps.isEmpty() || nanos - taps.get(taps.size() - 1) > TAPS_APART_NANOS;
        List<Long> all = new ArrayList<>(anew ? List.of() : taps);
        all.add(nanos);
        List<Long> last = List.copyOf(all.subList(Math.max(0, all.size() - MOST_TAPS), all.size()));
        return new OperatorInput(options, moved, goneNanos, askedNanos, firstAct, last, paces, pace);
    }

    /** How long a beat lasts as it is tapped, ns; empty before the second tap. */
    public OptionalLong tappedBeat() {
        return taps.size() < 2
                ? OptionalLong.empty()
                : OptionalLong.of((taps.get(taps.size() - 1) - taps.get(0)) / (taps.size() - 1));
    }

    /** The music of an item goes so fast from now on, 1,000 being as written. */
    public OperatorInput paced(int itemId, int permille) {
        return new OperatorInput(
                options, moved, goneNanos, askedNanos, firstAct, taps, paces.plus(itemId, permille), permille);
    }

    /** How fast an item's music goes when it begins: as it was set for it, or, if the operator keeps it for the night, as it was set last. */
    public int paceOf(int itemId) {
        return paces.getOrDefault(itemId, options.keepsPace() ? pace : Anchor.AS_WRITTEN);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public OperatorInput shifted(long nanos) {
        return new OperatorInput(
                options,
                moved,
                goneNanos == Long.MIN_VALUE ? goneNanos : goneNanos + nanos,
                askedNanos.isPresent() ? OptionalLong.of(askedNanos.getAsLong() + nanos) : askedNanos,
                firstAct.map(a -> new FirstAct(a.of, a.nanos + nanos)),
                List.of(),
                paces,
                pace);
    }
}
