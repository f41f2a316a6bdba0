package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import underbaton.core.score.Score;

/** What a page shows for editing says what it means: typed back unchanged, it changes nothing. */
class WordsTest {

    private static final int SEEDS = 400;

    @Test
    void scoresAndStartsReadBackAsTheyAreWritten() {
        for (int seed = 0; seed < SEEDS; seed++) {
            for (Item item : RandomShows.show(1, seed).items()) {
                item.score()
                        .ifPresent(s ->
                                assertThat(Score.of(s.toString())).as("%s", s).isEqualTo(s));
                item.cues().forEach(c -> assertThat(Start.of(c.start().toString()))
                        .as("%s", c.start())
                        .isEqualTo(c.start()));
            }
        }
    }
}
