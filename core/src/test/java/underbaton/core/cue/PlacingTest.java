package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.rig.Department;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/** Cues put onto beats, moved and copied there. */
class PlacingTest {

    private static final int BAR = 4 * 960;

    private Show show = withScore("5 B Chorus\n9 6/8");

    private static Show withScore(String score) {
        Show show = Shows.small();
        Item item = show.items().get(1);
        return show.withItem(item.withScore(Optional.of(Score.of(score))), 0);
    }

    private int item() {
        return show.items().get(1).id();
    }

    private List<String> told() {
        return show.items().get(1).cues().stream()
                .map(c -> c.number() + " " + c.start() + " " + c.calls().size())
                .toList();
    }

    private int id(String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    @Test
    void aCallMakesACueAtItsBeatOrJoinsTheOneThatStandsThere() {
        show = new Placing(show, item()).place(4 * BAR, Department.LIGHTS, "amber");
        show = new Placing(show, item()).place(4 * BAR, Department.VIDEO, "Play");
        show = new Placing(show, item()).place(2 * BAR + 960, Department.LIGHTS, "Blue");
        assertThat(told()).containsExactly("10 by hand 1", "11 by hand 2", "11.5 at 3:2 1", "12 at 5:1 2");
        assertThatThrownBy(() -> new Placing(show, item()).place(0, Department.VIDEO, "Amber"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Player has no phrase “Amber”");
        assertThatThrownBy(() -> new Placing(show, item()).place(0, Department.SOUND, "Amber"))
                .hasMessageContaining("no machine for Sound");
    }

    @Test
    void cuesGoByBeatsOfTheMeterThereAndByBarsAndNeverBeforeTheFirst() {
        show = Shows.cue(show, "12", "at 8:4", "Amber");
        show = Shows.cue(show, "13", "at B +1 beat", "Amber");
        show = Shows.cue(show, "14", "by hand", "Amber");
        List<Integer> all = List.of(id("12"), id("13"), id("14"));
        show = new Placing(show, item()).move(all, 0, 1);
        assertThat(told().subList(2, 5)).containsExactly("12 at 9:1 1", "13 at B +2 beats 1", "14 by hand 1");
        show = new Placing(show, item()).move(List.of(id("12")), 1, 1);
        assertThat(told().get(2)).as("an eighth in 6/8").isEqualTo("12 at 10:2 1");
        show = new Placing(show, item()).move(List.of(id("12")), -20, 0);
        assertThat(told().get(2)).startsWith("12 at 1:1");
    }

    @Test
    void copiesKeepTheirDistanceFromTheFirst() {
        show = Shows.cue(show, "12", "at B", "Amber");
        show = Shows.cue(show, "13", "at 6:3", "Blue");
        show = new Placing(show, item()).copy(List.of(id("13"), id("12")), 12L * BAR - 4 * 960);
        assertThat(told().subList(4, 6)).hasSize(2).allMatch(t -> t.matches("1[45] at 1\\d.*"));
        assertThatThrownBy(() -> new Placing(show, item()).copy(List.of(id("10")), 0))
                .hasMessageContaining("None of these cues stands on a beat");
    }

    /** At 120 a quarter lasts half a second; a hand that comes 0.2 s late meant the beat before, one 0.2 s early the next. */
    @Test
    void aPlaceThatWasWrittenDownStandsOnTheNearestBeat() {
        Placing placing = new Placing(show, item());
        assertThat(placing.nearestBeat(1_700_000_000L)).isEqualTo(3 * 960);
        assertThat(placing.nearestBeat(1_800_000_000L)).isEqualTo(4 * 960);
        assertThat(placing.nearestBeat(-5)).isZero();
        show = placing.stand(id("11"), placing.nearestBeat(4_010_000_000L));
        assertThat(told()).contains("11 at 3:1 2");
    }

    @Test
    void theCopyOfACueIsLeftOutInOneLinkedSectionAndComesBack() {
        show = withScore("5 B Chorus\n9 C Again as B\n13 D Last as B");
        show = Shows.cue(show, "12", "at B", "Amber");
        show = new Placing(show, item()).except("D", id("12"));
        assertThat(show.items().get(1).score().orElseThrow().toString())
                .contains("9 C Again as B\n13 D Last as B without 12");
        show = new Placing(show, item()).except("D", id("12"));
        assertThat(show.items().get(1).score().orElseThrow().toString()).doesNotContain("without");
        assertThatThrownBy(() -> new Placing(show, item()).except("B", id("12")))
                .hasMessageContaining("not linked to another");
    }
}
