package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.engine.out.Happening;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;

/** Jumps, holds, pauses and crashes, each fault that was found once as small as it can be. */
class StandsRightTest extends PlayedShow {

    private static final String SONG = "1 quarter = 120\n9 end";

    private Destination to(Whereto where) {
        return Destination.of(where, state, DryRun.of(state.plan()), state.nowNanos());
    }

    private List<Correction> rejoin(Whereto where) {
        Destination there = to(where);
        List<Correction> corrections = there.corrections(state);
        there.before().forEach(this::order);
        order(there.catchUp(Set.of()));
        there.after().forEach(this::order);
        return corrections;
    }

    private void playFromTen() {
        begin();
        order(new Order.StandBy(id("10")));
        go();
    }

    /** Of the cues by hand only 10. */
    private void alone() {
        show = show.withoutCue(id("2")).withoutCue(id("11"));
    }

    /** A tablet that is stepped on, and knows no other way. */
    private int tablet() {
        show = Shows.device(show, "Tablet", Department.WORDS, 5);
        Device tablet = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(tablet.withStepLists(List.of(new StepList("song", 9, 80))));
        show = Shows.phrase(show, "Next", "note 48", Effect.of("steps song by +1"));
        return tablet.id();
    }

    private int place(int tablet) {
        return state.told().device(tablet).pointer("song").orElseThrow().place().orElseThrow();
    }

    @Test
    void GO_ends_a_hold_and_the_music_goes_on() {
        song(SONG, "at 5:1 | Blue");
        playFromTen();
        pass(500);
        order(new Order.Hold());
        pass(3000);
        go();
        assertThat(state.progress().held()).isFalse();
        assertThat(state.playing()).hasValueSatisfying(p -> {
            assertThat(p.paused()).isFalse();
            assertThat(p.position(state.nowNanos())).isEqualTo(500 * MS);
        });
    }

    @Test
    void a_jump_into_a_song_carries_out_none_of_its_cues_by_hand_that_stand_behind() {
        alone();
        song(SONG, "at 2:1 | Blue", "by hand | Dark, Stop");
        playFromTen();
        sent();
        rejoin(new Whereto.Bar(4));
        assertThat(sent()).as("Blue alone").containsExactly("catch-up 90 02 7F @ 0");
        assertThat(standby()).isEqualTo("21");
    }

    @Test
    void going_on_after_a_hold_carries_out_no_cue_that_nobody_gave() {
        song(SONG, "by hand | Blue", "at 2:1 | Play", "at 8:1 | Amber");
        playFromTen();
        pass(3000);
        order(new Order.Hold());
        pass(1000);
        sent();
        assertThat(rejoin(new Whereto.Here())).isEmpty();
        assertThat(sent())
                .as("the film that the hold stopped alone")
                .containsExactly("goes on after the hold 91 24 7F @ 4000");
    }

    private void vamp(String phrases) {
        alone();
        show = show.withDevice(show.devices().get(0).withTiming(500, 0));
        song("1 quarter = 120\n3 vamp 2 bars\n9 end", "at 3:1 | " + phrases, "at 4:1 | Amber");
        playFromTen();
        pass(7000);
        sent();
    }

    @Test
    void a_machine_with_a_lead_is_in_time_on_every_pass_of_a_vamp() {
        vamp("Blue");
        pass(5000);
        assertThat(sent())
                .containsExactly("cue 20 90 02 7F @ 7500", "cue 21 90 01 7F @ 9500", "cue 20 90 02 7F @ 11500");
    }

    @Test
    void what_a_machine_was_told_of_a_pass_that_does_not_come_is_taken_back() {
        vamp("Blue");
        pass(700);
        order(new Order.Release());
        pass(2000);
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 7500", "catch-up 90 01 7F @ 7700");
    }

