package underbaton.core.engine.out;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.plan.Level;
import underbaton.core.plan.OutTonight;
import underbaton.core.rig.Control;
import underbaton.core.rig.Levels;

class OutgoingTest {

    private final PartsOnPaper parts = new PartsOnPaper();
    private final Outgoing out = parts.out;
    private final int console = parts.device("Console");
    private final Cause why = Cause.outside("test", 0);

    private static ControlChange bed(int value) {
        return new ControlChange(4, 3, value);
    }

    /** MIDI 1.0 electrical specification: 31,250 baud, ten bits a byte, so 320 µs; a program has two bytes, a controller three. */
    @Test
    void on_a_serial_line_each_message_waits_for_the_bytes_before_it() {
        out.emit(console, new ProgramChange(4, 1), why);
        out.emit(console, bed(1), why);
        out.emit(console, bed(2), why);
        assertThat(parts.step.messages())
                .extracting(ScheduledMessage::dueNanos)
                .containsExactly(0L, 640_000L, 1_600_000L);
        assertThat(parts.step.messages())
                .extracting(ScheduledMessage::wantedNanos)
                .containsOnly(0L);
    }

    @Test
    void a_line_that_is_free_again_delays_nothing_and_another_machine_has_its_own() {
        out.emit(console, bed(1), why);
        out.emitAt(960_000, console, bed(2), why);
        out.emit(parts.device("Lights"), bed(3), why);
        assertThat(parts.step.messages()).extracting(ScheduledMessage::dueNanos).containsExactly(0L, 960_000L, 0L);
    }

    @Test
    void a_machine_that_is_out_tonight_gets_nothing_and_nobody_counts_it() {
        parts.step.adopt(parts.step.plan().tonight(OutTonight.NONE.with(OutTonight.Kind.MACHINE, console, false)));
        out.emit(console, bed(1), why);
        out.play(console, bed(2), why);
        assertThat(parts.step.messages()).isEmpty();
        assertThat(out.state().brought()).isZero();
    }

    @Test
    void what_is_played_is_not_taken_for_our_own_word_when_it_comes_back() {
        out.emit(console, bed(1), why);
        out.play(console, bed(2), why);
        assertThat(parts.echoes).hasSize(1);
        assertThat(out.state().brought()).isEqualTo(2);
    }

    @Test
    void a_control_that_is_held_up_gets_no_less_and_falls_back_when_it_is_let_go() {
        Control control = Control.of(console, bed(0));
        hold(control, 100);
        out.emit(console, bed(40), why);
        out.emit(console, bed(110), why);
        assertThat(parts.sent()).containsExactly("B4 03 64 @ 0", "B4 03 6E @ 0");
        out.letDown(HeldUp.NOTHING, c -> level(40), why);
        assertThat(parts.sent()).containsExactly("B4 03 28 @ 1");
    }

    @Test
    void a_hold_below_the_book_changes_nothing_when_it_ends() {
        hold(Control.of(console, bed(0)), 30);
        out.letDown(HeldUp.NOTHING, c -> level(40), why);
        assertThat(parts.sent()).isEmpty();
    }

    @Test
    void where_nobody_knows_the_book_the_control_stays_where_it_was_held() {
        Control control = Control.of(console, bed(0));
        hold(control, 100);
        out.letDown(HeldUp.NOTHING, c -> null, why);
        assertThat(parts.sent()).isEmpty();
        assertThat(parts.devices.levels().get(control).value()).isEqualTo(100);
    }

    private void hold(Control control, int value) {
        parts.devices.levels().put(control, level(0));
        out.holdUp(HeldUp.NOTHING.with(control, 7, new HeldUp.Hold(1, level(value))));
    }

    private static Level level(int value) {
        return new Level(value, bed(0), Optional.empty(), Levels.PUBLISHED, false);
    }

    @Test
    void the_highest_of_several_holds_counts_and_each_ends_with_its_relay() {
        Control control = Control.of(console, bed(0));
        HeldUp both = HeldUp.NOTHING
                .with(control, 7, new HeldUp.Hold(1, level(100)))
                .with(control, 8, new HeldUp.Hold(2, level(60)));
        assertThat(both.of(control))
                .hasValueSatisfying(l -> assertThat(l.value()).isEqualTo(100));
        HeldUp one = both.without((relay, hold) -> relay == 7);
        assertThat(one.of(control))
                .hasValueSatisfying(l -> assertThat(l.value()).isEqualTo(60));
        assertThat(List.of(
                        one.without((relay, hold) -> hold.sourceId() == 2),
                        one.with(control, 8, new HeldUp.Hold(2, level(0)))))
                .allMatch(HeldUp::isEmpty);
    }
}
