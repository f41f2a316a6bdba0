package underbaton.core.engine.answer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.Step;
import underbaton.core.engine.out.Happening;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/** A console that says which scene it has and where its faders stand, by bytes alone, and what is known of it. */
class AnswersTest {

    private static final long MS = 1_000_000;

    private final Show show = show();
    private PlaybackState state = PlaybackState.of(Planner.plan(show), 0);
    private final List<Message> sent = new ArrayList<>();
    private final List<String> told = new ArrayList<>();

    private static Phrase phrase(String name, String says, String argument, String effect, String answer) {
        return new Phrase(
                        0,
                        name,
                        new SpeechWording(Numbering.WIRE).read(says),
                        argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                        Effect.of(effect),
                        false,
                        false,
                        Remarks.NONE)
                .withAnswer(Answer.read(answer, new SpeechWording(Numbering.WIRE)));
    }

    /** Two dozen scenes, a fader in per cent, and a camera that says its numbers as floats. */
    private static Show show() {
        Show show = Show.empty(1, "Answers")
                .withDevice(new Device(
                        0,
                        "Console",
                        Department.SOUND,
                        new Connection.NetworkMidi("127.0.0.1", 5004),
                        0,
                        Numbering.WIRE,
                        0,
                        List.of()))
                .withDevice(new Device(
                        0,
                        "Camera",
                        Department.VIDEO,
                        new Connection.Osc("127.0.0.1", 9000, "", Connection.Carrier.UDP),
                        0,
                        Numbering.WIRE,
                        0,
                        List.of()));
        for (int i = 0; i < 24; i++) {
            show = show.withPhrase(1, phrase("Scene " + i, "program " + i, "", "holds scene", "program " + i));
        }
        show = show.withPhrase(
                1, phrase("Vox", "control 7 to ?", "per cent", "levels", "control 7 to ? within 300 ms"));
        show = show.withPhrase(1, phrase("All off", "note 1", "", "stops", ""));
        show = show.withPhrase(
                2, phrase("Zoom", "osc /zoom ,f ?", "per cent", "levels", "osc /zoom/now ,f ? within 500 ms"));
        show = show.withPhrase(2, phrase("Shot", "osc /shot ,i 4", "", "holds", "osc /shot/now ,i 4"));
        show = show.withItem(new Item(0, ItemKind.SCENE, "One", 0, List.of()), 0);
        Call fade = Call.of(show.devices().get(0), "Vox → 100 % in 2 s");
        return show.withCue(
                show.items().get(0).id(), new Cue(0, CueNumber.of("1"), Start.BY_HAND, "", List.of(fade), 0));
    }

    private void step(long atMs, Order order) {
        Step step = Engine.step(state, new Event(atMs * MS, "test", order));
        state = step.next();
        step.messages().forEach(m -> sent.add(m.message()));
        step.happenings().forEach(h -> {
            if (h instanceof Happening.Unanswered wrong) {
                told.add(wrong.words());
            }
        });
    }

    private void fire(long atMs, int device, String cell) {
        Device machine = show.devices().get(device - 1);
        Call call = Call.of(machine, cell);
        Phrase phrase = machine.phrase(call.phraseId()).orElseThrow();
        step(atMs, new Order.Fire(PlannedCall.of(machine, phrase, call.amount()), "test"));
    }

    private void says(long atMs, int device, Message message) {
        step(
                atMs,
                new Order.Heard(Source.of(show.devices().get(device - 1)), new Signal(message, Bytes.NONE, atMs * MS)));
    }

    private String holds() {
        return state.told().device(1).slot("scene").orElseThrow().call().phrase();
    }

    private double vox() {
        return state.told()
                .levels()
                .get(Control.of(1, new ControlChange(0, 7, 0)))
                .exact();
    }

    @Test
    void whatIsAnsweredInTimeIsConfirmedAndNobodySpeaksOfIt() {
        fire(0, 1, "Scene 5");
        says(80, 1, new ProgramChange(0, 5));
        step(3000, new Order.Pass());
        assertThat(told).isEmpty();
        assertThat(state.replies().values()).extracting(Reply::kind).containsExactly(Reply.Kind.CONFIRMED);
        assertThat(state.unanswered()).isEmpty();
    }

