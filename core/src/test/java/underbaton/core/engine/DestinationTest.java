package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.OptionalLong;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.CueNumber;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Refusal;

/** Where each way to get right again leads to: its words, what the lights show there, and what is ordered behind. */
class DestinationTest extends PlayedShow {

    /** A song of eight bars of two seconds with a pick-up of half a second; item One stands before it. */
    @BeforeEach
    void aSong() {
        song(
                "pick-up 1 quarter\n1 quarter = 120\n3 A verse\n5 B chorus\n9 end",
                "at 3:1 | Blue",
                "at 5:1 | Dark",
                "by hand | Amber, Stop");
        begin();
    }

    private Destination to(Whereto where) {
        return Destination.of(where, state, DryRun.of(state.plan()), state.nowNanos());
    }

    /** {@code words: what the lights show}. */
    private String there(Whereto where) {
        Destination there = to(where);
        String lights = there.book()
                .told()
                .device(show.devices().get(0).id())
                .shows()
                .map(PlannedCall::phrase)
                .orElse("nothing");
        return there.words() + ": " + lights;
    }

    private static Whereto.AtCue cue(String number) {
        return new Whereto.AtCue(CueNumber.of(number));
    }

    private void refuses(Whereto where, String words) {
        assertThatThrownBy(() -> to(where)).isInstanceOf(Refusal.class).hasMessageContaining(words);
    }

    private void playsSong() {
        standBy("10");
        go();
    }

    private long plays(Whereto where) {
        return to(where).after().stream()
                        .mapToLong(o -> o instanceof Order.PlayOn on
                                ? on.fromNanos()
                                : o instanceof Order.Play play ? play.fromNanos() : -1)
                        .findFirst()
                        .orElse(-1)
                / MS;
    }

    @Test
    void beforeTheStandbyOrBehindTheLastCue() {
        standBy("11");
        assertThat(there(new Whereto.Standby())).isEqualTo("just before cue 11: Amber");
        assertThat(to(new Whereto.Standby()).before()).containsExactly(new Order.Leave(id("11")));
        standBy("22");
        go();
        order(new Order.Next());
        assertThat(there(new Whereto.Standby())).isEqualTo("at the end of the book: Amber");
        assertThat(to(new Whereto.Standby()).before()).containsExactly(new Order.Leave(0));
    }

    @Test
    void theCueBeforeIsTheOneThatWaitsForGO() {
        refuses(new Whereto.CueBefore(), "no cue before this one");
        standBy("11");
        assertThat(there(new Whereto.CueBefore())).isEqualTo("at cue 10: Blue");
        assertThat(to(new Whereto.CueBefore()).after()).containsExactly(new Order.StandBy(id("10")), new Order.Go());
        refuses(cue("77"), "There is no cue 77");
    }

    @Test
    void aTimedCueIsPlayedFromItsPlaceAndWhatComesAnywayIsNotSetBefore() {
        assertThat(there(cue("21"))).isEqualTo("at cue 21: Blue");
        assertThat(plays(cue("21"))).isEqualTo(8500);
        assertThat(to(cue("21")).coming()).isNotEmpty();
        assertThat(to(cue("10")).coming()).isEmpty();
    }

    @Test
    void barsAreThoseOfTheSongThatStandsByOrPlays() {
        refuses(new Whereto.Bar(2), "has no bars");
        standBy("10");
        assertThat(there(new Whereto.Bar(3))).isEqualTo("Two at bar 3: Amber");
        assertThat(plays(new Whereto.Bar(3))).isEqualTo(4500);
        assertThat(to(new Whereto.Bar(3)).before()).containsExactly(new Order.Leave(id("10")));
        refuses(new Whereto.Bar(-1), "bars 0 to 9");
        refuses(new Whereto.Bar(10), "bars 0 to 9");
        assertThat(plays(new Whereto.Bar(9))).isEqualTo(16_500);
        playsSong();
        pass(6000);
        assertThat(there(new Whereto.Bar(6))).isEqualTo("at bar 6: nothing");
        assertThat(to(new Whereto.Bar(6)).before()).containsExactly(new Order.BreakOff());
        assertThat(plays(new Whereto.Bar(6))).isEqualTo(10_500);
        assertThat(there(new Whereto.Bar(0))).as("with the cue that opens it").isEqualTo("at bar 0: Blue");
        assertThat(to(new Whereto.Bar(0)).before()).containsExactly(new Order.Leave(id("10")));
        assertThat(plays(new Whereto.Bar(1))).isEqualTo(500);
    }

