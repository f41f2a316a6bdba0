package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandKey.Way;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Shows;
import underbaton.core.engine.key.KeyLight;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/** What hand cues do when they are touched, and what their keys show. */
class TouchingTest extends PlayedShow {

    private int page;
    private int pads;
    private final List<Outcome> outcomes = new ArrayList<>();

    @BeforeEach
    void hands() {
        show = Shows.device(show, "Sound", Department.SOUND, 2);
        show = Shows.phrase(show, "Talk open", "control 20 to 127", Effect.of("holds talkback"));
        show = Shows.phrase(show, "Talk shut", "control 20 to 0", Effect.of("holds talkback"));
        show = Shows.phrase(show, "Applause", "program 4", Effect.MOMENT);
        show = Shows.device(show, "Pads", Department.KEYS, 9);
        pads = show.devices().get(show.devices().size() - 1).id();
        show = Hands.withPage(show, "Night");
        page = show.hands().get(0).id();
    }

    private Call call(String device, String cell) {
        Device d = show.devices().stream()
                .filter(x -> x.name().equals(device))
                .findFirst()
                .orElseThrow();
        return Call.of(d, cell);
    }

    private int key(String name, Way way, List<Call> on, List<Call> off, boolean guarded) {
        int[] free = Hands.page(show, page).orElseThrow().free().orElseThrow();
        show = Hands.withKey(show, page, new HandKey(0, free[0], free[1], name, Mark.NONE, way, on, off, guarded));
        return Hands.named(show, name).orElseThrow().id();
    }

    private int talk(Way way) {
        return key("Talk", way, List.of(call("Sound", "Talk open")), List.of(call("Sound", "Talk shut")), false);
    }

    private void touch(int key, KeyTouch how) {
        order(new Order.Touch(key, how, "hand: "));
    }

    private KeyLight light(int key) {
        return state.light(state.plan().key(key).orElseThrow());
    }

    private List<String> bytes() {
        List<String> all = sent.stream()
                .map(m -> ((MidiMessage) m.message()).encode().hex())
                .toList();
        sent.clear();
        return all;
    }

    @Test
    void one_key_sends_a_program_a_control_and_a_note_on_three_channels_the_program_first() {
        int key = key(
                "All",
                Way.PRESS,
                List.of(call("Lights", "Amber"), call("Sound", "Talk open"), call("Sound", "Applause")),
                List.of(),
                false);
        begin();
        touch(key, KeyTouch.PRESS);
        assertThat(bytes()).containsExactly("C2 04", "B2 14 7F", "90 01 7F");
        touch(key, KeyTouch.LET_GO);
        assertThat(bytes()).isEmpty();
        assertThat(state.told()
                        .device(show.devices().get(0).id())
                        .shows()
                        .orElseThrow()
                        .phrase())
                .isEqualTo("Amber");
    }

    @Test
    void an_on_off_key_goes_by_what_the_machine_was_told_by_whatever() {
        int key = talk(Way.ON_OFF);
        show = Shows.cue(show, "30", "by hand", "Talk open");
        begin();
        assertThat(light(key)).isEqualTo(KeyLight.UNKNOWN);
        touch(key, KeyTouch.PRESS);
        touch(key, KeyTouch.PRESS);
        assertThat(bytes()).containsExactly("B2 14 7F", "B2 14 00");
        assertThat(light(key)).isEqualTo(KeyLight.OFF);
        standBy("30");
        go();
        assertThat(light(key)).isEqualTo(KeyLight.ON);
        bytes();
        touch(key, KeyTouch.PRESS);
        assertThat(bytes()).containsExactly("B2 14 00");
    }

    @Test
    void on_and_off_can_be_said_outright() {
        int key = talk(Way.ON_OFF);
        begin();
        touch(key, KeyTouch.ON);
        touch(key, KeyTouch.ON);
        touch(key, KeyTouch.OFF);
        assertThat(bytes()).containsExactly("B2 14 7F", "B2 14 7F", "B2 14 00");
    }