    @Test
    void whatIsNotAnsweredIsToldWhenItsTimeIsOverAndForgivenWhenItComesLate() {
        fire(0, 1, "Scene 5");
        step(999, new Order.Pass());
        assertThat(told).isEmpty();
        step(1000, new Order.Pass());
        assertThat(told).containsExactly("has not answered to “Scene 5”");
        assertThat(state.unanswered().get(1)).hasSize(1);
        says(4000, 1, new ProgramChange(0, 5));
        assertThat(state.unanswered()).isEmpty();
        assertThat(told).hasSize(1);
    }

    @Test
    void aWrongSceneIsToldAndIsTakenForWhatItIs() {
        fire(0, 1, "Scene 5");
        says(80, 1, new ProgramChange(0, 4));
        assertThat(told).as("it may say better yet").isEmpty();
        step(1000, new Order.Pass());
        assertThat(told).containsExactly("says “Scene 4”, was told “Scene 5”");
        assertThat(holds()).isEqualTo("Scene 4");
        fire(2000, 1, "Scene 5");
        says(2100, 1, new ProgramChange(0, 5));
        assertThat(state.unanswered()).isEmpty();
        assertThat(holds()).isEqualTo("Scene 5");
    }

    @Test
    void anAnswerToWhatWasToldBeforeIsNoWrongOne() {
        fire(0, 1, "Scene 4");
        fire(10, 1, "Scene 5");
        says(90, 1, new ProgramChange(0, 4));
        says(100, 1, new ProgramChange(0, 5));
        step(5000, new Order.Pass());
        assertThat(told).isEmpty();
        assertThat(holds()).isEqualTo("Scene 5");
    }

    @Test
    void whatAHandDoesAtTheMachineIsKnownFromThenOn() {
        fire(0, 1, "Scene 5");
        says(80, 1, new ProgramChange(0, 5));
        says(9000, 1, new ProgramChange(0, 9));
        assertThat(told).isEmpty();
        assertThat(holds()).isEqualTo("Scene 9");
        says(9500, 1, new ControlChange(0, 7, 32));
        assertThat(vox()).isEqualTo(32);
    }

    @Test
    void aFadeBeginsWhereTheFaderSaysThatItStands() {
        fire(0, 1, "Vox → 10 %");
        says(20, 1, new ControlChange(0, 7, 13));
        says(5000, 1, new ControlChange(0, 7, 90));
        sent.clear();
        step(6000, new Order.Go());
        step(9000, new Order.Pass());
        assertThat(((ControlChange) sent.get(0)).value()).isBetween(90, 92);
        assertThat(sent).last().isEqualTo(new ControlChange(0, 7, 127));
        assertThat(sent).allSatisfy(m -> assertThat(((ControlChange) m).value()).isGreaterThanOrEqualTo(90));
    }

    @Test
    void ofAFadeItsEndIsConfirmedAndWhatTheFaderSaysOnItsWayChangesNothing() {
        fire(0, 1, "Vox → 0 %");
        says(20, 1, new ControlChange(0, 7, 0));
        step(1000, new Order.Go());
        for (int at = 1020; at < 3100; at += 20) {
            step(at, new Order.Pass());
            // It lags behind by a tenth of a second, and says so.
            says(at, 1, new ControlChange(0, 7, Math.max(0, Math.min(127, (at - 1100) * 127 / 2000))));
        }
        assertThat(vox()).isEqualTo(127);
        says(3150, 1, new ControlChange(0, 7, 127));
        step(9000, new Order.Pass());
        assertThat(told).isEmpty();
        // A motor that does not get there.
        fire(10_000, 1, "Vox → 50 %");
        says(10_100, 1, new ControlChange(0, 7, 100));
        step(10_300, new Order.Pass());
        assertThat(told).containsExactly("says “Vox → 78.7 %”, was told “Vox → 50.4 %”");
        assertThat(vox()).isEqualTo(100);
    }

