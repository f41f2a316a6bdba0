package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.SceneLevels;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.perform.HandClock;
import underbaton.core.perform.HandOutbox;
import underbaton.core.perform.Performer;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;

/** Fades and waves of a sound console, as they are typed, planned and played. */
class MotionTest {

    private static final long MS = 1_000_000;

    private final Device console = new Device(
                    0,
                    "Console",
                    Department.SOUND,
                    new Connection.NetworkMidi("127.0.0.1", 5004),
                    4,
                    Numbering.WIRE,
                    0,
                    List.of())
            .withLevels(Levels.of("−∞=0, −60=10, −20=50, −10=80, 0=100, 10=127", Numbering.WIRE));

    private static Phrase phrase(String name, String says, String argument) {
        return new Phrase(
                0,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                name.equals("Bed") ? Effect.LEVELS : Effect.MOMENT,
                false,
                false,
                Remarks.NONE);
    }

    /** A show of one song; each cue is its start and, behind a bar, its calls parted by semicolons. */
    private Show show(String... cues) {
        Show show = Show.empty(1, "Fades").withDevice(console);
        for (Phrase phrase : List.of(
                phrase("Bed", "control 3 to ?", "decibels"),
                phrase("Dim", "control 9 to ?", "per cent"),
                phrase("Stop bed", "note 5", ""))) {
            show = show.withPhrase(1, phrase);
        }
        Item song =
                new Item(0, ItemKind.SONG, "Song", 0, List.of()).withScore(Optional.of(Score.of("1 quarter = 120")));
        show = show.withItem(song, 0);
        int number = 1;
        for (String cue : cues) {
            String[] parts = cue.split("\\|");
            List<Call> calls = new ArrayList<>();
            for (String call : parts[1].split(";")) {
                calls.add(Call.of(show.devices().get(0), call.strip()));
            }
            int item = show.items().get(0).id();
            show = show.withCue(
                    item, new Cue(0, CueNumber.of("" + number++), Start.of(parts[0].strip()), "", calls, 0));
        }
        return show;
    }

    private static List<PlannedMessage> dryRun(Show show) {
        return DryRun.of(Planner.plan(show)).messages().toList();
    }

    private static int value(PlannedMessage message) {
        return ((ControlChange) message.message()).value();
    }

    /**
     * Worked by hand: the scale of the console has two values a decibel from 0 to −10 dB and three from −10 to −20. At ten
     * decibels in three seconds the fader goes from 90 to 80 in 1.5 s, changing in the middle between two values (75 ms,
     * then every 150 ms), and from 80 to 65 in another 1.5 s, changing every 100 ms.
     */
    @Test
    void aFadeFromMinusFiveToMinusFifteenGoesByTheTableOfTheConsole() {
        List<PlannedMessage> fade = dryRun(show("by hand| Bed -5 dB", "at 2| Bed -15 dB in 3 s"));
        assertThat(value(fade.get(0))).isEqualTo(90);
        assertThat(fade).hasSize(1 + 10 + 15);
        for (int i = 0; i < 25; i++) {
            PlannedMessage step = fade.get(1 + i);
            long byHand = i < 10 ? 75 + 150 * i : 1550 + 100 * (i - 10);
            assertThat(value(step)).isEqualTo(89 - i);
            assertThat(step.atNanos() / MS - 2000).isCloseTo(byHand, within(1L));
            assertThat(step.cause()).isEqualTo("cue 2");
        }
    }

    /** Overtaken after 1.5 s it stands at 80, −10 dB; from there up five decibels, ten values, in two seconds. */
    @Test
    void aMoveThatIsOvertakenGoesOnFromWhereItStandsWithoutAJump() {
        Show show = show("by hand| Bed -5 dB", "at 2| Bed -15 dB in 3 s", "at time 0:03.5| Bed -5 dB in 2 s");
        List<PlannedMessage> planned = dryRun(show);
        List<Integer> values = planned.stream().map(MotionTest::value).toList();
        assertThat(values)
                .containsExactly(90, 89, 88, 87, 86, 85, 84, 83, 82, 81, 80, 81, 82, 83, 84, 85, 86, 87, 88, 89, 90);
        assertThat(planned.get(11).atNanos() / MS).isCloseTo(3600, within(1L));
        assertThat(performed(show, 6000)).isEqualTo(values);
    }

