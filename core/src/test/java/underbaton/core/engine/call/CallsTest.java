package underbaton.core.engine.call;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.out.Cause;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.rig.Control;
import underbaton.core.rig.Effect;

class CallsTest {

    private static final long MS = PartsOnPaper.MS;

    private PartsOnPaper parts = new PartsOnPaper(withShot());

    /** A player with a phrase that strikes a note for a while. */
    private static Show withShot() {
        Show show = PartsOnPaper.show();
        return show.withPhrase(
                show.devices().get(1).id(),
                PartsOnPaper.phrase("Shot", "note 60 for 200 ms", Optional.empty(), Effect.MOMENT));
    }

    private DueCall due(long ms, String device, String cell) {
        return DueCall.at(ms * MS, parts.call(device, cell), parts.cue());
    }

    @Test
    void at_one_instant_programs_come_first_and_what_is_due_later_waits() {
        parts.calls.makeAll(
                List.of(due(0, "Console", "Bed 50 %"), due(30, "Lights", "Blue"), due(0, "Console", "Scene")));
        assertThat(parts.sent()).containsExactly("C4 01 @ 0", "B4 03 40 @ 0");
        parts.pass(30);
        assertThat(parts.sent()).containsExactly("90 02 7F @ 30");
    }

    @Test
    void what_a_cue_sets_going_belongs_to_its_item_and_what_a_hand_does_to_none() {
        parts.make("Player", "Play");
        assertThat(slot("Player").itemId()).isEqualTo(parts.show.items().get(0).id());
        parts.calls.make(parts.call("Player", "Play"), Cause.outside("by hand", 0));
        assertThat(slot("Player").itemId()).isZero();
    }

    private Slot slot(String device) {
        return parts.devices.of(parts.device(device)).slot("").orElseThrow();
    }

    @Test
    void a_cue_overtakes_a_fade_under_way() {
        parts.make("Console", "Bed 0 %");
        parts.make("Console", "Bed 100 % in 1 s");
        parts.make("Console", "Bed 20 %");
        assertThat(parts.moves.controls()).isEmpty();
    }

    @Test
    void a_hold_takes_back_what_cues_still_have_to_call_and_no_one_elses() {
        parts.calls.makeAll(List.of(due(50, "Lights", "Blue")));
        parts.calls.makeAll(List.of(DueCall.at(60 * MS, parts.call("Lights", "Amber"), Cause.outside("by hand", 0))));
        assertThat(parts.calls.suspend()).extracting(Agenda.Due::dueNanos).containsExactly(50 * MS);
        parts.pass(100);
        assertThat(parts.sent()).containsExactly("90 01 7F @ 60");
    }

    @Test
    void stop_all_ends_what_was_struck_and_drops_the_rest() {
        parts.make("Player", "Shot");
        parts.calls.makeAll(List.of(due(50, "Lights", "Blue")));
        parts.sent();
        parts.pass(20);
        parts.calls.dropAll();
        assertThat(parts.sent()).containsExactly("81 3C 00 @ 20");
        parts.pass(1000);
        assertThat(parts.sent()).isEmpty();
    }

    @Test
    void the_end_of_a_note_that_a_lost_machine_does_not_hear_is_owed() {
        parts.make("Player", "Shot");
        parts.corrections.lose(parts.device("Player"));
        parts.pass(200);
        parts.sent();
        parts.corrections.find(parts.device("Player"));
        assertThat(parts.sent()).containsExactly("81 3C 00 @ 200");
    }

    @Test
    void only_the_notes_of_some_machines_are_ended() {
        parts.make("Player", "Shot");
        parts.sent();
        parts.calls.endStruck(id -> id != parts.device("Player"));
        assertThat(parts.sent()).isEmpty();
        parts.calls.endStruck(id -> true);
        assertThat(parts.sent()).containsExactly("81 3C 00 @ 0");
    }

    @Test
    void what_a_catch_up_still_has_to_set_is_overtaken_by_a_cue_that_sets_it() {
        mend(50, "Lights", "Blue");
        mend(50, "Console", "Bed 10 %");
        parts.make("Lights", "Amber");
        parts.sent();
        parts.pass(100);
        assertThat(parts.sent()).containsExactly("B4 03 0D @ 50");
    }

    @Test
    void a_cue_that_steps_waits_for_the_last_step_of_a_catch_up() {
        mend(50, "Tablet", "Next");
        mend(100, "Tablet", "Next");
        parts.make("Tablet", "Next");
        assertThat(parts.sent()).isEmpty();
        parts.pass(1000);
        assertThat(parts.sent()).containsExactly("95 30 7F @ 50", "95 30 7F @ 100", "95 30 7F @ 150");
    }

    @Test
    void whoever_makes_machines_right_anew_takes_back_what_the_last_one_was_to_do_there() {
        mend(50, "Tablet", "Next");
        mend(50, "Lights", "Blue");
        parts.calls.takeBackMends(id -> id == parts.device("Tablet"));
        parts.pass(100);
        assertThat(parts.sent()).containsExactly("90 02 7F @ 50");
    }

    private void mend(long ms, String device, String cell) {
        parts.agenda.add(ms * MS, new Pending.ToCall(parts.call(device, cell), Cause.catchUp(0)));
    }

    @Test
    void at_rest_all_is_made_and_every_move_at_its_end() {
        parts.make("Console", "Bed 0 %");
        parts.make("Console", "Bed 100 % in 1 s, then Scene");
        parts.calls.makeAll(List.of(due(500, "Lights", "Blue")));
        parts.calls.comeToRest();
        assertThat(parts.agenda.isEmpty()).isTrue();
        assertThat(parts.moves.controls()).isEmpty();
        assertThat(slot("Lights").call().phrase()).isEqualTo("Blue");
        assertThat(parts.devices.levels().get(Control.of(parts.device("Console"), new ControlChange(4, 3, 0))))
                .as("the scene at its end has taken the fader along")
                .isNull();
    }
}
