package underbaton.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Doubt;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Item;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Start;
import underbaton.core.midi.Message;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/** Works out items of one show: when their cues come, and what each device gets in which order. */
final class ItemPlanner {

    private final Map<Integer, Device> devices = new HashMap<>();
    /** Equal calls without motion or offset are worked out once. */
    private final Map<Call, PlannedCall> plain = new HashMap<>();

    ItemPlanner(List<Device> devices) {
        devices.forEach(d -> this.devices.put(d.id(), d));
    }

    PlannedItem planned(Item item) {
        Optional<Score.Times> times = item.score().map(Score::read);
        List<PlannedCue> own = own(item, times);
        Map<Integer, List<Call>> said = new HashMap<>();
        item.cues().forEach(c -> said.put(c.id(), c.calls()));
        Copies.Calls copied = (cueId, at) -> calls(said.get(cueId), times, at);
        List<PlannedCue> all =
                times.map(t -> new Copies(t, item, own, copied).among()).orElse(own);
        List<PlannedCue> cues = Settling.among(all, devices);
        return new PlannedItem(item, times, cues, timed(cues), PlannedItem.vamps(times));
    }

    /** A hand cue has no place in any score: beats of its offsets and fades last as without one. */
    PlannedKey planned(HandKey key) {
        return new PlannedKey(key, calls(key.on(), Optional.empty(), 0), calls(key.off(), Optional.empty(), 0));
    }

    private List<PlannedCue> own(Item item, Optional<Score.Times> times) {
        List<PlannedCue> planned = new ArrayList<>(item.cues().size());
        OptionalLong last = OptionalLong.empty();
        for (Cue cue : item.cues()) {
            last = atNanos(times, cue, last);
            planned.add(new PlannedCue(
                    cue.id(),
                    cue.number(),
                    cue.what(),
                    cue.start(),
                    last,
                    item,
                    calls(cue.calls(), times, last.orElse(0)),
                    ""));
        }
        return planned;
    }

    private static OptionalLong atNanos(Optional<Score.Times> times, Cue cue, OptionalLong before) {
        if (cue.start() instanceof Start.Landing landing) {
            try {
                return OptionalLong.of(Math.max(0, landing.nanos(times)));
            } catch (Refusal noSuchPlace) {
                // The score was changed under it; the cue waits for GO then.
                return OptionalLong.empty();
            }
        }
        if (before.isEmpty() || cue.start() instanceof Start.ByHand) {
            return OptionalLong.empty();
        }
        long delay = cue.start() instanceof Start.AfterPrevious after ? after.delayMs() * 1_000_000L : 0;
        return OptionalLong.of(before.getAsLong() + delay);
    }

    /** In the order in which each device gets them. */
    private List<PlannedCall> calls(List<Call> said, Optional<Score.Times> times, long at) {
        if (said.size() == 1) {
            return planned(said.get(0), times, at).map(List::of).orElse(List.of());
        }
        List<PlannedCall> calls = new ArrayList<>(said.size());
        said.forEach(c -> planned(c, times, at).ifPresent(calls::add));
        calls.sort(Comparator.comparingInt(c -> c.rank(devices.get(c.deviceId()))));
        return List.copyOf(calls);
    }

    /** A call of a phrase that is gone is left out. */
    private Optional<PlannedCall> planned(Call call, Optional<Score.Times> times, long cueNanos) {
        PlannedCall known = plain.get(call);
        if (known != null) {
            return Optional.of(known);
        }
        Device device = devices.get(call.deviceId());
        Optional<Phrase> phrase = device == null ? Optional.empty() : device.phrase(call.phraseId());
        // What was written for another unit than the phrase has by now is told as a doubt, and sends nothing.
        boolean fits = phrase.filter(p -> Doubt.fits(call, device, p)).isPresent();
        return phrase.filter(p -> fits).map(p -> {
            PlannedCall planned = PlannedCall.of(device, p, call.amount());
            boolean isPlain = call.motion().isEmpty() && call.offset().thousandths() == 0;
            if (isPlain) {
                plain.put(call, planned);
                return planned;
            }
            long after = call.offset().nanos(times, cueNanos);
            PlannedCall late = planned.after(after, call.tell(device));
            return motion(call, device, p, times, cueNanos + after)
                    .map(m -> late.moving(call, device, m))
                    .orElse(late);
        });
    }

    private static Optional<PlannedMotion> motion(
            Call call, Device device, Phrase phrase, Optional<Score.Times> times, long from) {
        Optional<Message> open = PlannedCall.open(device, phrase);
        if (open.isEmpty()
                || call.motion().isEmpty()
                || !(call.amount().orElse(null) instanceof Amount.Measure target)) {
            return Optional.empty();
        }
        Motion motion = call.motion().get();
        long lasts = motion instanceof Motion.Move m
                ? m.lasts().nanos(times, from)
                : ((Motion.Wave) motion).lasts().nanos(times, from);
        long period = motion instanceof Motion.Wave w ? Math.max(1, w.period().nanos(times, from)) : 0;
        Optional<PlannedCall> then = motion instanceof Motion.Move m
                ? device.phrase(m.thenPhraseId()).map(p -> PlannedCall.of(device, p))
                : Optional.empty();
        return Optional.of(new PlannedMotion(
                Control.of(device.id(), open.get()),
                motion,
                phrase.argument().orElseThrow(),
                device.levels(),
                open.get(),
                target.value(),
                lasts,
                period,
                then));
    }

    private static List<TimedCalls> timed(List<PlannedCue> cues) {
        List<TimedCalls> timed = new ArrayList<>();
        for (int i = 0; i < cues.size(); i++) {
            PlannedCue cue = cues.get(i);
            if (cue.atNanos().isPresent()) {
                add(timed, cue, i);
            }
        }
        timed.sort(null);
        return List.copyOf(timed);
    }

    /** One for the cue's own moment, and one for each other moment at which some of its calls must leave. */
    private static void add(List<TimedCalls> timed, PlannedCue cue, int order) {
        long at = cue.atNanos().getAsLong();
        List<PlannedCall> left = cue.calls();
        boolean struck = false;
        while (!left.isEmpty()) {
            PlannedCall first = left.get(0);
            List<PlannedCall> together = new ArrayList<>(left.size());
            List<PlannedCall> others = new ArrayList<>(left.size() - 1);
            for (PlannedCall call : left) {
                (leavesWith(call, first) ? together : others).add(call);
            }
            left = others;
            long leaves = at + first.leavesNanos();
            long heard = Math.max(0, at + first.afterNanos());
            boolean strikes = first.leavesNanos() == 0 && first.afterNanos() == 0;
            struck |= strikes;
            timed.add(new TimedCalls(Math.max(0, leaves), heard, Math.max(0, -leaves), order, cue, together, strikes));
        }
        if (!struck) {
            timed.add(new TimedCalls(at, at, 0, order, cue, List.of(), true));
        }
    }

    private static boolean leavesWith(PlannedCall one, PlannedCall other) {
        return one.leavesNanos() == other.leavesNanos() && one.afterNanos() == other.afterNanos();
    }
}
