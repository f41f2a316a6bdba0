package underbaton.core.engine.light;

import java.util.Map;
import java.util.Optional;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.cue.HandKey;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.ear.Listeners;
import underbaton.core.engine.key.HandCues;
import underbaton.core.engine.key.KeyLight;
import underbaton.core.engine.music.MusicState;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.operator.OperatorInput;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.rig.Device;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.score.Anchor;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.PadLight;
import underbaton.core.signal.Reaction;

/**
 * The lights of pads and surfaces, once a step is done: whatever has changed by it is told to them. A pad that was away is told anew. Not
 * thread-safe, used once.
 */
public final class PadLights {

    private final StepContext step;
    private final Operator operator;
    private final Devices devices;
    private final Outgoing out;
    private final Calls calls;
    private final HandCues keys;
    private final Listeners listeners;
    private PMap<Integer, Lit> lit;
    private boolean dark;

    /** Made anew for each step, of the parts that it asks. */
    public PadLights(
            StepContext step,
            Operator operator,
            Devices devices,
            Outgoing out,
            Calls calls,
            HandCues keys,
            Listeners listeners,
            LightState before) {
        this.step = step;
        this.operator = operator;
        this.devices = devices;
        this.out = out;
        this.calls = calls;
        this.keys = keys;
        this.listeners = listeners;
        this.lit = before.lit();
        this.dark = before.dark();
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public LightState state() {
        return new LightState(lit, dark);
    }

    // ---- telling

    /** All that is otherwise than it was told is told. */
    public void show(MusicState music) {
        if (dark || step.isDryRun() || step.plan().lights().isEmpty() && lit.isEmpty()) {
            return;
        }
        for (Map.Entry<Integer, Lit> each : lit.entrySet()) {
            if (light(each.getKey())
                    .filter(l -> l.deviceId() == each.getValue().deviceId())
                    .isEmpty()) {
                say(each.getValue().deviceId(), each.getValue().offId());
                lit = lit.minus(each.getKey());
            }
        }
        for (Listener listener : step.plan().lights()) {
            PadLight light = listener.light().orElseThrow();
            if (!devices.hears(light.deviceId())) {
                lit = lit.minus(listener.id());
                continue;
            }
            int phrase = light.phrase(state(listener, music));
            Lit before = lit.get(listener.id());
            if (before == null || before.phraseId() != phrase) {
                say(light.deviceId(), phrase);
                lit = lit.plus(listener.id(), new Lit(light.deviceId(), phrase, light.off()));
            }
        }
    }

    private Optional<PadLight> light(int listenerId) {
        return step.plan().lights().stream()
                .filter(l -> l.id() == listenerId)
                .findFirst()
                .flatMap(Listener::light);
    }

    /** They are dark from now on. */
    public void dark() {
        lit.forEach((id, last) -> {
            if (last.phraseId() != last.offId()) {
                say(last.deviceId(), last.offId());
            }
        });
        lit = HashTreePMap.empty();
        dark = true;
    }

    /** Played rather than called: a hand on the pad may say the very same the next moment, and is no echo. */
    private void say(int deviceId, int phraseId) {
        Optional<Device> device = step.plan().device(deviceId);
        Cause cause = Cause.outside("light", step.now());
        device.flatMap(d -> d.phrase(phraseId)).ifPresent(phrase -> {
            for (Timed timed : PlannedCall.of(device.get(), phrase).messages()) {
                if (timed.atMs() == 0) {
                    out.play(deviceId, timed.message(), cause);
                } else {
                    calls.sendAt(step.now() + timed.atMs() * 1_000_000L, deviceId, timed.message(), cause);
                }
            }
        });
    }

    // ---- what they show

    private PadLight.State state(Listener listener, MusicState music) {
        if (waits(new Guarded.AListener(listener.id()))) {
            return PadLight.State.ASKS;
        }
        Reaction reaction = listener.reaction();
        if (reaction instanceof Reaction.Give give) {
            return deed(give.deed(), music);
        } else if (reaction instanceof Reaction.ToCue to) {
            boolean last =
                    music.last().filter(f -> f.cue().cueId() == to.cueId()).isPresent();
            return onOr(last, standsBy(music, to.cueId()));
        } else if (reaction instanceof Reaction.Play play) {
            boolean plays = music.playing()
                    .filter(p -> p.item().item().id() == play.itemId())
                    .isPresent();
            return onOr(plays, itemStandsBy(music, play.itemId()));
        } else if (reaction instanceof Reaction.Fire fire) {
            return waits(new Guarded.APhrase(fire.deviceId(), fire.phraseId()))
                    ? PadLight.State.ASKS
                    : onOr(isOn(fire), false);
        } else if (reaction instanceof Reaction.Hand hand) {
            return waits(new Guarded.AHandCue(hand.keyId())) ? PadLight.State.ASKS : onOr(isOn(hand.keyId()), false);
        } else if (reaction instanceof Reaction.Arm arm) {
            return onOr(
                    step.plan().listeners().stream()
                            .filter(l -> arm.listenerIds().contains(l.id()))
                            .allMatch(l -> listeners.isArmed(l) == arm.listens()),
                    false);
        }
        return PadLight.State.OFF;
    }

    private static PadLight.State onOr(boolean on, boolean standby) {
        return on ? PadLight.State.ON : standby ? PadLight.State.STANDBY : PadLight.State.OFF;
    }

    private boolean waits(Guarded what) {
        return operator.state().waitsAt(what, step.now());
    }

    private PadLight.State deed(Deed deed, MusicState music) {
        Optional<Playing> playing = music.playing();
        boolean paused = playing.filter(Playing::paused).isPresent();
        return switch (deed) {
            case GO ->
                operator.state().waitsAt(step.now())
                        ? PadLight.State.ASKS
                        : onOr(false, music.standby() < step.plan().cues().size());
            case PAUSE, HOLD -> onOr(paused, false);
            case RESUME -> onOr(false, paused);
            case RELEASE ->
                onOr(false, playing.filter(p -> p.vamping() && !p.released()).isPresent());
            case STOP_ALL -> onOr(music.stopped(), false);
            case AS_WRITTEN ->
                onOr(
                        playing.filter(p -> p.anchor().permille() == Anchor.AS_WRITTEN)
                                .isPresent(),
                        false);
            case BACK, NEXT, CUE_BEFORE, FOLLOW, TAP, FASTER, SLOWER, EARLIER, LATER -> PadLight.State.OFF;
        };
    }

    private boolean standsBy(MusicState music, int cueId) {
        Plan plan = step.plan();
        return cueId != 0
                && music.standby() < plan.cues().size()
                && plan.cues().get(music.standby()).cueId() == cueId;
    }

    private boolean itemStandsBy(MusicState music, int itemId) {
        Plan plan = step.plan();
        return music.standby() < plan.cues().size()
                && plan.cues().get(music.standby()).item().id() == itemId;
    }

    private boolean isOn(Reaction.Fire fire) {
        return devices.of(fire.deviceId()).slots().stream()
                .anyMatch(s -> s.call().phraseId() == fire.phraseId() && (s.holds() || s.runsAt(step.now())));
    }

    private boolean isOn(int keyId) {
        Optional<PlannedKey> key = step.plan().key(keyId);
        return key.filter(k -> k.key().way() == HandKey.Way.HELD).isPresent()
                ? keys.isHeld(keyId)
                : key.filter(k -> keys.light(k) == KeyLight.ON).isPresent();
    }

    // ---- what time brings

    /** When one of them changes though nothing is done: a second act has been waited for, or what ran has come to its end. */
    public long nextNanos() {
        if (dark || step.isDryRun() || lit.isEmpty()) {
            return StepContext.NEVER;
        }
        long next = operator.state()
                .firstAct()
                .map(a -> a.nanos() + OperatorInput.GUARD_NANOS + 1)
                .filter(n -> n > step.now())
                .orElse(StepContext.NEVER);
        for (Listener listener : step.plan().lights()) {
            if (listener.reaction() instanceof Reaction.Fire fire) {
                next = Math.min(next, ends(fire.deviceId()));
            } else if (listener.reaction() instanceof Reaction.Hand hand) {
                next = Math.min(
                        next,
                        step.plan().key(hand.keyId()).stream()
                                .flatMap(PlannedKey::all)
                                .mapToLong(c -> ends(c.deviceId()))
                                .min()
                                .orElse(StepContext.NEVER));
            }
        }
        return next;
    }

    /** When something that runs on a machine for a while is over. */
    private long ends(int deviceId) {
        long next = StepContext.NEVER;
        for (Slot slot : devices.of(deviceId).slots()) {
            long lasts = slot.call().effect().amount() * 1_000_000_000L;
            long end = slot.sinceNanos() + lasts;
            next = slot.starts() && lasts > 0 && end > step.now() ? Math.min(next, end) : next;
        }
        return next;
    }
}
