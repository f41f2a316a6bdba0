package underbaton.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;

class HeldTest {

    @Test
    void aLookIsHeldUntilAnotherTakesItOrItIsStopped() {
        Show show = Shows.small();
        String lights = "Lights";
        assertThat(held(show, lights)).containsExactly("Amber", "Blue", "Amber", "");
        assertThat(held(show, "Player")).containsExactly("", "Play", "Play", "");
    }

    private static List<String> held(Show show, String device) {
        int id = show.devices().stream()
                .filter(d -> d.name().equals(device))
                .findFirst()
                .orElseThrow()
                .id();
        return Held.in(Planner.plan(show)).states().stream()
                .map((Map<Integer, PlannedCall> m) ->
                        m.containsKey(id) ? m.get(id).phrase() : "")
                .collect(Collectors.toList());
    }
}
