package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.plan.Changes;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;
import underbaton.core.score.Anchor;
import underbaton.core.store.StoredForm;

/** What each order leaves behind: of moves, of notes that sound, of what was still to come, and of the standby. */
class OrdersTest extends PlayedShow {

    private static final String LAST_OF_TWO_SONGS = "1 quarter = 120\n20 end";

    private void bed(String number, String start, String typed) {
        fade(number, start, typed);
    }

    private void fading() {
        show = fader(show);
        bed("12", "by hand", "Bed 0 %");
        bed("13", "by hand", "Bed 100 % in 4 s");
        begin();
        standBy("12");
        go();
        go();
        pass(1000);
        sent();
    }

    private Control control() {
        return state.moves().keySet().iterator().next();
    }

    // ---- hold and leave

    @Test
    void holdLeavesMovesWhereTheyAreAndEndsNotesThatSound() {
        show = fader(show);
        show = show.withPhrase(
                show.devices().get(show.devices().size() - 1).id(),
                new Phrase(
                        0,
                        "Oar",
                        new SpeechWording(Numbering.WIRE).read("note 40 for 5000 ms"),
                        Optional.empty(),
                        Effect.MOMENT,
                        false,
                        false,
                        Remarks.NONE));
        song(LAST_OF_TWO_SONGS, "at 2:1 | Oar");
        bed("30", "at 1:2", "Bed 100 % in 8 s");
        bed("29", "at 1:1", "Bed 0 %");
        begin();
        order(new Order.Play(show.items().get(1).id(), 0));
        pass(3000);
        assertThat(state.moves()).isNotEmpty();
        sent();
        order(new Order.Hold());
        assertThat(sent()).as("the oar's note is let go").containsExactly("cue 20 84 28 00 @ 3000");
        assertThat(state.moves()).isEmpty();
        assertThat(state.agenda()).isEmpty();
        assertThat(state.progress().held()).isTrue();
        pass(9000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void leavingDropsWhatIsStillToComeAndStandsMovesStill() {
        show = fader(show);
        song(LAST_OF_TWO_SONGS, "at 2:1 | Amber");
        show = show.withCue(
                show.items().get(1).id(),
                new Cue(
                        0,
                        CueNumber.of("30"),
                        Start.of("at 1:1"),
                        "",
                        List.of(underbaton.core.cue.Call.of(show.devices().get(0), "Blue @ 4 s")),
                        0));
        bed("31", "at 1:1", "Bed 100 % in 8 s");
        begin();
        order(new Order.Play(show.items().get(1).id(), 0));
        pass(1000);
        sent();
        order(new Order.Leave(id("11")));
        assertThat(standby()).isEqualTo("11");
        assertThat(state.playing()).isEmpty();
        assertThat(state.moves()).isEmpty();
        assertThat(state.operator().moved()).isTrue();
        pass(20_000);
        assertThat(sent()).isEmpty();
    }

    // ---- playing from a place

    @Test
    void playedFromAPlaceTheStandbyIsTheNextThatWaitsBehindIt() {
        song(LAST_OF_TWO_SONGS, "at 2:1 | Amber", "by hand | Blue", "at 5:1 | Amber", "by hand | Dark");
        begin();
        int song = show.items().get(1).id();
        order(new Order.Play(song, 0));
        assertThat(sent()).as("its first cue waits for GO and begins it").containsExactly("cue 10 90 01 7F @ 0");
        assertThat(standby()).isEqualTo("11");
        order(new Order.Play(song, 3_000 * MS));
        assertThat(standby()).isEqualTo("21");
        order(new Order.Play(song, 8_000 * MS));
        assertThat(standby()).as("a cue of that very moment is still to come").isEqualTo("21");
        order(new Order.Play(song, 8_001 * MS));
        assertThat(standby()).isEqualTo("23");
        pass(30_000);
        assertThat(sent()).containsExactly("cue 22 90 01 7F @ 0");
    }

    @Test
    void anItemWhoseFirstCueIsTimedLeavesTheStandbyBehindIt() {
        show = show.withItem(new Item(0, ItemKind.SONG, "Three", 0, List.of()), 2);
        song(LAST_OF_TWO_SONGS, "at 2:1 | Amber", "by hand | Blue");
        begin();
        order(new Order.Play(show.items().get(2).id(), 0));
        assertThat(standby()).isEqualTo("21");
    }

    // ---- what GO brings forward

    @Test
    void whatIsLeftBehindByCuesThatGoSkipsIsWhereItComesToRest() {
        show = fader(show);
        song(LAST_OF_TWO_SONGS, "at 5:1 | Amber", "by hand | Play");
        bed("20.5", "at 5:2", "Bed 50 % in 4 s");
        begin();
        order(new Order.Behave(GoOptions.CAREFUL));
        standBy("10");
        go();
        standBy("21");
        pass(1000);
        sent();
        go();
        pass(500);
        go();
        assertThat(sent()).contains("catch-up B4 03 40 @ 1500");
        assertThat(state.moves()).isEmpty();
    }

    // ---- what comes next

    @Test
    void whatComesByItselfIsTheEarlierOfACueThatFollowsAndOneThatLands() {
        song(LAST_OF_TWO_SONGS, "at 5:1 | Amber");
        show = Shows.cue(show, "30", "by hand", "Blue");
        show = Shows.cue(show, "31", "after 3 s", "Dark");
        begin();
        standBy("10");
        go();
        assertThat(coming()).isEqualTo("20 at 8000");
        standBy("30");
        order(new Order.Behave(GoOptions.PLAIN));
        pass(1000);
        order(new Order.Pause());
        assertThat(state.coming()).isEmpty();
        order(new Order.Resume());
        assertThat(coming()).isEqualTo("20 at 8000");
        go();
        assertThat(coming()).as("the timed one was brought forward").isEqualTo("31 at 4000");
    }

    private String coming() {
        return state.coming()
                .map(c -> c.cue().number() + " at " + c.dueNanos() / MS)
                .orElse("nothing");
    }

    @Test
    void whatRunsByItselfIsToldByMachine() {
        show = Shows.phrase(show, "Loop", "note 48", Effect.of("starts bed"));
        show = Shows.phrase(show, "Loop out", "note off 48", Effect.of("stops bed"));
        show = Shows.cue(show, "20", "by hand", "Loop");
        begin();
        assertThat(state.runningAt(0)).isEmpty();
        standBy("20");
        go();
        assertThat(state.runningAt(state.nowNanos()).values()).singleElement().satisfies(slots -> assertThat(slots)
                .extracting(s -> s.call().phrase())
                .containsExactly("Loop"));
        order(new Order.StopAll());
        assertThat(state.runningAt(state.nowNanos())).isEmpty();
    }

    @Test
    void whereAControlStandsIsKnownOnTheWayAndAtRestAndNotBefore() {
        fading();
        Control bed = control();
        assertThat(state.standsAt(bed, state.nowNanos())).hasValueCloseTo(31.75, within(1));
        pass(4000);
        assertThat(state.standsAt(bed, state.nowNanos())).hasValue(127);
        assertThat(state.standsAt(new Control(99, "B0 01"), 0)).isEmpty();
    }

    private static org.assertj.core.data.Offset<Double> within(double d) {
        return org.assertj.core.data.Offset.offset(d);
    }

    // ---- edits

    @Test
    void anEditOfWhatLiesAheadIsToldFromOneOfWhatIsPlayed() {
        song(LAST_OF_TWO_SONGS, "at 5:1 | Amber");
        show = show.withItem(new Item(0, ItemKind.SONG, "Three", 0, List.of()), 2);
        show = Shows.cue(show, "40", "by hand", "Amber");
        show = Shows.cue(show, "41", "by hand", "Blue");
        begin();
        Plan before = state.plan();
        standBy("10");
        go();
        assertThat(state.liesAhead(place(before, "41"))).isTrue();
        assertThat(state.liesAhead(place(before, "20")))
                .as("in the song that plays")
                .isFalse();
        assertThat(state.liesAhead(state.standby())).as("the standby itself").isFalse();
        assertThat(state.liesAhead(before.cues().size())).isTrue();

        int cue = id("41");
        Plan after = Planner.plan(
                show.withCuesExchanged(List.of(show.cue(cue).orElseThrow().withCalls(List.of()))));
        assertThat(Changes.firstPlace(before, after)).isEqualTo(place(before, "41"));
        assertThat(Changes.firstPlace(before, before)).isEqualTo(before.cues().size());
        Plan renamed = Planner.plan(
                show.withCuesExchanged(List.of(show.cue(cue).orElseThrow().withWhat("Other words"))));
        assertThat(Changes.firstPlace(before, renamed)).isEqualTo(before.cues().size());
        Item song = show.items().get(1);
        Plan slower = Planner.plan(show.withItem(
                song.withScore(Optional.of(underbaton.core.score.Score.of("1 quarter = 60\n20 end"))), 0));
        assertThat(Changes.firstPlace(before, slower)).isEqualTo(before.firstOf(song.id()));
        Device lights = show.devices().get(0);
        assertThat(Changes.firstPlace(before, Planner.plan(show.withDevice(lights.withTiming(5, 0)))))
                .isZero();
        assertThat(Changes.firstPlace(before, Planner.plan(show.withoutCue(cue))))
                .isEqualTo(place(before, "41"));
    }

    private int place(Plan plan, String number) {
        return plan.indexOf(id(number));
    }

    @Test
    void anEditTellsNothingTwiceThatWasToldEarlyAndIsYetToBeHeard() {
        show = show.withDevice(show.devices().get(0).withTiming(500, 0));
        song(LAST_OF_TWO_SONGS, "at 3:1 | Amber", "at 4:1 | Blue");
        begin();
        order(new Order.Play(show.items().get(1).id(), 10 * MS));
        pass(3700);
        assertThat(sent()).as("told half a second early").containsExactly("cue 20 90 01 7F @ 3490");
        show = Shows.cue(show, "50", "at 6:1", "Dark");
        order(new Order.Adopt(Planner.plan(show)));
        pass(10_000);
        assertThat(sent()).containsExactly("cue 21 90 02 7F @ 5490", "cue 50 90 00 7F @ 9490");
    }

    @Test
    void aCueThatIsDeletedNoLongerFollowsAndOneThatStaysDoes() {
        show = Shows.cue(show, "30", "by hand", "Amber");
        show = Shows.cue(show, "31", "after 2 s", "Blue");
        begin();
        standBy("30");
        go();
        sent();
        order(new Order.Adopt(Planner.plan(Shows.cue(show, "32", "by hand", "Dark"))));
        assertThat(state.followOn()).isPresent();
        order(new Order.Adopt(Planner.plan(show.withoutCue(id("31")))));
        assertThat(state.followOn()).isEmpty();
        pass(5000);
        assertThat(sent()).isEmpty();
    }

    @Test
    void aMachineThatIsTakenOutOfTheRigIsForgottenWithWhatMovedOnIt() {
        fading();
        int console = show.devices().get(show.devices().size() - 1).id();
        order(new Order.Adopt(Planner.plan(show.withoutDevice(console))));
        assertThat(state.moves()).isEmpty();
        assertThat(state.told().devices()).doesNotContainKey(console);
        pass(9000);
        assertThat(sent()).isEmpty();
    }

    // ---- a machine that was away

    @Test
    void aMachineThatIsBroughtUpGetsTheRestOfAMove() {
        fading();
        int console = control().deviceId();
        order(new Order.Lost(console));
        pass(1000);
        sent();
        order(new Order.Found(console));
        order(new Order.BringUp(console));
        List<String> now = sent();
        assertThat(now).hasSize(1);
        assertThat(now.get(0)).startsWith("catch-up B4 03 ");
        assertThat(Integer.parseInt(now.get(0).split(" ")[3], 16)).isBetween(62, 65);
        pass(3000);
        assertThat(sent()).last().asString().contains("B4 03 7F");
    }

    @Test
    void aMachineThatStepsIsBroughtUpStepByStepInItsGap() {
        Device tablet = show.devices().get(0);
        show = Shows.phrase(show, "Next", "note 70", Effect.of("steps song by +1"));
        Device last = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(last.withStepLists(StepList.read("song of 9 every 50 ms")));
        for (int i = 0; i < 3; i++) {
            show = Shows.cue(show, "" + (20 + i), "by hand", "Next");
        }
        begin();
        order(new Order.StandsAt(last.id(), "song", 1));
        order(new Order.Lost(last.id()));
        standBy("20");
        go();
        go();
        go();
        sent();
        order(new Order.Found(last.id()));
        order(new Order.BringUp(last.id()));
        pass(1000);
        assertThat(sent().stream().map(s -> s.replaceAll(".*@ ", ""))).containsExactly("0", "50", "100");
        assertThat(tablet).isNotNull();
    }

    // ---- what a crash leaves

    @Test
    void whatIsKeptOverACrashIsSoManySecondsOlderAfterwards() {
        song(LAST_OF_TWO_SONGS, "at 5:1 | Amber");
        begin();
        pass(5000);
        standBy("10");
        go();
        pass(3000);
        RunSnapshot kept = StoredForm.read(StoredForm.write(RunSnapshot.of(state, 1_000_000)), RunSnapshot.class);
        assertThat(kept.positionNanos()).isEqualTo(3_000 * MS);
        assertThat(kept.permille()).isEqualTo(Anchor.AS_WRITTEN);
        PlaybackState back = kept.into(state.plan(), 100_000 * MS, 1_000_000 + 7_000_000);
        assertThat(back.last().orElseThrow().atNanos()).isEqualTo(93_000 * MS);
        assertThat(back.progress().nanos()).isEqualTo(90_000 * MS);
        assertThat(back.progress().held()).isTrue();
        Slot amber = back.told().device(show.devices().get(0).id()).slots().get(0);
        assertThat(amber.sinceNanos()).isEqualTo(90_000 * MS);
        assertThat(back.told().devices()).hasSize(1);
        assertThat(kept.into(state.plan(), 0, 0).last().orElseThrow().atNanos())
                .as("a clock that was put back makes nothing younger")
                .isZero();
    }

    @Test
    void whatFollowsTheLastCueOfASongComesByItselfThoughThatCueIsTimed() {
        song(LAST_OF_TWO_SONGS, "at 2:1 | Amber", "at 3:1 | Blue");
        show = show.withItem(new Item(0, ItemKind.SCENE, "Three", 0, List.of()), 2);
        show = Shows.cue(show, "30", "after 1 s", "Dark");
        show = Shows.cue(show, "31", "with", "Amber");
        show = Shows.cue(show, "32", "after 1 s", "Blue");
        show = Shows.cue(show, "33", "by hand", "Amber");
        begin();
        order(new Order.Play(show.items().get(1).id(), 0));
        pass(3500);
        sent();
        pass(500);
        assertThat(state.coming().orElseThrow().cue().label()).isEqualTo("30");
        pass(5000);
        assertThat(sent())
                .containsExactly(
                        "cue 21 90 02 7F @ 4000",
                        "cue 30 90 00 7F @ 5000",
                        "cue 31 90 01 7F @ 5000",
                        "cue 32 90 02 7F @ 6000");
        assertThat(standby()).as("that of the song waits as before").isEqualTo("11");
        assertThat(state.begunItem().orElseThrow().item().name()).isEqualTo("Three");
    }

    @Test
    void aMachineIsBroughtUpInTheOrderAndTheTimeThatItNeeds() {
        show = fader(show);
        int console = show.devices().get(show.devices().size() - 1).id();
        show = show.withDevice(show.device(console).orElseThrow().withTiming(0, 200));
        show = show.withPhrase(
                console,
                new Phrase(
                        0,
                        "Scene",
                        new SpeechWording(Numbering.WIRE).read("program 5"),
                        Optional.empty(),
                        Effect.of("holds scene"),
                        false,
                        false,
                        Remarks.NONE));
        show = show.withPhrase(
                console,
                new Phrase(
                        0,
                        "Look",
                        new SpeechWording(Numbering.WIRE).read("note 1; after 50 ms note 2"),
                        Optional.empty(),
                        Effect.of("holds look"),
                        false,
                        false,
                        Remarks.NONE));
        show = Shows.cue(show, "12", "by hand", "Look", "Scene");
        bed("13", "by hand", "Bed 50 %");
        begin();
        order(new Order.Lost(console));
        standBy("12");
        go();
        go();
        pass(1000);
        sent();
        order(new Order.Found(console));
        assertThat(sent()).as("somebody has to say so").isEmpty();
        order(new Order.BringUp(console));
        pass(1000);
        assertThat(sent())
                .containsExactly(
                        "catch-up C4 05 @ 1000",
                        "catch-up 94 01 7F @ 1200",
                        "catch-up B4 03 40 @ 1200",
                        "catch-up 94 02 7F @ 1250");
        assertThat(state.absent()).isEmpty();
        order(new Order.BringUp(console));
        assertThat(sent()).as("it is up").isEmpty();
    }

    @Test
    void aJumpMakesAMachineRightFromWhereItWasBeforeItWasAway() {
        show = fader(show);
        int console = show.devices().get(show.devices().size() - 1).id();
        bed("12", "by hand", "Bed 0 %");
        bed("13", "by hand", "Bed 100 % in 4 s");
        bed("14", "by hand", "Bed 20 %");
        begin();
        standBy("12");
        go();
        order(new Order.Lost(console));
        go();
        pass(1000);
        order(new Order.Found(console));
        sent();
        PlaybackState book = DryRun.of(state.plan()).before(state.plan().indexOf(id("13")));
        order(new Order.CatchUp(book, java.util.Set.of()));
        assertThat(sent())
                .as("it never heard of the fade, and stands where the book wants it")
                .noneMatch(m -> m.contains(" B4 "));
        assertThat(state.moves()).isEmpty();
        assertThat(state.absent()).isEmpty();
        pass(5000);
        assertThat(sent()).isEmpty();
    }
}
