package underbaton.core.perform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.Order;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;

class PerformerTest {

    private static final long SECOND = 1_000_000_000L;

    private final HandClock clock = new HandClock();
    private final HandOutbox outbox = new HandOutbox(clock);
    private Show show;
    private Performer performer;

    @BeforeEach
    void openShow() {
        show = Shows.small();
        show = Shows.cue(show, "12", "by hand", "Amber", "Play");
        show = Shows.cue(show, "12.5", "with", "Blue");
        show = Shows.cue(show, "13", "after 2 s", "Dark");
        show = Shows.cue(show, "14", "after 0.5 s", "Amber");
        show = Shows.cue(show, "20", "by hand", "Stop");
        performer = new Performer(clock, Planner.plan(show), outbox, s -> {});
    }

    private List<String> sent() {
        return outbox.messages().stream()
                .map(m -> m.cause().words() + " "
                        + ((MidiMessage) m.message()).encode().hex())
                .toList();
    }

    private List<Long> due() {
        return outbox.messages().stream().map(ScheduledMessage::dueNanos).toList();
    }

    private String standby() {
        return performer.state().standbyCue().map(c -> c.number().toString()).orElse("end");
    }

    private void jump(String number) {
        performer.order(new Order.StandBy(
                show.cueNumbered(CueNumber.of(number)).orElseThrow().id()));
        performer.work();
    }

    private void go() {
        performer.order(new Order.Go());
        performer.work();
    }

    @Test
    void goFiresTheStandbyAndTheNextStandsBy() {
        assertThat(standby()).isEqualTo("1");
        go();
        assertThat(sent()).containsExactly("cue 1 90 01 7F");
        assertThat(standby()).isEqualTo("2");
    }

    @Test
    void aCueWithThePreviousComesInTheSameInstantAndOneAfterItByItself() {
        long began = clock.nanos();
        jump("12");
        go();
        assertThat(sent()).containsExactly("cue 12 90 01 7F", "cue 12 91 24 7F", "cue 12.5 90 02 7F");
        assertThat(standby()).isEqualTo("20");
        assertThat(performer.nanosToNext()).isEqualTo(2 * SECOND - Performer.AHEAD_NANOS);
        outbox.clear();
        clock.forward(2 * SECOND - Performer.AHEAD_NANOS - 1);
        performer.work();
        assertThat(sent()).isEmpty();
        clock.forward(1);
        performer.work();
        assertThat(sent()).containsExactly("cue 13 90 00 7F");
        assertThat(due().get(due().size() - 1))
                .as("handed over early, with its time on it")
                .isEqualTo(began + 2 * SECOND);
        clock.forward(SECOND / 2);
        performer.work();
        assertThat(sent()).containsExactly("cue 13 90 00 7F", "cue 14 90 01 7F");
    }

    /** Cue 13 waits in the queues, 3 ms before its time, when GO comes: it leaves at GO, and GO waits for nothing. */
    @Test
    void whatWasHandedOverIsTakenBackAndComesForwardWithGo() {
        jump("12");
        go();
        clock.forward(2 * SECOND - 3_000_000);
        performer.work();
        outbox.clearLeft();
        jump("20");
        go();
        assertThat(due()).containsOnly(clock.nanos());
        assertThat(sent()).containsExactly("cue 13 90 00 7F", "cue 14 90 01 7F", "cue 20 91 23 7F");
        clock.forward(SECOND);
        jump("1");
        outbox.clear();
        go();
        assertThat(due()).containsExactly(clock.nanos());
    }

    @Test
    void aLateWakingDoesNotPushLaterFollowOnsBack() {
        jump("12");
        go();
        clock.forward(2 * SECOND + SECOND / 10);
        performer.work();
        assertThat(performer.nanosToNext()).isEqualTo(SECOND / 2 - SECOND / 10 - Performer.AHEAD_NANOS);
    }

