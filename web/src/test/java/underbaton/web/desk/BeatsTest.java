package underbaton.web.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.plan.Planner;
import underbaton.core.score.Score;

/** What the Desk needs to say where the music is. */
class BeatsTest {

    private static Beats beats(int plannedSeconds, String score) {
        Optional<Score> read = score.isEmpty() ? Optional.empty() : Optional.of(Score.of(score));
        Item item = new Item(0, ItemKind.SONG, "Song", plannedSeconds, List.of()).withScore(read);
        return Beats.of(
                Planner.plan(Show.empty(1, "Beats").withItem(item, 0)).items().get(0));
    }

    private static List<String> told(Beats beats) {
        return beats.beats().stream().map(Arrays::toString).toList();
    }

    /** At 120 a quarter takes 500 ms and an eighth 250 (common practice); a pick-up is counted towards bar 1. */
    @Test
    void everyBeatHasItsTimeItsBarAndItsNumberAlsoInAPickUpAndInEighths() {
        Beats beats = beats(0, "pick-up 1 quarter\n1 2/4\n1 quarter = 120\n1 A Verse\n2 3/8\n2 B\n2 end");
        assertThat(told(beats))
                .containsExactly(
                        "[0, 0, 2]", "[500, 1, 1]", "[1000, 1, 2]", "[1500, 2, 1]", "[1750, 2, 2]", "[2000, 2, 3]");
        assertThat(beats.sections()).containsExactly(new Beats.Begin(500, "A Verse"), new Beats.Begin(1500, "B"));
        assertThat(beats.end()).isEqualTo(2250);
    }

    @Test
    void theScoreKnowsTheLengthBetterThanThePlanAndAnItemWithoutBarsHasThatAlone() {
        assertThat(beats(90, "1 4/4\n1 quarter = 120\n4 end").end()).isEqualTo(8_000);
        Beats none = beats(90, "");
        assertThat(none.beats()).isEmpty();
        assertThat(none.end()).isEqualTo(90_000);
        assertThat(beats(0, "").end()).isZero();
    }
}
