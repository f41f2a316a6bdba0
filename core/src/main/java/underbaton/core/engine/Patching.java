package underbaton.core.engine;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.pcollections.PMap;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.engine.Tone.Key;
import underbaton.core.engine.Tone.Kind;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Passed;
import underbaton.core.signal.Source;

/**
 * What is played on an input reaches the outputs of the patch set in use, and a change of the set ends what sounds on lines that
 * are closed: each note as often as it was begun, each pedal, and nothing that the new lines carry to the same place.
 */
abstract class Patching extends Mending {

    private static final int ON = 127;

    /** In a second: twice the thirty-second notes of a quarter = 240, which a machine may play. */
    private static final int MOST_OF_A_NOTE = 64;

    private Cause cause;
    /** What a set is loaded with though it is not kept. */
    private Optional<Wiring> tried = Optional.empty();

    Patching(PlaybackState s) {
        super(s);
    }

    // ---- which set

    @Override
    void loadPatch(PlannedCall call, Cause why) {
        plan.device(call.deviceId())
                .flatMap(d -> d.phrase(call.phraseId()))
                .flatMap(Phrase::patch)
                .ifPresent(set -> use(call.phraseId(), tried.orElse(set.kept()), why));
    }

    /** The bay is told to have the set as if it had been called, so that the book's next call of it loads what is kept. */
    void tryOut(int setId, Wiring wiring) {
        Cause why = Cause.outside("patch: tried", now);
        if (setId == patched.setId()) {
            use(setId, wiring, why);
            return;
        }
        Device bay = plan.device(plan.patchBay()).orElse(null);
        Phrase set = bay == null ? null : bay.phrase(setId).orElse(null);
        if (set != null) {
            tried = Optional.of(wiring);
            make(PlannedCall.of(bay, set), now, now, why, false);
            tried = Optional.empty();
        }
    }

    /** From now on these lines are in use. */
    void use(int setId, Wiring wiring, Cause why) {
        cause = why;
        patched = patched.using(setId, wiring);
        closeLines();
        setLocalControl(why);
    }

    /** What the new lines do not carry to where it sounds is ended. */
    private void closeLines() {
        for (Key hand : new ArrayList<>(sounding.places().keySet())) {
            if (hand.relayId() != 0) {
                continue;
            }
            List<Key> carried = carried(hand);
            for (Key place : sounding.placesOf(hand)) {
                if (!carried.contains(place)) {
                    letGo(hand, place, 0);
                }
            }
        }
    }

    /** Where a key that is held would sound by the lines in use. */
    private List<Key> carried(Key hand) {
        Key first = sounding.placesOf(hand).get(0);
        int value = sounding.at(first).holders().get(hand);
        return outputs(hand.deviceId(), message(hand, value)).stream()
                .map(Patching::key)
                .flatMap(Optional::stream)
                .toList();
    }

    /** Keyboards of which any set speaks play their own sounds, or only through us. */
    private void setLocalControl(Cause why) {
        Set<Integer> spokenOf = new TreeSet<>(patched.wiring().localOff());
        plan.patchSets().forEach(s -> spokenOf.addAll(s.kept().localOff()));
        for (int id : spokenOf) {
            Device keyboard = plan.device(id).orElse(null);
            if (keyboard == null) {
                continue;
            }
            int value = patched.wiring().localOff().contains(id) ? 0 : ON;
            ControlChange says = new ControlChange(keyboard.channel(), Controllers.LOCAL_CONTROL, value);
            Control control = localControl(keyboard);
            Level known = levels.get(control);
            if (known == null || known.value() != value) {
                emit(id, says, now, now, why, false);
                levels.put(control, new Level(value, says, Optional.empty(), keyboard.levels(), false));
            }
        }
    }

    static Control localControl(Device keyboard) {
        return Control.of(keyboard.id(), new ControlChange(keyboard.channel(), Controllers.LOCAL_CONTROL, 0));
    }

    /** After an edit: a set that was in use as it was kept is in use as it is kept now. */
    void followEdit(List<Phrase> before) {
        int setId = patched.setId();
        Optional<Wiring> was = kept(before, setId);
        Optional<Wiring> is = kept(plan.patchPhrases(), setId);
        Wiring wanted = was.isPresent() && was.get().equals(patched.wiring()) && is.isPresent()
                ? is.get()
                : patched.wiring().among(id -> plan.device(id).isPresent());
        if (!wanted.equals(patched.wiring())) {
            use(setId, wanted, Cause.outside("patch: edited", now));
        }
    }

    private static Optional<Wiring> kept(List<Phrase> sets, int setId) {
        return sets.stream().filter(p -> p.id() == setId).findFirst().map(p -> p.patch()
                .orElseThrow()
                .kept());
    }

