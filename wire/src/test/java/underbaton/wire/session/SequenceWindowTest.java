package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.session.SequenceWindow.Place.AFTER_A_GAP;
import static underbaton.wire.session.SequenceWindow.Place.LATE;
import static underbaton.wire.session.SequenceWindow.Place.NEXT;
import static underbaton.wire.session.SequenceWindow.Place.SEEN;

import org.junit.jupiter.api.Test;

class SequenceWindowTest {

    private final SequenceWindow window = new SequenceWindow();

    @Test
    void nothingIsTakenTwiceAndLateOnesAreTakenOnce() {
        assertThat(window.take(10)).isIn(NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(12)).isIn(NEXT, AFTER_A_GAP, LATE);
        assertThat(window.lost()).isEqualTo(1);
        assertThat(window.take(12)).isEqualTo(SEEN);
        assertThat(window.take(11)).isIn(NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(11)).isEqualTo(SEEN);
        assertThat(window.lost()).isZero();
    }

    @Test
    void sequenceNumbersWrap() {
        assertThat(window.take(65_535)).isIn(NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(1)).isIn(NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(0)).isIn(NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(65_535)).isEqualTo(SEEN);
        assertThat(window.highest()).isEqualTo(1);
    }

    @Test
    void whatIsTooOldToBeKnownIsNotTaken() {
        window.take(100);
        window.take(300);
        assertThat(window.take(200)).isEqualTo(SEEN);
        assertThat(window.lost()).isEqualTo(199);
    }

    @Test
    void theLossIsThatOfTheLastSixtyFour() {
        assertThat(window.lossPerCent()).isZero();
        for (int i = 0; i < 100; i++) {
            if (i % 4 != 0 || i == 0) {
                window.take(i);
            }
        }
        assertThat(window.lossPerCent()).isEqualTo(25);
        for (int i = 100; i < 200; i++) {
            window.take(i);
        }
        assertThat(window.lossPerCent()).isZero();
    }
}
