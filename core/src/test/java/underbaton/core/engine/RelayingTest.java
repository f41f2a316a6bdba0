package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.HeldUp;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.store.StoredForm;

/** What relays make of what comes in. */
class RelayingTest extends PlayedShow {

    private static final Pattern EXPRESSION = new Pattern.Controller(11, Pattern.Way.WITHIN, 0, 127);
    private static final Pattern ANY_PROGRAM = new Pattern.Program(-1, 0, 127);

    private int console;
    private int words;
    private int pedals;
    private final List<Outcome> outcomes = new ArrayList<>();
    private final List<Happening.Looped> loops = new ArrayList<>();

    @BeforeEach
    void rig() {
        show = Shows.device(show, "Pedals", Department.KEYS, 0);
        pedals = lastDevice();
        show = Shows.device(show, "Words", Department.WORDS, 0);
        words = lastDevice();
        Device osc = show.device(words).orElseThrow();
        show = show.withDevice(osc.withConnection(new Connection.Osc("127.0.0.1", 9000, "", Connection.Carrier.UDP)));
        show = fader(show);
        console = lastDevice();
        for (int id : new int[] {pedals, console}) {
            Device midi = show.device(id).orElseThrow();
            show = show.withDevice(midi.withConnection(new Connection.NetworkMidi("10.0.0." + id, 5004)));
        }
    }

    private int lastDevice() {
        return show.devices().get(show.devices().size() - 1).id();
    }

    private int phrase(int device, String name) {
        return show.device(device).orElseThrow().phraseNamed(name).orElseThrow().id();
    }

    private Listener relay(String name, int from, Pattern pattern, Passage passage) {
        return new Listener(
                0, name, Set.of(from), OptionalInt.empty(), pattern, new Reaction.PassOn(passage), 0, 0, false, true);
    }

    private void relay(Pattern pattern, Passage passage) {
        show = show.withListener(relay("relay", pedals, pattern, passage));
    }

    private static Passage.Written written(int device, String says, Filling filling) {
        return new Passage.Written(device, new SpeechWording(Numbering.WIRE).read(says), filling);
    }

    private static Filling scaled(double from, double to, double low, double high) {
        return new Filling.Scaled(Scale.straight(from, to, low, high));
    }

    private Filling meeting(Scale.Meeting how, int smoothMs, Optional<Scale.Second> second) {
        return new Filling.Scaled(new Scale(0, false, 0, 127, 0, 100, 1, 0, smoothMs, second, how));
    }

    private Passage bed(Filling filling) {
        return new Passage.Says(console, phrase(console, "Bed"), filling);
    }

    /** @return what was done, or why nothing was */
    private String hear(int from, Message message) {
        Device device = show.device(from).orElseThrow();
        Bytes bytes = message instanceof MidiMessage m ? m.encode() : Bytes.NONE;
        Source source = new Source(from, device.name(), device.numbering());
        Step step = Engine.step(
                state,
                Event.of(state.nowNanos(), new Order.Heard(source, new Signal(message, bytes, state.nowNanos()))));
        hear(step);
        step.happenings().forEach(h -> {
            if (h instanceof Happening.Heard heard) {
                outcomes.add(heard.outcome());
            } else if (h instanceof Happening.Looped looped) {
                loops.add(looped);
            }
        });
        Outcome last = outcomes.get(outcomes.size() - 1);
        return last.isTaken() ? last.taken().get(0).did() : "not: " + last.why();
    }

    private String hear(Message message) {
        return hear(pedals, message);
    }

    private static ControlChange pedal(int value) {
        return new ControlChange(0, 11, value);
    }

    private Message last() {
        return sent.get(sent.size() - 1).message();
    }

    private Object lastArgument() {
        List<Object> arguments = ((OscMessage) last()).arguments();
        return arguments.get(arguments.size() - 1);
    }

    // ---- scaling, by hand computation