    /** It was told of the pass that did not come while it was out: put back, it is where the book has it. */
    @Test
    void what_a_machine_that_is_out_tonight_was_told_of_such_a_pass_is_taken_back_too() {
        vamp("Blue");
        int lights = show.devices().get(0).id();
        OutTonight out = OutTonight.NONE.with(OutTonight.Kind.MACHINE, lights, false);
        order(new Order.Adopt(Planner.plan(show).tonight(out)));
        pass(700);
        order(new Order.Release());
        pass(1000);
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(sent()).isEmpty();
        assertThat(state.told().device(lights).slots())
                .extracting(s -> s.call().phrase())
                .containsExactly("Amber");
    }

    @Test
    void what_somebody_has_set_since_is_not_taken_back() {
        vamp("Blue");
        pass(600);
        Device lights = show.devices().get(0);
        order(new Order.Fire(PlannedCall.of(lights, lights.phraseNamed("Dark").orElseThrow()), "by hand"));
        order(new Order.Release());
        pass(2000);
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 7500", "by hand 90 00 7F @ 7600");
    }

    @Test
    void what_cannot_be_taken_back_is_told_at_its_place_of_the_next_pass() {
        show = Shows.phrase(show, "Reel", "program 3", Effect.of("holds reel, takes along what runs"));
        show = show.withDevice(show.devices().get(1).withTiming(500, 0));
        vamp("Flash, Reel");
        pass(900);
        assertThat(sent()).isEmpty();
        pass(600);
        assertThat(sent()).as("a reel ends what runs").containsExactly("cue 20 C1 03 @ 8000");
    }

    @Test
    void what_ends_something_that_runs_is_told_at_its_place_too() {
        show = show.withDevice(show.devices().get(1).withTiming(500, 0));
        vamp("Stop");
        pass(900);
        assertThat(sent()).isEmpty();
        pass(600);
        assertThat(sent()).singleElement().asString().startsWith("cue 20").endsWith("@ 8000");
    }

    @Test
    void an_edit_in_a_vamp_tells_nothing_of_its_next_pass_twice() {
        vamp("Blue");
        pass(700);
        order(new Order.Adopt(Planner.plan(show)));
        pass(1500);
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 7500");
    }

    @Test
    void what_cannot_go_on_in_its_middle_after_a_hold_is_told() {
        Device player = show.devices().get(1);
        Phrase reel = new Phrase(
                0,
                "Reel",
                new SpeechWording(Numbering.WIRE).read("note 40"),
                Optional.empty(),
                Effect.of("starts for 60 s"),
                false,
                false,
                Remarks.NONE);
        show = show.withPhrase(player.id(), reel);
        song(SONG);
        show = Shows.cue(show, "20", "at 1:1", "Reel");
        playFromTen();
        pass(3000);
        order(new Order.Hold());
        pass(1000);
        Step step = Engine.step(state, Event.of(state.nowNanos(), new Order.Resume()));
        assertThat(step.happenings()).contains(new Happening.StaysOff(player.id(), "Reel"));
    }

    @Test
    void a_show_that_is_put_away_stops_what_it_has_set_going_and_leaves_the_looks() {
        song(SONG, "at 1:1 | Play, Blue", "at 2:1 | Amber");
        playFromTen();
        pass(500);
        sent();
        order(new Order.PutAway());
        pass(10_000);
        assertThat(sent()).containsExactly("put away 91 23 7F @ 500");
    }

    @Test
    void a_hold_stops_what_a_catch_up_has_set_going() {
        song(SONG, "at 2:1 | Play");
        playFromTen();
        rejoin(new Whereto.Bar(4));
        pass(500);
        sent();
        order(new Order.Hold());
        assertThat(sent()).containsExactly("hold 91 23 7F @ 500");
    }

    @Test
    void a_machine_that_is_off_during_a_catch_up_learns_of_it_when_it_is_back() {
        song(SONG, "at 2:1 | Blue");
        playFromTen();
        int lights = show.devices().get(0).id();
        order(new Order.Lost(lights));
        rejoin(new Whereto.Bar(4));
        pass(1000);
        sent();
        order(new Order.Found(lights));
        assertThat(state.behind(lights)).hasSize(1);
        order(new Order.BringUp(lights));
        assertThat(sent()).containsExactly("catch-up 90 02 7F @ 1000");
    }

