package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.music.Playing;
import underbaton.core.perform.HandClock;
import underbaton.core.perform.HandOutbox;
import underbaton.core.perform.Performer;
import underbaton.core.plan.Planner;
import underbaton.core.score.Score;

/** A song that plays: its bars of two seconds (120 in 4/4, common practice), its vamps, and what moves the music. */
class PlayingTest {

    private static final long MS = 1_000_000;

    private final HandClock clock = new HandClock();
    private HandOutbox outbox;
    private long began;
    private Show show;
    private Performer performer;

    private void play(String score, String... starts) {
        show = Shows.small();
        Item item = show.items().get(1);
        show = show.withItem(item.withScore(Optional.of(Score.of(score))), 0);
        int number = 20;
        for (String start : starts) {
            show = Shows.cue(show, "" + number++, start, "Amber");
        }
        outbox = new HandOutbox(clock);
        performer = new Performer(clock, Planner.plan(show), outbox, s -> {});
        began = clock.nanos();
        performer.order(new Order.Play(item.id(), 0));
        performer.work();
        outbox.clear();
    }

    private List<String> sent() {
        return outbox.messages().stream()
                .filter(m -> m.dueNanos() <= clock.nanos())
                .map(m -> m.cause().words().replace("cue ", "") + "@" + (m.dueNanos() - began) / MS)
                .toList();
    }

    /** Lets the time pass, the performer waking when it asked to. */
    private void pass(long millis) {
        long end = clock.nanos() + millis * MS;
        performer.work();
        while (performer.nanosToNext() <= end - clock.nanos()) {
            clock.forward(performer.nanosToNext());
            performer.work();
        }
        clock.forward(end - clock.nanos());
        performer.work();
    }

    @Test
    void aVampGoesRoundUntilGoAndIsLeftAtItsEnd() {
        play("3 vamp 2 bars\n9 end", "at 3:1", "at 4:1", "at 5:1");
        pass(13_000);
        assertThat(sent()).containsExactly("20@4000", "21@6000", "20@8000", "21@10000", "20@12000");
        assertThat(performer.state().playing().orElseThrow().pass()).isEqualTo(3);
        assertThat(performer.state().playing().orElseThrow().vamping()).isTrue();
        assertThat(performer.state().coming().orElseThrow().cue().number())
                .as("22 lies behind the vamp")
                .hasToString("21");
        performer.order(new Order.Go());
        pass(4000);
        assertThat(performer.state().playing().orElseThrow().vamping()).isFalse();
        assertThat(sent().subList(5, 7)).containsExactly("21@14000", "22@16000");
    }

    @Test
    void aVampCanBeLeftAtTheBarOrAtOnceAndLeavesByItselfAfterSoManyTimes() {
        play("3 vamp 2 bars, leave at the bar", "at 3:1", "at 4:1", "at 5:1");
        pass(5000);
        performer.order(new Order.Go());
        pass(2000);
        assertThat(sent()).as("bar 4 is left out").containsExactly("20@4000", "22@6000");
        outbox.clear();
        play("3 vamp 2 bars, leave at once", "at 3:1", "at 4:1", "at 5:1");
        pass(5000);
        performer.order(new Order.Release());
        pass(500);
        assertThat(sent()).containsExactly("20@4000", "22@5000");
        outbox.clear();
        play("3 vamp 2 bars, at most 2 times", "at 3:1", "at 5:1");
        pass(13_000);
        assertThat(sent()).containsExactly("20@4000", "20@8000", "21@12000");
    }

    @Test
    void pauseResumeLocateAndNudgeMoveTheMusicAndNothingElse() {
        play("1 quarter = 120", "at 2:1", "at 3:1", "at 9:1");
        pass(1000);
        performer.order(new Order.Pause());
        pass(5000);
        assertThat(sent()).isEmpty();
        performer.order(new Order.Resume());
        pass(1500);
        assertThat(sent()).containsExactly("20@7000");
        performer.order(new Order.Nudge(-500 * MS));
        pass(2000);
        assertThat(sent()).containsExactly("20@7000", "21@9500");
        performer.order(new Order.Locate(15_000 * MS));
        pass(1000);
        assertThat(sent()).last().isEqualTo("22@10500");
    }

    /** Three hours at a tempo whose beat is no whole number of nanoseconds: the last bar is where it should be. */
    @Test
    void threeHoursDoNotDrift() {
        int bar = 1 + 3 * 3600 * 121 / 60 / 4;
        play("1 quarter = 121", "at " + bar);
        pass(3 * 3600_000L + 1000);
        long exact = Math.round((bar - 1) * 4 * 60e9 / 121);
        assertThat(sent()).containsExactly("20@" + exact / MS);
    }

