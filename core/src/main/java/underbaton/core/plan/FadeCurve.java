package underbaton.core.plan;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
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
 * so that a line is never asked for more than it carries. The next change is solved for, not searched moment by moment: between two
 * bends of the curve it rises or falls all the way, so an hour that changes nothing costs no more than a second. Immutable.
 *
 * <p>What goes out as a float has no values of its own: it is sent in eight places for each of the wire's 127, at most a hundred times a
 * second (common practice), and always the exact amount at the end.
 */
public final class FadeCurve {

    /** Between two looks, ns: a three-byte message takes a DIN line 960 µs (MIDI 1.0). */
    public static final long STEP_NANOS = 1_000_000;

    private static final long FLOAT_STEP_NANOS = 10_000_000;
    private static final int FLOAT_PLACES = 8;

    /** The bends of a wave: each form rises or falls all the way within a quarter of its period. */
    private static final int BENDS = 4;

    private final PlannedMotion motion;
    /** How many places a value of the wire has. */
    private final int places;

    private final double from;
    private final double to;
    private final double fromExact;

    /** @param exact where the control stands, 0–127 of the wire's scale */
    FadeCurve(PlannedMotion motion, double exact) {
        this.motion = motion;
        Argument.Unit unit = motion.argument().unit();
        boolean whole = unit == Argument.Unit.VALUE || unit == Argument.Unit.SWITCH;
        this.places = motion.open() instanceof OscMessage && !whole ? FLOAT_PLACES : 1;
        this.fromExact = exact;
        this.to = motion.target();
        this.from = motion.argument().amountAt(exact, motion.levels());
    }

    /**
     * A message on the way.
     *
     * @param atNanos since the motion began
     * @param place what it sends, as {@link #placeOf} counts
     */
    public record Step(long atNanos, int place, Message message) {}

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

    /** A value on the wire's scale as a count of what can be told apart: whole values, or parts of them where floats are sent. */
    public int placeOf(double exact) {
        return (int) Math.round(exact * places);
    }

    /** The other way round. @return 0–127 on the wire's scale */
    public double exactOf(int place) {
        return (double) place / places;
    }

    private int placeAt(long nanos) {
        return placeOf(exactAt(nanos));
    }

    /**
     * The next message.
     *
     * @param afterNanos when the last one left, since the motion began
     * @param place what it said, as {@link #placeOf} counts; −1 when none has left
     * @param gapNanos between two looks, 1 or above
     * @return empty when no further one comes
     */
    public Optional<Step> next(long afterNanos, int place, long gapNanos) {
        long gap = places > 1 ? Math.max(gapNanos, FLOAT_STEP_NANOS) : gapNanos;
        long end = motion.lastsNanos() > 0 ? motion.lastsNanos() : Long.MAX_VALUE;
        if (afterNanos >= end) {
            return Optional.empty();
        }
        if (place < 0) {
            return Optional.of(step(0));
        }
        OptionalLong change = change(afterNanos + gap, place, gap, end);
        if (change.isPresent()) {
            return Optional.of(step(change.getAsLong()));
        }
        boolean endsElsewhere =
                end != Long.MAX_VALUE && (placeAt(end) != place || !message(end).equals(message(afterNanos)));
        return endsElsewhere ? Optional.of(step(end)) : Optional.empty();
    }

    private Step step(long nanos) {
        return new Step(nanos, placeAt(nanos), message(nanos));
    }

    /** The first look before the end at which another place is sent; empty where there is none. */
    private OptionalLong change(long first, int place, long gap, long end) {
        long at = first;
        int flat = 0;
        // Behind the farthest look there is none: below 0 the count has run over.
        while (at >= 0 && at < end && flat <= BENDS + 1) {
            long bend = Math.min(end, bendAfter(at));
            // The last look before the bend.
            long last = at + (bend - 1 - at) / gap * gap;
            if (placeAt(at) != place) {
                return OptionalLong.of(at);
            }
            if (placeAt(last) != place) {
                return OptionalLong.of(between(at, last, place, gap));
            }
            at = last + gap;
            // A wave that changes nothing in a whole period never does; the bends of a move are few.
            flat += motion.periodNanos() > 0 ? 1 : 0;
        }
        return OptionalLong.empty();
    }

    /** Of looks among which the place changes once, the first at which it has. */
    private long between(long same, long other, int place, long gap) {
        long low = same;
        long high = other;
        while (high - low > gap) {
            long middle = low + (high - low) / gap / 2 * gap;
            if (placeAt(middle) == place) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return high;
    }

    /** The next moment behind this one up to which the curve rises or falls all the way. */
    private long bendAfter(long nanos) {
        if (motion.periodNanos() > 0) {
            long bends = nanos * BENDS / motion.periodNanos();
            return Math.max(nanos + 1, ((bends + 1) * motion.periodNanos() + BENDS - 1) / BENDS);
        }
        if (motion.motion() instanceof Motion.Move move && move.shape() == Motion.Shape.POINTS) {
            for (Motion.Point point : move.points()) {
                long bend = (long) (point.place() * motion.lastsNanos());
                if (bend > nanos) {
                    return bend;
                }
            }
        }
        return Long.MAX_VALUE;
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
        return Argument.withValue(motion.open(), (int) Math.round(exactAt(nanos)));
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
