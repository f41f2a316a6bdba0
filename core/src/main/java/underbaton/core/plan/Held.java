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
 *     the newest where several of its slots are taken
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
        for (PlannedCue cue : plan.cues()) {
            if (cue.copy().isEmpty()) {
                places.put(cue.cueId(), states.size());
            }
            for (PlannedCall call : cue.calls()) {
                take(slots.computeIfAbsent(call.deviceId(), d -> new ArrayList<>()), call);
            }
            Map<Integer, PlannedCall> now = new HashMap<>();
            slots.forEach((device, held) -> {
                if (!held.isEmpty()) {
                    now.put(device, held.get(held.size() - 1));
                }
            });
            states.add(Map.copyOf(now));
        }
        return new Held(states, places);
    }

    /** What stops with no name ends everything; what stops a named thing ends that. */
    private static void take(List<PlannedCall> held, PlannedCall call) {
        Effect effect = call.effect();
        if (effect.kind() == Effect.Kind.STOPS) {
            held.removeIf(h -> effect.of().isEmpty() || h.effect().of().equalsIgnoreCase(effect.of()));
        } else if (effect.lasts()) {
            held.removeIf(h -> h.effect().of().equalsIgnoreCase(effect.of()));
            held.add(call);
        }
    }
}
