package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.rig.Refusal;

class PlannedLengthTest {

    @ParameterizedTest
    @CsvSource({"3:42,222", "4,240", "'',0", "0:05,5", "120:00,7200"})
    void lengthsAreMinutesAndSeconds(String typed, int seconds) {
        assertThat(PlannedLength.of(typed)).isEqualTo(seconds);
        assertThat(PlannedLength.of(PlannedLength.tell(seconds))).isEqualTo(seconds);
    }

    @ParameterizedTest
    @ValueSource(strings = {"3:60", "-1", "three", "1:2:3", "99999"})
    void otherLengthsAreRefused(String typed) {
        assertThatThrownBy(() -> PlannedLength.of(typed)).isInstanceOf(Refusal.class);
    }
}
