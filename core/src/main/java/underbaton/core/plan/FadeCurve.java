package underbaton.core.plan;

import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Motion;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Levels;

/**
 * Where a control is at each moment of a motion, and which messages take it there.
 *
 * <p>The amount at a moment is worked out from the moment alone, never from the step before, so a motion of any length
 * ends exactly on its amount. A message is due when the value on the wire changes; the moments are looked at a gap apart,
 * so that a line is never asked for more than it carries. Immutable.
 */
public final class FadeCurve {

    /** Between two looks, ns: a three-byte message takes a DIN line 960 µs (MIDI 1.0). */
    public static final long STEP_NANOS = 1_000_000;

    private final PlannedMotion motion;
    private final double from;
    private final double to;
    private final double fromExact;

    /** @param exact where the control stands, 0–127 of the wire's scale */
    FadeCurve(PlannedMotion motion, double exact) {
        this.motion = motion;
        this.fromExact = exact;
        this.to = motion.target();
        this.from = motion.argument().amountAt(exact, motion.levels());
    }

    /**
     * A message on the way.
     *
     * @param atNanos since the motion began
     * @param value what it sends, 0–127
     */
    public record Step(long atNanos, int value, Message message) {}

    /** Whether the control has come to rest; a wave without an end never does. */
    public boolean overAt(long nanos) {
        return motion.lastsNanos() > 0 && nanos >= motion.lastsNanos();
    }

    /**
     * Where the control is.
     *
     * @param nanos since the motion began
     * @return 0–127 on the wire's scale, not rounded
     */
    public double exactAt(long nanos) {
        double exact = motion.motion() instanceof Motion.Wave wave
                ? wave(wave, nanos)
                : move((Motion.Move) motion.motion(), nanos);
        return Math.max(0, Math.min(127, exact));
    }

    /** Where the control is when all is over: at the amount of its call, 0–127. */
    public double restsAt() {
        return exact(to);
    }

    /** The value on the wire, 0–127. */
    public int valueAt(long nanos) {
        return (int) Math.round(exactAt(nanos));
    }

    /**
     * The next message.
     *
     * @param afterNanos when the last one left, since the motion began
     * @param value what it said; −1 when none has left
     * @param gapNanos between two looks, 1 or above
     * @return empty when no further one comes
     */
    public Optional<Step> next(long afterNanos, int value, long gapNanos) {
        long at = value < 0 ? 0 : afterNanos + gapNanos;
        long end = motion.lastsNanos() > 0 ? motion.lastsNanos() : Long.MAX_VALUE;
        // A wave that is too flat to change the value has no next message.
        long farthest = Math.min(end, at + 2 * Math.max(motion.periodNanos(), motion.lastsNanos()));
        while (at < farthest && valueAt(at) == value) {
            at += gapNanos;
        }
        long when = Math.min(at, farthest);
        int then = valueAt(when);
        return then == value || afterNanos >= end ? Optional.empty() : Optional.of(new Step(when, then, message(when)));
    }

    /** Another curve of the same motion that begins where this one does. */
    @Override
    public boolean equals(Object other) {
        return other instanceof FadeCurve curve && curve.fromExact == fromExact && curve.motion.equals(motion);
    }

    @Override
    public int hashCode() {
        return motion.hashCode() * 31 + Double.hashCode(fromExact);
    }

    private Message message(long nanos) {
        if (motion.open() instanceof OscMessage) {
            double amount = overAt(nanos) ? to : motion.argument().amountAt(exactAt(nanos), motion.levels());
            return motion.argument().fill(motion.open(), new Amount.Measure(amount), motion.levels());
        }
        return Argument.withValue(motion.open(), valueAt(nanos));
    }

    private double wave(Motion.Wave wave, long nanos) {
        if (overAt(nanos)) {
            return exact(to);
        }
        double amount = to + wave.depth() * wave.form().at((double) nanos / motion.periodNanos());
        return exact(Math.max(wave.least(), Math.min(wave.most(), amount)));
    }

    private double move(Motion.Move move, long nanos) {
        if (overAt(nanos)) {
            return exact(to);
        }
        double part = Math.max(0, (double) nanos / motion.lastsNanos());
        if (part == 0) {
            return fromExact;
        }
        return switch (move.shape()) {
            case STRAIGHT -> exact(between(audible(from), audible(to), part));
            case BY_VALUE -> between(fromExact, exact(to), part);
            case S_CURVE -> exact(between(audible(from), audible(to), sineSquared(part)));
            case EQUAL_POWER -> exact(fromPower(between(power(from), power(to), sineSquared(part))));
            case POINTS -> exact(through(move.points(), part));
        };
    }

    /**
     * The sine of a quarter turn, squared. Two powers that follow it and its cosine add up to one at any moment, and to or from
     * silence neither jumps, as it would on a straight way of powers: that one is 36 dB below its top a millisecond before its
     * end in 4 s.
     */
    private static double sineSquared(double part) {
        return (1 - Math.cos(Math.PI * part)) / 2;
    }

    private double through(List<Motion.Point> points, double part) {
        double place = 0;
        double amount = audible(from);
        for (Motion.Point point : points) {
            if (part < point.place()) {
                return between(amount, audible(point.amount()), (part - place) / (point.place() - place));
            }
            place = point.place();
            amount = audible(point.amount());
        }
        return between(amount, audible(to), (part - place) / (1 - place));
    }

    private static double between(double one, double other, double part) {
        return one + (other - one) * part;
    }

    /** Silence has no place on an even way in decibels; its neighbour stands for it until the end. */
    private double audible(double amount) {
        return amount == Double.NEGATIVE_INFINITY ? motion.levels().quietest() : amount;
    }

    private double power(double amount) {
        return decibels() ? Math.pow(10, amount / 10) : amount * amount;
    }

    private double fromPower(double power) {
        return decibels() ? audible(10 * Math.log10(power)) : Math.sqrt(Math.max(0, power));
    }

    private boolean decibels() {
        return motion.argument().unit() == Argument.Unit.DECIBELS;
    }

    /** On the wire's scale; what lies off the scale at its nearest end. */
    private double exact(double amount) {
        if (!decibels()) {
            return motion.argument().exact(amount, motion.levels());
        }
        Levels levels = motion.levels();
        if (amount < levels.quietest()) {
            return Math.max(0, levels.exact(levels.lowest()));
        }
        return levels.exact(Math.min(levels.highest(), amount));
    }
}
