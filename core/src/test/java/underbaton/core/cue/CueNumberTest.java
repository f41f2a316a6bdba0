package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.rig.Refusal;

class CueNumberTest {

    @Test
    void areOrderedAsNumbers() {
        assertThat(Stream.of("100", "12.55", "9", "12.5", "12")
                        .map(CueNumber::of)
                        .sorted()
                        .map(CueNumber::toString))
                .containsExactly("9", "12", "12.5", "12.55", "100");
    }

    @Test
    void areTheSameHoweverManyZerosFollow() {
        assertThat(CueNumber.of("12.50")).isEqualTo(CueNumber.of("12,5")).hasToString("12.5");
        assertThat(CueNumber.of("100")).hasToString("100");
    }

    @ParameterizedTest
    @CsvSource({"12,20,16", "12,13,12.5", "12,12.5,12.2", "12.5,12.51,12.505", "12,14,13"})
    void thePlainestNumberBetweenIsFound(String before, String after, String between) {
        assertThat(CueNumber.between(CueNumber.of(before), CueNumber.of(after))).hasToString(between);
    }

    @Test
    void noRoomIsSaid() {
        assertThatThrownBy(() -> CueNumber.between(CueNumber.of("1.001"), CueNumber.of("1.002")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("1.001 and 1.002");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "0", "abc", "-1", "1.2345", "100000", "1e3", "12.5.1"})
    void otherTextsAreRefused(String typed) {
        assertThatThrownBy(() -> CueNumber.of(typed)).isInstanceOf(Refusal.class);
    }
}
