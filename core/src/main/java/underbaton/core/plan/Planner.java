package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/** The dry run: a pure function from a show to what it will send. */
public final class Planner {

    private final Map<Integer, Device> devices = new HashMap<>();
    private final Map<Call, PlannedCall> calls = new HashMap<>();

    private Planner(Show show) {
        for (Device device : show.devices()) {
            devices.put(device.id(), device);
        }
    }

    public static Plan plan(Show show) {
        Planner planner = new Planner(show);
        List<PlannedCue> cues = new ArrayList<>();
        for (Item item : show.items()) {
            Optional<Score.Times> times = item.score().map(Score::read);
            for (Cue cue : item.cues()) {
                cues.add(planner.planned(item, times, cue));
            }
        }
        return new Plan(cues, planner.resting());
    }

    private PlannedCue planned(Item item, Optional<Score.Times> times, Cue cue) {
        List<PlannedCall> planned =
                cue.calls().stream().flatMap(c -> planned(c).stream()).toList();
        return new PlannedCue(cue.id(), cue.number(), cue.what(), cue.start(), atNanos(times, cue), item, planned);
    }

    private static OptionalLong atNanos(Optional<Score.Times> times, Cue cue) {
        if (times.isEmpty() || !(cue.start() instanceof Start.AtPosition at)) {
            return OptionalLong.empty();
        }
        try {
            long nanos = times.get().nanos(at.position()) + at.offsetMs() * 1_000_000L;
            return OptionalLong.of(Math.max(0, nanos));
        } catch (Refusal noSuchBeat) {
            // The score was changed under it; the cue waits for GO then.
            return OptionalLong.empty();
        }
    }

    /** Equal calls are worked out once; a call of a phrase that is gone is left out. */
    private Optional<PlannedCall> planned(Call call) {
        return Optional.ofNullable(calls.computeIfAbsent(call, c -> Optional.ofNullable(devices.get(c.deviceId()))
                .flatMap(d -> d.phrase(c.phraseId()).map(p -> PlannedCall.of(d, p, c.amount())))
                .orElse(null)));
    }

    private Map<Integer, PlannedCall> resting() {
        Map<Integer, PlannedCall> resting = new HashMap<>();
        devices.values().forEach(d -> d.restingPhrase().ifPresent(p -> resting.put(d.id(), PlannedCall.of(d, p))));
        return resting;
    }
}
