package underbaton.core.midi;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.midi.TimeCode.Rate;

/** Frames and their names, after SMPTE ST 12-1. */
class TimeCodeTest {

    @ParameterizedTest
    @CsvSource({
        "1799, 00:00:59;29",
        "1800, 00:01:00;02",
        "17981, 00:09:59;29",
        "17982, 00:10:00;00",
        "107892, 01:00:00;00",
        "2589407, 23:59:59;29",
        "2589408, 00:00:00;00",
    })
    void drop_frame_leaves_out_two_numbers_of_each_minute_but_every_tenth(long count, String name) {
        TimeCode time = TimeCode.ofCount(Rate.DROP_29_97, count);
        assertThat(time).hasToString(name);
        assertThat(time.count()).isEqualTo(count % 2_589_408);
    }

    /** The names are counted up here by hand, a frame at a time. */
    @ParameterizedTest
    @EnumSource(Rate.class)
    void every_frame_of_more_than_an_hour_has_its_name(Rate rate) {
        int frames = 0;
        int seconds = 0;
        for (long count = 0; count < 120_000; count++) {
            int minutes = seconds / 60;
            assertThat(TimeCode.ofCount(rate, count))
                    .isEqualTo(new TimeCode(rate, minutes / 60, minutes % 60, seconds % 60, frames));
            assertThat(TimeCode.ofCount(rate, count).count()).isEqualTo(count);
            frames++;
            if (frames == rate.frames()) {
                frames = 0;
                seconds++;
                boolean drops = rate == Rate.DROP_29_97 && seconds % 60 == 0 && seconds / 60 % 10 != 0;
                frames = drops ? 2 : 0;
            }
        }
    }

    /** 29.97 is 30,000 frames in 1,001 seconds. */
    @Test
    void quarters_of_frames_begin_when_the_rate_says() {
        assertThat(Rate.DROP_29_97.quarterNanos(4 * 30_000L)).isEqualTo(1_001_000_000_000L);
        assertThat(Rate.FILM_24.quarterNanos(96)).isEqualTo(1_000_000_000);
        assertThat(Rate.PAL_25.quarterNanos(1)).isEqualTo(10_000_000);
        assertThat(Rate.FULL_30.quarterNanos(1)).isEqualTo(8_333_334);
        for (Rate rate : Rate.values()) {
            for (long quarter = 0; quarter < 10_000_000; quarter += 997) {
                long at = rate.quarterNanos(quarter);
                assertThat(rate.quarters(at)).isEqualTo(quarter);
                assertThat(rate.quarters(Math.max(0, at - 1))).isEqualTo(Math.max(0, quarter - 1));
            }
        }
    }
}