    // ---- what is played

    /** @return in a few words where it went; nothing when it passed nowhere */
    String play(Source source, Message message) {
        int from = source.deviceId();
        if (patched.setId() == 0 || from == Source.OTHERS || !(message instanceof ChannelMessage played)) {
            return "";
        }
        cause = Cause.outside("patch", now);
        if (message instanceof ControlChange mode && Controllers.isMode(mode.controller())) {
            return mode(from, mode);
        }
        Key hand = key(message).map(k -> of(k, from)).orElse(null);
        if (hand != null && isEnd(message)) {
            return end(hand, message);
        }
        List<Output> outputs = patched.silenced().contains(from) ? List.of() : outputs(from, played);
        if (!outputs.isEmpty() && goesRound(source, message)) {
            return "the patch has stopped it: it comes round";
        }
        for (Output output : outputs) {
            if (hand == null) {
                say(output.deviceId(), output.message());
            } else {
                begin(hand, played, output);
            }
        }
        return outputs.isEmpty()
                ? ""
                : "through the patch to " + names(outputs.stream().map(Output::deviceId));
    }

    private String names(Stream<Integer> ids) {
        return ids.distinct()
                .map(id -> plan.device(id).map(Device::name).orElse("a machine that is gone"))
                .collect(Collectors.joining(", "));
    }

    /** A message for an output. */
    private record Output(int deviceId, ChannelMessage message) {}

    /** Two lines that say the same to one output say it once. */
    private Set<Output> outputsOnce(int from, Message message) {
        Set<Output> outputs = new LinkedHashSet<>();
        for (PatchLine line : patched.wiring().lines()) {
            if (line.from() == from) {
                line.carried(from, message).ifPresent(m -> outputs.add(new Output(line.to(), m)));
            }
        }
        return outputs;
    }

    private List<Output> outputs(int from, Message message) {
        return List.copyOf(outputsOnce(from, message));
    }

    /** What begins, or goes on being held otherwise. */
    private void begin(Key hand, ChannelMessage played, Output output) {
        Key place = key(output).orElseThrow();
        Tone tone = sounding.at(place).heldBy(hand, value(played));
        boolean alone = tone.holders().size() == 1;
        int before = tone.said();
        int down = hand.kind() == Kind.PEDAL ? tone.most() : value(played);
        sounding = sounding.begun(hand, value(played), place, down);
        if (hand.kind() == Kind.NOTE || hand.kind() == Kind.BEND || alone || down != before) {
            say(place.deviceId(), hand.kind() == Kind.PEDAL ? message(place, down) : output.message());
        }
    }

    /** What ends wherever it sounds, whatever the lines are now. */
    private String end(Key hand, Message message) {
        List<Key> places = sounding.placesOf(hand);
        int velocity = message instanceof NoteOff off ? off.velocity() : 0;
        places.forEach(place -> letGo(hand, place, velocity));
        if (hand.kind() == Kind.NOTE) {
            return places.isEmpty()
                    ? ""
                    : "through the patch to " + names(places.stream().map(Key::deviceId));
        }
        // A pedal that was up and is told so again says so too, as it would through a cable.
        List<Output> outputs = outputs(hand.deviceId(), message);
        for (Output output : outputs) {
            Key place = key(output).orElseThrow();
            if (!places.contains(place) && !sounding.tones().containsKey(place)) {
                say(output.deviceId(), output.message());
            }
        }
        return outputs.isEmpty()
                ? ""
                : "through the patch to " + names(outputs.stream().map(Output::deviceId));
    }

    /** One hand less holds it; with the last it ends. */
    private void letGo(Key hand, Key place, int velocity) {
        Tone before = sounding.at(place);
        sounding = sounding.letGo(hand, place);
        Tone tone = sounding.at(place);
        if (tone.isFree()) {
            silence(place, before.begun(), velocity);
        } else if (place.kind() == Kind.PEDAL && tone.most() != tone.said()) {
            sounding = sounding.with(place, tone.told(tone.most()));
            say(place.deviceId(), message(place, tone.most()));
        }
    }

    private void silence(Key place, int begun, int velocity) {
        int times = place.kind() == Kind.NOTE ? begun : 1;
        for (int i = 0; i < times; i++) {
            say(place.deviceId(), endOf(place, velocity));
        }
        if (!isThere(place.deviceId())) {
            sounding = sounding.owing(List.of(place));
        }
    }

    /** Nothing that is played or passed on sounds any more; the lines stay. */
    void silenceAll(Cause why) {
        cause = why;
        PMap<Key, Tone> tones = sounding.tones();
        sounding = sounding.silent();
        tones.forEach((place, tone) -> silence(place, tone.begun(), 0));
    }

