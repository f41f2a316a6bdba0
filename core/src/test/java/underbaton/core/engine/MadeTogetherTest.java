package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;

/** What is made late, all at once: in its own order, and none of it lost. */
class MadeTogetherTest extends PlayedShow {

    private static final String SONG = "1 quarter = 120\n9 end";

    /** A machine that must be told so early that all of it is late at the beginning of a song. */
    private void slowPlayer() {
        show = Shows.device(show, "Slow player", Department.VIDEO, 3);
        Device player = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(player.withTiming(600, player.settleMs()));
        show = Shows.phrase(show, "Silence", "note 70", Effect.STOPS);
        show = Shows.phrase(show, "Film", "control 20 to 0", Effect.STARTS);
        show = Shows.phrase(show, "Reel", "program 2", Effect.of("holds reel"));
    }

    @Test
    void what_is_late_leaves_in_the_order_in_which_it_should_have_left() {
        slowPlayer();
        song(SONG, "at 1:1 | Silence", "after 0.2 s | Film", "at 1:2 | Reel");
        begin();
        standBy("10");
        go();
        assertThat(sent().stream().filter(s -> s.matches(".* [9BC]3 .*")))
                .as("controls come before notes, and programs before both, in one instant alone")
                .containsExactly("cue 20 93 46 7F @ 0", "cue 21 B3 14 00 @ 0", "cue 22 C3 02 @ 0");
    }

    @Test
    void a_jump_makes_what_it_finds_on_the_way_in_the_order_of_the_book() {
        slowPlayer();
        song(SONG, "at 5:1 | Silence", "after 0.2 s | Film");
        begin();
        int song = show.items().get(show.items().size() - 1).id();
        sent();
        order(new Order.Play(song, 8000 * MS));
        assertThat(sent()).containsExactly("cue 20 93 46 7F @ 0", "cue 21 B3 14 00 @ 0");
    }

    @Test
    void what_a_cue_calls_late_comes_though_the_next_item_has_begun_by_itself() {
        song(SONG);
        Device lights = show.devices().get(0);
        int song = show.items().get(show.items().size() - 1).id();
        Call late = Call.of(lights, "Blue @ 500 ms");
        show = show.withCue(song, new Cue(0, CueNumber.of("20"), Start.of("at 2:1"), "", List.of(late), 0));
        show = show.withItem(
                new Item(0, ItemKind.SCENE, "After", 0, List.of()), show.items().size());
        show = Shows.cue(show, "30", "with", "Play");
        begin();
        order(new Order.Play(song, 1000 * MS));
        sent();
        pass(3000);
        assertThat(sent()).containsExactly("cue 30 91 24 7F @ 1000", "cue 20 90 02 7F @ 1500");
    }

    @Test
    void what_a_cue_calls_late_does_not_come_when_another_place_is_played() {
        song(SONG);
        Device lights = show.devices().get(0);
        int song = show.items().get(show.items().size() - 1).id();
        show = show.withCue(
                song,
                new Cue(0, CueNumber.of("9"), Start.of("by hand"), "", List.of(Call.of(lights, "Blue @ 500 ms")), 0));
        begin();
        standBy("9");
        go();
        order(new Order.Play(song, 8000 * MS));
        sent();
        pass(3000);
        assertThat(sent()).isEmpty();
    }

    /** The same in the book played straight through, which is what paper, file and catch-up go by. */
    @Test
    void what_a_cue_calls_late_comes_in_the_dry_run_of_the_next_item() {
        song(SONG, "at 2:3 | Play");
        Device lights = show.devices().get(0);
        int song = show.items().get(show.items().size() - 1).id();
        Call late = Call.of(lights, "Blue @ 1500 ms");
        show = show.withCue(song, new Cue(0, CueNumber.of("19"), Start.of("at 2:1"), "", List.of(late), 0));
        show = show.withItem(
                new Item(0, ItemKind.SCENE, "After", 0, List.of()), show.items().size());
        show = Shows.cue(show, "30", "with", "Stop");
        show = Shows.cue(show, "31", "by hand", "Amber");
        begin();
        DryRun run = DryRun.of(state.plan());
        int after = show.items().get(show.items().size() - 1).id();
        assertThat(run.messages(after))
                .extracting(m -> m.cause() + " @ " + m.atNanos() / MS)
                .containsExactly("cue 30 @ 0", "cue 19 @ 500", "cue 31 @ 0");
        assertThat(run.before(state.plan().indexOf(id("31")))
                        .told()
                        .device(lights.id())
                        .shows())
                .hasValueSatisfying(c -> assertThat(c.phrase()).startsWith("Blue"));
    }
}