    /** By the console's table −5 dB is 90 and −6 dB 88: from where the scene left the fader, not from where the book had it before. */
    @Test
    void aFadeBehindASceneBeginsWhereTheSceneSaysThatItLeftTheFader() {
        assertThat(afterScene("Bed -5 dB")).containsExactly(0, 89, 88);
        assertThat(afterScene("")).as("nobody knows: at once").containsExactly(0, 88);
    }

    private List<Integer> afterScene(String leaves) {
        Show show = show("by hand| Bed off", "by hand| Stop bed", "by hand| Bed -6 dB in 1 s");
        Device device = show.devices().get(0);
        Phrase scene = device.phraseNamed("Stop bed")
                .orElseThrow()
                .withEffect(Effect.of("holds scene, takes along levels"))
                .withLeaves(SceneLevels.read(device, leaves));
        return dryRun(show.withPhrase(device.id(), scene)).stream()
                .filter(m -> m.message() instanceof ControlChange)
                .map(MotionTest::value)
                .toList();
    }

    /** By hand too: what was handed over already leaves first, and the next move goes on from there, value by value. */
    @Test
    void aMoveOvertakenByGoHasNoJumpAndNoTail() {
        Show show = show("by hand| Bed -5 dB", "by hand| Bed -15 dB in 3 s", "by hand| Bed -5 dB in 2 s");
        HandClock clock = new HandClock();
        HandOutbox sent = new HandOutbox(clock);
        Performer performer = new Performer(clock, Planner.plan(show), sent, s -> {});
        performer.order(new Order.Go());
        performer.order(new Order.Go());
        for (int i = 0; i <= 6000; i++) {
            if (i == 1222) {
                performer.order(new Order.Go());
            }
            performer.work();
            clock.forward(MS);
        }
        List<Integer> values = sent.messages().stream()
                .map(s -> ((ControlChange) s.message()).value())
                .toList();
        assertThat(values).endsWith(90);
        for (int i = 1; i < values.size(); i++) {
            assertThat(Math.abs(values.get(i) - values.get(i - 1)))
                    .as("step " + i)
                    .isEqualTo(1);
        }
    }

    /** What a performer sends, its clock being turned a millisecond at a time. */
    private static List<Integer> performed(Show show, int millis) {
        HandClock clock = new HandClock();
        HandOutbox sent = new HandOutbox(clock);
        Performer performer = new Performer(clock, Planner.plan(show), sent, s -> {});
        performer.order(new Order.Go());
        for (int i = 0; i <= millis; i++) {
            performer.work();
            clock.forward(MS);
        }
        return sent.messages().stream()
                .map(s -> ((ControlChange) s.message()).value())
                .toList();
    }

    @Test
    void aMoveFromNobodyKnowsWhereIsThereAtOnceAndAFadeToSilenceEndsInIt() {
        assertThat(dryRun(show("by hand| Bed -15 dB in 3 s")))
                .extracting(MotionTest::value)
                .containsExactly(65);
        List<PlannedMessage> out = dryRun(show("by hand| Bed -5 dB", "by hand| Bed -inf in 2 s, then Stop bed"));
        assertThat(value(out.get(out.size() - 2))).isZero();
        PlannedMessage last = out.get(out.size() - 1);
        assertThat(last.atNanos()).isEqualTo(2000 * MS);
        assertThat(last.cause()).isEqualTo("cue 2, then Stop bed");
    }

