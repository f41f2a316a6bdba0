package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;

/** The rules of playing, one by one: what each order does to a show, and what time brings. */
class EngineTest extends PlayedShow {

    // ---- GO

    @Test
    void goGoesOnBehindAnItemWithoutCues() {
        show = show.withItem(new Item(0, ItemKind.INTERVAL, "Interval", 0, List.of()), 1);
        begin();
        order(new Order.Play(show.items().get(1).id(), 0));
        assertThat(standby()).isEqualTo("10");
        go();
        assertThat(sent()).containsExactly("cue 10 90 01 7F @ 0");
    }

    /** 2 s of a song at 120, then four fifths of the tempo: the 2 s that are left last 2.5 s. */
    @Test
    void theTempoIsTakenUpAndDownWhileTheMusicGoesOn() {
        show = show.withItem(new Item(0, ItemKind.SONG, "Three", 0, List.of()), 2);
        song("1 quarter = 120\n9 end", "at 3:1", "at 5:1");
        begin();
        order(new Order.Play(show.items().get(show.items().size() - 1).id(), 0));
        pass(2_000);
        order(new Order.Pace(800));
        pass(20_000);
        assertThat(sent().stream().map(s -> s.replaceAll(".*@ ", ""))).containsExactly("4500", "9500");
    }

    @Test
    void aVampGoesRoundAndIsLeftAtItsOwnTempo() {
        show = show.withItem(new Item(0, ItemKind.SONG, "Three", 0, List.of()), 2);
        song("1 quarter = 120\n2 vamp 1 bar, leave at the end\n5 end", "at 3:1");
        begin();
        order(new Order.Play(show.items().get(show.items().size() - 1).id(), 0));
        order(new Order.Pace(2000));
        // A bar lasts 1 s: the vamp is entered at 1 s, and goes round at 2, 3 and 4.
        pass(3_500);
        assertThat(state.playing().orElseThrow().pass()).isEqualTo(3);
        order(new Order.Release());
        pass(10_000);
        assertThat(sent().stream().map(s -> s.replaceAll(".*@ ", ""))).containsExactly("4000");
    }

    @Test
    void aSongWhoseFirstCueIsTimedBeginsAtGo() {
        show = show.withItem(new Item(0, ItemKind.SONG, "Three", 0, List.of()), 2);
        song("1 quarter = 120\n9 end", "at 2:1", "at 3:1");
        begin();
        standBy("11");
        go();
        assertThat(standby()).isEqualTo("20");
        sent();
        pass(1000);
        go();
        assertThat(sent()).isEmpty();
        assertThat(state.playing().orElseThrow().item().item().name()).isEqualTo("Three");
        pass(5000);
        assertThat(sent()).containsExactly("cue 20 90 01 7F @ 3000", "cue 21 90 01 7F @ 5000");
    }

    /** Its copies come in their own time; fired by hand it takes none of them with it and does not begin the song again. */
    @Test
    void aCueByHandBeforeCopiesOfALinkedSectionDoesNotPlayTheSongAgain() {
        song(
                "1 quarter = 120\n3 B Chorus\n5 C Verse\n7 D Chorus 2 as B\n9 end",
                "at B",
                "after 0.5 s | Blue",
                "by hand | Dark");
        begin();
        standBy("10");
        go();
        pass(9000);
        sent();
        standBy("22");
        go();
        assertThat(sent()).containsExactly("cue 22 90 00 7F @ 9000");
        pass(7000);
        assertThat(sent()).containsExactly("cue 20 in D 90 01 7F @ 12000", "cue 21 in D 90 02 7F @ 12500");
    }

