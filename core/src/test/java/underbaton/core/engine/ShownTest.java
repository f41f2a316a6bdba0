package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Effect;

/** What the ties of the Book show. */
class ShownTest {

    @Test
    void aLookIsHeldUntilAnotherTakesItOrItIsStopped() {
        Show show = Shows.small();
        String lights = "Lights";
        assertThat(held(show, lights)).containsExactly("Amber", "Blue", "Amber", "");
        assertThat(held(show, "Player")).containsExactly("", "Play", "Play", "");
    }

    @Test
    void whatStopsANamedThingLeavesTheOtherSlotsHeld() {
        Show show = Shows.device(Show.empty(1, "Slots"), "Player", Department.VIDEO, 0);
        show = Shows.phrase(show, "Reel 4", "program 4", Effect.of("holds reel"));
        show = Shows.phrase(show, "Reel 5", "program 5", Effect.of("holds reel"));
        show = Shows.phrase(show, "Clip", "note 36", Effect.of("starts clip for 1:04"));
        show = Shows.phrase(show, "Stop clip", "note 35", Effect.of("stops clip"));
        show = Shows.phrase(show, "Black", "note 34", Effect.STOPS);
        show = show.withItem(new Item(0, ItemKind.FILM, "Film", 60, List.of()), 0);
        show = Shows.cue(show, "1", "by hand", "Reel 4");
        show = Shows.cue(show, "2", "by hand", "Clip");
        show = Shows.cue(show, "3", "by hand", "Stop clip");
        show = Shows.cue(show, "4", "by hand", "Reel 5", "Clip");
        show = Shows.cue(show, "5", "by hand", "Black");
        assertThat(held(show, "Player")).containsExactly("Reel 4", "Clip", "Reel 4", "Clip", "");
    }

    @Test
    void aPhraseThatChangesNothingLeavesTheStateBeforeIt() {
        Show show = Shows.small();
        show = Shows.phrase(show, "Flash", "note 40", Effect.MOMENT);
        show = Shows.cue(show, "12", "by hand", "Amber");
        show = Shows.cue(show, "13", "by hand", "Flash");
        assertThat(held(show, "Lights")).containsExactly("Amber", "Blue", "Amber", "", "Amber", "Amber");
        DryRun run = DryRun.of(Planner.plan(show));
        assertThat(run.shown(id(show, "13"))).isSameAs(run.shown(id(show, "12")));
    }

    private static int id(Show show, String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    private static List<String> held(Show show, String device) {
        int id = show.devices().stream()
                .filter(d -> d.name().equals(device))
                .findFirst()
                .orElseThrow()
                .id();
        DryRun run = DryRun.of(Planner.plan(show));
        return show.cues()
                .map(c -> run.shown(c.id()))
                .map((Map<Integer, PlannedCall> m) ->
                        m.containsKey(id) ? m.get(id).phrase() : "")
                .collect(Collectors.toList());
    }
}
