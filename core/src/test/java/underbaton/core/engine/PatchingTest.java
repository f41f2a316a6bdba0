package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Shows;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SysEx;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.store.StoredForm;

/** Patch sets in a show that is played: who loads them, and what that does. */
class PatchingTest extends PlayedShow {

    private int keys;
    private int piano;
    private int strings;

    @BeforeEach
    void pit() {
        show = show.withDevice(PatchedPit.machine("Keys", 4 + 1));
        keys = last();
        show = show.withDevice(PatchedPit.machine("Piano", 5 + 1));
        piano = last();
        show = show.withDevice(PatchedPit.machine("Strings", 6 + 1));
        show = Shows.phrase(show, "Slow", "program 12", Effect.HOLDS);
        strings = last();
        show = PatchBay.withNew(show, "Piano alone", new Wiring(List.of(PatchLine.open(keys, piano)), Set.of()));
        show = PatchBay.withNew(
                show,
                "Both",
                new Wiring(List.of(PatchLine.open(keys, piano), PatchLine.open(keys, strings)), Set.of(keys)));
    }

    private int last() {
        return show.devices().get(show.devices().size() - 1).id();
    }

    private Phrase set(String name) {
        return PatchBay.sets(show).stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private void load(String name) {
        order(new Order.Fire(PlannedCall.of(PatchBay.of(show).orElseThrow(), set(name)), "by hand"));
    }

    private void play(MidiMessage message) {
        Device by = show.device(keys).orElseThrow();
        order(new Order.Heard(Source.of(by), Signal.of(message, state.nowNanos())));
    }

    /** {@code Strings 90 3C 40}: what went out since it was asked last. */
    private List<String> said() {
        List<String> words = sent.stream()
                .map(m -> show.device(m.deviceId()).orElseThrow().name() + " "
                        + ((MidiMessage) m.message()).encode().hex())
                .toList();
        sent.clear();
        return words;
    }

    @Test
    void what_is_played_reaches_the_outputs_of_the_set_that_a_cue_loads() {
        show = Shows.cue(show, "30", "by hand", "Amber", "Both");
        begin();
        play(new NoteOn(0, 60, 64));
        assertThat(said()).isEmpty();
        standBy("30");
        go();
        assertThat(said()).as("the set first").startsWith("Patch C0 01").contains("Keys B4 7A 00");
        play(new NoteOn(0, 60, 64));
        assertThat(said()).containsExactly("Piano 90 3C 40", "Strings 90 3C 40");
    }

    @Test
    void a_clock_and_exclusive_messages_pass_where_a_line_carries_them_and_come_back_to_nobody() {
        PatchLine piano = line(this.piano, PatchKind.CLOCK, PatchKind.EXCLUSIVE);
        show = PatchBay.withNew(
                show,
                "Clocked",
                new Wiring(List.of(piano, line(strings, PatchKind.NOTES), line(keys, PatchKind.CLOCK)), Set.of()));
        begin();
        load("Clocked");
        said();
        play(RealTime.CLOCK);
        play(RealTime.START);
        play(new SysEx(Bytes.of(0x7D, 1, 2)));
        play(RealTime.ACTIVE_SENSING);
        play(new NoteOn(0, 60, 64));
        assertThat(said()).containsExactly("Piano F8", "Piano FA", "Piano F0 7D 01 02 F7", "Strings 90 3C 40");
    }

    private PatchLine line(int to, PatchKind... kinds) {
        PatchLine open = PatchLine.open(keys, to);
        return new PatchLine(
                keys,
                open.fromChannel(),
                to,
                open.toChannel(),
                Set.of(kinds),
                open.notes(),
                open.velocities(),
                open.controls(),
                open.programs(),
                0);
    }

    @Test
    void a_change_ends_just_what_the_lines_it_closes_hold() {
        begin();
        load("Both");
        play(new NoteOn(0, 60, 64));
        play(new ControlChange(0, 64, 127));
        said();
        load("Piano alone");
        assertThat(said())
                .containsExactlyInAnyOrder("Patch C0 00", "Keys B4 7A 7F", "Strings 80 3C 00", "Strings B0 40 00");
        play(new NoteOff(0, 60, 3));
        assertThat(said()).containsExactly("Piano 80 3C 03");
    }

    @Test
    void a_guarded_scene_is_guarded_against_a_keyboard_too() {
        Phrase slow = show.device(strings).orElseThrow().phraseNamed("Slow").orElseThrow();
        show = show.withPhrase(strings, slow.withGuarded(true));
        begin();
        load("Both");
        said();
        ProgramChange guarded = new ProgramChange(6, 12);
        play(guarded);
        assertThat(said()).containsExactly("Piano C6 0C");
        play(new ProgramChange(6, 11));
        assertThat(said()).contains("Strings C6 0B");
        pass(3001);
        play(guarded);
        assertThat(said()).as("too late for a second act").doesNotContain("Strings C6 0C");
        play(guarded);
        assertThat(said()).contains("Strings C6 0C");
    }

    @Test
    void two_keys_that_sound_as_one_note_end_with_the_last_of_them() {
        begin();
        load("Piano alone");
        play(new NoteOn(0, 60, 64));
        play(new NoteOn(1, 60, 64));
        show = PatchBay.with(
                show,
                set("Piano alone")
                        .withPatch(new PatchSet(
                                new Wiring(
                                        List.of(new PatchLine(
                                                keys,
                                                OptionalInt.empty(),
                                                piano,
                                                OptionalInt.of(0),
                                                PatchLine.open(keys, piano).kinds(),
                                                PatchLine.open(keys, piano).notes(),
                                                PatchLine.ALL_VELOCITIES,
                                                PatchLine.open(keys, piano).controls(),
                                                PatchLine.open(keys, piano).programs(),
                                                0)),
                                        Set.of()),
                                Optional.empty())));
        said();
        order(new Order.Adopt(Planner.plan(show)));
        // What is in use as it was kept follows the edit; the note of channel 2 has no line any more.
        assertThat(said()).containsExactly("Piano 81 3C 00");
        play(new NoteOn(1, 60, 64));
        play(new NoteOff(0, 60, 0));
        assertThat(said()).as("one hand still holds it").containsExactly("Piano 90 3C 40");
        play(new NoteOff(1, 60, 0));
        assertThat(said()).as("ended as often as it was begun").containsExactly("Piano 80 3C 00", "Piano 80 3C 00");
    }

    @Test
    void lines_that_are_tried_are_in_use_and_a_call_loads_what_is_kept() {
        begin();
        Wiring tried = new Wiring(List.of(PatchLine.open(keys, strings)), Set.of());
        order(new Order.TryPatch(set("Piano alone").id(), tried));
        play(new NoteOn(0, 60, 64));
        assertThat(said()).containsExactly("Patch C0 00", "Keys B4 7A 7F", "Strings 90 3C 40");
        assertThat(state.patched().wiring()).isEqualTo(tried);
        load("Piano alone");
        assertThat(said()).contains("Strings 80 3C 00");
        play(new NoteOn(0, 62, 64));
        assertThat(said()).containsExactly("Piano 90 3E 40");
    }

    @Test
    void looking_for_a_set_that_is_gone_loads_nothing() {
        begin();
        load("Both");
        said();
        order(new Order.TryPatch(99_999, Wiring.NONE));
        assertThat(said()).isEmpty();
        assertThat(state.patched().setId()).isEqualTo(set("Both").id());
    }

    @Test
    void stop_all_ends_what_sounds_and_leaves_the_lines() {
        begin();
        load("Piano alone");
        play(new NoteOn(0, 60, 64));
        said();
        order(new Order.StopAll());
        assertThat(said()).contains("Piano 80 3C 00");
        play(new NoteOff(0, 60, 0));
        assertThat(said()).isEmpty();
        play(new NoteOn(0, 60, 64));
        assertThat(said()).containsExactly("Piano 90 3C 40");
    }

    @Test
    void all_notes_off_of_one_keyboard_ends_its_own_notes_and_is_not_passed_on() {
        begin();
        load("Piano alone");
        play(new NoteOn(0, 60, 64));
        play(new NoteOn(1, 62, 64));
        said();
        play(new ControlChange(0, 123, 0));
        assertThat(said()).containsExactly("Piano 80 3C 00");
    }

    @Test
    void an_output_that_was_away_hears_the_ends_it_has_missed() {
        begin();
        load("Piano alone");
        play(new NoteOn(0, 60, 64));
        order(new Order.Lost(piano));
        play(new NoteOff(0, 60, 0));
        said();
        order(new Order.Found(piano));
        assertThat(said()).containsExactly("Piano 80 3C 00");
        order(new Order.Found(piano));
        assertThat(said()).isEmpty();
    }

    @Test
    void what_sounded_when_a_crash_came_is_ended_when_its_output_is_reached_and_the_lines_are_there_again() {
        begin();
        load("Both");
        play(new NoteOn(0, 60, 64));
        RunSnapshot kept = StoredForm.read(StoredForm.write(RunSnapshot.of(state, 0)), RunSnapshot.class);
        state = kept.into(Planner.plan(show), 0, 0);
        said();
        order(new Order.Found(strings));
        assertThat(said()).containsExactly("Strings 80 3C 00");
        play(new NoteOn(0, 62, 64));
        assertThat(said()).containsExactly("Piano 90 3E 40", "Strings 90 3E 40");
    }

    @Test
    void catching_up_loads_the_set_and_says_local_control_once() {
        show = Shows.cue(show, "30", "by hand", "Both");
        begin();
        PlaybackState book =
                DryRun.of(Planner.plan(show)).before(Planner.plan(show).cues().size());
        order(new Order.CatchUp(book, Set.of()));
        assertThat(said()).containsOnlyOnce("Patch C0 01", "Keys B4 7A 00");
        assertThat(state.correctionsTo(book)).isEmpty();
    }

    @Test
    void a_program_that_a_keyboard_sends_is_known_of_the_machine_it_reaches() {
        begin();
        load("Both");
        play(new ProgramChange(6, 12));
        assertThat(state.told().device(strings).slot("").orElseThrow().call().phrase())
                .isEqualTo("Slow");
    }

    @Test
    void an_input_whose_notes_come_round_is_stopped_and_told_until_a_set_is_loaded() {
        begin();
        load("Piano alone");
        said();
        IntStream.range(0, 200).forEach(i -> {
            play(new NoteOn(0, 60, 64));
            play(new NoteOff(0, 60, 0));
        });
        assertThat(sent.stream().filter(m -> m.message() instanceof NoteOn)).hasSize(64);
        assertThat(state.patched().stopped()).containsExactly(keys);
        assertThat(state.sounding().sounds()).isFalse();
        load("Piano alone");
        said();
        play(new NoteOn(0, 60, 64));
        assertThat(said()).containsExactly("Piano 90 3C 40");
    }

    @Test
    void a_machine_that_is_taken_out_of_the_rig_leaves_the_lines() {
        show = show.withoutDevice(strings);
        assertThat(set("Both").patch().orElseThrow().kept().lines()).containsExactly(PatchLine.open(keys, piano));
        begin();
        load("Both");
        show = show.withoutDevice(piano);
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(state.patched().wiring().lines()).isEmpty();
    }
}
