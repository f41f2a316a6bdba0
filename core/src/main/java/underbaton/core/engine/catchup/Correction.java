package underbaton.core.engine.catchup;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.move.Move;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Control;

/**
 * Something on a device that is not as the book says, and what makes it right.
 *
 * @param key what it is about, the same however often the difference is worked out
 * @param has how the device is, as far as it was told, in words; empty when nobody knows
 * @param wants how the book says it should be, in words
 * @param calls what makes it right, in this order; none where the move alone does, or nothing can
 * @param goesOn the move that goes on from where it should be
 * @param guarded whether one of the calls needs a deliberate act of its own
 */
public record Correction(
        Key key, String has, String wants, List<PlannedCall> calls, Optional<Move> goesOn, boolean guarded) {

    /** What of a device is to be made right. */
    public enum Kind {
        SLOT,
        RUNS,
        LEVEL,
        PLACE
    }

    /** @param name of the slot or list, or the control's address */
    public record Key(int deviceId, Kind kind, String name) {

        /** What a call sets. */
        public static Set<Key> of(PlannedCall call) {
            Set<Key> keys = new HashSet<>();
            call.levels().keySet().forEach(c -> keys.add(level(c)));
            call.motion().ifPresent(m -> keys.add(level(m.control())));
            if (call.effect().takesASlot()) {
                String slot = Slot.key(call.effect());
                keys.add(new Key(call.deviceId(), Kind.SLOT, slot));
                keys.add(new Key(call.deviceId(), Kind.RUNS, slot));
            }
            return keys;
        }

        private static Key level(Control control) {
            return new Key(control.deviceId(), Kind.LEVEL, control.address());
        }
    }

    /** Whether the device can be made right from here. */
    public boolean isPossible() {
        return !calls.isEmpty() || goesOn.isPresent();
    }
}
