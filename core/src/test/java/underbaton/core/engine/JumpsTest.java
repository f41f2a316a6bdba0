package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Shows;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Planner;

/** What a jump takes up and what it leaves, and where the standby is when the book changes. */
class JumpsTest extends PlayedShow {

    @BeforeEach
    void aSong() {
        show = show.withoutCue(id("11"));
    }

    private void plays(String... starts) {
        song("1 quarter = 120\n9 end", starts);
        begin();
        standBy("10");
        go();
        sent();
    }

    private void late(String number, String phrase, int ms) {
        Cue cue = show.cueNumbered(CueNumber.of(number)).orElseThrow();
        show.devices().stream()
                .filter(d -> d.phraseNamed(phrase).isPresent())
                .forEach(d -> show = show.withCuesExchanged(
                        List.of(cue.withCallsFor(d.id(), List.of(Call.of(d, phrase + " @ " + ms + " ms"))))));
    }

    private void rejoin(Whereto where) {
        Destination there = Destination.of(where, state, DryRun.of(state.plan()), state.nowNanos());
        there.before().forEach(this::order);
        order(there.catchUp(Set.of()));
        sent();
        there.after().forEach(this::order);
    }

    private int song() {
        return show.items().get(1).id();
    }

    private long given(String number) {
        return state.progress().whereGiven(state.plan().cues().get(state.plan().indexOf(id(number))));
    }

    private void edited() {
        order(new Order.Adopt(Planner.plan(show)));
    }

    @Test
    void playingAnotherPlaceForgetsWhatWouldHaveFollowed() {
        plays("after 2 | Blue");
        order(new Order.StandBy(id("1")));
        assertThat(state.operator().moved()).isTrue();
        order(new Order.Play(song(), 6 * SECOND));
        assertThat(state.operator().moved()).isFalse();
        pass(3000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void ofTheCuesBehindThePlaceNoneCountsAsGiven() {
        plays("at 2:1 | Blue", "by hand | Amber", "at 4:1 | Dark");
        order(new Order.Play(song(), 5 * SECOND));
        assertThat(List.of(given("10"), given("20"), given("21"), given("22")))
                .containsExactly(
                        ItemProgress.BEFORE, ItemProgress.BEFORE, ItemProgress.NOT_GIVEN, ItemProgress.NOT_GIVEN);
        assertThat(standby()).isEqualTo("21");
        order(new Order.Play(song(), 6 * SECOND, id("22")));
        assertThat(given("21")).as("all that the book puts before that cue").isEqualTo(ItemProgress.BEFORE);
        assertThat(given("22")).isEqualTo(6 * SECOND);
    }

    @Test
    void breakingOffStopsTheMusicAndForgetsWhatAHoldKept() {
        plays("after 2 | Blue");
        pass(1000);
        order(new Order.Hold());
        order(new Order.BreakOff());
        assertThat(state.playing())
                .hasValueSatisfying(p -> assertThat(p.paused()).isTrue());
        order(new Order.Resume());
        pass(5000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void breakingOffDropsWhatIsCalledLate() {
        late("10", "Play", 900);
        plays("at 8:1 | Blue");
        order(new Order.BreakOff());
        pass(2000);
        assertThat(sent()).isEmpty();
        begin();
        standBy("10");
        go();
        assertThat(state.agenda()).hasSize(1);
        assertThat(state.leftAlone().agenda()).isEmpty();
    }

    @Test
    void whatTheBookHasUnderWayAtThePlaceComesInItsTime() {
        late("10", "Play", 5000);
        plays("after 7 | Blue", "at 8:1 | Amber");
        rejoin(new Whereto.Bar(3));
        assertThat(sent()).isEmpty();
        pass(1001);
        assertThat(sent()).as("4 s after the beginning, 1 s before it").containsExactly("cue 10 91 24 7F @ 1000");
        pass(2000);
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 3000");
    }

    @Test
    void aPlaceThatIsPutBackIsStillToBeGivenFromThereOn() {
        plays("at 2:1 | Blue", "by hand | Amber", "at 6:1 | Dark");
        pass(5000);
        go();
        assertThat(given("21")).isEqualTo(5 * SECOND);
        order(new Order.Locate(3 * SECOND));
        assertThat(given("21")).isEqualTo(ItemProgress.NOT_GIVEN);
        assertThat(given("20")).isNotEqualTo(ItemProgress.NOT_GIVEN);
        order(new Order.Locate(11 * SECOND));
        assertThat(given("21")).isEqualTo(ItemProgress.BEFORE);
        order(new Order.Locate(0));
        assertThat(given("20")).isEqualTo(ItemProgress.NOT_GIVEN);
    }

    @Test
    void aPlaceThatIsPutWhileTheBandStandsForgetsWhatWaited() {
        plays("after 2 | Blue");
        pass(1000);
        order(new Order.Hold());
        order(new Order.Locate(4 * SECOND));
        order(new Order.Resume());
        pass(3000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void theStandbyStaysOnItsCueOrOnTheFirstBehindThatIsLeft() {
        begin();
        standBy("2");
        show = show.withoutCue(id("1"));
        edited();
        assertThat(standby()).isEqualTo("2");
        show = show.withoutCue(id("2"));
        edited();
        assertThat(standby()).isEqualTo("10");
        show = show.withoutCue(id("10"));
        edited();
        assertThat(standby()).isEqualTo("end");
        show = Shows.cue(show, "20", "by hand", "Amber");
        edited();
        assertThat(standby()).as("of a book that was empty the first").isEqualTo("20");
    }

    @Test
    void behindTheLastCueItStaysThereAndGoesOnWithWhatIsAdded() {
        begin();
        standBy("10");
        go();
        assertThat(standby()).isEqualTo("end");
        show = Shows.cue(show, "20", "by hand", "Amber");
        edited();
        assertThat(standby()).isEqualTo("20");
    }

    @Test
    void aCueThatIsPutBackTonightStandsByAgainIfItWasNotReached() {
        begin();
        go();
        OutTonight out = OutTonight.NONE.with(OutTonight.Kind.CUE, id("2"), false);
        order(new Order.Adopt(Planner.plan(show).tonight(out)));
        assertThat(standby()).isEqualTo("10");
        order(new Order.Adopt(Planner.plan(show).tonight(OutTonight.NONE)));
        assertThat(standby()).isEqualTo("2");
        standBy("10");
        go();
        order(new Order.Adopt(Planner.plan(show).tonight(out)));
        order(new Order.Adopt(Planner.plan(show).tonight(OutTonight.NONE)));
        assertThat(standby()).as("it lies behind the cue that came last").isEqualTo("end");
    }
}
