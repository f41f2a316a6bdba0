package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.session.SequenceWindow.Place.AFTER_A_GAP;
import static underbaton.wire.session.SequenceWindow.Place.FIRST;
import static underbaton.wire.session.SequenceWindow.Place.LATE;
import static underbaton.wire.session.SequenceWindow.Place.NEXT;
import static underbaton.wire.session.SequenceWindow.Place.SEEN;

import org.junit.jupiter.api.Test;

class SequenceWindowTest {

    private final SequenceWindow window = new SequenceWindow();

    @Test
    void nothingIsTakenTwiceAndLateOnesAreTakenOnce() {
        assertThat(window.take(10)).isIn(FIRST, NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(12)).isIn(FIRST, NEXT, AFTER_A_GAP, LATE);
        assertThat(window.lost()).isEqualTo(1);
        assertThat(window.take(12)).isEqualTo(SEEN);
        assertThat(window.take(11)).isIn(FIRST, NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(11)).isEqualTo(SEEN);
        assertThat(window.lost()).isZero();
    }

    @Test
    void sequenceNumbersWrap() {
        assertThat(window.take(65_535)).isIn(FIRST, NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(1)).isIn(FIRST, NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(0)).isIn(FIRST, NEXT, AFTER_A_GAP, LATE);
        assertThat(window.take(65_535)).isEqualTo(SEEN);
        assertThat(window.highest()).isEqualTo(1);
    }

    @Test
    void whatIsTooOldToBeKnownIsNotTaken() {
        window.take(100);
        window.take(300);
        assertThat(window.take(200)).isEqualTo(SEEN);
        assertThat(window.take(190)).isEqualTo(SEEN);
        assertThat(window.lost()).isEqualTo(199);
    }

    /** Packets 20,000 ahead are a stranger's, or those of a sender that has begun anew: two in a row tell. */
    @Test
    void oneFarAwayIsNotBelievedAndTwoInARowAreANewBeginning() {
        window.take(100);
        assertThat(window.take(20_100)).isEqualTo(SEEN);
        assertThat(window.take(101)).isEqualTo(NEXT);
        assertThat(window.take(30_000)).isEqualTo(SEEN);
        assertThat(window.take(30_001)).isEqualTo(FIRST);
        assertThat(window.take(30_002)).isEqualTo(NEXT);
        assertThat(window.take(102)).isEqualTo(SEEN);
        assertThat(window.take(103)).isEqualTo(FIRST);
    }

    @Test
    void aNewBeginningIsConfirmedOverTheWrapToo() {
        window.take(30_000);
        assertThat(window.take(65_535)).isEqualTo(SEEN);
        assertThat(window.take(0)).isEqualTo(FIRST);
    }

    @Test
    void theLossIsThatOfTheLastMinute() {
        LossOfTheMinute loss = new LossOfTheMinute();
        long second = 1_000_000_000L;
        assertThat(loss.perCent(0)).isEqualTo(-1);
        loss.count(0, 100, 25);
        assertThat(loss.perCent(second)).isEqualTo(25);
        loss.count(30 * second, 100, 0);
        assertThat(loss.perCent(30 * second)).isEqualTo(12);
        assertThat(loss.perCent(61 * second)).isZero();
        loss.count(65 * second, 10, 5);
        loss.count(65 * second, 0, -5);
        assertThat(loss.perCent(65 * second)).isZero();
        assertThat(loss.perCent(200 * second)).isEqualTo(-1);
    }
}
