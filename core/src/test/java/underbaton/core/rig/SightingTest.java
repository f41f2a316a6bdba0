package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Sighting.Seen;

/** Common practice, read backwards: from numbers sent and numbers seen to the way of counting. */
class SightingTest {

    private static final Numbering NOW = Numbering.WIRE;

    @ParameterizedTest
    @CsvSource({
        "PROGRAM, 9, 10, 1",
        "PROGRAM, 9, 009, 1",
        "PROGRAM, 14, B07, 1",
        "PROGRAM, 8, A09, 120",
        "PROGRAM, 0, A1, 124",
        "VALUE, 127, 128, 1",
        "VALUE, 64, 50 %, 1",
        "VALUE, 0, 0, 2",
        "NOTE, 60, C4, 2",
        "NOTE, 3, d#0, 1",
        "NOTE, 63, E♭4, 1"
    })
    void oneSightingTellsItOrLeavesSomeWays(Seen what, int wire, String shown, int ways) {
        assertThat(Sighting.explained(NOW, List.of(new Sighting(what, wire, shown))))
                .hasSize(ways);
    }

    /** Every way of counting there is, found from what such a machine would show; whatever was sent at first. */
    @Test
    void asManySightingsAsAreAskedForGiveTheRealNumbering() {
        int most = 0;
        for (Seen what : Seen.values()) {
            List<Numbering> all = Sighting.explainedByAnything(NOW, what);
            for (int i = 0; i < all.size(); i += all.size() > 50 ? 7 : 1) {
                Numbering real = all.get(i);
                for (int first : new int[] {0, 9, 60, 108, 127}) {
                    most = Math.max(most, find(what, real, first));
                }
            }
        }
        assertThat(most).as("sightings at most").isLessThanOrEqualTo(3);
    }

    private static int find(Seen what, Numbering real, int first) {
        List<Sighting> seen = new ArrayList<>();
        int wire = first;
        while (seen.size() < 10) {
            seen.add(new Sighting(what, wire, Sighting.shows(what, real, wire)));
            List<Numbering> left = Sighting.explained(NOW, seen);
            assertThat(left).contains(real);
            if (left.size() == 1) {
                return seen.size();
            }
            wire = Sighting.next(what, left).orElseThrow();
        }
        throw new AssertionError(real + " was not found from " + first);
    }

    @Test
    void whatNoWayOfCountingShowsIsRefused() {
        assertThatThrownBy(() -> Sighting.explained(NOW, List.of(new Sighting(Seen.PROGRAM, 9, "12"))))
                .hasMessageContaining("“12” for program 9");
        assertThatThrownBy(() -> Sighting.explained(NOW, List.of(new Sighting(Seen.NOTE, 60, "60"))))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Sighting.explained(
                        NOW, List.of(new Sighting(Seen.PROGRAM, 9, "10"), new Sighting(Seen.PROGRAM, 20, "20"))))
                .hasMessageContaining("what was seen before");
        assertThatThrownBy(() -> new Sighting(Seen.NOTE, 128, "C4")).hasMessageContaining("0 to 127");
    }
}
