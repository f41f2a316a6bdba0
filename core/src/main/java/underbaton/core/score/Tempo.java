package underbaton.core.score;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;

/**
 * A speed.
 *
 * @param unit what is counted
 * @param millionths of a beat per minute, 1,000,000–999,999,999: 72.5 beats per minute are 72,500,000
 */
public record Tempo(BeatUnit unit, int millionths) {

    private static final BigInteger NANOS_OF_A_MILLION_MINUTES = BigInteger.valueOf(60_000_000_000_000_000L);

    /** How {@link #of(String)} takes it, as the inside of a pattern with two groups: the unit and the number. */
    static final String WRITTEN =
            "(half|dotted quarter|quarter|dotted eighth|eighth|sixteenth)\\s*=\\s*(\\d{1,3}(?:\\.\\d{1,6})?)";

    private static final Pattern PATTERN = Pattern.compile(WRITTEN);

    public Tempo {
        if (millionths < 1_000_000 || millionths > 999_999_999) {
            throw new Refusal("tempo", "A tempo is 1 to 999.999 beats a minute.");
        }
    }

    /** So many of this unit a minute, kept to a millionth. */
    public static Tempo of(BeatUnit unit, double beatsPerMinute) {
        return new Tempo(unit, (int) Math.round(beatsPerMinute * 1_000_000));
    }

    /** So many quarters a minute. */
    public static Tempo quarters(double beatsPerMinute) {
        return of(BeatUnit.QUARTER, beatsPerMinute);
    }

    /**
     * @param typed {@code dotted quarter = 72.5}
     * @throws Refusal when it is none
     */
    public static Tempo of(String typed) {
        Matcher m = PATTERN.matcher(typed.strip().toLowerCase(Locale.ROOT));
        if (!m.matches()) {
            throw new Refusal("tempo", "“" + typed + "” is no tempo; write it such as: quarter = 120.");
        }
        return of(BeatUnit.of(m.group(1)), Double.parseDouble(m.group(2)));
    }

    /**
     * @param micros length of a quarter note in µs, as a Standard MIDI File says it
     * @throws Refusal when that is slower than 1 or faster than 999.999999 a minute
     */
    public static Tempo ofQuarterMicros(int micros) {
        if (micros < 61 || micros > 60_000_000) {
            throw new Refusal(
                    "tempo", "A quarter note of " + micros + " µs is no tempo; it lasts 61 to 60,000,000 µs.");
        }
        return quarters(60_000_000.0 / micros);
    }

    /** Length of a quarter note in µs, the nearest. */
    public int quarterMicros() {
        return Math.toIntExact(nanosPerTick()
                .times(Fraction.of(BeatUnit.QUARTER_TICKS))
                .dividedBy(Fraction.of(1000))
                .rounded());
    }

    /** {@code quarter = 120}. */
    @Override
    public String toString() {
        return unit.words() + " = "
                + BigDecimal.valueOf(millionths, 6).stripTrailingZeros().toPlainString();
    }

    /** How long one tick lasts, in ns; exact. */
    Fraction nanosPerTick() {
        return new Fraction(
                NANOS_OF_A_MILLION_MINUTES, BigInteger.valueOf(millionths).multiply(BigInteger.valueOf(unit.ticks())));
    }

    /** Ticks in a nanosecond; for gradual tempo alone, whose formula is not rational. */
    double ticksPerNano() {
        return (double) millionths * unit.ticks() / NANOS_OF_A_MILLION_MINUTES.doubleValue();
    }
}
