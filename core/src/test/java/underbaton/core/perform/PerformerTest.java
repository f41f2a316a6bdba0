package underbaton.core.perform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
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
    private final List<String> sent = new ArrayList<>();
    private final List<Long> due = new ArrayList<>();
    private int cleared;
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
        performer = new Performer(
                clock,
                Planner.plan(show),
                new Performer.Outbox() {
                    @Override
                    public void send(Sending s) {
                        due.add(s.dueNanos());
                        sent.add(s.cause() + " "
                                + ((MidiMessage) s.message()).encode().hex());
                    }

                    @Override
                    public void clear() {
                        cleared++;
                    }
                },
                s -> {});
    }

    private String standby() {
        return performer.standing().standbyCue().map(c -> c.number().toString()).orElse("end");
    }

    private void jump(String number) {
        performer.jump(show.cueNumbered(CueNumber.of(number)).orElseThrow().id());
        performer.work();
    }

    private void go() {
        performer.go();
        performer.work();
    }

    @Test
    void goFiresTheStandbyAndTheNextStandsBy() {
        assertThat(standby()).isEqualTo("1");
        go();
        assertThat(sent).containsExactly("cue 1 90 01 7F");
        assertThat(standby()).isEqualTo("2");
    }

    @Test
    void aCueWithThePreviousComesInTheSameInstantAndOneAfterItByItself() {
        long began = clock.nanos();
        jump("12");
        go();
        assertThat(sent).containsExactly("cue 12 90 01 7F", "cue 12 91 24 7F", "cue 12.5 90 02 7F");
        assertThat(standby()).isEqualTo("20");
        assertThat(performer.nanosToNext()).isEqualTo(2 * SECOND - Performer.AHEAD_NANOS);
        sent.clear();
        clock.forward(2 * SECOND - Performer.AHEAD_NANOS - 1);
        performer.work();
        assertThat(sent).isEmpty();
        clock.forward(1);
        performer.work();
        assertThat(sent).containsExactly("cue 13 90 00 7F");
        assertThat(due.get(due.size() - 1))
                .as("handed over early, with its time on it")
                .isEqualTo(began + 2 * SECOND);
        clock.forward(SECOND / 2);
        performer.work();
        assertThat(sent).containsExactly("cue 13 90 00 7F", "cue 14 90 01 7F");
    }

    /** Cue 13 waits in the queues, 3 ms before its time, when GO comes: the book's order is kept on every machine. */
    @Test
    void whatIsFiredByHandLeavesBehindWhatWasHandedOver() {
        long began = clock.nanos();
        jump("12");
        go();
        clock.forward(2 * SECOND - 3_000_000);
        performer.work();
        jump("20");
        due.clear();
        go();
        assertThat(due).containsExactly(began + 2 * SECOND, began + 2 * SECOND);
        assertThat(sent).endsWith("cue 14 90 01 7F", "cue 20 91 23 7F");
        clock.forward(SECOND);
        jump("1");
        due.clear();
        go();
        assertThat(due).containsExactly(clock.nanos());
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
        sent.clear();
        go();
        assertThat(sent).containsExactly("cue 13 90 00 7F", "cue 14 90 01 7F", "cue 20 91 23 7F");
        assertThat(standby()).isEqualTo("end");
    }

    @Test
    void backAndNextMoveTheStandbyOverCuesThatFollowByThemselves() {
        jump("20");
        performer.back();
        performer.work();
        assertThat(standby()).isEqualTo("12");
        performer.next();
        performer.work();
        assertThat(standby()).isEqualTo("20");
        assertThat(sent).isEmpty();
    }

    @Test
    void goAtTheEndOfTheBookDoesNothing() {
        jump("20");
        go();
        go();
        assertThat(sent).hasSize(1);
        performer.back();
        performer.work();
        assertThat(standby()).isEqualTo("20");
    }

    @Test
    void stopAllForgetsWhatIsToComeAndRestsWhatIsGoing() {
        jump("12");
        go();
        sent.clear();
        performer.stopAll();
        performer.work();
        assertThat(cleared).isEqualTo(1);
        assertThat(sent).as("the player runs, the lights hold").containsExactly("stop all 91 23 7F");
        clock.forward(10 * SECOND);
        performer.work();
        assertThat(sent).hasSize(1);
        assertThat(performer.standing().stopped()).isTrue();
    }

    @Test
    void anEditedBookIsTakenOverAndTheStandbyStaysOnItsCue() {
        jump("11");
        Show changed = show.withoutCue(
                show.cueNumbered(CueNumber.of("1")).orElseThrow().id());
        performer.adopt(Planner.plan(changed));
        performer.work();
        assertThat(standby()).isEqualTo("11");
        performer.adopt(Planner.plan(changed.withoutCue(
                show.cueNumbered(CueNumber.of("11")).orElseThrow().id())));
        performer.work();
        assertThat(standby()).isEqualTo("12");
    }

    @Test
    void theFirstCueOfABookThatWasEmptyStandsBy() {
        Performer empty = new Performer(
                clock,
                Planner.plan(Show.empty(1, "Empty")),
                new Performer.Outbox() {
                    @Override
                    public void send(Sending s) {}

                    @Override
                    public void clear() {}
                },
                s -> {});
        empty.adopt(Planner.plan(show));
        empty.work();
        assertThat(empty.standing().standbyCue().orElseThrow().number()).hasToString("1");
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
        performer.adopt(Planner.plan(show));
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
            assertThat(performer.standing().last().orElseThrow().cue().number()).hasToString(due.split(" ")[0]);
        }
        assertThat(performer.standing().pending()).isEmpty();
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
        performer.adopt(Planner.plan(show));
        jump("12");
        sent.clear();
        due.clear();
        long began = clock.nanos();
        go();
        assertThat(sent).containsExactly("cue 13 C1 03", "cue 12 91 24 7F");
        assertThat(due).containsExactly(began, began + 40_000_000);
        clock.forward(8 * SECOND);
        performer.work();
        clock.forward(50_000_000);
        performer.work();
        assertThat(sent.subList(2, 4)).containsExactly("cue 15 C1 03", "cue 14 91 24 7F");
        assertThat(due.subList(2, 4)).containsExactly(began + 8 * SECOND, began + 8 * SECOND + 40_000_000);
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
        List<Long> due = new ArrayList<>();
        Performer other = new Performer(
                clock,
                Planner.plan(show),
                new Performer.Outbox() {
                    @Override
                    public void send(Sending s) {
                        due.add((s.dueNanos() - clock.nanos()) / 1_000_000);
                    }

                    @Override
                    public void clear() {}
                },
                s -> {});
        other.fire(PlannedCall.of(player, bell), "test");
        other.work();
        assertThat(due).containsExactly(0L, 50L, 200L);
    }
}
