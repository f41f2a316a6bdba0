package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

class StartTest {

    @ParameterizedTest
    @CsvSource({
        "'',by hand",
        "Hand,by hand",
        "With previous,with",
        "after 4,after 4 s",
        "AFTER 1.50 s,after 1.5 s",
        "'after 0,4s',after 0.4 s",
        "after 3600,after 3600 s",
        "at 17:3,at 17:3",
        "At bar 9,at 9:1",
        "at 17:3:480 -20 ms,at 17:3:480 −20 ms",
        "at 2:1 + 5 ms,at 2:1 +5 ms",
        "at b,at B",
        "At B2 -1.5 beats,at B2 −1.5 beats",
        "at C + 1 beat,at C +1 beat",
        "at time 1:23.5,at time 1:23.5",
        "at time 0:05,at time 0:05",
        "at time 12:40,at time 12:40",
    })
    void isReadAsPeopleTypeItAndWrittenInOneWay(String typed, String written) {
        Start start = Start.of(typed);
        assertThat(start).hasToString(written);
        assertThat(Start.of(start.toString())).isEqualTo(start);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "after",
                "after -1",
                "after 3601",
                "after 1.2345 s",
                "bar 5",
                "later",
                "at",
                "at 1:1 -60001 ms",
                "at B 2",
                "at time 1:75",
                "at BBB"
            })
    void anythingElseIsRefused(String typed) {
        assertThatThrownBy(() -> Start.of(typed)).isInstanceOf(Refusal.class);
    }

    /** Worked by hand: in 6/8 with a dotted quarter of 72 an eighth lasts 277.8 ms, and section B begins with bar 3. */
    @ParameterizedTest
    @CsvSource({"at B,3333", "at B -3 beats,2500", "at B +1 beat,3611", "at 3:1 -33 ms,3300", "at time 0:07.25,7250"})
    void aLandingKnowsItsMoment(String typed, long millis) {
        Optional<Score.Times> times =
                Optional.of(Score.of("1 6/8\n1 dotted quarter = 72\n3 B Chorus").read());
        assertThat(((Start.Landing) Start.of(typed)).nanos(times) / 1_000_000).isCloseTo(millis, within(1L));
    }

    @ParameterizedTest
    @CsvSource({"at Q,no section Q", "at 3:9,There is no 3:9"})
    void aPlaceThatIsNotThereIsRefusedByName(String typed, String words) {
        Start.Landing landing = (Start.Landing) Start.of(typed);
        Optional<Score.Times> times = Optional.of(Score.of("1 6/8\n3 B").read());
        assertThatThrownBy(() -> landing.nanos(times))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
        assertThatThrownBy(() -> landing.nanos(Optional.empty())).hasMessageContaining("no bars yet");
    }
}
