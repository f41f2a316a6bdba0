package underbaton.core.engine.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandKey.Way;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Show;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.operator.Operator;
import underbaton.core.rig.Remarks.Mark;

class HandCuesTest {

    private PartsOnPaper parts;
    private int look;
    private int talk;
    private int film;
    private int guarded;

    @BeforeEach
    void page() {
        Show show = Hands.withPage(PartsOnPaper.show(), "Night");
        show = key(show, 0, "Look", Way.PRESS, "Lights: Amber", "", false);
        show = key(show, 1, "Film", Way.ON_OFF, "Player: Play", "Player: Stop", false);
        show = key(show, 2, "Talk", Way.HELD, "Console: Bed 100 %", "Console: Bed 0 %", false);
        show = key(show, 3, "Dark", Way.PRESS, "Lights: Dark", "", true);
        parts = new PartsOnPaper(show);
        look = Hands.named(show, "Look").orElseThrow().id();
        film = Hands.named(show, "Film").orElseThrow().id();
        talk = Hands.named(show, "Talk").orElseThrow().id();
        guarded = Hands.named(show, "Dark").orElseThrow().id();
    }

    private static Show key(Show show, int column, String name, Way way, String on, String off, boolean guarded) {
        HandKey key = new HandKey(0, 0, column, name, Mark.NONE, way, calls(show, on), calls(show, off), guarded);
        return Hands.withKey(show, show.hands().get(0).id(), key);
    }

    private static List<Call> calls(Show show, String typed) {
        String[] words = typed.split(": ");
        return show.devices().stream()
                .filter(d -> d.name().equals(words[0]))
                .map(d -> Call.of(d, words[1]))
                .toList();
    }

    private String touch(int key, KeyTouch how) {
        return parts.keys.touch(key, how, "hand: ", false);
    }

    @Test
    void a_key_that_is_pressed_does_its_calls_each_time_and_its_release_means_nothing() {
        assertThat(touch(look, KeyTouch.PRESS)).isEqualTo("Look");
        assertThat(touch(look, KeyTouch.LET_GO)).isEmpty();
        touch(look, KeyTouch.PRESS);
        assertThat(parts.sent()).containsExactly("90 01 7F @ 0", "90 01 7F @ 0");
        assertThat(parts.step.messages()).extracting(m -> m.cause().words()).containsOnly("hand: Look");
    }

    @Test
    void an_on_off_key_turns_round_what_the_machines_are_whoever_made_them_so() {
        assertThat(touch(film, KeyTouch.PRESS)).isEqualTo("Film on");
        assertThat(touch(film, KeyTouch.PRESS)).isEqualTo("Film off");
        parts.make("Player", "Play");
        assertThat(touch(film, KeyTouch.PRESS)).as("the book has started it").isEqualTo("Film off");
        assertThat(touch(film, KeyTouch.OFF)).isEqualTo("Film off");
        assertThat(touch(film, KeyTouch.ON)).isEqualTo("Film on");
    }

    @Test
    void a_key_that_works_while_it_is_held_is_let_go_once() {
        touch(talk, KeyTouch.PRESS);
        assertThat(parts.keys.isHeld(talk)).isTrue();
        assertThat(parts.keys.isHeld(look)).isFalse();
        touch(talk, KeyTouch.LET_GO);
        assertThat(touch(talk, KeyTouch.LET_GO)).as("nobody holds it").isEmpty();
        assertThat(parts.sent()).hasSize(2).last().asString().startsWith("B4 03 00");
    }

    @Test
    void what_a_pad_holds_is_let_go_when_the_pad_is_away() {
        int pad = parts.device("Tablet");
        parts.keys.touch(talk, KeyTouch.PRESS, "signal: ", false, pad);
        parts.keys.letGoOfLost();
        assertThat(parts.keys.isHeld(talk)).isTrue();
        parts.corrections.lose(pad);
        parts.keys.letGoOfLost();
        assertThat(parts.keys.isHeld(talk)).isFalse();
        assertThat(parts.keys.state().holders()).isEmpty();
    }

    @Test
    void a_guarded_key_wants_a_second_touch_unless_its_listener_says_otherwise() {
        assertThat(touch(guarded, KeyTouch.PRESS)).isEqualTo("Dark" + Operator.ONCE_MORE);
        assertThat(parts.sent()).isEmpty();
        assertThat(touch(guarded, KeyTouch.PRESS)).isEqualTo("Dark");
        assertThat(parts.keys.touch(guarded, KeyTouch.PRESS, "", true)).isEqualTo("Dark");
        assertThat(parts.sent()).hasSize(2);
    }

    @Test
    void a_key_that_is_gone_does_nothing() {
        assertThat(touch(999, KeyTouch.PRESS)).isEqualTo("its key is gone");
    }
}