    @Test
    void openSoundControlAnswersInOtherTypesAndWordsThanItIsTold() {
        fire(0, 2, "Zoom → 25 %");
        fire(0, 2, "Shot");
        says(100, 2, new OscMessage("/zoom/now", List.of(0.25f)));
        says(100, 2, new OscMessage("/shot/now", List.of(4.0f)));
        step(5000, new Order.Pass());
        assertThat(told).isEmpty();
        says(6000, 2, new OscMessage("/zoom/now", List.of(0.75)));
        Control zoom = Control.of(2, new OscMessage("/zoom", List.of(0f)));
        assertThat(state.told().levels().get(zoom).exact()).isCloseTo(95.25, within(1e-6));
        says(6000, 2, new OscMessage("/zoom/now", List.of("far")));
        says(6000, 2, new OscMessage("/zoom/now", List.of(Float.NaN)));
        assertThat(state.told().levels().get(zoom).exact()).isCloseTo(95.25, within(1e-6));
    }

    @Test
    void aMachineThatIsAwayOwesNoAnswer() {
        fire(0, 1, "Scene 5");
        step(10, new Order.Lost(1));
        fire(20, 1, "Scene 6");
        step(5000, new Order.Pass());
        assertThat(told).isEmpty();
        step(6000, new Order.Found(1));
        step(6000, new Order.BringUp(1));
        step(9000, new Order.Pass());
        assertThat(told).containsExactly("has not answered to “Scene 6”");
    }

    @Test
    void whatIsStoppedOrWrittenAnewIsAwaitedNoLonger() {
        fire(0, 1, "Scene 5");
        fire(10, 1, "All off");
        fire(10, 2, "Shot");
        Show without = show.withPhrase(
                2, show.devices().get(1).phraseNamed("Shot").orElseThrow().withAnswer(Optional.empty()));
        step(20, new Order.Adopt(Planner.plan(without)));
        step(5000, new Order.Pass());
        assertThat(told).isEmpty();
    }

    /** The machine here is a number and a list of what it says; nothing of ours decides. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void inAThousandCuesAtTwentyPerCentLossEachFaultIsToldInItsTimeAndNoneThatIsNone(long seed) {
        Random random = new Random(seed);
        int scene = -1;
        int wrong = 0;
        for (int i = 0; i < 250; i++) {
            long at = i * 2000L;
            int wanted = random.nextInt(24);
            told.clear();
            sent.clear();
            fire(at, 1, "Scene " + wanted);
            assertThat(sent).containsExactly(new ProgramChange(0, wanted));
            boolean reached = random.nextInt(10) != 0;
            boolean astray = random.nextInt(20) == 0;
            boolean heard = random.nextInt(10) != 0;
            int answersAfter = 20 + random.nextInt(900);
            if (reached) {
                scene = astray ? (wanted + 1) % 24 : wanted;
            }
            if (reached && heard) {
                says(at + answersAfter, 1, new ProgramChange(0, scene));
            }
            step(at + 1000, new Order.Pass());
            if (reached && heard && scene == wanted) {
                assertThat(told).as("cue %d", i).isEmpty();
            } else {
                wrong++;
                String words = reached && heard
                        ? "says “Scene " + scene + "”, was told “Scene " + wanted + "”"
                        : "has not answered to “Scene " + wanted + "”";
                assertThat(told).as("cue %d", i).containsExactly(words);
            }
            if (reached && heard) {
                assertThat(holds()).isEqualTo("Scene " + scene);
            }
        }
        assertThat(wrong).isBetween(30, 90);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
            program 5                    | program 5
            control 7 to ? within 300 ms | control 7 to ? within 300 ms
            osc /a ,i 4 within 50 ms     | osc /a 4 within 50 ms
            """)
    void answersAreReadAsTheyAreWritten(String typed, String written) {
        assertThat(Answer.read(typed, new SpeechWording(Numbering.WIRE))
                        .orElseThrow()
                        .write(new SpeechWording(Numbering.WIRE)))
                .isEqualTo(written);
    }

    @ParameterizedTest
    @ValueSource(strings = {"program 5; program 6", "program 5 within 20 ms", "after 50 ms program 5", "nonsense"})
    void whatIsNoAnswerIsRefused(String typed) {
        assertThatThrownBy(() -> Answer.read(typed, new SpeechWording(Numbering.WIRE)))
                .isInstanceOf(Refusal.class)
                .extracting(r -> ((Refusal) r).field())
                .isEqualTo("answer");
    }

    @Test
    void anAnswerWithABlankWantsAPhraseWithAnAmount() {
        assertThatThrownBy(() -> phrase("Scene", "program 5", "", "holds", "program ?"))
                .hasMessageContaining("stands for the amount of a call");
    }
}