    @Test
    void whenTheTempoIsMovedTheMusicGoesOnAtItsBeat() {
        play("1 quarter = 120", "at 3:1");
        pass(2000);
        Item item = show.items().get(1);
        performer.order(new Order.Adopt(
                Planner.plan(show.withItem(item.withScore(Optional.of(Score.of("1 quarter = 60"))), 0))));
        pass(5000);
        assertThat(sent()).as("from bar 2 on a bar takes four seconds").containsExactly("20@6000");
    }

    @Test
    void aCueByHandBetweenTimedOnesHoldsNothingBackAndGoKeepsTheBooksOrder() {
        play("1 quarter = 120", "at 2:1", "by hand", "at 3:1", "at 4:1");
        performer.order(new Order.StandBy(
                show.cueNumbered(CueNumber.of("21")).orElseThrow().id()));
        pass(5000);
        assertThat(sent()).as("21 waits for GO, the music does not").containsExactly("20@2000", "22@4000");
        performer.order(new Order.Go());
        pass(500);
        assertThat(sent()).last().isEqualTo("21@5000");
        pass(1000);
        assertThat(sent()).last().isEqualTo("23@6000");
    }

    @Test
    void stopAllEndsTheMusic() {
        play("1 quarter = 120", "at 2:1", "at 3:1");
        pass(2500);
        performer.order(new Order.StopAll());
        pass(5000);
        assertThat(sent()).filteredOn(s -> !s.startsWith("stop all")).containsExactly("20@2000");
        assertThat(performer.state().playing()).isEmpty();
        assertThat(performer.state().coming()).isEmpty();
    }

    private void standByAndGo(String number) {
        performer.order(new Order.StandBy(
                show.cueNumbered(CueNumber.of(number)).orElseThrow().id()));
        performer.order(new Order.Go());
    }

    private Playing playing() {
        return performer.state().playing().orElseThrow();
    }

    @Test
    void aTimedCueFiredByHandTakesTheMusicThereAndDoesNotComeAgain() {
        play("1 quarter = 120", "at 2:1", "at 2:1", "at 2:1", "at 3:1");
        pass(500);
        standByAndGo("21");
        pass(3000);
        assertThat(sent()).as("what lies before it comes too").containsExactly("20@500", "21@500", "22@500", "23@2500");
        standByAndGo("20");
        pass(1000);
        assertThat(sent().subList(4, sent().size())).containsExactly("20@3500", "21@3500", "22@3500");
    }

    @Test
    void goBringsForwardWhatTheBookPutsBeforeItAndLeavesWhatItPutsBehind() {
        play("1 quarter = 120", "at 2:1", "at 4:1", "by hand", "at 3:1");
        pass(1000);
        standByAndGo("22");
        pass(9000);
        assertThat(sent()).containsExactly("20@1000", "21@1000", "22@1000", "23@4000");
    }

    @Test
    void aVampIsWhereTheMusicIsTakenToIt() {
        play("3 vamp 2 bars\n9 end", "at 3:1", "at 4:1", "at 5:1");
        performer.order(new Order.Release());
        performer.work();
        assertThat(playing().released()).as("there is none to release yet").isFalse();
        assertThat(playing().vamping()).isFalse();
        performer.order(new Order.Locate(5000 * MS));
        pass(0);
        assertThat(playing().vamping()).isTrue();
        assertThat(playing().pass()).isEqualTo(1);
        pass(3500);
        assertThat(playing().pass()).isEqualTo(2);
        assertThat(sent()).as("bar 4, and bar 3 again").containsExactly("21@1000", "20@3000");
        performer.order(new Order.Release());
        performer.work();
        assertThat(playing().released()).isTrue();
        assertThat(playing().vamping()).isFalse();
        performer.order(new Order.Locate(1000 * MS));
        pass(0);
        assertThat(playing().released())
                .as("taken back before it, it is as at first")
                .isFalse();
        assertThat(playing().pass()).isEqualTo(1);
        performer.order(new Order.Locate(9000 * MS));
        pass(0);
        assertThat(playing().vamp()).isEmpty();
        performer.order(new Order.Locate(4000 * MS));
        pass(0);
        assertThat(playing().vamping()).as("its first moment belongs to it").isTrue();
        performer.order(new Order.Locate(8000 * MS));
        pass(0);
        assertThat(playing().vamp()).as("its end does not").isEmpty();
    }

    @Test
    void aTapBeforeTheFirstBarCountsTheFirstTempo() {
        play("1 4/4\n1 quarter = 60\n20 end");
        for (int i = 0; i < 3; i++) {
            performer.order(new Order.Tap());
            pass(2000);
        }
        assertThat(playing().anchor().permille()).as("every second beat").isEqualTo(1000);
        performer.order(new Order.Tap());
        pass(375);
        performer.order(new Order.Tap());
        pass(0);
        assertThat(playing().anchor().permille()).isNotEqualTo(1000);
    }
}