    @Test
    void sevenBitsBecomeAFloatAtBothEndsAndInTheMiddle() {
        relay(EXPRESSION, written(words, "osc /size ?", scaled(0, 127, -1, 1)));
        begin();
        hear(pedal(0));
        assertThat(lastArgument()).isEqualTo(-1f);
        hear(pedal(127));
        assertThat(lastArgument()).isEqualTo(1f);
        // −1 + 2 · 64 / 127
        hear(pedal(64));
        assertThat(lastArgument()).isEqualTo(0.007874016f);
    }

    @Test
    void aFloatBecomesSevenBitsTurnedRoundAndIsClamped() {
        relay(new Pattern.Osc("/level", List.of()), written(console, "control 20 to ?", scaled(0, 1, 127, 0)));
        begin();
        float[] says = {0f, 0.5f, 1f, 1.7f, -3f};
        // 127 − 63.5 = 63.5, and the even one of two neighbours is 64.
        int[] sends = {127, 64, 0, 0, 127};
        for (int i = 0; i < says.length; i++) {
            hear(new OscMessage("/level", List.of(says[i])));
            assertThat(last()).isEqualTo(new ControlChange(4, 20, sends[i]));
        }
        assertThat(hear(new OscMessage("/level", List.of()))).isEqualTo("no number came with it");
        assertThat(hear(new OscMessage("/level", List.of("loud")))).isEqualTo("no number came with it");
    }

    @Test
    void twoHalvesOfAControllerAreOneNumberOfFourteenBits() {
        Filling fine = new Filling.Scaled(
                new Scale(0, true, 0, 16_383, 0, 1, 1, 0, 0, Optional.empty(), Scale.Meeting.LATEST));
        relay(new Pattern.Controller(1, Pattern.Way.WITHIN, 0, 127), written(words, "osc /fine ?", fine));
        begin();
        hear(new ControlChange(0, 1, 64));
        assertThat(sent).as("the other half may come").isEmpty();
        hear(new ControlChange(0, 33, 5));
        assertThat(lastArgument()).isEqualTo((float) (8197 / 16383.0));
        hear(new ControlChange(0, 1, 127));
        hear(new ControlChange(0, 33, 127));
        assertThat(lastArgument()).isEqualTo(1f);
        assertThat(sent).as("one message a step").hasSize(2);
        hear(new ControlChange(0, 1, 64));
        pass(19);
        assertThat(sent).hasSize(2);
        pass(1);
        // The higher half alone sets the lower to 0: 64 · 128 = 8,192 of 16,383.
        assertThat(lastArgument()).isEqualTo((float) (8192 / 16383.0));
        assertThat(sent).hasSize(3);
    }

    @Test
    void aBendGoesOutAsABendAndAsGridOfWholeSteps() {
        Scale steps = new Scale(0, false, -8192, 8191, 0, 12, 1, 3, 0, Optional.empty(), Scale.Meeting.LATEST);
        relay(new Pattern.Bend(-8192, 8191), written(words, "osc /steps ?", new Filling.Scaled(steps)));
        show = show.withListener(relay(
                "bend",
                pedals,
                new Pattern.Bend(-8192, 8191),
                written(console, "bend ?", scaled(-8192, 8191, 8191, -8192))));
        begin();
        hear(new PitchBend(0, 0));
        assertThat(sent)
                .extracting(ScheduledMessage::message)
                .containsExactly(new OscMessage("/steps", List.of(0)), new PitchBend(4, 16_383));
        sent.clear();
        hear(new PitchBend(0, 16_383));
        assertThat(sent)
                .extracting(ScheduledMessage::message)
                .containsExactly(new OscMessage("/steps", List.of(12)), new PitchBend(4, 0));
        sent.clear();
        // 5/12 of the way is 5, and 6 is the nearest multiple of 3.
        hear(new PitchBend(0, 6826));
        assertThat(sent.get(0).message()).isEqualTo(new OscMessage("/steps", List.of(6)));
    }

