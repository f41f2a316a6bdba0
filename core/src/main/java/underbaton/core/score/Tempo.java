package underbaton.core.score;

import java.math.BigDecimal;
import java.math.BigInteger;
import underbaton.core.rig.Refusal;

/**
 * A speed.
 *
 * @param unit what is counted
 * @param thousandths of a beat per minute, 1,000–999,999: 72.5 beats per minute are 72,500
 */
public record Tempo(BeatUnit unit, int thousandths) {

    private static final BigInteger NANOS_OF_A_THOUSAND_MINUTES = BigInteger.valueOf(60_000_000_000_000L);

    public Tempo {
        if (thousandths < 1000 || thousandths > 999_999) {
            throw new Refusal("tempo", "A tempo is 1 to 999.999 beats a minute.");
        }
    }

    public static Tempo of(BeatUnit unit, double beatsPerMinute) {
        return new Tempo(unit, (int) Math.round(beatsPerMinute * 1000));
    }

    public static Tempo quarters(double beatsPerMinute) {
        return of(BeatUnit.QUARTER, beatsPerMinute);
    }

    /** {@code quarter = 120}. */
    @Override
    public String toString() {
        return unit.words() + " = "
                + BigDecimal.valueOf(thousandths, 3).stripTrailingZeros().toPlainString();
    }

    /** How long one tick lasts, in ns; exact. */
    Fraction nanosPerTick() {
        return new Fraction(
                NANOS_OF_A_THOUSAND_MINUTES,
                BigInteger.valueOf(thousandths).multiply(BigInteger.valueOf(unit.ticks())));
    }

    /** Ticks in a nanosecond; for gradual tempo alone, whose formula is not rational. */
    double ticksPerNano() {
        return (double) thousandths * unit.ticks() / NANOS_OF_A_THOUSAND_MINUTES.doubleValue();
    }
}
