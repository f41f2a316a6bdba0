package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/** New numbers for cues that keep their order, and what names cues by number. */
class RenumberingTest {

    private final Show show = Shows.small();

    private static int id(Show show, String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    private static Renumbering renumbering(Show show, String first, String step, String... numbers) {
        return Renumbering.of(
                show,
                List.of(numbers).stream().map(n -> id(show, n)).toList(),
                CueNumber.of(first),
                CueNumber.of(step));
    }

    private static List<String> numbers(Show show) {
        return show.cues().map(c -> c.number().toString()).toList();
    }

    @Test
    void numbersGoUpByTheStepInTheBooksOrder() {
        assertThat(numbers(renumbering(show, "5", "2.5", "11", "1", "10", "2").into(show)))
                .containsExactly("5", "7.5", "10", "12.5");
        assertThat(renumbering(show, "1", "1", "1", "2").into(show))
                .as("nothing is changed")
                .isEqualTo(show);
    }

    @Test
    void whoKeepsItsNumberIsNeitherDoubledNorPassed() {
        assertThatThrownBy(() -> renumbering(show, "9", "1", "1", "2"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Cue 10 keeps its number and is in the way");
        assertThatThrownBy(() -> renumbering(show, "2.5", "1", "1"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Cue 1 as 2.5 would come behind cue 2 in “One”");
        assertThatThrownBy(() -> renumbering(show, "99999", "1", "1", "2")).isInstanceOf(Refusal.class);
    }

    /** An exception of a linked section names its cue by number: it must mean the same cue after any renumbering. */
    @Test
    void exceptionsOfLinkedSectionsFollow() {
        Show song = show.withItem(
                show.items().get(0).withScore(Optional.of(Score.of("1 A Chorus\n9 B Again as A without 1, 2"))), 0);
        Show renumbered = renumbering(song, "2", "1", "1", "2").into(song);
        assertThat(renumbered.items().get(0).score().orElseThrow().toString()).contains("9 B Again as A without 2, 3");
        Show moved = song.withCueMoved(id(song, "1"), 1);
        assertThat(moved.items().get(0).score().orElseThrow().toString()).contains("without 2, 1");
        Cue second = song.cue(id(song, "2")).orElseThrow();
        Show typed = song.withCue(song.items().get(0).id(), second.withNumber(CueNumber.of("7")));
        assertThat(typed.items().get(0).score().orElseThrow().toString()).contains("without 1, 7");
    }
}
