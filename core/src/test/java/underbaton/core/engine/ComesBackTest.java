package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.rig.Remarks.Mark;

/** What was still to come when the crash came, comes when the show goes on, and as long after as it would have. */
class ComesBackTest extends PlayedShow {

    private static final String SONG = "1 quarter = 120\n9 end";

    /** The machine is on again after four seconds. */
    private void crash() {
        crashTo(show);
    }

    private void crashTo(Show now) {
        RunSnapshot kept = RunSnapshot.of(state, 1_000_000);
        state = kept.into(Planner.plan(now), 60 * SECOND, 5_000_000);
        sent();
    }

    private void plays(String... starts) {
        show = show.withoutCue(id("11"));
        song(SONG, starts);
        begin();
        standBy("10");
        go();
    }

    @Test
    void whatACueCallsLateComesAsLongAfterGoingOn() {
        plays("at 2:1 | Blue");
        late("20", 900);
        pass(2300);
        crash();
        pass(5000);
        assertThat(sent()).as("the music stands").isEmpty();
        order(new Order.Resume());
        pass(599);
        assertThat(sent()).isEmpty();
        pass(2);
        assertThat(sent()).containsExactly("cue 20 91 24 7F @ 65600");
    }

    @Test
    void alsoWhenTheBandHadStoppedBefore() {
        plays("at 2:1 | Blue");
        late("20", 900);
        pass(2300);
        order(new Order.Hold());
        pass(10_000);
        crash();
        order(new Order.Resume());
        pass(601);
        assertThat(sent()).containsExactly("cue 20 91 24 7F @ 60600");
    }

    @Test
    void whatACueGivenByHandCallsLateComesInAHoldAndWithoutOne() {
        for (boolean held : new boolean[] {false, true}) {
            show = Shows.small();
            plays("at 8:1 | Blue");
            late("10", 900);
            standBy("10");
            go();
            pass(300);
            if (held) {
                order(new Order.Hold());
                pass(2000);
            }
            crash();
            order(new Order.Resume());
            pass(599);
            assertThat(sent()).isEmpty();
            pass(2);
            assertThat(sent()).containsExactly("cue 10 91 24 7F @ 60600");
        }
    }

    /** The last call of a cue comes later. */
    private void late(String number, int ms) {
        Device player = show.devices().get(1);
        Cue cue = show.cueNumbered(CueNumber.of(number)).orElseThrow();
        show = show.withCuesExchanged(
                List.of(cue.withCallsFor(player.id(), List.of(Call.of(player, "Play @ " + ms + " ms")))));
        order(new Order.Adopt(Planner.plan(show)));
    }

    @Test
    void whatCallsLateFromACueThatIsGoneDoesNotCome() {
        plays("at 2:1 | Blue");
        late("20", 900);
        pass(2300);
        crashTo(show.withoutCue(id("20")));
        order(new Order.Resume());
        pass(5000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void aCueThatFollowsByItselfFollows() {
        plays("after 2 | Blue");
        pass(700);
        crash();
        order(new Order.Resume());
        pass(1299);
        assertThat(sent()).isEmpty();
        pass(2);
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 61300");
        assertThat(standby()).isEqualTo("end");
    }

    @Test
    void whatMachinesWithALeadHadBeenToldIsNotToldAgain() {
        show = show.withDevice(show.devices().get(0).withTiming(500, 0));
        plays("at 2:1 | Blue", "at 3:1 | Amber");
        pass(1700);
        crash();
        order(new Order.Resume());
        pass(2000);
        assertThat(sent()).as("cue 20 was told 500 ms early").containsExactly("cue 21 90 01 7F @ 61800");
    }

    @Test
    void theStandbyTheToldStatesAndTheTempoOfTheDayAreAsTheyWere() {
        plays("at 8:1 | Blue");
        order(new Order.Pace(800));
        pass(1000);
        int standby = state.standby();
        crash();
        assertThat(state.standby()).isEqualTo(standby);
        assertThat(state.operator().moved()).isTrue();
        assertThat(state.last()).hasValueSatisfying(l -> {
            assertThat(l.cue().label()).isEqualTo("10");
            assertThat(l.atNanos()).as("four seconds ago").isEqualTo(56 * SECOND);
        });
        assertThat(state.playing()).hasValueSatisfying(p -> {
            assertThat(p.paused()).isTrue();
            assertThat(p.position(state.nowNanos())).isEqualTo(800 * MS);
            assertThat(p.anchor().permille()).isEqualTo(800);
        });
        assertThat(state.told().device(show.devices().get(0).id()).slots())
                .singleElement()
                .satisfies(s -> {
                    assertThat(s.call().phrase()).isEqualTo("Amber");
                    assertThat(s.sinceNanos()).as("a second before the crash").isEqualTo(55 * SECOND);
                });
        crashTo(show.withoutCue(id("20")));
        assertThat(standby()).isEqualTo("end");
    }

    @Test
    void aKeyThatWorksWhileItIsHeldIsLetGoAndOneThatStaysOnStaysOn() {
        show = Hands.withPage(show, "Page");
        int page = show.hands().get(0).id();
        Device lights = show.devices().get(0);
        List<Call> blue = List.of(Call.of(lights, "Blue"));
        List<Call> amber = List.of(Call.of(lights, "Amber"));
        show = Hands.withKey(show, page, new HandKey(0, 0, 0, "Held", Mark.NONE, HandKey.Way.HELD, blue, amber, false));
        show = Hands.withKey(show, page, new HandKey(0, 0, 1, "On", Mark.NONE, HandKey.Way.ON_OFF, blue, amber, false));
        begin();
        show.hands().get(0).keys().forEach(k -> order(new Order.Touch(k.id(), KeyTouch.PRESS, "hand: ")));
        crash();
        pass(1999);
        assertThat(sent()).isEmpty();
        pass(2);
        assertThat(sent()).containsExactly("let go, held when the crash came 90 01 7F @ 62000");
        begin();
        show.hands().get(0).keys().forEach(k -> order(new Order.Touch(k.id(), KeyTouch.PRESS, "hand: ")));
        sent();
        order(new Order.PutAway());
        assertThat(sent())
                .as("and when the show leaves the desk")
                .containsExactly("put away: Held let go 90 01 7F @ 0");
    }
}
