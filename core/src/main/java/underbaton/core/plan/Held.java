package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.rig.Effect;

/**
 * What every device is doing at every cue when the book is played from the top: the ties of the Book.
 *
 * @param states one map a cue, in the plan's order: device id to the call whose state the device is in after that cue
 */
public record Held(List<Map<Integer, PlannedCall>> states) {

    public static Held in(Plan plan) {
        List<Map<Integer, PlannedCall>> states = new ArrayList<>(plan.cues().size());
        Map<Integer, PlannedCall> now = new HashMap<>();
        for (PlannedCue cue : plan.cues()) {
            for (PlannedCall call : cue.calls()) {
                if (call.effect().lasts()) {
                    now.put(call.deviceId(), call);
                } else if (call.effect() == Effect.STOPS) {
                    now.remove(call.deviceId());
                }
            }
            states.add(Map.copyOf(now));
        }
        return new Held(states);
    }
}