    /** Ends what sounds, and tells every output in use to end all that it plays, for what we do not know of. */
    void hush() {
        Cause why = Cause.outside("patch: all notes off", now);
        silenceAll(why);
        endStruck(id -> true);
        Set<Key> told = new LinkedHashSet<>();
        for (PatchLine line : patched.wiring().lines()) {
            plan.device(line.to()).ifPresent(d -> {
                int channel = line.toChannel().orElse(line.fromChannel().orElse(d.channel()));
                told.add(new Key(d.id(), channel, Kind.PEDAL, Controllers.SUSTAIN));
            });
        }
        for (Key place : told) {
            say(place.deviceId(), endOf(place, 0));
            say(place.deviceId(), new ControlChange(place.channel(), Controllers.ALL_NOTES_OFF, 0));
        }
    }

    /** What phrases have struck for a while on some machines ends now. */
    void endStruck(IntPredicate machines) {
        for (Map.Entry<Later.Key, Later> later : agenda.entrySet()) {
            if (later.getValue() instanceof Later.ALaterMessage end
                    && ChannelMessage.endsNote(end.message())
                    && machines.test(end.deviceId())) {
                agenda = agenda.minus(later.getKey());
                emit(end.deviceId(), end.message(), now, now, end.cause(), false);
                owe(end.deviceId(), end.message());
            }
        }
    }

    /** The end of a note that its machine cannot hear now, it hears when it is back. */
    @Override
    void owe(int deviceId, Message end) {
        if (ChannelMessage.endsNote(end) && !isThere(deviceId)) {
            key(end).ifPresent(k -> sounding = sounding.owing(List.of(of(k, deviceId))));
        }
    }

    /** It is sent nothing from now on, so what sounds on it ends now; called while it is still sent what it is told. */
    void quiet(int deviceId) {
        endStruck(id -> id == deviceId);
        cause = Cause.outside("out tonight", now);
        for (Map.Entry<Key, Tone> each : sounding.tones().entrySet()) {
            Key place = each.getKey();
            if (place.deviceId() == deviceId) {
                each.getValue().holders().keySet().forEach(hand -> sounding = sounding.letGo(hand, place));
                silence(place, each.getValue().begun(), 0);
            }
        }
    }

    /** What hands hold ends with the input, or the relay, by which it came. */
    void letGoOfLost() {
        for (Key hand : new ArrayList<>(sounding.places().keySet())) {
            boolean inputGone = hand.deviceId() != Source.OTHERS && !isThere(hand.deviceId());
            boolean relayGone = hand.relayId() != 0
                    && plan.listeners().stream().noneMatch(l -> l.id() == hand.relayId() && l.isRelay());
            if (inputGone || relayGone) {
                cause = Cause.outside(inputGone ? "its input is away" : "its relay is gone", now);
                sounding.placesOf(hand).forEach(place -> letGo(hand, place, 0));
            }
        }
    }

    /** It is back: what should have ended while it was away ends now. */
    @Override
    void find(int deviceId) {
        super.find(deviceId);
        pay(deviceId);
    }

    @Override
    void arm(int deviceId) {
        super.arm(deviceId);
        pay(deviceId);
    }

    private void pay(int deviceId) {
        if (sounding.owed().isEmpty() || !isThere(deviceId)) {
            return;
        }
        cause = Cause.outside("ended while it was away", now);
        for (Key place : sounding.owed()) {
            if (place.deviceId() == deviceId) {
                sounding = sounding.paid(place);
                if (!sounding.tones().containsKey(place)) {
                    say(deviceId, endOf(place, 0));
                }
            }
        }
    }

    // ---- what relays pass on

    /** A note that a relay has passed on, which ends with the key that it came from. @return whether it is to be said */
    boolean passedOn(int sourceId, ChannelMessage came, int relayId, int deviceId, ChannelMessage goes) {
        Key hand = key(came)
                .map(k -> new Key(sourceId, k.channel(), k.kind(), k.number(), relayId))
                .orElse(null);
        if (hand == null || hand.kind() != Kind.NOTE) {
            return true;
        }
        Key place = key(goes).map(k -> of(k, deviceId)).orElseThrow();
        if (!isEnd(goes)) {
            sounding = sounding.begun(hand, value(came), place, value(goes));
            return true;
        }
        boolean held = sounding.placesOf(hand).contains(place);
        sounding = held ? sounding.letGo(hand, place) : sounding;
        owe(deviceId, goes);
        return !sounding.tones().containsKey(place);
    }

