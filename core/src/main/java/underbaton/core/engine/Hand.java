package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;

/**
 * What the operator's hand has done.
 *
 * @param moved whether the standby was chosen since the last GO, and did not come by playing on
 * @param goneNanos when GO was carried out last; {@code Long.MIN_VALUE} for never
 * @param askedNanos since when a GO waits for a second press
 * @param guard the guarded call that waits to be ordered once more
 * @param keys by hand cue, whether it was touched on or off last
 * @param holders by hand cue that works while it is held, the machine whose signal holds it
 * @param paces by item, the tempo of the day that was set for it, 1,000 being as written
 * @param pace that was set last, in whatever item
 * @param taps the moments of the last few taps of the tempo, the oldest first
 */
public record Hand(
        Manner manner,
        boolean moved,
        long goneNanos,
        OptionalLong askedNanos,
        Optional<Guard> guard,
        List<Long> taps,
        PMap<Integer, Boolean> keys,
        PMap<Integer, Integer> holders,
        PMap<Integer, Integer> paces,
        int pace) {

    /** Further apart than this, taps are not of one tempo: 30 a minute. */
    private static final long TAPS_APART_NANOS = 2_000_000_000L;

    /** Nearer than this, they are one: a bouncing contact, or two listeners that took the same signal. */
    private static final long ONE_TAP_NANOS = 50_000_000L;

    private static final int MOST_TAPS = 5;

    /** How long the second act of a guarded call is waited for. */
    public static final long GUARD_NANOS = 3_000_000_000L;

    /** A guarded call that was ordered once. */
    public record Guard(int deviceId, int phraseId, long nanos) {}

    static final Hand FIRST = new Hand(
            Manner.PLAIN,
            false,
            Long.MIN_VALUE,
            OptionalLong.empty(),
            Optional.empty(),
            List.of(),
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            Anchor.AS_WRITTEN);

    Hand with(Manner newManner) {
        return new Hand(newManner, moved, goneNanos, askedNanos, guard, taps, keys, holders, paces, pace);
    }

    Hand movedTo(boolean newMoved) {
        return new Hand(manner, newMoved, goneNanos, OptionalLong.empty(), guard, taps, keys, holders, paces, pace);
    }

    Hand asked(long nanos) {
        return new Hand(manner, moved, goneNanos, OptionalLong.of(nanos), guard, taps, keys, holders, paces, pace);
    }

    Hand gone(long nanos) {
        return new Hand(manner, false, nanos, OptionalLong.empty(), guard, taps, keys, holders, paces, pace);
    }

    /** Whether a GO waits for its second press. */
    public boolean waitsAt(long nanos) {
        return askedNanos.isPresent() && nanos - askedNanos.getAsLong() <= Manner.PATIENCE_NANOS;
    }

    Hand guardAsked(int deviceId, int phraseId, long nanos) {
        Guard asked = new Guard(deviceId, phraseId, nanos);
        return new Hand(manner, moved, goneNanos, askedNanos, Optional.of(asked), taps, keys, holders, paces, pace);
    }

    Hand guardDone() {
        return new Hand(manner, moved, goneNanos, askedNanos, Optional.empty(), taps, keys, holders, paces, pace);
    }

    /** Whether a guarded call was ordered once, and waits for its second act. */
    public boolean guardWaitsAt(int deviceId, int phraseId, long nanos) {
        return guard.filter(g -> g.deviceId == deviceId && g.phraseId == phraseId && nanos - g.nanos <= GUARD_NANOS)
                .isPresent();
    }

    Hand keyed(int keyId, boolean on) {
        return new Hand(
                manner,
                moved,
                goneNanos,
                askedNanos,
                guard,
                taps,
                keys.plus(keyId, on),
                holders.minus(keyId),
                paces,
                pace);
    }

    /** A key is held by somebody who plays a machine. */
    Hand heldBy(int keyId, int deviceId) {
        return new Hand(
                manner, moved, goneNanos, askedNanos, guard, taps, keys, holders.plus(keyId, deviceId), paces, pace);
    }

    /** Whether a guarded hand cue was touched once, and waits for its second touch. */
    public boolean keyWaitsAt(int keyId, long nanos) {
        return guardWaitsAt(Touching.A_KEY, keyId, nanos);
    }

    Hand tapped(long nanos) {
        if (!taps.isEmpty() && nanos - taps.get(taps.size() - 1) < ONE_TAP_NANOS) {
            return this;
        }
        boolean anew = taps.isEmpty() || nanos - taps.get(taps.size() - 1) > TAPS_APART_NANOS;
        List<Long> all = new ArrayList<>(anew ? List.of() : taps);
        all.add(nanos);
        List<Long> last = List.copyOf(all.subList(Math.max(0, all.size() - MOST_TAPS), all.size()));
        return new Hand(manner, moved, goneNanos, askedNanos, guard, last, keys, holders, paces, pace);
    }

    /** How long a beat lasts as it is tapped; empty before the second tap. */
    OptionalLong tappedBeat() {
        return taps.size() < 2
                ? OptionalLong.empty()
                : OptionalLong.of((taps.get(taps.size() - 1) - taps.get(0)) / (taps.size() - 1));
    }

    /** The music of an item goes so fast from now on. */
    Hand paced(int itemId, int permille) {
        return new Hand(
                manner,
                moved,
                goneNanos,
                askedNanos,
                guard,
                taps,
                keys,
                holders,
                paces.plus(itemId, permille),
                permille);
    }

    /** How fast an item's music goes when it begins: as it was set for it, or, if the operator keeps it for the night, as it was set last. */
    int paceOf(int itemId) {
        return paces.getOrDefault(itemId, manner.keepsPace() ? pace : Anchor.AS_WRITTEN);
    }

    /** Whether another GO at a moment would come too soon to be meant. */
    boolean isSoon(long nanos) {
        return goneNanos != Long.MIN_VALUE && nanos - goneNanos < manner.againNanos();
    }

    Hand shifted(long nanos) {
        return new Hand(
                manner,
                moved,
                goneNanos == Long.MIN_VALUE ? goneNanos : goneNanos + nanos,
                askedNanos.isPresent() ? OptionalLong.of(askedNanos.getAsLong() + nanos) : askedNanos,
                guard.map(g -> new Guard(g.deviceId, g.phraseId, g.nanos + nanos)),
                List.of(),
                keys,
                holders,
                paces,
                pace);
    }
}
