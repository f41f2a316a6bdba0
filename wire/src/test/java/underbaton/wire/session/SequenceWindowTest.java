package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class SequenceWindowTest {

    private final SequenceWindow window = new SequenceWindow();

    @Test
    void nothingIsTakenTwiceAndLateOnesAreTakenOnce() {
        assertThat(window.take(10)).isTrue();
        assertThat(window.take(12)).isTrue();
        assertThat(window.lost()).isEqualTo(1);
        assertThat(window.take(12)).isFalse();
        assertThat(window.take(11)).isTrue();
        assertThat(window.take(11)).isFalse();
        assertThat(window.lost()).isZero();
    }

    @Test
    void sequenceNumbersWrap() {
        assertThat(window.take(65_535)).isTrue();
        assertThat(window.take(1)).isTrue();
        assertThat(window.take(0)).isTrue();
        assertThat(window.take(65_535)).isFalse();
        assertThat(window.highest()).isEqualTo(1);
    }

    @Test
    void whatIsTooOldToBeKnownIsNotTaken() {
        window.take(100);
        window.take(300);
        assertThat(window.take(200)).isFalse();
        assertThat(window.lost()).isEqualTo(199);
    }
}