    @Test
    void a_second_catch_up_takes_back_what_the_first_had_still_to_send() {
        int tablet = tablet();
        song(SONG, "at 2:1 | Next", "at 3:1 | Next", "at 4:1 | Next", "at 5:1 | Next");
        begin();
        order(new Order.StandsAt(tablet, "song", 1));
        order(new Order.StandBy(id("10")));
        go();
        sent();
        rejoin(new Whereto.Bar(7));
        pass(50);
        rejoin(new Whereto.Bar(4));
        order(new Order.Pause());
        pass(5000);
        long steps = sent().stream().filter(m -> m.contains("95 30")).count();
        assertThat(place(tablet))
                .as("as many as have left")
                .isEqualTo(1 + (int) steps)
                .isEqualTo(4);
    }

    /** In a pause the clock goes on: what a cue calls late has been called. */
    @Test
    void a_cue_given_in_a_pause_is_not_given_again_and_what_lacks_is_made_right() {
        int tablet = tablet();
        show = Shows.cue(show, "12", "by hand", "Next");
        begin();
        order(new Order.StandsAt(tablet, "song", 1));
        order(new Order.StandBy(id("10")));
        rejoin(new Whereto.Standby());
        go();
        order(new Order.Pause());
        pass(2000);
        order(new Order.StandBy(id("12")));
        go();
        pass(2000);
        sent();
        rejoin(new Whereto.Here());
        assertThat(sent()).isEmpty();
        assertThat(place(tablet)).isEqualTo(2);
    }

    @Test
    void what_followed_early_since_nobody_waited_is_taken_for_given() {
        show = Shows.cue(show, "12", "after 5 s", "Amber");
        playFromTen();
        pass(1000);
        go();
        pass(1000);
        go();
        pass(1000);
        order(new Order.Hold());
        pass(1000);
        sent();
        assertThat(rejoin(new Whereto.Here())).isEmpty();
        assertThat(sent()).isEmpty();
    }

    @Test
    void a_timed_cue_that_stands_before_earlier_ones_is_reached_with_them() {
        show = Shows.small();
        int item = show.items().get(1).id();
        show = show.withoutCue(id("10")).withoutCue(id("11"));
        song(SONG, "at 3:1 | Amber", "at 2:1 | Play");
        begin();
        rejoin(new Whereto.AtCue(CueNumber.of("20")));
        assertThat(state.runningAt(state.nowNanos()))
                .as("bar 2 lies before bar 3")
                .isNotEmpty();
        assertThat(state.progress().itemId()).isEqualTo(item);
    }

    @Test
    void the_cue_before_is_given_again_with_all_that_was_there() {
        begin();
        go();
        pass(1000);
        go();
        pass(1000);
        order(new Order.StopAll());
        sent();
        rejoin(new Whereto.CueBefore());
        assertThat(sent()).contains("cue 2 90 02 7F @ 2000", "cue 2 91 24 7F @ 2000");
        assertThat(standby()).isEqualTo("10");
        order(new Order.StandBy(id("1")));
        assertThatThrownBy(() -> to(new Whereto.CueBefore())).isInstanceOf(Refusal.class);
    }

    @Test
    void of_what_a_crash_has_cut_in_halves_nothing_is_known() {
        show = show.withPhrase(
                show.devices().get(0).id(),
                new Phrase(
                        0,
                        "Halves",
                        new SpeechWording(Numbering.WIRE).read("note 7; after 20 ms note 8"),
                        Optional.empty(),
                        Effect.HOLDS,
                        false,
                        false,
                        Remarks.NONE));
        show = Shows.cue(show, "12", "by hand", "Halves");
        begin();
        order(new Order.StandBy(id("12")));
        go();
        pass(10);
        PlaybackState back = RunSnapshot.of(state, 0).into(state.plan(), state.nowNanos(), 0);
        assertThat(back.told().device(show.devices().get(0).id()).slots()).isEmpty();
    }