    @Test
    void goBringsWhatIsStillToComeForwardInOrder() {
        jump("12");
        go();
        outbox.clear();
        go();
        assertThat(sent()).containsExactly("cue 13 90 00 7F", "cue 14 90 01 7F", "cue 20 91 23 7F");
        assertThat(standby()).isEqualTo("end");
    }

    @Test
    void backAndNextMoveTheStandbyOverCuesThatFollowByThemselves() {
        jump("20");
        performer.order(new Order.Back());
        performer.work();
        assertThat(standby()).isEqualTo("12");
        performer.order(new Order.Next());
        performer.work();
        assertThat(standby()).isEqualTo("20");
        assertThat(sent()).isEmpty();
    }

    @Test
    void goAtTheEndOfTheBookDoesNothing() {
        jump("20");
        go();
        go();
        assertThat(sent()).hasSize(1);
        performer.order(new Order.Back());
        performer.work();
        assertThat(standby()).isEqualTo("20");
    }

    @Test
    void stopAllForgetsWhatIsToComeAndRestsWhatIsGoing() {
        jump("12");
        go();
        outbox.clear();
        performer.order(new Order.StopAll());
        performer.work();
        assertThat(sent()).as("the player runs, the lights hold").containsExactly("stop all 91 23 7F");
        clock.forward(10 * SECOND);
        performer.work();
        assertThat(sent()).hasSize(1);
        assertThat(performer.state().stopped()).isTrue();
    }

    @Test
    void anEditedBookIsTakenOverAndTheStandbyStaysOnItsCue() {
        jump("11");
        Show changed = show.withoutCue(
                show.cueNumbered(CueNumber.of("1")).orElseThrow().id());
        performer.order(new Order.Adopt(Planner.plan(changed)));
        performer.work();
        assertThat(standby()).isEqualTo("11");
        Show without = changed.withoutCue(
                show.cueNumbered(CueNumber.of("11")).orElseThrow().id());
        performer.order(new Order.Adopt(Planner.plan(without)));
        performer.work();
        assertThat(standby()).isEqualTo("12");
    }

    @Test
    void theFirstCueOfABookThatWasEmptyStandsBy() {
        Performer empty = new Performer(clock, Planner.plan(Show.empty(1, "Empty")), new HandOutbox(clock), s -> {});
        empty.order(new Order.Adopt(Planner.plan(show)));
        empty.work();
        assertThat(empty.state().standbyCue().orElseThrow().number()).hasToString("1");
    }

    /** A score, and cues from number 3 on. */
    private void giveTheSong(String score, String... starts) {
        show = Shows.small();
        Item item = show.items().get(0);
        show = show.withItem(item.withScore(Optional.of(Score.of(score))), 0);
        int number = 3;
        for (String start : starts) {
            Cue cue = new Cue(0, CueNumber.of("" + number++), Start.of(start), "", List.of(), 0);
            show = show.withCue(item.id(), cue);
        }
        performer.order(new Order.Adopt(Planner.plan(show)));
        performer.work();
    }

    /** At 120 in 4/4 a bar is two seconds (common practice), so 3:1 comes 4 s after the item began. */
    @Test
    void cuesLandOnTheirBeatsCountedFromWhereTheItemBegan() {
        giveTheSong("1 quarter = 120\n5 quarter = 60", "at 3:1", "at 5:1 -20 ms", "at 6:1", "at 6:9");
        jump("2");
        long began = clock.nanos();
        go();
        assertThat(standby()).as("it has no such beat, so it waits for GO").isEqualTo("6");
        for (String due : List.of("3 4000", "4 7980", "5 12000")) {
            assertThat(performer.nanosToNext() + clock.nanos())
                    .as(due)
                    .isEqualTo(began + Long.parseLong(due.split(" ")[1]) * 1_000_000L - Performer.AHEAD_NANOS);
            clock.forward(performer.nanosToNext());
            performer.work();
            assertThat(performer.state().last().orElseThrow().cue().number()).hasToString(due.split(" ")[0]);
        }
        assertThat(performer.state().coming()).isEmpty();
    }