    /** Mode messages are not passed on, since they would end what others play; what they mean for this input is done. */
    private String mode(int from, ControlChange mode) {
        boolean all = mode.controller() == Controllers.ALL_SOUND_OFF;
        for (Key hand : new ArrayList<>(sounding.places().keySet())) {
            boolean its = hand.relayId() == 0 && hand.deviceId() == from && hand.channel() == mode.channel();
            boolean ends = hand.kind() == Kind.NOTE
                    ? all || mode.controller() >= Controllers.ALL_NOTES_OFF
                    : all || mode.controller() == Controllers.RESET;
            if (its && ends) {
                sounding.placesOf(hand).forEach(place -> letGo(hand, place, 0));
            }
        }
        return "";
    }

    private boolean goesRound(Source source, Message message) {
        if (!(message instanceof NoteOn)) {
            return false;
        }
        Passed passed =
                patched.counts().getOrDefault(source.deviceId(), Passed.NOTHING).sending(message, now);
        patched = patched.counting(source.deviceId(), passed);
        if (passed.goesRound(MOST_OF_A_NOTE)) {
            patched = patched.silencing(source.deviceId());
            happenings.add(
                    new Happening.Looped(
                            "patch, from " + source.name(),
                            "stopped: it struck the same note as hard more than " + MOST_OF_A_NOTE
                                    + " times in a second, so something sends it back; take that line away, then load the set again"));
            return true;
        }
        return false;
    }

    /** What a keyboard says of its controls and programs is known of the machine, as if a cue had said it. */
    private void say(int deviceId, ChannelMessage message) {
        if (message instanceof ControlChange change) {
            level(deviceId, change);
        } else if (message instanceof ProgramChange) {
            plan.phraseSaying(deviceId, List.of(new Timed(0, message)))
                    .filter(p -> p.patch().isEmpty())
                    .ifPresent(p -> tell(
                            deviceId,
                            told(deviceId)
                                    .after(
                                            PlannedCall.of(plan.device(deviceId).orElseThrow(), p),
                                            now,
                                            plan.stepLists(deviceId))));
        }
        pass(deviceId, message, cause);
    }

    // ---- keys

    /** Where a message of what does not end by itself sounds. */
    static Optional<Key> place(int deviceId, Message message) {
        return key(message).map(k -> of(k, deviceId));
    }

    private static Key of(Key key, int deviceId) {
        return new Key(deviceId, key.channel(), key.kind(), key.number());
    }

    private static Optional<Key> key(Output output) {
        return key(output.message()).map(k -> of(k, output.deviceId()));
    }

    /** Empty for what ends by itself. */
    private static Optional<Key> key(Message message) {
        if (message instanceof NoteOn on) {
            return Optional.of(new Key(0, on.channel(), Kind.NOTE, on.note()));
        }
        if (message instanceof NoteOff off) {
            return Optional.of(new Key(0, off.channel(), Kind.NOTE, off.note()));
        }
        if (message instanceof ControlChange change && Controllers.PEDALS.contains(change.controller())) {
            return Optional.of(new Key(0, change.channel(), Kind.PEDAL, change.controller()));
        }
        if (message instanceof PitchBend bend) {
            return Optional.of(new Key(0, bend.channel(), Kind.BEND, 0));
        }
        return message instanceof ChannelPressure pressure
                ? Optional.of(new Key(0, pressure.channel(), Kind.PRESSURE, 0))
                : Optional.empty();
    }

    private static boolean isEnd(Message message) {
        return ChannelMessage.endsNote(message)
                || message instanceof ControlChange change && change.value() == 0
                || message instanceof PitchBend bend && bend.bend() == PitchBend.CENTRE
                || message instanceof ChannelPressure pressure && pressure.pressure() == 0;
    }

    private static int value(Message message) {
        if (message instanceof NoteOn on) {
            return on.velocity();
        }
        if (message instanceof ControlChange change) {
            return change.value();
        }
        return message instanceof PitchBend bend ? bend.bend() : ((ChannelPressure) message).pressure();
    }

    private static ChannelMessage message(Key key, int value) {
        return switch (key.kind()) {
            case NOTE -> new NoteOn(key.channel(), key.number(), value);
            case PEDAL -> new ControlChange(key.channel(), key.number(), value);
            case BEND -> new PitchBend(key.channel(), value);
            case PRESSURE -> new ChannelPressure(key.channel(), value);
        };
    }

    private static ChannelMessage endOf(Key place, int velocity) {
        return switch (place.kind()) {
            case NOTE -> new NoteOff(place.channel(), place.number(), velocity);
            case BEND -> message(place, PitchBend.CENTRE);
            case PEDAL, PRESSURE -> message(place, 0);
        };
    }
}
