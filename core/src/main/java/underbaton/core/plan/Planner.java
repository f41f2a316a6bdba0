package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/** The dry run: a pure function from a show to what it will send. */
public final class Planner {

    private final Map<Integer, Device> devices = new HashMap<>();
    private final Map<Long, PlannedCall> calls = new HashMap<>();

    private Planner(Show show) {
        for (Device device : show.devices()) {
            devices.put(device.id(), device);
            for (Phrase phrase : device.phrases()) {
                calls.put(key(device.id(), phrase.id()), PlannedCall.of(device, phrase));
            }
        }
    }

    public static Plan plan(Show show) {
        Planner planner = new Planner(show);
        List<PlannedCue> cues = new ArrayList<>();
        for (Item item : show.items()) {
            for (Cue cue : item.cues()) {
                cues.add(planner.planned(item, cue));
            }
        }
        return new Plan(cues, planner.resting());
    }

    private PlannedCue planned(Item item, Cue cue) {
        List<PlannedCall> planned = cue.calls().stream()
                .flatMap(c -> Stream.ofNullable(calls.get(key(c.deviceId(), c.phraseId()))))
                .toList();
        return new PlannedCue(cue.id(), cue.number(), cue.what(), cue.start(), item, planned);
    }

    private Map<Integer, PlannedCall> resting() {
        Map<Integer, PlannedCall> resting = new HashMap<>();
        devices.values()
                .forEach(d -> d.restingPhrase().ifPresent(p -> resting.put(d.id(), calls.get(key(d.id(), p.id())))));
        return resting;
    }

    private static long key(int deviceId, int phraseId) {
        return (long) deviceId << 32 | phraseId;
    }
}
