package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Hands;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Shows;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.store.StoredForm;

/**
 * Whatever sounds is owed its end. The judge is a row of machines that know status bytes only (MIDI 1.0: 9n begins a note, 8n or a
 * velocity of 0 ends it), and hear what is sent while they are switched on.
 */
class OwedEndsTest extends PlayedShow {

    private int sampler;
    private int keys;
    private int pads;

    /** By machine, what it plays: channel and note. */
    private final Map<Integer, Set<Integer>> playing = new HashMap<>();

    private final Set<Integer> off = new HashSet<>();

    @BeforeEach
    void pit() {
        show = show.withDevice(PatchedPit.machine("Sampler", 5));
        show = show.withPhrase(
                last(),
                new Phrase(
                        0,
                        "River bed",
                        new SpeechWording(Numbering.WIRE).read("note 48 for 60000 ms"),
                        Optional.empty(),
                        Effect.MOMENT,
                        false,
                        false,
                        Remarks.NONE));
        show = Shows.phrase(show, "Talk open", "control 20 to 127", Effect.of("holds talkback"));
        show = Shows.phrase(show, "Talk shut", "control 20 to 0", Effect.of("holds talkback"));
        sampler = last();
        show = show.withDevice(PatchedPit.machine("Keys", 6));
        keys = last();
        show = Shows.device(show, "Pads", Department.KEYS, 9);
        pads = last();
        show = PatchBay.withNew(show, "Both", new Wiring(List.of(PatchLine.open(keys, sampler)), Set.of()));
    }

    private int last() {
        return show.devices().get(show.devices().size() - 1).id();
    }

    @Override
    void hear(Step step) {
        super.hear(step);
        for (ScheduledMessage message : step.messages()) {
            if (!off.contains(message.deviceId()) && message.message() instanceof MidiMessage midi) {
                hear(playing.computeIfAbsent(message.deviceId(), id -> new HashSet<>()), midi.encode());
            }
        }
    }

    private static void hear(Set<Integer> machine, Bytes bytes) {
        byte[] said = bytes.toArray();
        int kind = said[0] & 0xF0;
        if (kind == 0x90 && said[2] > 0) {
            machine.add((said[0] & 0x0F) << 7 | said[1]);
        } else if (kind == 0x80 || kind == 0x90) {
            machine.remove((said[0] & 0x0F) << 7 | said[1]);
        }
    }

    private Set<Integer> sounds() {
        return playing.getOrDefault(sampler, Set.of());
    }

    private void fire(int device, String phrase) {
        Device d = state.plan().device(device).orElseThrow();
        order(new Order.Fire(PlannedCall.of(d, d.phraseNamed(phrase).orElseThrow()), "by hand"));
    }

    private void loadPatch() {
        Device bay = PatchBay.of(show).orElseThrow();
        order(new Order.Fire(PlannedCall.of(bay, PatchBay.sets(show).get(0)), "by hand"));
    }

    private void play(int device, MidiMessage message) {
        Source source = Source.of(show.device(device).orElseThrow());
        order(new Order.Heard(source, Signal.of(message, state.nowNanos())));
    }

    private void out(int device, boolean armed) {
        OutTonight out = state.plan().out().with(OutTonight.Kind.MACHINE, device, armed);
        order(new Order.Adopt(Planner.plan(show).tonight(out)));
    }

    private void lose(int device) {
        off.add(device);
        order(new Order.Lost(device));
    }

    private void find(int device) {
        off.remove(device);
        order(new Order.Found(device));
    }

    private void crash() {
        RunSnapshot kept =
                StoredForm.read(StoredForm.write(RunSnapshot.of(state, state.nowNanos() / 1000)), RunSnapshot.class);
        state = kept.into(Planner.plan(show), state.nowNanos(), state.nowNanos() / 1000);
    }

    @Test
    void aMachineThatIsTakenOutWhileAPhraseSoundsIsToldItsEndFirst() {
        begin();
        fire(sampler, "River bed");
        assertThat(sounds()).hasSize(1);
        out(sampler, false);
        assertThat(sounds()).isEmpty();
        order(new Order.StopAll());
        pass(70_000);
        assertThat(sounds()).isEmpty();
    }

