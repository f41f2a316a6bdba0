package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.rig.Effect;

/**
 * What every device is doing at every cue when the book is played from the top: the ties of the Book.
 *
 * @param states one map a cue, in the plan's order: device id to the call whose state the device is in after that cue;
 *     the newest where several of its slots are taken. Cues between which nothing changes share one map.
 * @param places by cue id, the place in the plan's order
 */
public record Held(List<Map<Integer, PlannedCall>> states, Map<Integer, Integer> places) {

    /** What every device is doing after a cue itself, not its copies; nothing for a cue that is not there. */
    public Map<Integer, PlannedCall> at(int cueId) {
        Integer place = places.get(cueId);
        return place == null ? Map.of() : states.get(place);
    }

    public static Held in(Plan plan) {
        List<Map<Integer, PlannedCall>> states = new ArrayList<>(plan.cues().size());
        Map<Integer, List<PlannedCall>> slots = new HashMap<>();
        Map<Integer, Integer> places = new HashMap<>();
        Map<Integer, PlannedCall> newest = new HashMap<>();
        Map<Integer, PlannedCall> now = Map.of();
        for (PlannedCue cue : plan.cues()) {
            if (cue.copy().isEmpty()) {
                places.put(cue.cueId(), states.size());
            }
            boolean changed = false;
            for (PlannedCall call : cue.calls()) {
                List<PlannedCall> held = slots.computeIfAbsent(call.deviceId(), d -> new ArrayList<>());
                if (take(held, call)) {
                    changed = true;
                    if (held.isEmpty()) {
                        newest.remove(call.deviceId());
                    } else {
                        newest.put(call.deviceId(), held.get(held.size() - 1));
                    }
                }
            }
            if (changed) {
                now = Map.copyOf(newest);
            }
            states.add(now);
        }
        return new Held(states, places);
    }

    /** What stops with no name ends everything; what stops a named thing ends that. */
    private static boolean take(List<PlannedCall> held, PlannedCall call) {
        Effect effect = call.effect();
        if (effect.kind() == Effect.Kind.STOPS) {
            return held.removeIf(h -> effect.of().isEmpty() || h.effect().of().equalsIgnoreCase(effect.of()));
        }
        if (effect.lasts()) {
            held.removeIf(h -> h.effect().of().equalsIgnoreCase(effect.of()));
            return held.add(call);
        }
        return false;
    }
}
