package underbaton.core.score;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Refusal;

class ScoreTest {

    private static final String SONG =
            """
            pick-up 1 quarter
            1 4/4
            17 6/8 in 2
            1 quarter = 121.5
            9:3 quarter = 96
            17 dotted quarter = 72 over 2 bars
            8:2:480 hold 2.5 s
            1 I Intro
            9 A Verse 1
            17 B2""";

    @Test
    void aScoreIsWrittenAsItIsRead() {
        Score score = Score.of(SONG);
        assertThat(score).hasToString(SONG);
        assertThat(Score.of(score.toString())).isEqualTo(score);
        assertThat(score.sections()).extracting(Section::letter).containsExactly("I", "A", "B2");
        assertThat(score.tempi().get(2).overTicks()).isEqualTo(2 * 2880);
        Score midBar = Score.of("3:3 quarter = 90 over 2 bars");
        assertThat(midBar.tempi().get(1).overTicks()).as("two whole bars").isEqualTo(2 * 4 * 960);
        assertThat(Score.of(midBar.toString())).isEqualTo(midBar);
        assertThat(midBar.toString()).contains("3:3 quarter = 90 over 2 bars");
    }

    @Test
    void withoutALineForItBarOneHasFourFourAtAHundredAndTwenty() {
        Score score = Score.of("\n 5 3/4 \n");
        assertThat(score.nanos(new Position(2, 1, 0))).isEqualTo(2_000_000_000L);
        assertThat(score.bars().meter(5)).isEqualTo(new Meter(3, 4));
    }

    /** A quarter of pick-up at 60, then a bar of 4/4 of four seconds: worked by hand. */
    @Test
    void thePickUpComesBeforeTheFirstBar() {
        Score score = Score.of("pick-up 1 quarter\n1 quarter = 60");
        assertThat(score.nanos(new Position(0, 4, 0))).isZero();
        assertThat(score.nanos(new Position(1, 1, 0))).isEqualTo(1_000_000_000L);
        assertThat(score.nanos(new Position(2, 1, 0))).isEqualTo(5_000_000_000L);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 quarter = fast|“1 quarter = fast” cannot be read",
                "verse|cannot be read; write the bar",
                "1 4/5|halves, quarters, eighths",
                "3:5 hold 2 s|There is no 3:5",
                "1 quarter = 0|1 to 999.999",
                "2 4/4\\n2 3/4|Two meters stand at bar 2",
                "3 quarter = 90\\n3 quarter = 80|each other's way",
                "pick-up 4 quarters|shorter than the first bar",
                "4 hold 1 s\\n4 hold 2 s|Two holds",
            })
    void aLineThatCannotBeIsRefused(String typed, String words) {
        assertThatThrownBy(() -> Score.of(typed.replace("\\n", "\n")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void fourHundredBarsWithAMarkEachKeepTheirOrder() {
        StringBuilder text = new StringBuilder("1 4/4\n");
        for (int bar = 2; bar <= 400; bar++) {
            text.append(bar).append(" quarter = ").append(60 + bar % 100).append(" over 1 bars\n");
        }
        Score score = Score.of(text.toString());
        assertThat(Score.of(score.toString())).isEqualTo(score);
        assertThat(score.nanos(new Position(401, 1, 0))).isGreaterThan(score.nanos(new Position(400, 1, 0)));
    }
}
