package underbaton.core.engine.catchup;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import underbaton.core.engine.device.Slot;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.StepList;

/** The shortest way from one place of a device's list to another, with the phrases that step through it or jump in it. */
final class Steps {

    /** Farther than any list; the search ends there. */
    private static final int FARTHEST = 2000;

    private final int last;
    private final List<PlannedCall> steps = new ArrayList<>();
    private final List<PlannedCall> jumps = new ArrayList<>();

    /** @param name of the list, in small letters */
    Steps(Device device, String name) {
        last = device.stepList(name).map(StepList::places).orElse(FARTHEST);
        for (Phrase phrase : device.phrases()) {
            Effect effect = phrase.effect();
            if (Slot.key(effect).equals(name) && !phrase.guarded()) {
                if (effect.kind() == Effect.Kind.STEPS) {
                    steps.add(PlannedCall.of(device, phrase));
                } else if (effect.kind() == Effect.Kind.SETS) {
                    jumps.add(PlannedCall.of(device, phrase));
                }
            }
        }
    }

    private record Reached(int from, PlannedCall by) {}

    /** @return none where no way leads there, as from a place that nobody knows without a jump */
    List<PlannedCall> way(OptionalInt from, int to) {
        Map<Integer, Reached> reached = new HashMap<>();
        Deque<Integer> next = new ArrayDeque<>();
        if (from.isPresent()) {
            reached.put(from.getAsInt(), new Reached(from.getAsInt(), null));
            next.add(from.getAsInt());
        }
        for (PlannedCall jump : jumps) {
            reach(from.orElse(0), jump.effect().amount(), jump, reached, next);
        }
        while (!next.isEmpty() && !reached.containsKey(to)) {
            int at = next.poll();
            for (PlannedCall step : steps) {
                reach(at, at + step.effect().amount(), step, reached, next);
            }
        }
        return reached.containsKey(to) ? back(to, reached) : List.of();
    }

    private void reach(int from, int to, PlannedCall by, Map<Integer, Reached> reached, Deque<Integer> next) {
        if (to >= StepList.FIRST && to <= last && !reached.containsKey(to)) {
            reached.put(to, new Reached(from, by));
            next.add(to);
        }
    }

    private List<PlannedCall> back(int to, Map<Integer, Reached> reached) {
        List<PlannedCall> way = new ArrayList<>();
        int at = to;
        while (reached.get(at).by() != null) {
            PlannedCall by = reached.get(at).by();
            way.add(0, by);
            if (by.effect().kind() == Effect.Kind.SETS) {
                break;
            }
            at = reached.get(at).from();
        }
        return way;
    }
}