    @Test
    void machines_out_tonight_are_not_counted_among_those_that_are_wrong() {
        alone();
        song(SONG, "at 2:1 | Blue");
        playFromTen();
        int lights = show.devices().get(0).id();
        order(new Order.Adopt(
                Planner.plan(show).tonight(OutTonight.NONE.with(OutTonight.Kind.MACHINE, lights, false))));
        assertThat(to(new Whereto.Bar(4)).corrections(state)).isEmpty();
    }

    @Test
    void a_vamp_goes_round_while_nobody_plays_so_now_is_in_it_and_not_behind() {
        song("1 quarter = 120\n3 vamp 2 bars\n9 end", "at 8:1 | Blue");
        playFromTen();
        pass(1000);
        order(new Order.Pace(800));
        long since = state.nowNanos();
        order(new Order.Pause());
        pass(20_000);
        rejoin(new Whereto.AsIfSince(since));
        // Bars 3 and 4 lie from 4 s to 8 s; 20 s at 80 % are 16 s on from 1 s, round twice and a bit.
        assertThat(state.playing()).hasValueSatisfying(p -> assertThat(p.position(state.nowNanos()) / MS)
                .isEqualTo(5000));
    }

    @Test
    void when_the_item_that_plays_is_deleted_the_cue_behind_it_stands_by_and_a_hold_still_stops_what_it_set_going() {
        show = show.withItem(new Item(0, ItemKind.SCENE, "Three", 0, List.of()), 2);
        show = Shows.cue(show, "30", "by hand", "Blue");
        show = Shows.cue(show, "31", "by hand", "Amber");
        begin();
        go();
        go();
        assertThat(standby()).isEqualTo("10");
        show = show.withoutItem(show.items().get(0).id());
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(standby()).isEqualTo("10");
        sent();
        order(new Order.Hold());
        assertThat(sent()).containsExactly("hold 91 23 7F @ 0");
        order(new Order.StandBy(id("11")));
        show = show.withoutItem(show.items().get(0).id());
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(standby()).as("the first behind it that is left").isEqualTo("30");
    }

    @Test
    void a_fade_after_a_scene_that_took_its_fader_along_does_not_begin_at_the_books_old_level() {
        show = fader(show);
        int console = show.devices().get(show.devices().size() - 1).id();
        show = Shows.phrase(show, "Scene", "program 3", Effect.of("holds scene, takes along levels"));
        fade("12", "by hand", "Bed 10 %");
        fade("13", "by hand", "Bed 90 % in 1 s");
        state = PlaybackState.of(DryRun.of(Planner.plan(show)).knowing(), 0);
        Device machine = show.device(console).orElseThrow();
        order(new Order.Fire(
                PlannedCall.of(machine, machine.phraseNamed("Scene").orElseThrow()), "by hand"));
        order(new Order.StandBy(id("13")));
        sent();
        go();
        pass(1000);
        assertThat(sent())
                .as("nobody knows where it begins, so it is there at once")
                .hasSize(1);
    }

    /** A song that goes straight on to the next one. */
    private void straightOn(String begins, String dark) {
        song(SONG, "at 2:1 | Blue");
        show = show.withItem(new Item(0, ItemKind.SONG, "Morning", 0, List.of()), 2);
        show = Shows.cue(show, "30", begins, "Amber");
        song(SONG);
        show = Shows.cue(show, "31", dark, "Dark");
    }

    @Test
    void a_place_behind_the_one_where_the_book_goes_straight_on_is_played_and_the_next_item_is_not_raced_through() {
        alone();
        straightOn("after 1 s", "at 2:1");
        playFromTen();
        pass(500);
        sent();
        rejoin(new Whereto.Bar(7));
        pass(500);
        assertThat(state.playing().orElseThrow().item().item().name()).isNotEqualTo("Morning");
        assertThat(sent()).as("the machines, and nothing of Morning").containsExactly("catch-up 90 02 7F @ 500");
    }

