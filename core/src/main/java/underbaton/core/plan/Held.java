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
 */
public record Held(List<Map<Integer, PlannedCall>> states) {

    public static Held in(Plan plan) {
        List<Map<Integer, PlannedCall>> states = new ArrayList<>(plan.cues().size());
        Map<Integer, List<PlannedCall>> slots = new HashMap<>();
        for (PlannedCue cue : plan.cues()) {
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
        return new Held(states);
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