    @Test
    void sectionsAreFoundByTheirLetterAndByWhereTheMusicStands() {
        playsSong();
        pass(4499);
        assertThat(plays(new Whereto.ThisSection())).as("before the first").isZero();
        pass(1);
        assertThat(plays(new Whereto.ThisSection())).isEqualTo(4500);
        pass(4100);
        assertThat(plays(new Whereto.ThisSection())).isEqualTo(8500);
        assertThat(plays(new Whereto.Letter("a"))).isEqualTo(4500);
        assertThat(there(new Whereto.Letter("B"))).isEqualTo("at bar 5: Blue");
        refuses(new Whereto.Letter("C"), "no section C");
    }

    @Test
    void theNextCueIsTheOneThatHasNotComeAndComesByItself() {
        assertThat(there(new Whereto.Next(0))).isEqualTo("just before cue 1: nothing");
        go();
        assertThat(there(new Whereto.Next(0))).isEqualTo("just before cue 2: Amber");
        order(new Order.Leave(id("10")));
        assertThat(there(new Whereto.Next(0))).as("from cue to cue").isEqualTo("just before cue 11: Amber");
        playsSong();
        go();
        pass(500);
        assertThat(there(new Whereto.Next(2 * SECOND))).isEqualTo("on the way to cue 20: Amber");
        assertThat(plays(new Whereto.Next(2 * SECOND))).isEqualTo(2500);
        pass(2000);
        assertThat(plays(new Whereto.Next(2 * SECOND)))
                .as("one that is about to come counts as come")
                .isEqualTo(6500);
        pass(7000);
        assertThat(there(new Whereto.Next(0))).isEqualTo("just before cue 22: nothing");
        standBy("22");
        go();
        refuses(new Whereto.Next(0), "no cue behind");
    }

    @Test
    void whatIsOutTonightIsNoNextCueAndNothingIsPutRightOnAMachineThatIsOut() {
        OutTonight out = OutTonight.NONE
                .with(OutTonight.Kind.CUE, id("2"), false)
                .with(OutTonight.Kind.MACHINE, show.devices().get(0).id(), false);
        order(new Order.Adopt(Planner.plan(show).tonight(out)));
        go();
        assertThat(to(new Whereto.Next(0)).words()).isEqualTo("just before cue 10");
        standBy("11");
        assertThat(to(new Whereto.Standby()).corrections(state)).isEmpty();
    }

    @Test
    void thePresentIsWhatTheBookHasByNowInMusicInAHoldAndInAScene() {
        playsSong();
        pass(5000);
        assertThat(there(new Whereto.Present())).isEqualTo("as the book has it now: Blue");
        order(new Order.Hold());
        assertThat(to(new Whereto.Present()).book().progress().held()).isTrue();
        assertThat(there(new Whereto.Here())).isEqualTo("at bar 3: Blue");
        assertThat(to(new Whereto.Here()).before()).containsExactly(new Order.Resume());
        begin();
        assertThat(there(new Whereto.Present())).isEqualTo("as the book has it now: nothing");
        go();
        go();
        assertThat(there(new Whereto.Present())).isEqualTo("as the book has it now: Blue");
        order(new Order.Adopt(Planner.plan(show.withoutCue(id("2")))));
        assertThat(there(new Whereto.Present()))
                .as("the cue that came last is gone: before the standby")
                .isEqualTo("as the book has it now: Amber");
    }

    @Test
    void asIfItHadNotStoodIsAsFarOnAsItStood() {
        playsSong();
        pass(5000);
        long stood = state.nowNanos();
        order(new Order.Hold());
        pass(4000);
        assertThat(plays(new Whereto.AsIfSince(stood))).isEqualTo(9000);
        assertThat(to(new Whereto.AsIfSince(stood)).after().get(0))
                .isEqualTo(new Order.PlayOn(9 * SECOND, OptionalLong.of(state.nowNanos())));
    }
}