    @Test
    void aBentWayIsSlowAtFirst() {
        Scale square = new Scale(0, false, 0, 127, 0, 100, 2, 0, 0, Optional.empty(), Scale.Meeting.LATEST);
        relay(EXPRESSION, bed(new Filling.Scaled(square)));
        begin();
        // (64/127)² of 100 % is 25.4 %, that is 32.25 of 127.
        assertThat(hear(pedal(64))).isEqualTo("Console: Bed → 25.395 %");
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 32));
    }

    // ---- names, numbers, the very message

    @Test
    void aProgramBecomesTheNthNameOfAListAndWhatHasNoneIsTold() {
        relay(ANY_PROGRAM, written(words, "osc /song ?", new Filling.Named(0, List.of("Slipway", "", "The toll"), 1)));
        begin();
        // The pedals count programs as on the wire, so their program 1 is the first name.
        hear(new ProgramChange(0, 1));
        assertThat(last()).isEqualTo(new OscMessage("/song", List.of("Slipway")));
        hear(new ProgramChange(0, 3));
        assertThat(last()).isEqualTo(new OscMessage("/song", List.of("The toll")));
        assertThat(hear(new ProgramChange(0, 2))).isEqualTo("its list has no name for 2");
        assertThat(hear(new ProgramChange(0, 0))).isEqualTo("its list has no name for 0");
        assertThat(hear(new ProgramChange(0, 99))).isEqualTo("its list has no name for 99");
        assertThat(sent).hasSize(2);
    }

    @Test
    void aKeyPassesOnItsNotesAndNoneStaysBehind() {
        relay(new Pattern.Note(48, 72, 1, 127, true), new Passage.Through(console, OptionalInt.of(9), 12));
        int relay = show.listeners().get(0).id();
        show = show.withListener(new Listener(
                0,
                "off",
                Set.of(),
                OptionalInt.empty(),
                ANY_PROGRAM,
                new Reaction.Arm(Set.of(relay), false),
                0,
                0,
                false,
                true));
        begin();
        hear(new NoteOn(0, 60, 90));
        assertThat(last()).isEqualTo(new NoteOn(9, 72, 90));
        hear(new ProgramChange(0, 1));
        hear(new NoteOff(0, 60, 0));
        assertThat(last()).isEqualTo(new NoteOff(9, 72, 0));
        assertThat(hear(new NoteOn(0, 62, 90))).isEqualTo("not: it is disarmed");
        assertThat(sent).hasSize(2);
    }

    @Test
    void whatAPhraseSaysIsKnownToHaveBeenToldInWhateverWay() {
        show = show.withPhrase(
                console, new Phrase(0, "Scene 3", List.of(new ProgramChange(0, 2)), Effect.HOLDS, false));
        relay(ANY_PROGRAM, new Passage.Through(console, OptionalInt.of(4), 1));
        begin();
        hear(new ProgramChange(0, 1));
        assertThat(last()).isEqualTo(new ProgramChange(4, 2));
        assertThat(state.told().devices().get(console).shows().orElseThrow().phrase())
                .isEqualTo("Scene 3");
    }

    @Test
    void aMachineIsToldOnlyWhatItsLineCarries() {
        relay(EXPRESSION, new Passage.Through(words, OptionalInt.empty(), 0));
        begin();
        assertThat(hear(pedal(5))).isEqualTo("Words is reached by OSC and cannot be told that");
    }

    @Test
    void theMasterSwitchLeavesRelaysAlone() {
        relay(EXPRESSION, bed(scaled(0, 127, 0, 100)));
        begin();
        order(new Order.Listen(false));
        assertThat(hear(pedal(127))).isEqualTo("Console: Bed → 100 %");
    }

    // ---- a second signal

    @Test
    void aSecondPedalGatesOrMultiplies() {
        Scale.Second second = new Scale.Second(pedals, 0, 67, false);
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LATEST, 0, Optional.of(second))));
        begin();
        // Nobody has touched it: nothing of what comes.
        assertThat(hear(pedal(127))).isEqualTo("Console: Bed → 0 %");
        // Its own move says anew what the first said.
        assertThat(hear(new ControlChange(0, 67, 127))).isEqualTo("Console: Bed → 100 %");
        // 100 % · 32/127
        assertThat(hear(new ControlChange(0, 67, 32))).isEqualTo("Console: Bed → 25.197 %");

        show = show.withListener(show.listeners()
                .get(0)
                .pointing(
                        Set.of(pedals),
                        new Reaction.PassOn(bed(
                                meeting(Scale.Meeting.LATEST, 0, Optional.of(new Scale.Second(pedals, 0, 67, true))))),
                        0));
        begin();
        assertThat(hear(pedal(90))).isEqualTo("its second signal is off");
        assertThat(hear(new ControlChange(0, 67, 64))).isEqualTo("Console: Bed → 70.866 %");
    }

    // ---- beside the book

    private void fadeToFull() {
        fade("30", "by hand", "Bed → 100 % in 1 s");
        fade("29", "by hand", "Bed → 0 %");
        begin();
        standBy("29");
        go();
        standBy("30");
        pass(500);
        go();
        pass(500);
    }

    @Test
    void theLatestTakesTheControlFromTheBooksFade() {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LATEST, 0, Optional.empty())));
        fadeToFull();
        sent.clear();
        hear(pedal(10));
        pass(2000);
        assertThat(sent).extracting(ScheduledMessage::message).containsExactly(new ControlChange(4, 3, 10));
    }

    @Test
    void aPedalPicksTheControlUpWhereItMeetsIt() {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.PICK_UP, 0, Optional.empty())));
        fadeToFull();
        pass(600);
        sent.clear();
        assertThat(hear(pedal(10))).endsWith("waits until it meets 127");
        assertThat(hear(pedal(90))).contains("waits");
        assertThat(sent).isEmpty();
        assertThat(hear(pedal(126))).isEqualTo("Console: Bed → 99.213 %");
        hear(pedal(40));
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 40));
        // The book takes it back, and the pedal must meet it once more: here by passing it.
        standBy("30");
        go();
        pass(2000);
        sent.clear();
        assertThat(hear(pedal(50))).contains("waits until it meets 127");
    }

    @Test
    void theLargerOfPedalAndBookWins() {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LARGEST, 0, Optional.empty())));
        fade("29", "by hand", "Bed → 0 %");
        fade("30", "by hand", "Bed → 100 % in 1 s");
        begin();
        standBy("29");
        go();
        hear(pedal(64));
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 64));
        sent.clear();
        go();
        pass(2000);
        // The fade is not heard until it is above the pedal.
        assertThat(sent).extracting(m -> ((ControlChange) m.message()).value()).allMatch(v -> v >= 64);
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 127));
        sent.clear();
        assertThat(hear(pedal(0))).endsWith("the book has it at more");
        assertThat(sent).isEmpty();
        standBy("29");
        go();
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 0));
    }

    /** Pedal up at 127, the book at 10 %: whatever ends the relay, the fader comes down to what the book says. */
    @ParameterizedTest
    @ValueSource(
            strings = {"disarmed", "deleted", "its machine away", "out tonight", "stop all", "no longer the larger"})
    void aFaderThatARelayHoldsUpComesDownWithTheRelay(String how) {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LARGEST, 0, Optional.empty())));
        fade("29", "by hand", "Bed → 10 %");
        begin();
        hear(pedal(127));
        standBy("29");
        go();
        assertThat(last()).as("held up").isEqualTo(new ControlChange(4, 3, 127));
        Listener relay = show.listeners().get(0);
        switch (how) {
            case "disarmed" -> order(new Order.Arm(Set.of(relay.id()), false));
            case "deleted" -> order(new Order.Adopt(Planner.plan(show.withoutListener(relay.id()))));
            case "its machine away" -> order(new Order.Lost(pedals));
            case "out tonight" ->
                order(new Order.Adopt(
                        Planner.plan(show).tonight(OutTonight.NONE.with(OutTonight.Kind.MACHINE, pedals, false))));
            case "stop all" -> order(new Order.StopAll());
            default -> {
                Listener latest =
                        relay("relay", pedals, EXPRESSION, bed(meeting(Scale.Meeting.LATEST, 0, Optional.empty())));
                order(new Order.Adopt(Planner.plan(show.withListener(latest.withId(relay.id())))));
            }
        }
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 13));
        assertThat(state.heldUp()).isEqualTo(HeldUp.NOTHING);
        go();
    }

    /** The fader is up when the crash comes, and nobody holds it afterwards: the book's catch-up brings it down. */
    @Test
    void afterACrashAFaderThatWasHeldUpIsKnownToBeUp() {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LARGEST, 0, Optional.empty())));
        fade("29", "by hand", "Bed → 10 %");
        begin();
        hear(pedal(127));
        standBy("29");
        go();
        PlaybackState book = state;
        RunSnapshot kept = StoredForm.read(StoredForm.write(RunSnapshot.of(state, 0)), RunSnapshot.class);
        state = kept.into(Planner.plan(show), 0, 0);
        sent.clear();
        order(new Order.CatchUp(book, Set.of()));
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 13));
    }

    /** A key is down when its relay, its keyboard or the show's own stop takes it away: the note ends, and just once. */
    @ParameterizedTest
    @ValueSource(
            strings = {"deleted", "its keyboard away", "stop all", "all notes off", "let go", "disarmed and let go"})
    void aNoteThatIsPassedOnEndsHowever(String how) {
        relay(Pattern.Note.struck(60), new Passage.Through(console, OptionalInt.of(4), 12));
        begin();
        hear(new NoteOn(0, 60, 90));
        assertThat(last()).isEqualTo(new NoteOn(4, 72, 90));
        int relay = show.listeners().get(0).id();
        switch (how) {
            case "deleted" -> order(new Order.Adopt(Planner.plan(show.withoutListener(relay))));
            case "its keyboard away" -> order(new Order.Lost(pedals));
            case "stop all" -> order(new Order.StopAll());
            case "all notes off" -> order(new Order.Hush());
            case "let go" -> hear(new NoteOff(0, 60, 0));
            default -> {
                order(new Order.Arm(Set.of(relay), false));
                hear(new NoteOff(0, 60, 0));
            }
        }
        assertThat(sent).extracting(ScheduledMessage::message).containsOnlyOnce(new NoteOff(4, 72, 0));
        assertThat(state.sounding().sounds()).isFalse();
    }

    @Test
    void aSmoothedPedalGlides() {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LATEST, 100, Optional.empty())));
        begin();
        hear(pedal(0));
        sent.clear();
        hear(pedal(127));
        pass(50);
        // Half way after half the time.
        assertThat(((ControlChange) last()).value()).isBetween(61, 65);
        pass(60);
        assertThat(last()).isEqualTo(new ControlChange(4, 3, 127));
        assertThat(sent).hasSizeBetween(60, 127);
    }

    @Test
    void whatIsWrittenTakesItsTimeAndAControlThatTheBookKnowsIsKnownToHaveMoved() {
        relay(ANY_PROGRAM, written(console, "control 3 to 20; after 500 ms control 21 to 9", new Filling.Nothing()));
        fadeToFull();
        sent.clear();
        assertThat(hear(new ProgramChange(0, 1))).startsWith("Console: control 3 to 20");
        assertThat(sent).extracting(ScheduledMessage::message).containsExactly(new ControlChange(4, 3, 20));
        assertThat(state.moves()).as("the fade is over").isEmpty();
        assertThat(state.standsAt(Control.of(console, new ControlChange(4, 3, 0)), state.nowNanos()))
                .hasValue(20);
        long now = state.nowNanos();
        pass(500);
        assertThat(last()).isEqualTo(new ControlChange(4, 21, 9));
        assertThat(sent.get(1).dueNanos()).isEqualTo(now + 500 * MS);
        assertThat(sent.get(1).cause().words()).isEqualTo("relay: relay");
    }

    @Test
    void onlyTheEndOfANoteThatItMeansIsPassedOnAnyway() {
        Listener keys = new Listener(
                0,
                "keys",
                Set.of(pedals),
                OptionalInt.of(0),
                new Pattern.Note(48, 72, 60, 127, true),
                new Reaction.PassOn(new Passage.Through(console, OptionalInt.of(9), 0)),
                0,
                0,
                false,
                true);
        show = show.withListener(keys);
        begin();
        assertThat(hear(new NoteOn(0, 60, 30))).isEqualTo("not: velocity 30, listens for 60 to 127");
        assertThat(hear(new NoteOn(0, 60, 0))).isEqualTo("Console: note C3 at 0, channel 10");
        assertThat(hear(new NoteOff(1, 60, 0))).isEqualTo("not: channel 2, listens on 1");
        assertThat(hear(new NoteOff(0, 47, 0))).startsWith("not: note B1");
        assertThat(hear(words, new NoteOff(0, 60, 0))).isEqualTo("not: it listens to another machine");
        show = show.withListener(new Listener(
                show.listeners().get(0).id(),
                "let go",
                Set.of(pedals),
                OptionalInt.of(0),
                new Pattern.Note(48, 72, 1, 127, false),
                keys.reaction(),
                0,
                0,
                false,
                true));
        begin();
        assertThat(hear(new NoteOn(0, 60, 30))).isEqualTo("not: listens for its release");
        assertThat(sent).hasSize(1);
    }

    @Test
    void aPedalPicksUpNextToTheValueOrWhereItPassesItAndKeepsIt() {
        relay(EXPRESSION, bed(meeting(Scale.Meeting.PICK_UP, 0, Optional.empty())));
        fade("29", "by hand", "Bed → 50 %");
        begin();
        assertThat(hear(pedal(100))).as("nobody knows where it stands").isEqualTo("Console: Bed → 78.74 %");
        standBy("29");
        go();
        // It stands at 63.5.
        assertThat(hear(pedal(60))).as("it passes the value").isEqualTo("Console: Bed → 47.244 %");
        standBy("29");
        go();
        assertThat(hear(pedal(58))).endsWith("waits until it meets 64");
        assertThat(hear(pedal(63))).as("next to it").isEqualTo("Console: Bed → 49.606 %");
        assertThat(hear(pedal(10))).as("it leads now").isEqualTo("Console: Bed → 7.874 %");
    }

    @Test
    void aGateThatIsShutPassesNothingAndOneThatIsOffIsNotHeard() {
        Scale.Second gate = new Scale.Second(pedals, 1, 67, true);
        relay(EXPRESSION, bed(meeting(Scale.Meeting.LATEST, 0, Optional.of(gate))));
        begin();
        assertThat(hear(new ControlChange(1, 67, 127)))
                .as("nothing was said before")
                .startsWith("not: ");
        assertThat(hear(pedal(127))).isEqualTo("Console: Bed → 100 %");
        hear(new ControlChange(1, 67, 63));
        assertThat(hear(pedal(20))).isEqualTo("its second signal is off");
        assertThat(hear(new ControlChange(0, 67, 127))).as("another channel").startsWith("not: ");
        assertThat(hear(console, new ControlChange(1, 67, 127)))
                .as("another machine")
                .startsWith("not: ");
        assertThat(hear(new ControlChange(1, 66, 127))).as("another control").startsWith("not: ");
        assertThat(hear(new ControlChange(1, 67, 64))).isEqualTo("Console: Bed → 15.748 %");
    }

    // ---- loops

    @Test
    void aRelayThatHearsItselfIsRefused() {
        assertThatThrownBy(() -> show.withListener(
                        relay("round", console, EXPRESSION, new Passage.Through(console, OptionalInt.empty(), 0))))
                .isInstanceOf(Refusal.class)
                .hasMessageStartingWith("“round” would hear what it says itself");
        // Another number is none of its own.
        show.withListener(relay("shifted", console, EXPRESSION, new Passage.Through(console, OptionalInt.empty(), 1)));
    }

    @Test
    void aWayRoundThroughAnotherRelayIsRefused() {
        show = show.withListener(
                relay("there", pedals, EXPRESSION, written(console, "control 11 to ?", scaled(0, 127, 0, 127))));
        assertThatThrownBy(() -> show.withListener(
                        relay("back", console, EXPRESSION, new Passage.Through(pedals, OptionalInt.of(0), 0))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("would come round to it, through “there”");
        show.withListener(relay(
                "other",
                console,
                new Pattern.Controller(7, Pattern.Way.WITHIN, 0, 127),
                new Passage.Through(pedals, OptionalInt.empty(), 0)));
    }

    @Test
    void whatAMachineEchoesIsNoSignal() {
        relay(EXPRESSION, written(console, "control 11 to ?", scaled(0, 127, 0, 127)));
        show = show.withListener(relay(
                "second",
                console,
                new Pattern.Note(0, 127, 1, 127, true),
                new Passage.Through(pedals, OptionalInt.empty(), 0)));
        show = show.withListener(new Listener(
                0,
                "cc",
                Set.of(console),
                OptionalInt.empty(),
                EXPRESSION,
                new Reaction.Give(Deed.GO),
                0,
                0,
                false,
                true));
        begin();
        hear(pedal(100));
        assertThat(hear(console, last())).isEqualTo("not: we said it ourselves a moment ago");
        // It comes back once; when it comes again, somebody means it.
        assertThat(hear(console, last())).isEqualTo("GO");
    }

    @Test
    void aGuardedPhraseWantsItsSecondAct() {
        show = show.withPhrase(console, new Phrase(0, "Panic", List.of(new ProgramChange(0, 99)), Effect.MOMENT, true));
        relay(ANY_PROGRAM, new Passage.Says(console, phrase(console, "Panic"), new Filling.Nothing()));
        begin();
        assertThat(hear(new ProgramChange(0, 1))).isEqualTo("Console: Panic: once more within three seconds");
        assertThat(sent).isEmpty();
        hear(new ProgramChange(0, 1));
        assertThat(last()).isEqualTo(new ProgramChange(4, 99));
    }

    @Test
    void whatIsGuardedIsGuardedAmongOtherMessagesToo() {
        show = show.withPhrase(console, new Phrase(0, "Panic", List.of(new ProgramChange(0, 99)), Effect.MOMENT, true));
        relay(ANY_PROGRAM, written(console, "control 20 to 5; program 99", new Filling.Nothing()));
        begin();
        assertThat(hear(new ProgramChange(0, 1))).endsWith(": once more within three seconds");
        assertThat(sent).isEmpty();
        hear(new ProgramChange(0, 1));
        assertThat(last()).isEqualTo(new ProgramChange(4, 99));
    }

    /** The patch bay is no machine with channels: a program means a set. */
    @Test
    void theSameProgramLoadsAPatchSetOnWhateverChannelItComes() {
        show = PatchBay.withNew(show, "Piano alone", new Wiring(List.of(PatchLine.open(pedals, console)), Set.of()));
        int bay = PatchBay.of(show).orElseThrow().id();
        relay(ANY_PROGRAM, new Passage.Through(bay, OptionalInt.empty(), 0));
        begin();
        assertThat(hear(new ProgramChange(9, 0))).isEqualTo("Patch: program 1, channel 1");
        assertThat(state.patched().setId())
                .isEqualTo(PatchBay.sets(show).iterator().next().id());
        assertThat(hear(new ProgramChange(9, 5))).isEqualTo("nothing: the patch bay has no set with that number");
        assertThat(sent).filteredOn(m -> m.deviceId() == bay).hasSize(1);
    }

    @Test
    void aPhraseWithATextTakesANameOfItsMachinesList() {
        Phrase says = new Phrase(
                0,
                "Song",
                new SpeechWording(Numbering.WIRE).read("osc /song ?"),
                Optional.of(Argument.of("text")),
                Effect.MOMENT,
                false,
                false,
                Remarks.NONE);
        show = show.withPhrase(words, says);
        relay(
                ANY_PROGRAM,
                new Passage.Says(words, phrase(words, "Song"), new Filling.Named(0, List.of("One", "Two"), 0)));
        begin();
        assertThat(hear(new ProgramChange(0, 1))).isEqualTo("Words: Song → Two");
        assertThat(last()).isEqualTo(new OscMessage("/song", List.of("Two")));
    }
}