    @Test
    void whoBeginsInTheMiddleIsInTimeFromThere() {
        giveTheSong("1 quarter = 120", "at 17:1", "at 18:1");
        jump("3");
        go();
        assertThat(performer.nanosToNext()).isEqualTo(2_000_000_000L - Performer.AHEAD_NANOS);
    }

    /** A program that a cue “with” another brings, or one that lands in the same instant, comes before the notes. */
    @Test
    void aDeviceGetsTheProgramsOfAnInstantFirstWhicheverCueTheyComeFrom() {
        show = Shows.small();
        show = show.withDevice(show.devices().get(1).withTiming(0, 40));
        show = Shows.phrase(show, "Scene", "program 3", Effect.HOLDS);
        Item second = show.items().get(1);
        show = show.withItem(second.withScore(Optional.of(Score.of("1 quarter = 120"))), 0);
        show = Shows.cue(show, "12", "by hand", "Play");
        show = Shows.cue(show, "13", "with", "Scene");
        show = Shows.cue(show, "14", "at 5:1", "Play");
        show = Shows.cue(show, "15", "at time 0:08", "Scene");
        performer.order(new Order.Adopt(Planner.plan(show)));
        jump("12");
        outbox.clear();
        long began = clock.nanos();
        go();
        clock.forward(40_000_000);
        performer.work();
        assertThat(sent()).containsExactly("cue 13 C1 03", "cue 12 91 24 7F");
        assertThat(due()).containsExactly(began, began + 40_000_000);
        clock.forward(8 * SECOND);
        performer.work();
        performer.work();
        assertThat(sent().subList(2, 4)).containsExactly("cue 15 C1 03", "cue 14 91 24 7F");
        assertThat(due().subList(2, 4)).containsExactly(began + 8 * SECOND, began + 8 * SECOND + 40_000_000);
    }

    @Test
    void gapsAndEndsOfNotesAreDueAfterTheCall() {
        Device player = show.devices().get(1);
        Phrase bell = new Phrase(
                0,
                "Bell",
                new SpeechWording(Numbering.WIRE).read("note 40 for 200 ms; after 50 ms control 7 to 1"),
                Optional.empty(),
                Effect.MOMENT,
                false,
                false,
                Remarks.NONE);
        long began = clock.nanos();
        performer.order(new Order.Fire(PlannedCall.of(player, bell), "test"));
        performer.work();
        clock.forward(SECOND);
        performer.work();
        assertThat(due()).containsExactly(began, began + 50_000_000, began + 200_000_000);
    }

    /** A fade has values in the queues all the time: GO leaves at its own moment, and the fade goes on behind it. */
    @Test
    void goInTheMiddleOfAMoveLeavesAtOnce() {
        Phrase bed = new Phrase(
                0,
                "Level",
                new SpeechWording(Numbering.WIRE).read("control 7 to ?"),
                Optional.of(Argument.of("per cent")),
                Effect.LEVELS,
                false,
                false,
                Remarks.NONE);
        show = Shows.small();
        Device player = show.devices().get(1);
        show = show.withPhrase(player.id(), bed);
        int item = show.items().get(1).id();
        Device with = show.devices().get(1);
        for (String call : List.of("Level 0 %", "Level 100 % in 1 s", "Play")) {
            CueNumber number = CueNumber.of(
                    Integer.toString(12 + show.items().get(1).cues().size()));
            show = show.withCue(item, new Cue(0, number, Start.of("by hand"), "", List.of(Call.of(with, call)), 0));
        }
        performer.order(new Order.Adopt(Planner.plan(show)));
        jump("14");
        go();
        go();
        for (int ms = 0; ms < 500; ms++) {
            clock.forward(1_000_000);
            performer.work();
        }
        long pressed = clock.nanos();
        go();
        assertThat(outbox.messages())
                .filteredOn(m -> m.cause().words().equals("cue 16"))
                .extracting(ScheduledMessage::dueNanos)
                .containsExactly(pressed);
        clock.forward(SECOND);
        performer.work();
        assertThat(sent()).last().asString().endsWith("B1 07 7F");
    }
}
