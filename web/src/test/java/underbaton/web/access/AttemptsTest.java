package underbaton.web.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;

/** Guessing at the door: how many guesses are looked at, by a clock that is turned. */
class AttemptsTest {

    private long now = 1;

    private final Attempts attempts = new Attempts(new Clock() {
        @Override
        public long nanos() {
            return now;
        }

        @Override
        public long epochMicros() {
            return now / 1000;
        }
    });

    private void pass(long seconds) {
        now += TimeUnit.SECONDS.toNanos(seconds);
    }

    private boolean guess(String address) {
        try {
            attempts.require(address);
        } catch (Refusal waits) {
            return false;
        }
        attempts.wrong(address);
        return true;
    }

    @Test
    void three_are_free_then_each_waits_twice_as_long() {
        for (int i = 0; i < 3; i++) {
            assertThat(guess("10.0.0.7")).isTrue();
        }
        assertThatThrownBy(() -> attempts.require("10.0.0.7")).hasMessageContaining("in 2 s");
        assertThatCode(() -> attempts.require("10.0.0.8"))
                .as("nobody else waits")
                .doesNotThrowAnyException();
        pass(1);
        assertThat(guess("10.0.0.7")).isTrue();
        pass(1);
        assertThat(guess("10.0.0.7")).isFalse();
        pass(1);
        assertThat(guess("10.0.0.7")).isTrue();
        assertThat(attempts.alarms()).singleElement().asString().contains("10.0.0.7", "5 wrong passwords");
        pass(3600);
        assertThat(attempts.alarms()).as("it was told for ten minutes").isEmpty();
        attempts.right("10.0.0.7");
        assertThat(guess("10.0.0.7")).isTrue();
    }

    /** A script that tries without a pause for an hour, from one address and from a thousand. */
    @Test
    void a_million_guesses_take_weeks() {
        long one = 0;
        long thousand = 0;
        for (int second = 0; second < 3600; second++) {
            one += guess("10.1.1.1") ? 1 : 0;
            pass(1);
        }
        for (int second = 0; second < 3600; second++) {
            for (int i = 0; i < 30; i++) {
                thousand += guess("10.2." + i + "." + second % 34) ? 1 : 0;
            }
            pass(1);
        }
        double days = 1e6 / thousand / 24;
        System.out.printf(
                "guesses that were looked at in an hour: %d from one address, %d from a thousand; 10^6 take %.0f days%n",
                one, thousand, days);
        assertThat(one).isLessThan(45);
        assertThat(days).isGreaterThan(30);
    }
}
