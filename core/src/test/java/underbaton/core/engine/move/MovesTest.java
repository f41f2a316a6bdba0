package underbaton.core.engine.move;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Control;

class MovesTest {

    private static final long MS = PartsOnPaper.MS;
    private static final long SECOND = 1000 * MS;

    private final PartsOnPaper parts = new PartsOnPaper();
    private final Moves moves = parts.moves;
    private final Control bed = Control.of(parts.device("Console"), new ControlChange(4, 3, 0));

    private void begin(String cell) {
        moves.begin(parts.call("Console", cell).motion().orElseThrow(), parts.step.now(), parts.cue());
    }

    private void passTo(long nanos) {
        while (Math.min(moves.nextStep(), moves.nextEnd()) <= nanos) {
            long due = Math.min(moves.nextStep(), moves.nextEnd());
            parts.step.advance(due);
            if (moves.nextEnd() == due) {
                moves.end(due, (call, cause) -> {});
            } else {
                moves.step(due);
            }
        }
        parts.step.advance(nanos);
    }

    @Test
    void a_fade_from_where_the_control_is_known_to_stand_says_each_value_once_up_to_its_end() {
        parts.make("Console", "Bed 0 %");
        parts.sent();
        begin("Bed 100 % in 1 s");
        passTo(SECOND);
        List<String> sent = parts.sent();
        assertThat(sent).hasSize(127).first().isNotEqualTo("B4 03 00 @ 0");
        assertThat(sent).last().asString().startsWith("B4 03 7F");
        assertThat(moves.controls()).isEmpty();
    }

    @Test
    void a_fade_from_nobody_knows_where_is_at_its_amount_at_once() {
        begin("Bed 50 % in 1 s");
        passTo(SECOND);
        assertThat(parts.sent()).containsExactly("B4 03 40 @ 0");
    }

    @Test
    void the_next_fade_begins_where_the_first_one_is() {
        parts.make("Console", "Bed 0 %");
        begin("Bed 100 % in 1 s");
        passTo(SECOND / 2);
        parts.sent();
        begin("Bed 0 % in 1 s");
        passTo(SECOND / 2 + 20 * MS);
        assertThat(parts.sent()).first().asString().startsWith("B4 03 3");
    }

    @Test
    void a_halt_leaves_the_control_known_to_be_where_it_was_told_to_be() {
        parts.make("Console", "Bed 0 %");
        begin("Bed 100 % in 1 s");
        assertThat(parts.devices.levels().get(bed).value())
                .as("where it will end")
                .isEqualTo(127);
        passTo(SECOND / 2);
        moves.halt();
        assertThat(parts.devices.levels().get(bed).value()).isBetween(62, 64);
        assertThat(moves.nextStep()).isEqualTo(StepContext.NEVER);
        assertThat(moves.nextEnd()).isEqualTo(StepContext.NEVER);
    }

    @Test
    void what_is_called_at_its_end_is_called_once_with_the_words_of_the_cue() {
        parts.make("Console", "Bed 0 %");
        PlannedCall call = parts.call("Console", "Bed 100 % in 1 s, then Scene");
        moves.begin(call.motion().orElseThrow(), 0, parts.cue());
        List<String> then = new ArrayList<>();
        moves.end(SECOND, (c, cause) -> then.add(c.phrase() + ", " + cause.words()));
        moves.end(SECOND, (c, cause) -> then.add("again"));
        assertThat(then).containsExactly("Scene, cue 1, then Scene");
    }

    @Test
    void a_call_that_sets_it_overtakes_a_move_and_a_scene_all_of_its_machine() {
        begin("Bed 50 % in 1 s");
        moves.overtake(parts.call("Lights", "Amber"));
        assertThat(moves.isMoving(bed)).isTrue();
        moves.overtake(parts.call("Console", "Bed 10 %"));
        assertThat(moves.isMoving(bed)).isFalse();
        begin("Bed 50 % in 1 s");
        moves.overtake(parts.call("Console", "Scene"));
        assertThat(moves.isMoving(bed)).isFalse();
    }

    @Test
    void a_hand_on_the_fader_ends_its_move_only_where_the_book_knows_the_control() {
        moves.set(parts.device("Console"), new ControlChange(4, 9, 5));
        assertThat(parts.devices.levels().get(Control.of(parts.device("Console"), new ControlChange(4, 9, 0))))
                .isNull();
        begin("Bed 50 % in 1 s");
        moves.set(parts.device("Console"), new ControlChange(4, 3, 5));
        assertThat(moves.isMoving(bed)).isFalse();
        assertThat(parts.devices.levels().get(bed).value()).isEqualTo(5);
    }

    @Test
    void a_move_that_stood_still_goes_on_only_if_nobody_has_put_the_control_elsewhere() {
        parts.make("Console", "Bed 0 %");
        begin("Bed 100 % in 1 s");
        passTo(SECOND / 2);
        Move stood = moves.state().get(bed);
        moves.halt();
        parts.step.advance(2 * SECOND);
        moves.goOnIfAsLeft(stood.shifted(3 * SECOND / 2));
        assertThat(moves.nextEnd()).isEqualTo(5 * SECOND / 2);
        moves.halt();
        parts.make("Console", "Bed 10 %");
        moves.goOnIfAsLeft(stood.shifted(3 * SECOND / 2));
        assertThat(moves.isMoving(bed)).isFalse();
    }

    @Test
    void a_machine_that_is_back_hears_where_the_control_is() {
        parts.make("Console", "Bed 0 %");
        parts.corrections.lose(bed.deviceId());
        begin("Bed 100 % in 1 s");
        passTo(SECOND / 4);
        assertThat(parts.devices.absent().get(bed.deviceId()).levels().get(bed).value())
                .as("away, it hears nothing")
                .isZero();
        parts.devices.find(bed.deviceId());
        passTo(SECOND / 2);
        assertThat(parts.devices.absent().get(bed.deviceId()).levels().get(bed).value())
                .isBetween(62, 64);
    }
}
