package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.cue.Show;
import underbaton.core.engine.out.Happening;
import underbaton.core.follow.Doing;
import underbaton.core.follow.Following.Kind;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Planner;
import underbaton.core.score.Score;

/** An item that goes by the time of a machine: our own clock and code, heard by another show that nothing else connects with the first. */
class FollowTest extends LedShow {

    private static final String SONG = "1 quarter = 120\n60 end";
    private static final String[] EACH_BAR = IntStream.range(2, 60)
            .mapToObj(b -> "at " + b + ":1 | " + (b % 2 == 0 ? "Amber" : "Blue"))
            .toArray(String[]::new);

    private static final double LATE_MS = 5;

    @ParameterizedTest
    @EnumSource(names = {"CLOCK", "CODE"})
    void begins_by_itself_and_goes_with_its_leader(Kind kind) {
        both(kind, 2000, SONG, "at 1:1", "at 3:1");
        together(500);
        assertThat(doing()).isEqualTo(Doing.WAITS);
        lead(new Order.Play(
                leader.show.items().get(leader.show.items().size() - 1).id(), 0));
        together(6_000);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(behindMillis()).isCloseTo(5, within(3.0));
        assertThat(toLights(this)).hasSameSizeAs(toLights(leader));
    }

    private void play(long fromMillis) {
        lead(new Order.Play(
                leader.show.items().get(leader.show.items().size() - 1).id(), fromMillis * MS));
    }

    /** How far each message to the lights is from when the leader sent its own, ms; each has come, in the same order, and none else. */
    private List<Double> apart(long fromMillis) {
        List<String> here = toLights(this);
        List<String> there = toLights(leader);
        // The leader's last one may still be under way.
        assertThat(there.size() - here.size()).as("%s and %s", here, there).isBetween(0, 1);
        List<Double> apart = new ArrayList<>();
        for (int i = 0; i < here.size(); i++) {
            String[] ours = here.get(i).split(" @ ");
            String[] theirs = there.get(i).split(" @ ");
            assertThat(ours[0]).as("%s and %s", here, there).isEqualTo(theirs[0]);
            if (Double.parseDouble(theirs[1]) >= fromMillis) {
                apart.add(Double.parseDouble(ours[1]) - Double.parseDouble(theirs[1]) - LATE_MS);
            }
        }
        return apart;
    }

    private static double rms(List<Double> of) {
        return Math.sqrt(of.stream().mapToDouble(d -> d * d).average().orElseThrow());
    }

    @ParameterizedTest
    @EnumSource(names = {"CLOCK", "CODE"})
    void over_a_line_that_loses_a_fifth_and_delays_cues_come_within_ten_milliseconds(Kind kind) {
        for (int seed = 0; seed < 20; seed++) {
            clear();
            random = new Random(seed);
            loss = 0.2;
            jitterNanos = 5 * MS;
            both(
                    kind,
                    2000,
                    "1 quarter = 120\n9 quarter = 132\n17 quarter = 90 over 4 bars\n33 quarter = 171\n60 end",
                    EACH_BAR);
            play(0);
            together(30_000);
            lead(new Order.Pace(880));
            together(20_000);
            lead(new Order.Nudge(20 * MS));
            together(20_000);
            List<Double> apart = apart(2_000);
            assertThat(apart).hasSizeGreaterThan(20);
            System.out.printf("%s, seed %d: %d cues, RMS %.2f ms%n", kind, seed, apart.size(), rms(apart));
            assertThat(rms(apart)).as("%s, seed %d: %s", kind, seed, apart).isLessThan(10);
        }
    }

