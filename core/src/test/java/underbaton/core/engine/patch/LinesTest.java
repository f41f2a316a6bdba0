package underbaton.core.engine.patch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.out.Cause;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Source;

/** The patch bay: lights serve as keyboard, player and tablet as sound modules. */
class LinesTest {

    private PartsOnPaper parts = new PartsOnPaper();
    private final int keys = parts.device("Lights");

    @BeforeEach
    void sets() {
        Show show = PatchBay.withNew(parts.show, "One", wiring("Player"));
        show = PatchBay.withNew(show, "Both", wiring("Player", "Tablet"));
        show = PatchBay.withNew(show, "Local off", new Wiring(wiring("Player").lines(), Set.of(keys)));
        parts = new PartsOnPaper(show);
    }

    private Wiring wiring(String... modules) {
        return new Wiring(
                List.of(modules).stream()
                        .map(m -> new PatchLine(
                                keys,
                                OptionalInt.empty(),
                                parts.device(m),
                                OptionalInt.of(m.equals("Player") ? 1 : 5),
                                EnumSet.allOf(PatchKind.class),
                                PatchRange.ALL,
                                PatchLine.ALL_VELOCITIES,
                                PatchRange.ALL,
                                PatchRange.ALL,
                                0))
                        .toList(),
                Set.of());
    }

    private Phrase set(String name) {
        return parts.step.plan().patchPhrases().stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private void load(String name) {
        int bay = parts.step.plan().patchBay();
        PlannedCall call = PlannedCall.of(parts.step.plan().device(bay).orElseThrow(), set(name));
        parts.calls.make(call, Cause.outside("test", 0));
    }

    /** But for what the bay itself is told. */
    private List<String> sent() {
        return parts.sent().stream().filter(m -> !m.startsWith("C0")).toList();
    }

    private String play(Message message) {
        return parts.patching.play(Source.of(parts.show.device(keys).orElseThrow()), message);
    }

    @Test
    void without_a_set_nothing_passes_and_of_strangers_never() {
        assertThat(play(new NoteOn(0, 60, 90))).isEmpty();
        load("One");
        sent();
        Source stranger = new Source(
                Source.OTHERS, "somebody", parts.show.devices().get(0).numbering());
        assertThat(parts.patching.play(stranger, new NoteOn(0, 60, 90))).isEmpty();
        assertThat(play(new NoteOn(0, 60, 90))).isEqualTo("through the patch to Player");
        assertThat(sent()).containsExactly("91 3C 5A @ 0");
    }

    @Test
    void a_change_of_set_ends_only_what_the_new_lines_do_not_carry_to_the_same_place() {
        load("Both");
        play(new NoteOn(0, 60, 90));
        sent();
        load("One");
        assertThat(sent()).containsExactly("85 3C 00 @ 0");
        play(new NoteOff(0, 60, 7));
        assertThat(sent()).containsExactly("81 3C 07 @ 0");
    }

    /** MIDI 1.0: 121 resets controllers and leaves notes, 123 ends notes and leaves pedals, 120 ends all sound. */
    @Test
    void mode_messages_do_for_their_input_what_they_mean_and_are_not_passed_on() {
        load("One");
        play(new NoteOn(0, 60, 90));
        play(new ControlChange(0, 64, 127));
        sent();
        play(new ControlChange(0, 121, 0));
        assertThat(sent()).as("reset all controllers").containsExactly("B1 40 00 @ 0");
        play(new ControlChange(0, 123, 0));
        assertThat(sent()).as("all notes off").containsExactly("81 3C 00 @ 0");
        play(new NoteOn(0, 60, 90));
        play(new ControlChange(0, 64, 127));
        sent();
        play(new ControlChange(0, 120, 0));
        assertThat(sent()).as("all sound off").containsExactlyInAnyOrder("81 3C 00 @ 0", "B1 40 00 @ 0");
    }

    @Test
    void mode_messages_of_another_channel_end_nothing_of_this_one() {
        load("One");
        play(new NoteOn(0, 60, 90));
        sent();
        play(new ControlChange(1, 123, 0));
        assertThat(sent()).isEmpty();
    }

    @Test
    void a_pedal_that_is_up_and_told_so_again_says_so_as_through_a_cable() {
        load("One");
        sent();
        play(new ControlChange(0, 64, 0));
        assertThat(sent()).containsExactly("B1 40 00 @ 0");
    }

    @Test
    void a_keyboard_of_which_a_set_speaks_is_told_once_whether_it_plays_its_own_sounds() {
        load("Local off");
        assertThat(sent()).containsExactly("B0 7A 00 @ 0");
        load("Local off");
        assertThat(sent()).isEmpty();
        load("One");
        assertThat(sent()).containsExactly("B0 7A 7F @ 0");
    }

    @Test
    void lines_that_are_tried_are_in_use_and_the_next_call_of_the_set_loads_what_is_kept() {
        parts.patching.tryOut(set("One").id(), wiring("Tablet"), parts.calls::make);
        play(new NoteOn(0, 60, 90));
        assertThat(sent()).contains("95 3C 5A @ 0").doesNotContain("91 3C 5A @ 0");
        parts.patching.tryOut(set("One").id(), wiring("Player", "Tablet"), parts.calls::make);
        assertThat(parts.patching.state().wiring().lines()).hasSize(2);
        load("One");
        assertThat(parts.patching.state().wiring()).isEqualTo(wiring("Player"));
    }

    @Test
    void an_edit_of_the_set_in_use_is_in_use_unless_it_was_tried_otherwise() {
        load("One");
        List<Phrase> before = parts.step.plan().patchPhrases();
        Show changed =
                PatchBay.with(parts.show, set("One").withPatch(new PatchSet(wiring("Tablet"), Optional.empty())));
        parts.step.adopt(Planner.plan(changed));
        parts.patching.followEdit(before);
        assertThat(parts.patching.state().wiring()).isEqualTo(wiring("Tablet"));
    }

    @Test
    void what_comes_round_is_stopped_until_a_set_is_loaded() {
        load("One");
        String said = "";
        for (int i = 0; i < 65; i++) {
            said = play(new NoteOn(0, 60, 90));
        }
        assertThat(said).contains("it comes round");
        assertThat(parts.patching.state().stopped()).containsExactly(keys);
        sent();
        play(new NoteOn(0, 61, 90));
        assertThat(sent()).isEmpty();
        load("One");
        play(new NoteOn(0, 61, 90));
        assertThat(sent()).containsExactly("91 3D 5A @ 0");
    }

    @Test
    void all_outputs_in_use_are_told_to_end_what_they_play() {
        load("Both");
        sent();
        parts.patching.endAll(Cause.outside("test", 0));
        assertThat(sent()).containsExactly("B1 40 00 @ 0", "B1 7B 00 @ 0", "B5 40 00 @ 0", "B5 7B 00 @ 0");
    }
}