    @Test
    void goSendsTheTimedCuesThatTheBookPutsBeforeIt() {
        song("1 quarter = 120\n20 end", "at 5:1 | Amber", "at 6:1 | Blue", "by hand | Play");
        begin();
        standBy("10");
        go();
        standBy("22");
        sent();
        pass(1000);
        go();
        assertThat(sent())
                .containsExactly("cue 20 90 01 7F @ 1000", "cue 21 90 02 7F @ 1000", "cue 22 91 24 7F @ 1000");
        pass(20_000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void orOnlyWhatTheyLeaveBehindAndAsksFirst() {
        song(
                "1 quarter = 120\n20 end",
                "at 5:1 | Amber",
                "at 6:1 | Blue",
                "at 7:1 | Amber",
                "at 8:1 | Blue",
                "by hand | Play");
        begin();
        order(new Order.Behave(GoOptions.CAREFUL));
        standBy("10");
        go();
        standBy("24");
        sent();
        pass(1000);
        assertThat(state.skippedByGo()).isEqualTo(4);
        go();
        assertThat(sent()).as("it asks").isEmpty();
        assertThat(state.asksAt(state.nowNanos())).isTrue();
        pass(2100);
        assertThat(state.asksAt(state.nowNanos())).as("nobody answered").isFalse();
        go();
        pass(500);
        go();
        assertThat(sent()).containsExactly("catch-up 90 02 7F @ 3600", "cue 24 91 24 7F @ 3600");
    }

    @Test
    void aSecondGoAtOnceWantsAThird() {
        begin();
        order(new Order.Behave(GoOptions.CAREFUL));
        go();
        pass(200);
        go();
        assertThat(sent()).hasSize(1);
        pass(500);
        go();
        assertThat(sent()).containsExactly("cue 2 90 02 7F @ 700", "cue 2 91 24 7F @ 700");
        pass(400);
        go();
        assertThat(sent()).as("after 300 ms a GO is a GO").containsExactly("cue 10 90 01 7F @ 1100");
    }

    // ---- the music

    @Test
    void anItemIsOverAfterItsLastBar() {
        song("1 quarter = 120\n4 end", "at 2:1");
        begin();
        standBy("10");
        go();
        pass(7999);
        assertThat(state.playing()).isPresent();
        pass(2);
        assertThat(state.playing()).isEmpty();
        standBy("11");
        sent();
        go();
        pass(10_000);
        assertThat(sent())
                .as("a cue by hand afterwards begins nothing anew")
                .containsExactly("cue 11 90 00 7F @ 8001", "cue 11 91 23 7F @ 8001");
    }

    /** The lights are told 300 ms early: begun in the middle they get what is yet to be heard, and nothing that was. */
    @Test
    void begunInTheMiddleItTellsWhatIsYetToBeHeard() {
        show = show.withDevice(show.devices().get(0).withTiming(300, 0));
        song("1 quarter = 120\n9 end", "at 2:1 | Amber", "at 3:1 | Blue", "at 4:1 | Play");
        begin();
        order(new Order.Play(show.items().get(1).id(), 3900 * MS));
        pass(3000);
        assertThat(sent()).containsExactly("cue 21 90 02 7F @ 0", "cue 22 91 24 7F @ 2100");
    }

    @Test
    void aCallBehindItsCueIsNotForgottenWhenTheItemIsBegunBetweenThem() {
        Device player = show.devices().get(1);
        song("1 quarter = 120\n9 end");
        show = show.withCue(
                show.items().get(1).id(),
                new Cue(0, CueNumber.of("20"), Start.of("at 2:1"), "", List.of(Call.of(player, "Play @ 2 s")), 0));
        begin();
        order(new Order.Play(show.items().get(1).id(), 3000 * MS));
        pass(3000);
        assertThat(sent()).containsExactly("cue 20 91 24 7F @ 1000");
    }

    // ---- moves

    @Test
    void stopAllLeavesMovesWhereTheyAre() {
        show = fader(show);
        fade("12", "by hand", "Bed 0 %");
        fade("13", "by hand", "Bed 100 % in 2 s");
        begin();
        standBy("12");
        go();
        go();
        pass(1000);
        order(new Order.StopAll());
        sent();
        pass(5000);
        assertThat(sent()).isEmpty();
        assertThat(state.moves()).isEmpty();
        assertThat(state.told().levels().values()).singleElement().satisfies(l -> assertThat(l.value())
                .isBetween(62, 65));
    }

    /** Seen: two calls of one control in one instant, the second from where the first would have brought it. */
    @Test
    void whatWasOvertakenBeforeItWasSaidIsStillSaid() {
        show = fader(show);
        fade("12", "by hand", "Bed 50 % in 2 s");
        fade("13", "with", "Bed 50 % in 1 s");
        begin();
        standBy("12");
        go();
        pass(3000);
        assertThat(sent()).containsExactly("cue 13 B4 03 40 @ 0");
    }

    /** The book has the bed at nothing when cue 13 brings it up; whoever begins there hears no jump. */
    @Test
    void aFadeOnAMachineThatHasBeenToldNothingBeginsWhereTheBookHasIt() {
        show = fader(show);
        fade("12", "by hand", "Bed 0 %");
        fade("13", "by hand", "Bed 10 % in 1 s");
        state = PlaybackState.of(DryRun.of(Planner.plan(show)).knowing(), 0);
        standBy("13");
        go();
        pass(2000);
        List<String> steps = sent();
        assertThat(steps.get(0)).isEqualTo("cue 13 B4 03 00 @ 0");
        assertThat(steps.get(1)).startsWith("cue 13 B4 03 01 @ ");
        assertThat(steps).hasSize(14).last().asString().startsWith("cue 13 B4 03 0D @ ");
    }

    // ---- stop, hold

    private void twoLoops() {
        show = Shows.phrase(show, "Bed", "note 48", Effect.of("starts bed"));
        show = Shows.phrase(show, "Bed out", "note off 48", Effect.of("stops bed"));
        show = Shows.phrase(show, "Rain", "note 49", Effect.of("starts rain"));
        show = Shows.phrase(show, "Rain out", "note off 49", Effect.of("stops rain"));
        show = Shows.phrase(show, "Clip", "note 50", Effect.of("starts clip for 0:10"));
    }

    @Test
    void stopAllStopsEachThingThatRunsByItsOwnStop() {
        twoLoops();
        show = Shows.cue(show, "12", "by hand", "Bed", "Rain", "Clip");
        begin();
        standBy("12");
        go();
        sent();
        pass(11_000);
        order(new Order.StopAll());
        assertThat(sent())
                .as("the clip is over by itself")
                .containsExactly("stop all 81 30 00 @ 11000", "stop all 81 31 00 @ 11000");
        order(new Order.StopAll());
        assertThat(sent()).as("nothing runs any more").isEmpty();
    }

    @Test
    void holdStopsWhatTheItemSetGoingAndLeavesWhatRanBefore() {
        twoLoops();
        show = Shows.cue(show, "12", "by hand", "Bed");
        show = show.withItem(new Item(0, ItemKind.SONG, "Three", 0, List.of()), 2);
        song("1 quarter = 120\n20 end", "by hand | Rain", "at 5:1 | Blue");
        begin();
        standBy("12");
        go();
        pass(1000);
        go();
        pass(3000);
        sent();
        order(new Order.Hold());
        assertThat(sent()).containsExactly("hold 81 31 00 @ 4000");
        pass(60_000);
        assertThat(sent()).isEmpty();
        assertThat(state.progress().held()).isTrue();
        order(new Order.Resume());
        pass(6000);
        assertThat(sent())
                .as("rain goes on, as if the band had not stopped")
                .containsExactly("goes on after the hold 91 31 7F @ 64000", "cue 21 90 02 7F @ 69000");
    }

    // ---- who is away

    @Test
    void aDeviceThatWasAwayIsToldOnlyWhatItMissed() {
        begin();
        int lights = show.devices().get(0).id();
        go();
        order(new Order.Lost(lights));
        go();
        go();
        sent();
        order(new Order.Found(lights));
        assertThat(state.absent()).as("it holds amber, which it should").isEmpty();
        order(new Order.Lost(lights));
        go();
        order(new Order.Found(lights));
        assertThat(state.behind(lights)).hasSize(1);
        sent();
        order(new Order.BringUp(lights));
        assertThat(sent()).containsExactly("catch-up 90 00 7F @ 0");
        assertThat(state.absent()).isEmpty();
    }

    /** Three steps on, one each 50 ms; from a place that nobody knows no step leads anywhere. */
    @Test
    void aMachineThatOnlyStepsTakesTheFewestStepsInItsTime() {
        show = Shows.device(show, "Tablet", Department.WORDS, 5);
        show = Shows.phrase(show, "Next", "note 48", Effect.of("steps song by +1"));
        show = Shows.phrase(show, "Previous", "note 47", Effect.of("steps song by -1"));
        Device tablet = show.devices().get(2);
        show = show.withDevice(tablet.withStepLists(StepList.read("song of 9 every 50 ms")));
        show = Shows.cue(show, "12", "by hand", "Next");
        show = Shows.cue(show, "13", "by hand", "Next");
        show = Shows.cue(show, "14", "by hand", "Next");
        show = Shows.cue(show, "15", "by hand", "Amber");
        begin();
        PlaybackState book = DryRun.of(state.plan()).before(state.plan().indexOf(id("15")));
        assertThat(state.correctionsTo(book))
                .filteredOn(c -> c.key().deviceId() == tablet.id())
                .singleElement()
                .satisfies(c -> {
                    assertThat(c.isPossible()).isFalse();
                    assertThat(c.has()).isEmpty();
                    assertThat(c.wants()).isEqualTo("song 4");
                });
        order(new Order.StandsAt(tablet.id(), "song", 1));
        order(new Order.CatchUp(book, java.util.Set.of()));
        pass(1000);
        assertThat(sent())
                .filteredOn(s -> s.contains(" 95 "))
                .containsExactly("catch-up 95 30 7F @ 0", "catch-up 95 30 7F @ 50", "catch-up 95 30 7F @ 100");
        assertThat(state.place(tablet.id(), "song")).hasValue(4);
    }

    /** Stopped between its program and its control the machine is neither here nor there, and is told anew. */
    @Test
    void whatStopAllCutsInHalvesIsNotTakenForTold() {
        show = Shows.device(show, "Keys", Department.KEYS, 6);
        Device keys = show.devices().get(2);
        show = show.withPhrase(
                keys.id(),
                new Phrase(
                        0,
                        "Drone",
                        new SpeechWording(Numbering.WIRE).read("program 3; after 20 ms control 80 to 1"),
                        Optional.empty(),
                        Effect.HOLDS,
                        false,
                        false,
                        Remarks.NONE));
        show = Shows.cue(show, "12", "by hand", "Drone");
        show = Shows.cue(show, "13", "by hand", "Amber");
        begin();
        standBy("12");
        go();
        pass(10);
        order(new Order.StopAll());
        pass(100);
        assertThat(sent()).containsExactly("cue 12 C6 03 @ 0");
        PlaybackState book = DryRun.of(state.plan()).before(state.plan().indexOf(id("13")));
        assertThat(state.correctionsTo(book))
                .filteredOn(c -> c.key().deviceId() == keys.id())
                .singleElement()
                .satisfies(c -> assertThat(c.wants()).isEqualTo("Drone"));
    }

    @Test
    void whatAMoveEndsInIsToldToo() {
        show = fader(show);
        show = Shows.phrase(show, "Gain", "control 9 to 90", Effect.MOMENT);
        fade("12", "by hand", "Bed 0 %");
        fade("13", "by hand", "Bed 50 % in 1 s, then Gain");
        begin();
        standBy("12");
        go();
        go();
        pass(1500);
        assertThat(sent()).last().isEqualTo("cue 13, then Gain B4 09 5A @ 1000");
        assertThat(state.told().levels()).hasSize(2);
        assertThat(DryRun.of(state.plan())
                        .before(state.plan().cues().size())
                        .told()
                        .levels())
                .as("the plan knows the level as the performance does")
                .isEqualTo(state.told().levels());
    }
}
