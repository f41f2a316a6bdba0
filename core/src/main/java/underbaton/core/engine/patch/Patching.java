package underbaton.core.engine.patch;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.engine.device.LevelsNow;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Tone.Key;
import underbaton.core.engine.patch.Tone.Kind;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Repeats;
import underbaton.core.signal.Source;

/**
 * The patch bay while a step is taken: what is played on an input reaches the outputs of the patch set in use, and a change of the set
 * ends what sounds on lines that are closed: each note as often as it was begun, each pedal, and nothing that the new lines carry to
 * the same place. Not thread-safe, used once.
 */
public final class Patching {

    /** In a second: twice the thirty-second notes of a quarter = 240, which a machine may play. */
    private static final int MOST_OF_A_NOTE = 64;

    private final StepContext step;
    private final Operator operator;
    private final LevelsNow levels;
    private final Outgoing out;
    private final Sounds sounds;
    private Patched patched;
    /** What a set is loaded with though it is not kept. */
    private Optional<Wiring> tried = Optional.empty();

    /** Made anew for each step, of the parts that it asks. */
    public Patching(
            StepContext step, Operator operator, LevelsNow levels, Outgoing out, Sounds sounds, Patched before) {
        this.step = step;
        this.operator = operator;
        this.levels = levels;
        this.out = out;
        this.sounds = sounds;
        this.patched = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public Patched state() {
        return patched;
    }

    // ---- which set

    /** The patch set that a call names is in use from now on; calls to any other machine change nothing. */
    public void load(PlannedCall call, Cause why) {
        if (call.deviceId() != step.plan().patchBay()) {
            return;
        }
        step.plan()
                .device(call.deviceId())
                .flatMap(d -> d.phrase(call.phraseId()))
                .flatMap(Phrase::patch)
                .ifPresent(set -> use(call.phraseId(), tried.orElse(set.kept()), why));
    }

    /**
     * These lines are in use from now on, kept or not. The bay is told to have the set as if it had been called, so that the book's next
     * call of it loads what is kept.
     *
     * @param call makes the call of the set
     */
    public void tryOut(int setId, Wiring wiring, BiConsumer<PlannedCall, Cause> call) {
        Cause why = Cause.outside("patch: tried", step.now());
        if (setId == patched.setId()) {
            use(setId, wiring, why);
            return;
        }
        Device bay = step.plan().bay().orElse(null);
        Phrase set = bay == null ? null : bay.phrase(setId).orElse(null);
        if (set != null) {
            tried = Optional.of(wiring);
            call.accept(PlannedCall.of(bay, set), why);
            tried = Optional.empty();
        }
    }

    private void use(int setId, Wiring wiring, Cause why) {
        patched = patched.using(setId, wiring);
        closeLines(why);
        LocalControl.set(step, patched.wiring(), levels, out, why);
    }

    /** What the new lines do not carry to where it sounds is ended. */
    private void closeLines(Cause why) {
        for (Key hand : new ArrayList<>(sounds.state().places().keySet())) {
            if (hand.relayId() != 0) {
                continue;
            }
            List<Key> carried = carried(hand);
            for (Key place : sounds.state().placesOf(hand)) {
                if (!carried.contains(place)) {
                    sounds.letGo(hand, place, 0, why);
                }
            }
        }
    }

    /** Where a key that is held would sound by the lines in use. */
    private List<Key> carried(Key hand) {
        Key first = sounds.state().placesOf(hand).get(0);
        int value = sounds.state().at(first).holders().get(hand);
        return outputs(hand.deviceId(), hand.message(value)).stream()
                .flatMap(o -> o.place().stream())
                .toList();
    }

    /** After an edit: a set that was in use as it was kept is in use as it is kept now. @param before the sets before it */
    public void followEdit(List<Phrase> before) {
        int setId = patched.setId();
        Optional<Wiring> was = kept(before, setId);
        Optional<Wiring> is = kept(step.plan().patchPhrases(), setId);
        Wiring wanted = was.isPresent() && was.get().equals(patched.wiring()) && is.isPresent()
                ? is.get()
                : patched.wiring().among(id -> step.plan().device(id).isPresent());
        if (!wanted.equals(patched.wiring())) {
            use(setId, wanted, Cause.outside("patch: edited", step.now()));
        }
    }

    private static Optional<Wiring> kept(List<Phrase> sets, int setId) {
        return sets.stream().filter(p -> p.id() == setId).findFirst().map(p -> p.patch()
                .orElseThrow()
                .kept());
    }

    // ---- what is played

    /** @return in a few words where it went; nothing when it passed nowhere */
    public String play(Source source, Message message) {
        int from = source.deviceId();
        if (patched.setId() == 0 || from == Source.OTHERS) {
            return "";
        }
        Cause cause = Cause.outside("patch", step.now());
        if (!(message instanceof ChannelMessage played)) {
            return pass(from, message, cause);
        }
        if (message instanceof ControlChange mode && Controllers.isMode(mode.controller())) {
            end(from, mode, cause);
            return "";
        }
        Optional<Key> hand = Key.of(from, message);
        if (hand.isPresent() && Tone.isEnd(message)) {
            return end(hand.get(), message, cause);
        }
        Set<Output> outputs = patched.silenced().contains(from) ? Set.of() : outputs(from, played);
        if (!outputs.isEmpty() && goesRound(source, message)) {
            return "the patch has stopped it: it comes round";
        }
        for (Output output : outputs) {
            Optional<Phrase> guarded = step.plan().guardedSaying(output.deviceId(), output.message());
            if (guarded.isPresent() && !mayPass(output.deviceId(), guarded.get())) {
                return words(Stream.of(output.deviceId())) + ": “"
                        + guarded.get().name() + "”" + Operator.ONCE_MORE;
            }
            hand.ifPresentOrElse(
                    h -> sounds.begin(h, Tone.value(played), output.place().orElseThrow(), output.message(), cause),
                    () -> sounds.say(output.deviceId(), output.message(), cause));
        }
        return words(outputs.stream().map(Output::deviceId));
    }

    /** A clock, or an exclusive message: once to each machine, as it came. */
    private String pass(int from, Message message, Cause cause) {
        Set<Integer> to = new LinkedHashSet<>();
        for (PatchLine line : patched.wiring().lines()) {
            if (line.passes(from, message)) {
                to.add(line.to());
            }
        }
        for (int deviceId : to) {
            Optional<Phrase> guarded = step.plan().guardedSaying(deviceId, message);
            if (guarded.isPresent() && !mayPass(deviceId, guarded.get())) {
                return words(Stream.of(deviceId)) + ": “" + guarded.get().name() + "”" + Operator.ONCE_MORE;
            }
            out.play(deviceId, message, cause);
        }
        return words(to.stream());
    }

    /** What is guarded is guarded against a hand on a keyboard too. */
    private boolean mayPass(int deviceId, Phrase phrase) {
        return operator.mayDo(new Guarded.APhrase(deviceId, phrase.id()), true);
    }

    private String words(Stream<Integer> ids) {
        String names = ids.distinct()
                .map(id -> step.plan().device(id).map(Device::name).orElse("a machine that is gone"))
                .collect(Collectors.joining(", "));
        return names.isEmpty() ? "" : "through the patch to " + names;
    }

    /** A message for an output. */
    private record Output(int deviceId, ChannelMessage message) {

        /** Where it sounds, if it does not end by itself. */
        Optional<Key> place() {
            return Key.of(deviceId, message);
        }
    }

    /** Two lines that say the same to one output say it once. */
    private Set<Output> outputs(int from, Message message) {
        Set<Output> outputs = new LinkedHashSet<>();
        for (PatchLine line : patched.wiring().lines()) {
            if (line.from() == from) {
                line.carried(from, message).ifPresent(m -> outputs.add(new Output(line.to(), m)));
            }
        }
        return outputs;
    }

    /** What ends wherever it sounds, whatever the lines are now. */
    private String end(Key hand, Message message, Cause cause) {
        List<Key> places = sounds.state().placesOf(hand);
        int velocity = message instanceof NoteOff off ? off.velocity() : 0;
        places.forEach(place -> sounds.letGo(hand, place, velocity, cause));
        if (hand.kind() == Kind.NOTE) {
            return words(places.stream().map(Key::deviceId));
        }
        // A pedal that was up and is told so again says so too, as it would through a cable.
        Set<Output> outputs = outputs(hand.deviceId(), message);
        for (Output output : outputs) {
            Key place = output.place().orElseThrow();
            if (!places.contains(place) && !sounds.state().tones().containsKey(place)) {
                sounds.say(output.deviceId(), output.message(), cause);
            }
        }
        return words(outputs.stream().map(Output::deviceId));
    }

    /** Mode messages are not passed on, since they would end what others play; what they mean for this input is done. */
    private void end(int from, ControlChange mode, Cause cause) {
        boolean all = mode.controller() == Controllers.ALL_SOUND_OFF;
        for (Key hand : new ArrayList<>(sounds.state().places().keySet())) {
            boolean its = hand.relayId() == 0 && hand.deviceId() == from && hand.channel() == mode.channel();
            boolean ends = hand.kind() == Kind.NOTE
                    ? all || mode.controller() >= Controllers.ALL_NOTES_OFF
                    : all || mode.controller() == Controllers.RESET;
            if (its && ends) {
                sounds.state().placesOf(hand).forEach(place -> sounds.letGo(hand, place, 0, cause));
            }
        }
    }

    private boolean goesRound(Source source, Message message) {
        if (!(message instanceof NoteOn)) {
            return false;
        }
        Repeats repeats =
                patched.counts().getOrDefault(source.deviceId(), Repeats.NONE).with(message, step.now());
        patched = patched.counting(source.deviceId(), repeats);
        if (!repeats.exceed(MOST_OF_A_NOTE)) {
            return false;
        }
        patched = patched.silencing(source.deviceId());
        step.happens(
                new Happening.Looped(
                        "patch, from " + source.name(),
                        "stopped: it struck the same note as hard more than " + MOST_OF_A_NOTE
                                + " times in a second, so something sends it back; take that line away, then load the set again"));
        return true;
    }

    /** Every output in use is told to end all that it plays, for what we do not know of. */
    public void endAll(Cause cause) {
        Set<Key> told = new LinkedHashSet<>();
        for (PatchLine line : patched.wiring().lines()) {
            step.plan().device(line.to()).ifPresent(d -> {
                int channel = line.toChannel().orElse(line.fromChannel().orElse(d.channel()));
                told.add(new Key(d.id(), channel, Kind.PEDAL, Controllers.SUSTAIN));
            });
        }
        for (Key place : told) {
            sounds.say(place.deviceId(), place.end(0), cause);
            sounds.say(place.deviceId(), new ControlChange(place.channel(), Controllers.ALL_NOTES_OFF, 0), cause);
        }
    }
}