    @ParameterizedTest
    @EnumSource(names = {"CLOCK", "CODE"})
    void a_gap_is_passed_alone_and_a_long_one_stands_until_something_is_heard(Kind kind) {
        for (long gap : new long[] {200, 1_000, 5_000}) {
            clear();
            both(kind, 2000, SONG, EACH_BAR);
            play(0);
            together(5_000);
            cut = true;
            together(gap / 2);
            assertThat(doing()).isEqualTo(gap == 200 ? Doing.FOLLOWS : gap == 1_000 ? Doing.ALONE : Doing.SILENT);
            together(gap / 2);
            cut = false;
            together(400);
            assertThat(doing()).as("%d ms", gap).isEqualTo(Doing.FOLLOWS);
            together(4_600);
            assertThat(behindMillis()).isCloseTo(LATE_MS, within(3.0));
            List<String> here = toLights(this);
            List<String> there = toLights(leader);
            assertThat(here.get(here.size() - 1).substring(0, 8))
                    .isEqualTo(there.get(there.size() - 1).substring(0, 8));
            if (gap < 5_000) {
                assertThat(rms(apart(0))).isLessThan(4);
            }
        }
    }

    /** Jumps of the leader, some while it stands: a second after each the lights are as the leader has them, and the music is where it is. */
    @ParameterizedTest
    @EnumSource(names = {"CLOCK", "CODE"})
    void a_leader_that_jumps_takes_every_machine_with_it(Kind kind) {
        both(kind, 2000, SONG, EACH_BAR);
        random = new Random(7);
        play(0);
        together(1_000);
        for (int jump = 0; jump < 100; jump++) {
            boolean stands = random.nextInt(4) == 0;
            if (stands) {
                lead(new Order.Pause());
                together(random.nextInt(700));
            }
            int bar = 1 + random.nextInt(55);
            Destination there = Destination.of(
                    new Whereto.Bar(bar), leader.state, DryRun.of(leader.state.plan()), leader.state.nowNanos());
            there.before().forEach(this::lead);
            lead(there.catchUp(Set.of()));
            there.after().forEach(this::lead);
            together(1_000 + random.nextInt(1_500));
            assertThat(doing()).as("jump %d to bar %d", jump, bar).isEqualTo(Doing.FOLLOWS);
            assertThat(behindMillis()).as("jump %d", jump).isCloseTo(LATE_MS, within(4.0));
            // Neither is looked at in the moment in which a look comes.
            together(50);
            String here = look(this);
            assertThat(here).as("jump %d to bar %d", jump, bar).isEqualTo(look(leader));
        }
    }

    private static String look(PlayedShow of) {
        List<String> all = toLights(of);
        return all.get(all.size() - 1).split(" @ ")[0];
    }

    @ParameterizedTest
    @EnumSource(names = {"CLOCK", "CODE"})
    void a_leader_that_stops_holds_the_show_and_goes_on_with_it(Kind kind) {
        both(kind, 5_000, SONG, EACH_BAR);
        play(0);
        together(5_000);
        lead(new Order.Pause());
        together(50);
        assertThat(state.progress().held()).as("who jumps stops too").isFalse();
        together(kind == Kind.CLOCK ? 200 : 5_400);
        assertThat(state.progress().held()).isTrue();
        assertThat(doing()).isEqualTo(kind == Kind.CLOCK ? Doing.STANDS : Doing.SILENT);
        lead(new Order.Resume());
        together(1_000);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(state.progress().held()).isFalse();
        assertThat(behindMillis()).isCloseTo(LATE_MS, within(3.0));
    }

    @Test
    void go_takes_it_over_and_one_key_gives_it_back() {
        both(Kind.CODE, 2000, SONG, EACH_BAR);
        play(0);
        together(6_500);
        standBy("25");
        go();
        assertThat(doing()).isEqualTo(Doing.BY_HAND);
        long ahead = state.playing().orElseThrow().position(state.nowNanos());
        together(1_000);
        assertThat(state.playing().orElseThrow().position(state.nowNanos())).isEqualTo(ahead + 1_000 * MS);
        order(new Order.Follow());
        together(500);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(behindMillis()).isCloseTo(LATE_MS, within(3.0));
        // Where the book has nothing more to give, it takes the time alone.
        go();
        assertThat(doing()).isEqualTo(Doing.BY_HAND);
        order(new Order.Follow());
        together(500);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        order(new Order.Follow());
        assertThat(doing()).as("the same key takes it").isEqualTo(Doing.BY_HAND);
        order(new Order.Follow());
        together(500);
        for (Order order : List.of(
                new Order.Pause(),
                new Order.Nudge(30 * MS),
                new Order.Pace(900),
                new Order.Hold(),
                new Order.Locate(0))) {
            order(order);
            assertThat(doing()).as("%s", order).isEqualTo(Doing.BY_HAND);
            together(200);
            assertThat(doing()).as("%s", order).isEqualTo(Doing.BY_HAND);
            order(new Order.Follow());
            together(500);
            assertThat(doing()).as("%s", order).isEqualTo(Doing.FOLLOWS);
        }
    }

