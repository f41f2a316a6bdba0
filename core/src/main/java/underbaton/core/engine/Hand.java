package underbaton.core.engine;

import java.util.Optional;
import java.util.OptionalLong;

/**
 * What the operator's hand has done.
 *
 * @param moved whether the standby was chosen since the last GO, and did not come by playing on
 * @param goneNanos when GO was carried out last; {@code Long.MIN_VALUE} for never
 * @param askedNanos since when a GO waits for a second press
 * @param guard the guarded call that waits to be ordered once more
 */
public record Hand(Manner manner, boolean moved, long goneNanos, OptionalLong askedNanos, Optional<Guard> guard) {

    /** How long the second act of a guarded call is waited for. */
    static final long GUARD_NANOS = 3_000_000_000L;

    /** A guarded call that was ordered once. */
    public record Guard(int deviceId, int phraseId, long nanos) {}

    static final Hand FIRST = new Hand(Manner.PLAIN, false, Long.MIN_VALUE, OptionalLong.empty(), Optional.empty());

    Hand with(Manner newManner) {
        return new Hand(newManner, moved, goneNanos, askedNanos, guard);
    }

    Hand movedTo(boolean newMoved) {
        return new Hand(manner, newMoved, goneNanos, OptionalLong.empty(), guard);
    }

    Hand asked(long nanos) {
        return new Hand(manner, moved, goneNanos, OptionalLong.of(nanos), guard);
    }

    Hand gone(long nanos) {
        return new Hand(manner, false, nanos, OptionalLong.empty(), guard);
    }

    /** Whether a GO waits for its second press. */
    public boolean waitsAt(long nanos) {
        return askedNanos.isPresent() && nanos - askedNanos.getAsLong() <= Manner.PATIENCE_NANOS;
    }

    Hand guardAsked(int deviceId, int phraseId, long nanos) {
        Guard asked = new Guard(deviceId, phraseId, nanos);
        return new Hand(manner, moved, goneNanos, askedNanos, Optional.of(asked));
    }

    Hand guardDone() {
        return new Hand(manner, moved, goneNanos, askedNanos, Optional.empty());
    }

    /** Whether a guarded call was ordered once, and waits for its second act. */
    public boolean guardWaitsAt(int deviceId, int phraseId, long nanos) {
        return guard.filter(g -> g.deviceId == deviceId && g.phraseId == phraseId && nanos - g.nanos <= GUARD_NANOS)
                .isPresent();
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
                guard.map(g -> new Guard(g.deviceId, g.phraseId, g.nanos + nanos)));
    }
}