    @Test
    void aShowThatIsPutAwayLeavesNothingSounding() {
        begin();
        fire(sampler, "River bed");
        order(new Order.PutAway());
        assertThat(sounds()).isEmpty();
    }

    @Test
    void allNotesOffEndsWhatAPhraseHasStruckToo() {
        begin();
        fire(sampler, "River bed");
        order(new Order.Hush());
        assertThat(sounds()).isEmpty();
        sent.clear();
        pass(70_000);
        assertThat(sent).as("and not once more a minute later").isEmpty();
    }

    @Test
    void anEndThatAMachineCouldNotHearItHearsWhenItIsBack() {
        begin();
        fire(sampler, "River bed");
        lose(sampler);
        pass(70_000);
        assertThat(sounds()).hasSize(1);
        find(sampler);
        assertThat(sounds()).isEmpty();
        fire(sampler, "River bed");
        lose(sampler);
        order(new Order.StopAll());
        find(sampler);
        assertThat(sounds()).isEmpty();
    }

    @Test
    void keysThatAreLetGoWhileTheirOutputIsOutOrAwayEnd() {
        begin();
        loadPatch();
        play(keys, new NoteOn(5, 60, 90));
        assertThat(sounds()).hasSize(1);
        out(sampler, false);
        assertThat(sounds()).isEmpty();
        play(keys, new NoteOff(5, 60, 0));
        out(sampler, true);
        assertThat(sounds()).isEmpty();
        play(keys, new NoteOn(5, 62, 90));
        lose(sampler);
        play(keys, new NoteOff(5, 62, 0));
        find(sampler);
        assertThat(sounds()).isEmpty();
    }

    @Test
    void aKeyboardThatIsLostOrTakenOutWithAKeyDownLetsItGo() {
        begin();
        loadPatch();
        play(keys, new NoteOn(5, 60, 90));
        lose(keys);
        assertThat(sounds()).isEmpty();
        find(keys);
        play(keys, new NoteOn(5, 64, 90));
        out(keys, false);
        assertThat(sounds()).isEmpty();
    }

    @Test
    void whatSoundedWhenACrashCameEndsAsSoonAsItsMachineIsReached() {
        begin();
        loadPatch();
        play(keys, new NoteOn(5, 60, 90));
        fire(sampler, "River bed");
        assertThat(sounds()).hasSize(2);
        crash();
        assertThat(sounds()).hasSize(2);
        find(sampler);
        assertThat(sounds()).isEmpty();
    }

    private int talk() {
        show = Hands.withPage(show, "Night");
        int page = show.hands().get(0).id();
        Device d = show.device(sampler).orElseThrow();
        show = Hands.withKey(
                show,
                page,
                new HandKey(
                        0,
                        0,
                        0,
                        "Talk",
                        Mark.NONE,
                        HandKey.Way.HELD,
                        List.of(Call.of(d, "Talk open")),
                        List.of(Call.of(d, "Talk shut")),
                        false));
        return Hands.named(show, "Talk").orElseThrow().id();
    }

    private List<String> talkback() {
        List<String> all = sent.stream()
                .map(m -> ((MidiMessage) m.message()).encode().hex())
                .filter(h -> h.contains(" 14 "))
                .toList();
        sent.clear();
        return all;
    }

    @Test
    void aKeyThatWorksWhileItIsHeldIsLetGoAfterACrash() {
        int key = talk();
        begin();
        order(new Order.Touch(key, KeyTouch.PRESS, ""));
        assertThat(talkback()).containsExactly("B4 14 7F");
        crash();
        pass(5_000);
        assertThat(talkback()).containsExactly("B4 14 00");
    }

    @Test
    void aKeyThatAPadHoldsIsLetGoWhenThePadIsLost() {
        int key = talk();
        show = show.withListener(new Listener(
                0,
                "pad",
                Set.of(),
                OptionalInt.empty(),
                Pattern.Note.struck(40),
                new Reaction.Hand(key),
                0,
                0,
                false,
                true));
        begin();
        play(pads, new NoteOn(9, 40, 100));
        assertThat(talkback()).containsExactly("B4 14 7F");
        lose(pads);
        assertThat(talkback()).containsExactly("B4 14 00");
        find(pads);
        pass(5_000);
        assertThat(talkback()).isEmpty();
    }
}
