package underbaton.core.signal;

import java.util.Optional;
import java.util.function.IntUnaryOperator;
import underbaton.core.rig.Refusal;

/**
 * How the number that comes with a signal becomes an amount. What lies outside the range counts as its nearer end.
 *
 * @param place which argument of an OSC message is meant, 0–31
 * @param fine whether a controller and the one 32 above it are one number of 14 bits, 0–16,383 (MIDI 1.0)
 * @param from the number at which {@code low} is sent
 * @param to the number at which {@code high} is sent, another than {@code from}
 * @param low an amount, in the unit of what is sent; −∞ for silence
 * @param high another; below {@code low} where the way is turned round
 * @param bend the exponent of the way between them, 0.1–10: 1 is straight, above it is slow at first
 * @param grid amounts are whole multiples of it; 0 for any
 * @param smoothMs how long the way to a new amount takes, 0–10,000 ms
 * @param second another signal that has a say
 * @param meeting what becomes of it where the book moves the same control
 */
public record Scale(
        int place,
        boolean fine,
        double from,
        double to,
        double low,
        double high,
        double bend,
        double grid,
        int smoothMs,
        Optional<Second> second,
        Meeting meeting) {

    /** Who wins where a relay and the book move the same control. */
    public enum Meeting {
        LATEST("latest wins"),
        PICK_UP("takes over when it meets the value"),
        LARGEST("the larger wins");

        private final String words;

        Meeting(String words) {
            this.words = words;
        }

        /** As the form offers it. */
        public String words() {
            return words;
        }
    }

    /**
     * A controller of which the last value has a say.
     *
     * @param channel 0–15
     * @param gates whether nothing passes while it is below 64; else the part is multiplied by its value of 127
     */
    public record Second(int deviceId, int channel, int controller, boolean gates) {

        public Second {
            if (channel < 0 || channel > 15 || controller < 0 || controller > 127) {
                throw new Refusal("second", "The second signal is a controller, 0 to 127, on a channel of its own.");
            }
        }
    }

    private static final double LEAST_BEND = 0.1;
    private static final double MOST_BEND = 10;
    private static final double MOST = 1e9;
    private static final int LONGEST_SMOOTH = 10_000;

    public Scale {
        if (place < 0 || place > 31) {
            throw new Refusal("place", "It is one of the first 32 arguments.");
        }
        if (!(Math.abs(from) <= MOST && Math.abs(to) <= MOST) || from == to) {
            throw new Refusal("numbers", "What comes in runs from one number to another; write two that differ.");
        }
        if (Double.isNaN(low) || Double.isNaN(high) || low > MOST || high > MOST || isTooLow(low) || isTooLow(high)) {
            throw new Refusal("amounts", "What is sent runs from one amount to another, neither beyond all measure.");
        }
        if (!(bend >= LEAST_BEND && bend <= MOST_BEND)) {
            throw new Refusal("bend", "The way is bent by 0.1 to 10; 1 is straight.");
        }
        if (!(grid >= 0 && grid <= MOST)) {
            throw new Refusal("grid", "Amounts are multiples of a number above 0; leave it empty for any.");
        }
        if (smoothMs < 0 || smoothMs > LONGEST_SMOOTH) {
            throw new Refusal("smooth", "A way is smoothed over 0 to 10,000 ms.");
        }
        // Minus nothing is nothing, so that equal scales are equal files.
        from += 0.0;
        to += 0.0;
        low += 0.0;
        high += 0.0;
        grid += 0.0;
    }

    private static boolean isTooLow(double amount) {
        return amount < -MOST && amount != Double.NEGATIVE_INFINITY;
    }

    /** Straight, from one pair of numbers to another. */
    public static Scale straight(double from, double to, double low, double high) {
        return new Scale(0, false, from, to, low, high, 1, 0, 0, Optional.empty(), Meeting.LATEST);
    }

    Scale pointing(IntUnaryOperator ids) {
        Optional<Second> now =
                second.map(s -> new Second(ids.applyAsInt(s.deviceId), s.channel, s.controller, s.gates));
        return new Scale(place, fine, from, to, low, high, bend, grid, smoothMs, now, meeting);
    }

    /**
     * How far on the way from {@code low} to {@code high} it is.
     *
     * @param factor of the second signal, 0–1; 1 where there is none
     * @return 0–1
     */
    public double part(double number, double factor) {
        double straight = Math.max(0, Math.min(1, (number - from) / (to - from)));
        return Math.pow(straight, bend) * factor;
    }

    /** The amount at a part of the way, on the grid. */
    public double amount(double part) {
        if (low == high || part >= 1) {
            return onGrid(high);
        }
        if (part <= 0) {
            return onGrid(low);
        }
        // No even way leads to silence; only its end is there.
        boolean endless = Double.isInfinite(low) || Double.isInfinite(high);
        return onGrid(endless ? Math.max(low, high) : low + (high - low) * part);
    }

    /** The nearest multiple of the grid. */
    public double onGrid(double amount) {
        return grid == 0 || Double.isInfinite(amount) ? amount : Math.rint(amount / grid) * grid;
    }
}