    /** Half-way: the middle value by value; half of the way in a cosine; 3 dB below full in power, by definition. */
    @ParameterizedTest
    @CsvSource({
        "Dim 0 % in 2 s,64",
        "'Dim 0 % in 2 s, by value',64",
        "'Dim 0 % in 2 s, S-curve',64",
        "'Dim 0 % in 4 beats, equal power',90",
        "'Dim 0 % in 2 s, through 50 %: 20 %',25"
    })
    void aShapeIsWhereItShouldBeHalfWay(String typed, int half) {
        List<PlannedMessage> steps = dryRun(show("by hand| Dim 100 %", "at 2|" + typed));
        int standing = 127;
        for (PlannedMessage step : steps) {
            standing = step.atNanos() <= 3000 * MS ? value(step) : standing;
        }
        assertThat(standing).isEqualTo(half);
        assertThat(value(steps.get(steps.size() - 1))).isZero();
    }

    /**
     * The sine and cosine law of a cross-fade of equal power (common practice, no source): its amplitude leaves silence in
     * proportion to the time, so that no step is far from the one before. The scale of the console has nothing between silence
     * and −60 dB, which is its 10.
     */
    @ParameterizedTest
    @CsvSource({"Bed 0 dB,-inf", "Bed -inf dB,0"})
    void equalPowerToAndFromSilenceDoesNotJump(String stands, String amount) {
        List<Integer> values =
                dryRun(show("by hand| " + stands, "by hand| Bed " + amount + " dB in 4 s, equal power")).stream()
                        .map(MotionTest::value)
                        .toList();
        assertThat(values).hasSizeGreaterThan(60);
        for (int i = 1; i < values.size(); i++) {
            boolean silence = values.get(i) == 0 || values.get(i - 1) == 0;
            assertThat(Math.abs(values.get(i) - values.get(i - 1)))
                    .as("at %d of %s", i, values)
                    .isLessThanOrEqualTo(silence ? 11 : 3);
        }
    }

    @Test
    void aWaveSwingsWithinItsBoundsAndRestsAtItsAmount() {
        List<PlannedMessage> wave = dryRun(show(
                "by hand| Dim 50 %", "at 2| Dim 50 % ± 30 % sine every 2 beats, within 30 % to 80 %, for 4 beats"));
        List<Integer> values = wave.stream().map(MotionTest::value).toList();
        assertThat(values.stream().mapToInt(v -> v).max()).hasValue(102);
        assertThat(values.stream().mapToInt(v -> v).min()).hasValue(38);
        assertThat(values.get(values.size() - 1)).isEqualTo(64);
        for (int i = 1; i < values.size(); i++) {
            assertThat(values.get(i)).isNotEqualTo(values.get(i - 1));
            assertThat(wave.get(i).atNanos() - wave.get(i - 1).atNanos()).isGreaterThanOrEqualTo(960_000);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Bed → −15 dB in 3 s",
                "Bed → −15 dB in 4 beats, S-curve, then Stop bed",
                "Bed → −15 dB in 3 s, through 25 %: −8 dB and 50 %: −12 dB @ −200 ms",
                "Dim → 50 % ± 30 % sine every 2 s, within 30 % to 80 %, for 8 s",
                "Stop bed @ 2 beats"
            })
    void aCallIsToldAsItIsRead(String told) {
        Device device = show().devices().get(0);
        Call call = Call.of(device, told);
        assertThat(call.tell(device)).isEqualTo(told);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Bed -15 dB in 3 s, sideways|no way to move",
                "Bed -15 dB in 0 s|longer than nothing",
                "Bed -15 dB in 3 s, then Dim|could be called at the end",
                "Dim 50 % ± 20 % sine 80 Hz|at most 50 Hz",
                "Bed -15 dB in 3 s, through 90 %: -8 dB and 50 %: -12 dB|no point on the way"
            })
    void aMotionThatCannotBeIsRefused(String typed, String words) {
        Device device = show().devices().get(0);
        assertThatThrownBy(() -> Call.of(device, typed))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }
}