    @Test
    void a_key_whose_calls_leave_no_trace_goes_by_what_was_touched_last() {
        int key = key("Haze", Way.ON_OFF, List.of(call("Sound", "Applause")), List.of(), false);
        begin();
        touch(key, KeyTouch.PRESS);
        assertThat(light(key)).isEqualTo(KeyLight.ON);
        touch(key, KeyTouch.PRESS);
        assertThat(light(key)).isEqualTo(KeyLight.OFF);
        assertThat(bytes()).containsExactly("C2 04");
    }

    @Test
    void a_held_key_is_let_go_once_and_only_when_it_was_held() {
        int key = talk(Way.HELD);
        begin();
        touch(key, KeyTouch.LET_GO);
        assertThat(bytes()).isEmpty();
        touch(key, KeyTouch.PRESS);
        touch(key, KeyTouch.LET_GO);
        touch(key, KeyTouch.LET_GO);
        assertThat(bytes()).containsExactly("B2 14 7F", "B2 14 00");
    }

    @Test
    void a_guarded_key_wants_a_second_touch_within_three_seconds() {
        int key = key("House", Way.PRESS, List.of(call("Lights", "Dark")), List.of(), true);
        int other = key("Amber", Way.PRESS, List.of(call("Lights", "Amber")), List.of(), true);
        begin();
        touch(key, KeyTouch.PRESS);
        touch(other, KeyTouch.PRESS);
        touch(key, KeyTouch.PRESS);
        assertThat(bytes()).as("two guarded keys are not one touched twice").isEmpty();
        touch(key, KeyTouch.PRESS);
        assertThat(bytes()).containsExactly("90 00 7F");
        touch(key, KeyTouch.PRESS);
        pass(3_500);
        touch(key, KeyTouch.PRESS);
        assertThat(bytes()).isEmpty();
    }

    @Test
    void a_touch_of_a_key_that_is_gone_does_nothing() {
        begin();
        touch(4711, KeyTouch.PRESS);
        assertThat(bytes()).isEmpty();
    }

    @Test
    void a_phrase_that_is_taken_away_leaves_the_key_without_its_call() {
        int key = talk(Way.ON_OFF);
        Device sound = show.device(call("Sound", "Talk open").deviceId()).orElseThrow();
        show = show.withoutPhrase(sound.id(), call("Sound", "Talk open").phraseId());
        assertThat(Hands.key(show, key).orElseThrow().on()).isEmpty();
        assertThat(Hands.key(show, key).orElseThrow().off()).hasSize(1);
    }

    @Test
    void a_pad_works_a_held_key_and_lets_it_go() {
        int key = talk(Way.HELD);
        listen(new Pattern.Note(40, 40, 1, 127, true), key);
        begin();
        hear(new NoteOn(9, 40, 90));
        assertThat(bytes()).containsExactly("B2 14 7F");
        hear(new NoteOn(9, 40, 0));
        assertThat(bytes()).containsExactly("B2 14 00");
        hear(new NoteOff(9, 40, 0));
        assertThat(bytes()).as("it is let go already").isEmpty();
    }

    @Test
    void a_pedal_works_a_held_key_and_a_pad_an_on_off_key() {
        int held = talk(Way.HELD);
        listen(Pattern.Controller.pressed(67), held);
        int toggled = key("Haze", Way.ON_OFF, List.of(call("Lights", "Amber")), List.of(call("Lights", "Dark")), false);
        listen(new Pattern.Note(41, 41, 1, 127, true), toggled);
        begin();
        hear(new ControlChange(9, 67, 100));
        hear(new ControlChange(9, 67, 110));
        hear(new ControlChange(9, 67, 0));
        assertThat(bytes()).containsExactly("B2 14 7F", "B2 14 00");
        for (int i = 0; i < 2; i++) {
            hear(new NoteOn(9, 41, 90));
            hear(new NoteOff(9, 41, 0));
        }
        assertThat(bytes()).containsExactly("90 01 7F", "90 00 7F");
    }

    private void listen(Pattern pattern, int key) {
        Reaction touches = new Reaction.Hand(key);
        show = show.withListener(
                new Listener(0, "pad", Set.of(pads), OptionalInt.empty(), pattern, touches, 0, 0, false, true));
    }

    private void hear(MidiMessage message) {
        Source source = Source.of(show.device(pads).orElseThrow());
        order(new Order.Heard(source, Signal.of(message, state.nowNanos())));
    }
}
