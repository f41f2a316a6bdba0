package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.rig.Refusal;

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
    })
    void isReadAsPeopleTypeItAndWrittenInOneWay(String typed, String written) {
        Start start = Start.of(typed);
        assertThat(start).hasToString(written);
        assertThat(Start.of(start.toString())).isEqualTo(start);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"after", "after -1", "after 3601", "after 1.2345 s", "bar 5", "later", "at", "at 1:1 -60001 ms"})
    void anythingElseIsRefused(String typed) {
        assertThatThrownBy(() -> Start.of(typed)).isInstanceOf(Refusal.class);
    }
}