    @Test
    void stop_all_is_not_undone_by_a_leader_that_goes_on() {
        both(Kind.CODE, 2000, SONG, EACH_BAR);
        play(0);
        together(3_000);
        order(new Order.StopAll());
        together(3_000);
        assertThat(state.playing()).isEmpty();
        standBy(item());
        together(1_000);
        assertThat(state.playing()).as("whose standby passes by begins nothing").isEmpty();
        order(new Order.Follow());
        together(500);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(behindMillis()).isCloseTo(LATE_MS, within(3.0));
        // Another place is another beginning.
        order(new Order.StopAll());
        standBy(item());
        lead(new Order.Locate(0));
        together(500);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
    }

    @Test
    void who_is_begun_in_the_middle_is_brought_there() {
        both(Kind.CLOCK, 2000, SONG, EACH_BAR);
        play(21_000);
        together(1_000);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(look(this)).isEqualTo("90 02 7F");
        assertThat(behindMillis()).isCloseTo(LATE_MS, within(3.0));
    }

    @Test
    void another_rate_is_told_and_not_believed() {
        rate = Rate.FILM_24;
        both(Kind.CODE, 2000, SONG, EACH_BAR);
        play(0);
        together(1_000);
        assertThat(state.playing()).isEmpty();
        go();
        order(new Order.Follow());
        together(1_000);
        assertThat(doing()).isEqualTo(Doing.OTHER_RATE);
        assertThat(state.playing()).as("goes on by itself").isPresent();
    }

    @Test
    void a_vamp_is_passed_once_for_the_leader_knows_of_none() {
        both(Kind.CODE, 2000, "1 quarter = 120\n3 vamp 2 bars, leave at the end\n60 end", EACH_BAR);
        leader.show = leader.show.withItem(
                leader.show.items().get(leader.show.items().size() - 1).withScore(Optional.of(Score.of(SONG))), 0);
        leader.begin();
        play(0);
        together(20_000);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(happened).noneMatch(h -> h instanceof Happening.PlaceWanted);
        assertThat(rms(apart(0))).isLessThan(4);
    }

    @Test
    void a_leader_that_is_out_tonight_is_not_followed() {
        both(Kind.CODE, 2000, SONG, EACH_BAR);
        state = PlaybackState.of(
                state.plan()
                        .tonight(new OutTonight(
                                Set.of(), Set.of(), Set.of(last(this).id()))),
                0);
        standBy(item());
        play(0);
        together(1_000);
        assertThat(state.playing()).isEmpty();
    }

    @Test
    void an_edit_lets_the_item_go_by_its_own_time_and_by_the_machines_again() {
        both(Kind.CODE, 2000, SONG, EACH_BAR);
        play(0);
        together(3_000);
        Show follows = show;
        show = show.withItem(show.item(song()).orElseThrow().withFollows(Optional.empty()), 0);
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(doing()).isEqualTo(Doing.NOTHING);
        lead(new Order.Pause());
        together(3_000);
        assertThat(state.playing().orElseThrow().paused()).isFalse();
        lead(new Order.Resume());
        order(new Order.Adopt(Planner.plan(follows)));
        together(500);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
        assertThat(behindMillis()).isCloseTo(LATE_MS, within(3.0));
    }

    @Test
    void after_a_crash_the_operator_says_how_it_goes_on() {
        both(Kind.CODE, 2000, SONG, EACH_BAR);
        play(0);
        together(3_000);
        state = RunSnapshot.of(state, 0).into(state.plan(), state.nowNanos(), 0);
        together(500);
        assertThat(state.playing().orElseThrow().paused()).isTrue();
        order(new Order.Follow());
        together(500);
        assertThat(doing()).isEqualTo(Doing.FOLLOWS);
    }
}
