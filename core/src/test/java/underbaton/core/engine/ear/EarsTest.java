package underbaton.core.engine.ear;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.out.Happening;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/** Who takes a signal, and what it brings about; the orders are only written down. */
class EarsTest {

    private final List<String> deeds = new ArrayList<>();
    private Show show = PartsOnPaper.show();
    private PartsOnPaper parts;
    private Listeners listeners;
    private Ears ears;

    private void listen(String name, Pattern pattern, Reaction reaction, int itemId, boolean atOnce) {
        show = show.withListener(
                new Listener(0, name, Set.of(), OptionalInt.empty(), pattern, reaction, 100, itemId, atOnce, true));
    }

    private void listen(String name, Pattern pattern, Reaction reaction) {
        listen(name, pattern, reaction, 0, false);
    }

    private void begin() {
        parts = new PartsOnPaper(show);
        listeners = new Listeners(parts.step, parts.keys, Hearing.FIRST);
        SharedControls shared =
                new SharedControls(parts.step, parts.devices, parts.out, parts.moves, parts.calls, listeners);
        Relays relays = new Relays(
                parts.step, parts.operator, parts.out, parts.moves, parts.sounds, parts.calls, listeners, shared);
        Deeds written = new Deeds() {
            @Override
            public void give(Deed deed) {
                deeds.add(deed.name());
            }

            @Override
            public void standBy(int cueId) {
                deeds.add("standby " + cueId);
            }

            @Override
            public void play(int itemId, long fromNanos) {
                deeds.add("play " + itemId + " from " + fromNanos);
            }
        };
        ears = new Ears(
                parts.step,
                parts.patching,
                parts.answers,
                listeners,
                new Reactions(parts.step, parts.operator, parts.calls, parts.keys, listeners, relays, shared, written));
    }

    private Outcome hear(MidiMessage message) {
        Source source = Source.of(show.devices().get(0));
        ears.hear(source, Signal.of(message, parts.step.now()), 0, 0);
        List<Happening> all = parts.step.happenings();
        return ((Happening.Heard) all.get(all.size() - 1)).outcome();
    }

    private String did(MidiMessage message) {
        return hear(message).taken().stream()
                .map(Outcome.Taken::did)
                .findFirst()
                .orElse("");
    }

    private static final Pattern PEDAL = new Pattern.Controller(64, Pattern.Way.PRESSED, 64, 127);
    private static final Pattern ANY_PROGRAM = new Pattern.Program(-1, 0, 127);

    private static ControlChange pedal(int value) {
        return new ControlChange(0, 64, value);
    }

    @Test
    void a_pedal_gives_its_order_when_it_goes_down_and_not_in_its_pause() {
        listen("Pedal", PEDAL, new Reaction.Give(Deed.GO));
        begin();
        assertThat(did(pedal(127))).isEqualTo("GO");
        did(pedal(0));
        assertThat(hear(pedal(127)).why()).contains("in its pause");
        parts.step.advance(100 * PartsOnPaper.MS);
        did(pedal(0));
        did(pedal(127));
        assertThat(deeds).containsExactly("GO", "GO");
    }

    @Test
    void what_nearly_fits_is_told_with_the_reason() {
        listen("Pedal", PEDAL, new Reaction.Give(Deed.GO), show.items().get(1).id(), false);
        begin();
        Outcome outcome = hear(pedal(127));
        assertThat(outcome.taken()).isEmpty();
        assertThat(outcome.nearest()).isEqualTo("Pedal");
        assertThat(outcome.why()).isEqualTo("it belongs to Two");
        ears.hear(
                Source.of(show.devices().get(0)),
                Signal.of(pedal(127), 0),
                show.items().get(1).id(),
                0);
        assertThat(deeds).as("only what goes down is taken").isEmpty();
    }

    @Test
    void what_we_said_ourselves_a_moment_ago_is_nobodys_order_and_comes_back_once() {
        listen("Note", new Pattern.Note(60, 60, 1, 127, true), new Reaction.Give(Deed.GO));
        begin();
        listeners.said(show.devices().get(0).id(), new NoteOn(0, 60, 90), 0);
        assertThat(hear(new NoteOn(0, 60, 90)).why()).contains("we said it ourselves");
        assertThat(did(new NoteOn(0, 60, 90))).isEqualTo("GO");
    }

    @Test
    void stop_all_by_a_signal_wants_two_unless_it_is_said_otherwise() {
        listen("Panic", PEDAL, new Reaction.Give(Deed.STOP_ALL));
        listen("At once", new Pattern.Note(1, 1, 1, 127, true), new Reaction.Give(Deed.STOP_ALL), 0, true);
        begin();
        assertThat(did(pedal(127))).contains("once more");
        parts.step.advance(200 * PartsOnPaper.MS);
        did(pedal(0));
        assertThat(did(pedal(127))).isEqualTo("stop all");
        assertThat(did(new NoteOn(0, 1, 1))).isEqualTo("stop all");
        assertThat(deeds).hasSize(2);
    }

    @Test
    void a_number_that_comes_with_it_says_which_cue_or_item() {
        listen("Cues", ANY_PROGRAM, new Reaction.ToCue(0, 0, true));
        begin();
        int ten = parts.step.plan().cues().get(2).cueId();
        assertThat(did(new ProgramChange(0, 10))).isEqualTo("GO 10");
        assertThat(deeds).containsExactly("standby " + ten, "GO");
        parts.step.advance(200 * PartsOnPaper.MS);
        assertThat(did(new ProgramChange(0, 99))).isEqualTo("there is no cue 99");
    }

    @Test
    void the_nth_item_is_played_and_one_that_is_not_there_is_told() {
        listen("Items", ANY_PROGRAM, new Reaction.Play(0, 1, ""));
        begin();
        assertThat(did(new ProgramChange(0, 1))).isEqualTo("plays Two");
        parts.step.advance(200 * PartsOnPaper.MS);
        assertThat(did(new ProgramChange(0, 5))).isEqualTo("there is no item 6");
        assertThat(deeds).containsExactly("play " + show.items().get(1).id() + " from 0");
    }

    @Test
    void a_phrase_is_fired_with_the_words_of_its_listener() {
        int lights = show.devices().get(0).id();
        int blue = show.devices().get(0).phraseNamed("Blue").orElseThrow().id();
        listen("Blue pedal", PEDAL, new Reaction.Fire(lights, blue));
        begin();
        assertThat(did(pedal(127))).isEqualTo("Blue");
        assertThat(parts.step.messages().get(0).cause().words()).isEqualTo("signal: Blue pedal");
    }

    @Test
    void listeners_can_be_armed_by_a_signal_and_the_master_switch_is_above_all() {
        listen("Pedal", PEDAL, new Reaction.Give(Deed.GO));
        int pedal = show.listeners().get(0).id();
        listen("Off", new Pattern.Note(1, 1, 1, 127, true), new Reaction.Arm(Set.of(pedal), false));
        begin();
        assertThat(did(new NoteOn(0, 1, 1))).isEqualTo("Pedal disarmed");
        assertThat(hear(pedal(127)).why()).isEqualTo("it is disarmed");
        listeners.arm(Set.of(pedal), true);
        listeners.listen(false);
        hear(pedal(0));
        assertThat(hear(pedal(127)).why()).isEqualTo("listeners are off");
        assertThat(deeds).isEmpty();
    }
}
