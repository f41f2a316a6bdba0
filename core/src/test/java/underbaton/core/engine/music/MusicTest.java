package underbaton.core.engine.music;

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
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.call.DueCall;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;
import underbaton.core.score.Score;

/** Where the show stands, its cues, jumps and holds: a song with cues by hand, at bars 2 and 3, and one that follows. */
class MusicTest {

    private static final long MS = PartsOnPaper.MS;
    private static final long SECOND = 1000 * MS;

    private PartsOnPaper parts;

    @BeforeEach
    void rig() {
        Show show = PartsOnPaper.show();
        Item two = show.items().get(1);
        show = show.withItem(two.withScore(Optional.of(Score.of("1 quarter = 120\n9 end"))), 1);
        show = Shows.cue(show, "20", "at 2:1", "Blue");
        show = Shows.cue(show, "21", "at 3:1", "Amber", "Play");
        show = Shows.cue(show, "22", "after 0.5 s", "Stop");
        parts = new PartsOnPaper(show);
    }

    private PlannedItem song() {
        return parts.step.plan().items().get(1);
    }

    private int index(String number) {
        return parts.step
                .plan()
                .indexOf(parts.show
                        .cueNumbered(CueNumber.of(number))
                        .orElseThrow()
                        .id());
    }

    private String standby() {
        return parts.step.plan().cues().get(parts.music.standby()).label();
    }

    /** Time goes on, and what the music and the agenda bring comes. */
    private void passTo(long nanos) {
        while (true) {
            long next =
                    Math.min(parts.agenda.nextNanos(), Math.min(parts.music.nextFollow(), parts.music.nextOfPlaying()));
            if (next > nanos) {
                break;
            }
            parts.step.advance(next);
            if (next == parts.agenda.nextNanos()) {
                parts.calls.makeFirstPending();
            } else if (next == parts.music.nextFollow()) {
                parts.cues.fireFollowOn(next);
            } else {
                parts.cues.landDue(next);
            }
        }
        parts.step.advance(nanos);
    }

    @Test
    void an_item_begins_with_its_first_cue_and_brings_the_others_on_their_bars() {
        parts.cues.fireFrom(index("10"), 0);
        assertThat(parts.music.nextOfPlaying()).isEqualTo(2 * SECOND);
        passTo(5 * SECOND);
        assertThat(parts.sent())
                .containsExactly(
                        "90 01 7F @ 0", "90 02 7F @ 2000", "90 01 7F @ 4000", "91 24 7F @ 4000", "91 23 7F @ 4500");
        assertThat(parts.music.state().last())
                .hasValueSatisfying(f -> assertThat(f.cue().label()).isEqualTo("22"));
    }

    @Test
    void what_was_given_is_kept_with_its_place_in_the_item() {
        parts.cues.fireFrom(index("10"), 0);
        passTo(3 * SECOND);
        ItemProgress item = parts.music.progress();
        assertThat(item.whereGiven(cue("10"))).isZero();
        assertThat(item.whereGiven(cue("20"))).isEqualTo(2 * SECOND);
        assertThat(item.whereGiven(cue("11"))).isEqualTo(ItemProgress.NOT_GIVEN);
    }

    private PlannedCue cue(String number) {
        return parts.step.plan().cues().get(index(number));
    }

    @Test
    void what_follows_comes_by_itself_and_not_after_the_book_has_lost_it() {
        parts.cues.fireFrom(index("21"), 0);
        assertThat(parts.music.nextFollow()).isEqualTo(StepContext.NEVER);
        parts.music.follow(Optional.of(new FollowOn(cue("22"), SECOND / 2, 0, 0)));
        passTo(SECOND);
        assertThat(parts.sent()).last().isEqualTo("91 23 7F @ 500");
        parts.music.follow(Optional.of(new FollowOn(cue("22"), 2 * SECOND, 0, 0)));
        var before = parts.step.plan();
        parts.step.adopt(Planner.plan(parts.show.withoutCue(cue("22").cueId())));
        parts.music.adopt(before);
        assertThat(parts.music.followOn()).isEmpty();
    }

    @Test
    void played_from_a_place_what_lies_before_it_counts_as_given_and_is_not_sent() {
        parts.jumps.play(song(), 3 * SECOND, 0);
        assertThat(parts.sent()).isEmpty();
        assertThat(parts.music.progress().whereGiven(cue("20"))).isEqualTo(ItemProgress.BEFORE);
        assertThat(parts.music.nextOfPlaying()).isEqualTo(SECOND);
        assertThat(parts.operator.state().moved()).isFalse();
    }

    @Test
    void played_from_its_beginning_its_opening_cue_is_given() {
        parts.jumps.play(song(), 0, 0);
        assertThat(parts.sent()).containsExactly("90 01 7F @ 0");
        assertThat(standby()).isEqualTo("11");
    }

    @Test
    void back_in_the_item_what_lies_behind_the_place_counts_as_not_given() {
        parts.cues.fireFrom(index("10"), 0);
        passTo(5 * SECOND);
        parts.music.locate(3 * SECOND);
        assertThat(parts.music.progress().whereGiven(cue("21"))).isEqualTo(ItemProgress.NOT_GIVEN);
        assertThat(parts.music.progress().whereGiven(cue("20"))).isEqualTo(2 * SECOND);
        assertThat(parts.music.nextOfPlaying()).isEqualTo(6 * SECOND);
    }

    @Test
    void a_pause_stops_the_clock_and_nothing_comes() {
        parts.cues.fireFrom(index("10"), 0);
        passTo(SECOND);
        parts.music.pause();
        assertThat(parts.music.nextOfPlaying()).isEqualTo(StepContext.NEVER);
        passTo(9 * SECOND);
        parts.holds.goOn();
        assertThat(parts.music.nextOfPlaying()).isEqualTo(10 * SECOND);
    }

