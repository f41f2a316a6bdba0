package underbaton.core.engine.call;

import underbaton.core.engine.device.Slot;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Along;
import underbaton.core.rig.Control;
import underbaton.core.rig.Effect;

/** Whether one call sets what another one, or a move, would set. */
final class Overlap {

    private Overlap() {}

    /** Whether a call sets all that another one, which waits, would set. */
    static boolean setsTheSame(PlannedCall waits, PlannedCall call) {
        if (waits.deviceId() != call.deviceId()) {
            return false;
        }
        Effect.Kind kind = waits.effect().kind();
        if (kind == Effect.Kind.STEPS || kind == Effect.Kind.SETS) {
            boolean sets = call.effect().kind() == Effect.Kind.SETS && isOfSameName(waits, call);
            return sets || call.effect().takesAlong(Along.LISTS);
        }
        if (waits.effect().takesASlot()) {
            boolean all = call.effect().kind() == Effect.Kind.STOPS
                            && Slot.key(call.effect()).isEmpty()
                    || kind == Effect.Kind.HOLDS && call.effect().takesAlong(Along.LEVELS)
                    || kind == Effect.Kind.STARTS && call.effect().takesAlong(Along.RUNS);
            return call.effect().takesASlot() && (all || isOfSameName(waits, call));
        }
        return !waits.levels().isEmpty() && waits.levels().keySet().stream().allMatch(control -> sets(call, control));
    }

    static boolean sets(PlannedCall call, Control control) {
        return call.levels().containsKey(control)
                || call.motion().filter(m -> m.control().equals(control)).isPresent()
                || call.deviceId() == control.deviceId() && call.effect().takesAlong(Along.LEVELS);
    }

    /** Whether both speak of one slot, or of one list. */
    static boolean isOfSameName(PlannedCall one, PlannedCall other) {
        return Slot.key(one.effect()).equals(Slot.key(other.effect()));
    }
}
