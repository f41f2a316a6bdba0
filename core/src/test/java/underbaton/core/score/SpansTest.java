package underbaton.core.score;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Refusal;

/** Sections that are others again, vamps and film slots. */
class SpansTest {

    private static final String SONG =
            """
            1 4/4
            1 quarter = 96
            1 A Intro
            9 B Chorus
            25 C Chorus 2 as B without 12, 14.5
            33 vamp 2 bars, leave at the bar, at most 8 times
            61 film 4:37 The crossing
            210 end""";

    @Test
    void spansAreWrittenAsTheyAreRead() {
        assertThat(Score.of(SONG)).hasToString(SONG);
        assertThat(Score.of("9 film 0:30.5 at quarter = 100").films().get(0).millis())
                .isEqualTo(30_500);
        assertThat(Score.of("9 vamp 1 bar").vamps().get(0)).isEqualTo(new Vamp(9, 1, Vamp.Leave.END, Vamp.USUAL_MOST));
    }

    /** At 120 in 4/4 a bar is two seconds (common practice): 277 s are 138.5 bars, so the slot ends in bar 199. */
    @ParameterizedTest
    @CsvSource({"96", "121", "60", "173.5"})
    void aFilmKeepsItsLengthAndItsBarsWhateverTheSongBeforeItDoes(String tempo) {
        Score score = Score.of("1 quarter = " + tempo + "\n61 film 4:37\n200 Z Finale");
        Score.Times times = score.read();
        long began = times.nanosOfBar(61);
        assertThat(times.tempi().nanos(times.endOf(score.films().get(0))) - began)
                .isEqualTo(277_000_000_000L);
        assertThat(times.bars().position(times.endOf(score.films().get(0)))).isEqualTo(new Position(199, 3, 0));
        assertThat(times.nanosOfBar(200) - began).as("139 bars of two seconds").isEqualTo(278_000_000_000L);
        long bar = Tempo.quarters(Double.parseDouble(tempo))
                .nanosPerTick()
                .times(Fraction.of(3840))
                .rounded();
        assertThat(times.nanosOfBar(201) - times.nanosOfBar(200))
                .as("the song's own again")
                .isCloseTo(bar, within(1L));
        assertThat(score.overlaps()).isEmpty();
    }

    @Test
    void whatIsDrawnIntoAFilmIsAnOverlapWithWhatIsLeftOfTheFilm() {
        Score score = Score.of("61 film 4:37\n195 Z Finale");
        assertThat(score.overlaps()).singleElement().satisfies(o -> {
            assertThat(o.what()).isEqualTo("section Z Finale");
            assertThat(o.bar()).isEqualTo(195);
            assertThat(o.leftMillis()).as("4.5 bars of two seconds").isEqualTo(9000);
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "5 vamp 4 bars\\n7 vamp 2 bars|run into each other",
                "61 film 4:37\\n70 quarter = 90|lies in the film from bar 61 to 199",
                "9 B\\n17 B|Two sections are lettered B",
                "9 B\\n17 C as D|there is no section D",
                "9 B\\n17 C as B\\n20 D as C|write “as B”",
                "9 B as B|cannot be itself",
            })
    void aSpanThatCannotBeIsRefused(String typed, String words) {
        assertThatThrownBy(() -> Score.of(typed.replace("\\n", "\n")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }
}