    @Test
    void a_hold_keeps_what_it_stops_and_going_on_takes_it_up_so_much_later() {
        parts.cues.fireFrom(index("10"), 0);
        passTo(4 * SECOND);
        parts.calls.makeAll(List.of(DueCall.at(parts.step.now() + SECOND, parts.call("Lights", "Blue"), parts.cue())));
        parts.music.follow(Optional.of(new FollowOn(cue("22"), 6 * SECOND, 0, 0)));
        parts.sent();
        parts.holds.hold();
        assertThat(parts.sent()).as("what it set going is stopped").containsExactly("91 23 7F @ 4000");
        passTo(20 * SECOND);
        assertThat(parts.sent()).isEmpty();
        parts.holds.goOn();
        passTo(30 * SECOND);
        assertThat(parts.sent())
                .containsExactly("91 24 7F @ 20000", "91 23 7F @ 20500", "90 02 7F @ 21000", "91 23 7F @ 22000");
        assertThat(parts.music.progress().held()).isFalse();
    }

    @Test
    void a_hold_is_held_once_and_only_while_something_plays() {
        parts.holds.hold();
        assertThat(parts.music.progress().held()).isFalse();
        parts.cues.fireFrom(index("10"), 0);
        parts.holds.hold();
        Optional<Suspended> first = parts.music.progress().suspended();
        parts.step.advance(SECOND);
        parts.holds.hold();
        assertThat(parts.music.progress().suspended()).isEqualTo(first);
    }

    @Test
    void what_somebody_has_set_otherwise_in_a_hold_stays_so() {
        parts.cues.fireFrom(index("10"), 0);
        passTo(4 * SECOND);
        parts.holds.hold();
        passTo(5 * SECOND);
        parts.make("Player", "Play");
        parts.make("Player", "Stop");
        parts.sent();
        parts.holds.goOn();
        assertThat(parts.sent()).isEmpty();
    }

    @Test
    void leaving_an_item_nothing_of_it_comes_any_more() {
        parts.cues.fireFrom(index("10"), 0);
        parts.music.follow(Optional.of(new FollowOn(cue("22"), SECOND, 0, 0)));
        parts.sent();
        parts.jumps.leave(cue("2").cueId());
        passTo(60 * SECOND);
        assertThat(parts.sent()).isEmpty();
        assertThat(standby()).isEqualTo("2");
        assertThat(parts.operator.state().moved()).isTrue();
    }

    @Test
    void the_tempo_of_the_day_moves_what_lies_ahead_and_is_kept() {
        parts.cues.fireFrom(index("10"), 0);
        parts.music.pace(500);
        assertThat(parts.music.nextOfPlaying()).isEqualTo(4 * SECOND);
        parts.music.paceBy(500);
        assertThat(parts.music.nextOfPlaying()).isEqualTo(2 * SECOND);
        assertThat(parts.operator.paceOf(song().item().id())).isEqualTo(1000);
    }

    @Test
    void two_taps_set_it_and_one_does_not() {
        parts.cues.fireFrom(index("10"), 0);
        parts.music.tap();
        assertThat(parts.music.nextOfPlaying()).isEqualTo(2 * SECOND);
        parts.step.advance(400 * MS);
        parts.music.tap();
        assertThat(parts.music.playing())
                .hasValueSatisfying(p -> assertThat(p.anchor().permille()).isEqualTo(1250));
    }

    @Test
    void a_standby_that_is_taken_out_of_the_book_gives_way_to_the_one_in_its_place() {
        parts.jumps.standBy(index("2"));
        var before = parts.step.plan();
        parts.step.adopt(Planner.plan(parts.show.withoutCue(cue("2").cueId())));
        parts.music.adopt(before);
        assertThat(standby()).isEqualTo("10");
    }

    @Test
    void a_cue_given_before_its_time_is_not_told_again_to_machines_that_were_told_early() {
        Show show = parts.show.withDevice(parts.show.devices().get(0).withTiming(500, 0));
        parts = new PartsOnPaper(show);
        parts.cues.fireFrom(index("10"), 0);
        passTo(1600 * MS);
        assertThat(parts.sent()).containsExactly("90 01 7F @ 0", "90 02 7F @ 1500");
        parts.cues.fireFrom(index("20"), parts.step.now());
        assertThat(parts.sent()).isEmpty();
    }

    @Test
    void told_early_is_what_is_yet_to_be_heard_and_what_is_heard_at_this_very_moment_is_not() {
        parts = new PartsOnPaper(
                parts.show.withDevice(parts.show.devices().get(0).withTiming(500, 0)));
        parts.cues.fireFrom(index("10"), 0);
        passTo(2 * SECOND);
        Playing playing = parts.music.playing().orElseThrow();
        assertThat(playing.toldEarly(2 * SECOND - 1)).isNotEmpty();
        assertThat(playing.toldEarly(2 * SECOND)).isEmpty();
    }

    @Test
    void cues_that_come_together_are_fired_together_and_each_is_told() {
        Show show = parts.show;
        Call dark = Call.of(show.devices().get(0), "Dark");
        show = show.withCue(
                show.items().get(0).id(), new Cue(0, CueNumber.of("3"), Start.of("with"), "", List.of(dark), 0));
        parts = new PartsOnPaper(show);
        parts.cues.fireFrom(index("2"), 0);
        assertThat(parts.step.happenings())
                .filteredOn(Happening.Fired.class::isInstance)
                .hasSize(2);
        assertThat(parts.sent()).contains("90 00 7F @ 0", "91 24 7F @ 0");
    }
}
