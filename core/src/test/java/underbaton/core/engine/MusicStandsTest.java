package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.store.StoredForm;

/** What is given while the music stands, and what an edit or a nudge leaves of it: going on here changes nothing that is right. */
class MusicStandsTest extends PlayedShow {

    /** A song that is paused a second after its beginning. */
    private void pausedIn(String... cues) {
        show = show.withoutCue(id("2")).withoutCue(id("11"));
        song("1 quarter = 120\n9 end", cues);
        begin();
        standBy("10");
        go();
        pass(1000);
        order(new Order.Pause());
        sent();
    }

    /** Cue 20 calls Blue 400 ms late, and behind it comes Amber. */
    private void lateBlueAndAmber(String amberStarts) {
        pausedIn("by hand", amberStarts + " | Amber");
        Device lights = show.devices().get(0);
        show = show.withCue(
                show.items().get(1).id(),
                show.cue(id("20")).orElseThrow().withCallsFor(lights.id(), List.of(Call.of(lights, "Blue @ 400 ms"))));
        edit();
    }

    private List<String> goingOnHere() {
        return rejoin(new Whereto.Here());
    }

    private List<String> rejoin(Whereto where) {
        Destination there = Destination.of(where, state, DryRun.of(state.plan()), state.nowNanos());
        List<Correction> corrections = there.corrections(state);
        there.before().forEach(this::order);
        order(there.catchUp(Set.of()));
        there.after().forEach(this::order);
        return corrections.stream().map(c -> c.has() + " -> " + c.wants()).toList();
    }

    private String lights() {
        return state.told()
                .device(show.devices().get(0).id())
                .shows()
                .map(PlannedCall::phrase)
                .orElse("nothing");
    }

    private void edit() {
        order(new Order.Adopt(Planner.plan(show)));
    }

    @Test
    void what_a_cue_calls_late_came_before_the_cue_that_followed_it() {
        lateBlueAndAmber("after 0.7 s");
        go();
        pass(3000);
        assertThat(sent()).containsExactly("cue 20 90 02 7F @ 1400", "cue 21 90 01 7F @ 1700");
        assertThat(goingOnHere()).isEmpty();
        pass(3000);
        assertThat(sent()).isEmpty();
        assertThat(lights()).isEqualTo("Amber");
    }

    @Test
    void and_before_one_that_was_given_by_hand_a_good_while_later() {
        lateBlueAndAmber("by hand");
        go();
        pass(1500);
        go();
        assertThat(goingOnHere()).isEmpty();
        assertThat(lights()).isEqualTo("Amber");
    }

    @Test
    void but_behind_one_that_was_given_at_once() {
        lateBlueAndAmber("by hand");
        pass(5000);
        go();
        pass(100);
        go();
        pass(1000);
        assertThat(lights()).isEqualTo("Blue @ 400 ms");
        assertThat(goingOnHere()).isEmpty();
        assertThat(lights()).isEqualTo("Blue @ 400 ms");
    }

    @Test
    void a_crash_forgets_nothing_of_that() {
        lateBlueAndAmber("by hand");
        go();
        pass(1500);
        go();
        String kept = StoredForm.write(RunSnapshot.of(state, state.nowNanos() / 1000));
        state = StoredForm.read(kept, RunSnapshot.class)
                .into(state.plan(), state.nowNanos() + SECOND, state.nowNanos() / 1000 + 1_000_000);
        show.devices().forEach(d -> order(new Order.Found(d.id())));
        sent();
        assertThat(goingOnHere()).isEmpty();
        assertThat(lights()).isEqualTo("Amber");
    }

    @Test
    void what_a_cue_has_brought_with_it_has_come_though_that_cue_is_deleted() {
        pausedIn("at 5:1 | Blue", "by hand | Stop", "at 7:1 | Amber");
        go();
        assertThat(lights()).isEqualTo("Blue");
        show = show.withoutCue(id("21"));
        edit();
        assertThat(goingOnHere()).isEmpty();
        assertThat(lights()).isEqualTo("Blue");
        sent();
        pass(12_000);
        assertThat(sent()).as("it does not come again").containsExactly("cue 22 90 01 7F @ 12000");
    }

    @Test
    void what_came_has_come_though_the_music_is_put_back_behind_it() {
        pausedIn("by hand | Blue", "after 0.7 s | Amber");
        order(new Order.Resume());
        go();
        pass(750);
        order(new Order.Nudge(-100 * MS));
        assertThat(lights()).isEqualTo("Amber");
        assertThat(goingOnHere()).isEmpty();
        assertThat(lights()).isEqualTo("Amber");
    }

    @Test
    void a_timed_cue_too() {
        pausedIn("at 2:1 | Blue");
        order(new Order.Resume());
        pass(1050);
        order(new Order.Nudge(-100 * MS));
        assertThat(goingOnHere()).isEmpty();
        assertThat(lights()).isEqualTo("Blue");
    }

    @Test
    void a_song_that_is_begun_again_gives_its_first_cue_once_though_that_follows_the_item_before() {
        show = show.withoutCue(id("10")).withoutCue(id("11"));
        song("1 quarter = 120\n9 end", "after 0.7 s | Play", "by hand | Blue");
        begin();
        standBy("21");
        rejoin(new Whereto.ThisSection());
        pass(3000);
        assertThat(sent()).filteredOn(s -> s.startsWith("cue")).containsExactly("cue 20 91 24 7F @ 0");
    }
}
