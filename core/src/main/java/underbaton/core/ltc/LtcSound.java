package underbaton.core.ltc;

import java.util.BitSet;
import javax.sound.sampled.AudioFormat;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/**
 * Linear Time Code as samples (SMPTE ST 12-1, biphase mark): the level changes at the beginning of each bit, and in the middle of a one.
 * Each change lies at its exact time and rises within 40 µs from a tenth to nine tenths (the figure is from memory), also between
 * samples, so that no rate of frames needs to fit the rate of samples. Sequential; not thread-safe.
 */
public final class LtcSound {

    /** Samples a second. */
    public static final int SAMPLE_RATE = 48_000;

    /** One channel of 16 bits, the low byte first. */
    public static final AudioFormat FORMAT = new AudioFormat(SAMPLE_RATE, 16, 1, true, false);

    /** The loudest and the softest that a line takes, dB below full scale. */
    public static final double LOUDEST = 0;

    public static final double SOFTEST = -30;

    private static final int HALVES = 2 * LtcFrame.BITS;

    /** Of a rise along a half wave, the part between a tenth and nine tenths is 0.59. */
    private static final double RISE_SECONDS = 40e-6 / 0.59;

    private final Rate rate;
    private final long first;
    private final int userBits;
    private final double amplitude;
    private final double halfSeconds;

    private long sample;
    /** The next change, counted in half bits since the beginning. */
    private long half;

    private BitSet bits;
    private int level = -1;

    /**
     * @param first the count of the first frame in the day; it begins at the first sample
     * @param userBits as {@link LtcFrame} has them
     * @param decibels below full scale, {@link #SOFTEST} to {@link #LOUDEST}
     * @param speed 1 for the time of the code itself, above 0
     */
    public LtcSound(Rate rate, long first, int userBits, double decibels, double speed) {
        if (decibels < SOFTEST || decibels > LOUDEST || speed <= 0) {
            throw new IllegalArgumentException("no such sound: " + decibels + " dB at speed " + speed);
        }
        this.rate = rate;
        this.first = first;
        this.userBits = userBits;
        amplitude = Short.MAX_VALUE * Math.pow(10, decibels / 20);
        halfSeconds = rate.quarterSeconds() * 4 / HALVES / speed;
        bits = frame(0);
    }

    private BitSet frame(long number) {
        return new LtcFrame(TimeCode.ofCount(rate, first + number), userBits).bits();
    }

    /** The next sample. */
    public short next() {
        double at = (double) sample++ / SAMPLE_RATE;
        double change = half * halfSeconds;
        while (at >= change + RISE_SECONDS / 2) {
            level = -level;
            goToNextChange();
            change = half * halfSeconds;
        }
        double along = (at - change) / (RISE_SECONDS / 2);
        return (short) Math.round(amplitude * level * (along > -1 ? -Math.sin(Math.PI / 2 * along) : 1));
    }

    /** At the beginning of a bit, or in the middle of a one. */
    private void goToNextChange() {
        long bit = half / 2 % LtcFrame.BITS;
        boolean middle = half % 2 == 0 && bits.get((int) bit);
        half += middle ? 1 : 2 - half % 2;
        if (half % HALVES == 0) {
            bits = frame(half / HALVES);
        }
    }
}