    @Test
    void a_song_that_begins_by_itself_a_while_after_the_one_before_is_jumped_into_at_its_own_places() {
        alone();
        straightOn("after 1.5 s", "at 2:3");
        begin();
        standBy("30");
        assertThat(to(new Whereto.Bar(3)).corrections(state))
                .extracting(Correction::wants)
                .contains("Dark");
    }

    @Test
    void the_cue_before_is_sent_however_soon_after_a_GO() {
        begin();
        order(new Order.Behave(new GoOptions(true, false, 500 * MS, false)));
        go();
        pass(1000);
        go();
        pass(100);
        sent();
        rejoin(new Whereto.CueBefore());
        assertThat(sent()).as("GO 2, a tenth of a second after GO 2").anyMatch(m -> m.startsWith("cue 2 "));
    }

    @Test
    void going_on_where_steps_are_still_to_come_brings_a_list_to_where_they_find_it() {
        alone();
        int tablet = tablet();
        show = Shows.phrase(show, "Top", "note 50", Effect.of("sets song to 1"));
        song(SONG);
        fade("20", "by hand", "Next");
        fade("21", "with", "Next @ 2 s");
        playFromTen();
        go();
        order(new Order.StandsAt(tablet, "song", 7));
        pass(500);
        rejoin(new Whereto.Here());
        pass(5000);
        assertThat(place(tablet)).isEqualTo(3);
    }

    @Test
    void what_a_nudge_jumps_over_is_stamped_with_the_nudge() {
        alone();
        song(SONG, "at 1:3 | Blue", "at 2:1 | Play");
        playFromTen();
        pass(500);
        sent();
        order(new Order.Nudge(2000 * MS));
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 500", "cue 21 91 24 7F @ 500");
    }

    @Test
    void steps_that_are_called_while_a_list_is_being_brought_to_its_place_come_behind_it_in_their_own_order() {
        alone();
        int tablet = tablet();
        show = Shows.phrase(show, "Top", "note 50", Effect.of("sets song to 1"));
        song(SONG);
        fade("20", "by hand", "Next");
        fade("21", "with", "Next");
        fade("23", "by hand", "Next");
        fade("24", "with", "Top @ 100 ms");
        begin();
        order(new Order.StandsAt(tablet, "song", 7));
        rejoin(new Whereto.AtCue(CueNumber.of("23")));
        pass(5000);
        assertThat(sent())
                .filteredOn(m -> m.contains(" 95 "))
                .extracting(m -> m.replaceAll(" @.*", ""))
                .containsExactly("catch-up 95 32 7F", "catch-up 95 30 7F", "cue 23 95 30 7F", "cue 24 95 32 7F");
    }

    @Test
    void what_leaves_late_leaves_in_the_order_in_which_it_should_have_left() {
        alone();
        show = show.withDevice(show.devices().get(0).withTiming(500, 0));
        song(SONG);
        Device lights = show.devices().get(0);
        show = show.withCue(
                show.items().get(1).id(),
                new Cue(
                        0,
                        CueNumber.of("20"),
                        Start.of("at 1:1"),
                        "",
                        List.of(Call.of(lights, "Blue @ 100 ms"), Call.of(lights, "Amber")),
                        0));
        playFromTen();
        pass(5000);
        assertThat(sent())
                .filteredOn(m -> m.startsWith("cue 20"))
                .containsExactly("cue 20 90 01 7F @ 0", "cue 20 90 02 7F @ 0");
    }

    @Test
    void the_book_as_it_is_now_has_called_what_cues_that_were_jumped_over_would_have_called() {
        alone();
        show = fader(show);
        fade("20", "by hand", "Bed 10 % in 2 s");
        fade("21", "by hand", "Bed 15 %");
        fade("22", "by hand", "Bed 20 % @ 500 ms");
        begin();
        rejoin(new Whereto.AtCue(CueNumber.of("22")));
        pass(1000);
        assertThat(rejoin(new Whereto.Present())).isEmpty();
        pass(1000);
        assertThat(rejoin(new Whereto.Present())).isEmpty();
    }
}
