package underbaton.core.engine.key;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.HandKey;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.device.Slot;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.rig.Control;

/** What a hand cue's key shows: whether the machines are as it makes them, whoever made them so. */
public enum KeyLight {
    ON,
    OFF,
    /** Nobody has told the machines yet, or what it calls leaves no trace. */
    UNKNOWN;

    /**
     * By what the machines were told; where that says nothing, by what was touched last.
     *
     * @param touched by hand cue, whether it was touched on or off last
     * @param nanos the moment, by the clock of the events
     */
    public static KeyLight of(PlannedKey key, DeviceStates told, Map<Integer, Boolean> touched, long nanos) {
        return new Look(told, nanos).of(key, touched.get(key.id()));
    }

    /** What the machines were told, by a moment. */
    private record Look(DeviceStates told, long nanos) {

        private KeyLight of(PlannedKey key, Boolean touched) {
            Boolean on = allSo(key.on());
            if (Boolean.TRUE.equals(on)) {
                return ON;
            }
            Boolean off = allSo(key.off());
            if (Boolean.TRUE.equals(off) || on != null) {
                return OFF;
            }
            boolean leavesNoTrace = key.all().noneMatch(Look::leavesTrace);
            if (touched == null || !leavesNoTrace || key.key().way() == HandKey.Way.PRESS) {
                return UNKNOWN;
            }
            return touched ? ON : OFF;
        }

        /** @return null when nothing is known of any of them */
        private Boolean allSo(List<PlannedCall> calls) {
            Boolean all = null;
            for (PlannedCall call : calls) {
                Boolean so = leavesTrace(call) ? isSo(call) : null;
                if (so != null) {
                    all = (all == null || all) && so;
                }
            }
            return all;
        }

        private static boolean leavesTrace(PlannedCall call) {
            return switch (call.effect().kind()) {
                case HOLDS, STARTS, STOPS -> true;
                case LEVELS -> !call.levels().isEmpty() || call.motion().isPresent();
                case MOMENT, STEPS, SETS -> false;
            };
        }

        private Boolean isSo(PlannedCall call) {
            return switch (call.effect().kind()) {
                case HOLDS, STARTS -> holds(call);
                case STOPS -> stopped(call);
                default -> level(call);
            };
        }

        private Boolean holds(PlannedCall call) {
            DeviceState device = told.device(call.deviceId());
            Optional<Slot> slot = device.slot(Slot.key(call.effect()));
            return slot.map(s -> s.call().phraseId() == call.phraseId()
                            && s.call().messages().equals(call.messages())
                            && (s.holds() || s.runsAt(nanos)))
                    .orElse(device.slot("").filter(Slot::stopped).isPresent() ? Boolean.FALSE : null);
        }

        private Boolean stopped(PlannedCall call) {
            List<Slot> slots = told.device(call.deviceId()).slots();
            String name = Slot.key(call.effect());
            List<Slot> meant = slots.stream()
                    .filter(s -> name.isEmpty() || s.name().equals(name))
                    .toList();
            return meant.isEmpty() ? null : meant.stream().allMatch(Slot::stopped);
        }

        private Boolean level(PlannedCall call) {
            if (call.motion().isPresent()) {
                PlannedMotion motion = call.motion().get();
                Level known = told.levels().get(motion.control());
                Level rests = motion.level(motion.argument().exact(motion.target(), motion.levels()));
                return known == null ? null : known.isAlso(rests);
            }
            for (Map.Entry<Control, Level> each : call.levels().entrySet()) {
                Level known = told.levels().get(each.getKey());
                if (known == null) {
                    return null;
                }
                if (!known.isAlso(each.getValue())) {
                    return false;
                }
            }
            return true;
        }
    }
}
