package underbaton.core.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.HandKey;
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

    /** By what the machines were told; where that says nothing, by what was touched last. */
    public static KeyLight of(PlaybackState state, PlannedKey key) {
        Boolean on = allSo(state, key.on());
        if (Boolean.TRUE.equals(on)) {
            return ON;
        }
        Boolean off = allSo(state, key.off());
        if (Boolean.TRUE.equals(off) || on != null) {
            return OFF;
        }
        Boolean touched = state.hand().keys().get(key.id());
        boolean leavesNoTrace = key.all().noneMatch(KeyLight::leavesTrace);
        if (touched == null || !leavesNoTrace || key.key().way() == HandKey.Way.PRESS) {
            return UNKNOWN;
        }
        return touched ? ON : OFF;
    }

    /** @return null when nothing is known of any of them */
    private static Boolean allSo(PlaybackState state, List<PlannedCall> calls) {
        Boolean all = null;
        for (PlannedCall call : calls) {
            Boolean so = leavesTrace(call) ? isSo(state, call) : null;
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

    private static Boolean isSo(PlaybackState state, PlannedCall call) {
        return switch (call.effect().kind()) {
            case HOLDS, STARTS -> holds(state, call);
            case STOPS -> stopped(state, call);
            default -> level(state, call);
        };
    }

    private static Boolean holds(PlaybackState state, PlannedCall call) {
        DeviceState device = state.told().device(call.deviceId());
        Optional<Slot> slot = device.slot(Slot.key(call.effect()));
        return slot.map(s -> s.call().phraseId() == call.phraseId()
                        && s.call().messages().equals(call.messages())
                        && (s.holds() || s.runsAt(state.nowNanos())))
                .orElse(device.slot("").filter(Slot::stopped).isPresent() ? Boolean.FALSE : null);
    }

    private static Boolean stopped(PlaybackState state, PlannedCall call) {
        List<Slot> slots = state.told().device(call.deviceId()).slots();
        String name = Slot.key(call.effect());
        List<Slot> meant = slots.stream()
                .filter(s -> name.isEmpty() || s.name().equals(name))
                .toList();
        return meant.isEmpty() ? null : meant.stream().allMatch(Slot::stopped);
    }

    private static Boolean level(PlaybackState state, PlannedCall call) {
        if (call.motion().isPresent()) {
            PlannedMotion motion = call.motion().get();
            Level known = state.told().levels().get(motion.control());
            Level rests = motion.level(motion.argument().exact(motion.target(), motion.levels()));
            return known == null ? null : known.isAlso(rests);
        }
        for (Map.Entry<Control, Level> each : call.levels().entrySet()) {
            Level known = state.told().levels().get(each.getKey());
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
