package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class LevelsTest {

    /** A scale as it might be read off a console; made up. */
    private static final Levels SCALE =
            Levels.of("-inf = 0, -60=8, −40=20; -20 dB=50\n-10\t80, 0=100, +10=127", Numbering.WIRE);

    /** The volume law of General MIDI (RP-003), from memory of the published values. */
    @ParameterizedTest
    @CsvSource({"127,0", "96,-4.9", "64,-11.9", "32,-23.9", "16,-36.0"})
    void thePublishedLawHoldsBothWays(int value, double decibels) {
        assertThat(Levels.PUBLISHED.decibels(value)).isCloseTo(decibels, within(0.05));
        assertThat(Levels.PUBLISHED.value(Levels.PUBLISHED.decibels(value))).isEqualTo(value);
    }

    /** From memory of the same document: a value of 0 is silence. */
    @Test
    void silenceIsNoValueAtAll() {
        assertThat(Levels.PUBLISHED.decibels(0)).isEqualTo(Double.NEGATIVE_INFINITY);
        assertThat(Levels.PUBLISHED.value(Double.NEGATIVE_INFINITY)).isZero();
    }

    @ParameterizedTest
    @CsvSource({"-60,8", "-10,80", "-15,65", "5,114", "10,127"})
    void aTableIsStraightBetweenItsPoints(double decibels, int value) {
        assertThat(SCALE.value(decibels)).isEqualTo(value);
        assertThat(SCALE.decibels(value)).isCloseTo(decibels, within(0.2));
    }

    @Test
    void aTableIsWrittenAsItIsRead() {
        assertThat(SCALE.write(Numbering.WIRE)).isEqualTo("−∞=0, −60=8, −40=20, −20=50, −10=80, 0=100, 10=127");
        assertThat(Levels.of(SCALE.write(Numbering.WIRE), Numbering.WIRE)).isEqualTo(SCALE);
        assertThat(Levels.of(" ", Numbering.WIRE)).isEqualTo(Levels.PUBLISHED);
    }

    @Test
    void valuesAreThoseThatTheMachinePrints() {
        Numbering fromOne = Numbering.WIRE.withValues(Numbering.Values.FROM_1);
        Levels levels = Levels.of("off=1, 0=101, 10=128", fromOne);
        assertThat(levels.value(0)).isEqualTo(100);
        assertThat(levels.value(10)).isEqualTo(127);
        assertThat(levels.write(fromOne)).isEqualTo("−∞=1, 0=101, 10=128");
        Numbering perCent = Numbering.WIRE.withValues(Numbering.Values.PER_CENT);
        assertThat(Levels.of("-10=63 %, 0=100 %", perCent).value(-10)).isEqualTo(80);
        assertThatThrownBy(() -> Levels.of("0=0, 10=128", fromOne)).hasMessageContaining("from 1 to 128");
        assertThatThrownBy(() -> Levels.of("-10 80", fromOne)).hasMessageContaining("write a second one");
    }

    @Test
    void aLevelTheScaleDoesNotReachIsRefused() {
        assertThatThrownBy(() -> SCALE.value(12)).hasMessageContaining("from −∞ dB to 10 dB");
        assertThatThrownBy(() -> SCALE.value(-70)).hasMessageContaining("no points");
        assertThatThrownBy(() -> Levels.PUBLISHED.value(1)).isInstanceOf(Refusal.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"loud=3", "0=128", "-10=80, 0=70", "0=100", "0=1, 0=2"})
    void aTableThatIsNoneIsRefused(String typed) {
        assertThatThrownBy(() -> Levels.of(typed, Numbering.WIRE)).isInstanceOf(Refusal.class);
    }
}
