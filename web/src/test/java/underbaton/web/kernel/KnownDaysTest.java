package underbaton.web.kernel;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Days since 1970: 20,000 is one in October 2024. */
class KnownDaysTest {

    @Test
    void oneStartWithAWrongDateThrowsNothingAway() {
        assertThat(KnownDays.agree(List.of(), 20_000)).as("the first start").isFalse();
        assertThat(KnownDays.agree(List.of(20_000L, 19_999L, 19_990L), 20_001)).isTrue();
        assertThat(KnownDays.agree(List.of(20_000L, 19_999L, 19_990L), 20_401)).isFalse();
        assertThat(KnownDays.agree(List.of(20_401L, 20_001L, 20_000L, 19_999L), 20_402))
                .as("nor does a second one")
                .isFalse();
        assertThat(KnownDays.agree(List.of(20_402L, 20_401L, 20_400L, 20_001L), 20_403))
                .as("on the fourth day it is the date")
                .isTrue();
        assertThat(KnownDays.agree(List.of(20_001L, 20_000L, 19_999L), 19_600))
                .as("a day long ago")
                .isFalse();
        assertThat(KnownDays.agree(List.of(20_001L, 20_000L, 19_999L), 20_001))
                .as("the same day once more counts once")
                .isFalse();
    }
}
