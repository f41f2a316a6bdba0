package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/** Lengths in real time and in music. */
class SpanTest {

    private static final long MS = 1_000_000;

    @ParameterizedTest
    @CsvSource({
        "3 s,3 s",
        "200ms,200 ms",
        "1500 ms,1.5 s",
        "2 min,120 s",
        "'0,5 s',500 ms",
        "1 beat,1 beat",
        "4.5 beats,4.5 beats",
        "-200 ms,−200 ms",
        "− 2 beats,−2 beats",
        "2 bars,2 bars",
        "1 Bar,1 bar",
        "2 sec,2 s",
        "2 seconds,2 s",
        "3 minutes,180 s"
    })
    void isReadAsPeopleTypeItAndWrittenInOneWay(String typed, String written) {
        assertThat(Span.of(typed)).hasToString(written);
        assertThat(Span.of(Span.of(typed).toString())).isEqualTo(Span.of(typed));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "3", "3 m", "beats", "s 3", "99999 s"})
    void anythingElseIsRefused(String typed) {
        assertThatThrownBy(() -> Span.of(typed)).isInstanceOf(Refusal.class);
    }

    /** At 120 a quarter lasts half a second (common practice), at 60 a whole one; in 6/8 the beat is an eighth. */
    @Test
    void beatsAreThoseOfThePlaceTheyBeginAtAndGoThroughTheTempiBehindIt() {
        Optional<Score.Times> times =
                Optional.of(Score.of("1 quarter = 120\n3 quarter = 60\n5 6/8").read());
        Span four = Span.of("4 beats");
        assertThat(four.nanos(times, 0)).isEqualTo(2000 * MS);
        assertThat(four.nanos(times, 3000 * MS)).as("two of each").isEqualTo(3000 * MS);
        assertThat(four.nanos(times, 12_000 * MS)).as("eighths").isEqualTo(2000 * MS);
        assertThat(Span.of("-2 beats").nanos(times, 4000 * MS)).isEqualTo(-1000 * MS);
        assertThat(four.nanos(Optional.empty(), 0)).as("without a score").isEqualTo(2000 * MS);
        assertThat(Span.of("3 s").nanos(times, 3000 * MS)).isEqualTo(3000 * MS);
        assertThat(Span.of("2 bars").nanos(times, 500 * MS)).as("from mid-bar").isEqualTo(4500 * MS);
        assertThat(Span.of("0.5 bars").nanos(times, 0)).isEqualTo(1000 * MS);
        assertThat(Span.of("-1 bar").nanos(times, 4000 * MS)).isEqualTo(-2000 * MS);
        assertThat(Span.of("2 bars").nanos(Optional.empty(), 0)).isEqualTo(4000 * MS);
    }
}
