package underbaton.core.engine.patch;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.patch.Tone.Key;
import underbaton.core.engine.patch.Tone.Kind;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.plan.PlannedCall;

class SoundsTest {

    private final PartsOnPaper parts = new PartsOnPaper();
    private final Sounds sounds = parts.sounds;
    private final int module = parts.device("Player");
    private final Cause why = Cause.outside("test", 0);
    private final Key place = new Key(module, 1, Kind.NOTE, 60);
    private final Key pedal = new Key(module, 1, Kind.PEDAL, 64);

    private Key hand(int number) {
        return new Key(parts.device("Lights"), number, Kind.NOTE, 60);
    }

    private void strike(int hand) {
        sounds.begin(hand(hand), 100, place, new NoteOn(1, 60, 100), why);
    }

    @Test
    void a_note_that_two_hands_hold_ends_with_the_last_of_them_as_often_as_it_was_begun() {
        strike(1);
        strike(2);
        sounds.letGo(hand(1), place, 5, why);
        assertThat(parts.sent()).containsExactly("91 3C 64 @ 0", "91 3C 64 @ 0");
        sounds.letGo(hand(2), place, 9, why);
        assertThat(parts.sent()).containsExactly("81 3C 09 @ 0", "81 3C 09 @ 0");
        assertThat(sounds.state().sounds()).isFalse();
    }

    @Test
    void of_two_feet_the_deeper_one_counts() {
        Key one = new Key(1, 0, Kind.PEDAL, 64);
        Key other = new Key(2, 0, Kind.PEDAL, 64);
        sounds.begin(one, 40, pedal, new ControlChange(1, 64, 40), why);
        sounds.begin(other, 100, pedal, new ControlChange(1, 64, 100), why);
        sounds.begin(one, 50, pedal, new ControlChange(1, 64, 50), why);
        sounds.letGo(other, pedal, 0, why);
        sounds.letGo(one, pedal, 0, why);
        assertThat(parts.sent()).containsExactly("B1 40 28 @ 0", "B1 40 64 @ 0", "B1 40 32 @ 0", "B1 40 00 @ 0");
    }

    @Test
    void what_an_absent_machine_cannot_hear_ends_when_it_is_back_once() {
        strike(1);
        parts.sent();
        parts.corrections.lose(module);
        sounds.letGo(hand(1), place, 0, why);
        assertThat(sounds.state().owed()).containsExactly(place);
        sounds.pay(module);
        parts.sent();
        parts.devices.find(module);
        sounds.pay(module);
        assertThat(parts.sent()).containsExactly("81 3C 00 @ 0");
        sounds.pay(module);
        assertThat(parts.sent()).isEmpty();
    }

    @Test
    void what_is_struck_again_meanwhile_is_not_ended_by_what_was_owed() {
        parts.corrections.lose(module);
        sounds.owe(module, new NoteOff(1, 60, 0));
        sounds.owe(module, new ControlChange(1, 7, 0));
        assertThat(sounds.state().owed()).containsExactly(place);
        strike(1);
        parts.devices.find(module);
        parts.sent();
        sounds.pay(module);
        assertThat(parts.sent()).isEmpty();
        assertThat(sounds.state().owed()).isEmpty();
    }

    @Test
    void what_an_input_holds_ends_when_it_is_lost_and_what_another_one_does_not() {
        strike(1);
        sounds.letGoOfLost();
        parts.corrections.lose(parts.device("Lights"));
        parts.sent();
        sounds.letGoOfLost();
        assertThat(parts.sent()).containsExactly("81 3C 00 @ 0");
    }

    @Test
    void a_note_passed_on_ends_with_its_key_and_with_its_relay() {
        NoteOn came = new NoteOn(0, 40, 80);
        assertThat(sounds.passedOn(1, came, 7, module, new NoteOn(1, 60, 80))).isTrue();
        assertThat(sounds.passedOn(1, new NoteOff(0, 40, 0), 7, module, new NoteOff(1, 60, 0)))
                .isTrue();
        assertThat(sounds.state().sounds()).isFalse();
        sounds.passedOn(1, came, 7, module, new NoteOn(1, 60, 80));
        sounds.letGoOfLost();
        assertThat(parts.sent()).as("no relay 7 is in the plan").containsExactly("81 3C 00 @ 0");
        assertThat(sounds.passedOn(1, new ControlChange(0, 7, 1), 7, module, new ControlChange(1, 7, 1)))
                .as("what ends by itself")
                .isTrue();
    }

    @Test
    void a_machine_that_goes_out_tonight_ends_what_sounds_on_it_alone() {
        strike(1);
        Key elsewhere = new Key(parts.device("Tablet"), 5, Kind.NOTE, 60);
        sounds.begin(hand(1), 100, elsewhere, new NoteOn(5, 60, 100), why);
        parts.sent();
        sounds.quiet(module);
        assertThat(parts.sent()).containsExactly("81 3C 00 @ 0");
        sounds.silenceAll(why);
        assertThat(parts.sent()).containsExactly("85 3C 00 @ 0");
    }

    @Test
    void what_a_keyboard_says_of_its_program_and_controls_is_known_of_the_machine() {
        PlannedCall scene = parts.call("Console", "Scene");
        int console = parts.device("Console");
        parts.make("Console", "Bed 10 %");
        sounds.say(console, (ChannelMessage) scene.messages().get(0).message(), why);
        assertThat(parts.devices.of(console).slot("scene")).isPresent();
        sounds.say(console, new ControlChange(4, 3, 99), why);
        assertThat(parts.devices.told().levels().values()).anyMatch(l -> l.value() == 99);
    }
}
