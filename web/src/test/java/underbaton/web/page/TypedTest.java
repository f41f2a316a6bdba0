package underbaton.web.page;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.rig.Refusal;

class TypedTest {

    @ParameterizedTest
    @CsvSource({"3:42,222", "4,240", "'',0", "0:05,5", "120:00,7200"})
    void lengthsAreMinutesAndSeconds(String typed, int seconds) {
        assertThat(Typed.seconds(typed)).isEqualTo(seconds);
        assertThat(Typed.seconds(Typed.length(seconds))).isEqualTo(seconds);
    }

    @ParameterizedTest
    @ValueSource(strings = {"3:60", "-1", "three", "1:2:3", "99999"})
    void otherLengthsAreRefused(String typed) {
        assertThatThrownBy(() -> Typed.seconds(typed)).isInstanceOf(Refusal.class);
    }

    @Test
    void numbersMayHaveARealMinus() {
        assertThat(Typed.number("octave", " −2 ")).isEqualTo(-2);
        assertThatThrownBy(() -> Typed.number("port", "")).hasMessageContaining("it is empty");
        assertThatThrownBy(() -> Typed.number("port", "99999999999")).isInstanceOf(Refusal.class);
    }
}
