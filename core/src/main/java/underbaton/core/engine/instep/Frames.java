package underbaton.core.engine.instep;

import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/**
 * How far a machine was given the time code of an item (MIDI Time Code, RP-004/008: four quarter frames a frame; eight of them tell the
 * frame at which the first of them was sent). Positions are ns of the music since the item began. Immutable.
 *
 * @param first the count of the item's first frame in the day
 * @param next the quarter frame that comes next, counted from the item's beginning
 * @param base the quarter frame that was the first of eight
 * @param aheadNanos how much further the code is than the music, since it counts on through vamps
 */
record Frames(Rate rate, long first, long next, long base, long aheadNanos) {

    private static final int QUARTERS = 4;
    private static final int PIECES = 8;

    /** A place is the same when it is nearer than the rounding of a pace, ns. */
    private static final long SAME_NANOS = 1_000;

    /** So many quarter frames may come in one instant, or be waited for; else the machine is told the place anew. */
    private static final int MOST_ASTRAY = 2;

    /** From the first frame that begins at a position or behind it. */
    static Frames from(Rate rate, long first, long position) {
        long quarter = quarterAt(rate, position);
        long frame = (quarter + QUARTERS - 1) / QUARTERS;
        return new Frames(rate, first, frame * QUARTERS, frame * QUARTERS, 0);
    }

    /** The first quarter frame that comes at a position or behind it. */
    private static long quarterAt(Rate rate, long position) {
        long at = Math.max(0, position - SAME_NANOS);
        long begun = rate.quarters(at);
        return rate.quarterNanos(begun) < at ? begun + 1 : begun;
    }

    /** Where in the music the next quarter frame comes. */
    long nextNanos() {
        return rate.quarterNanos(next) - aheadNanos;
    }

    /** The frame at a position. */
    TimeCode at(long position) {
        return code(rate.quarters(Math.max(0, position + aheadNanos)) / QUARTERS);
    }

    /** The frame that is told next. */
    TimeCode place() {
        return code(next / QUARTERS);
    }

    private TimeCode code(long frame) {
        return TimeCode.ofCount(rate, first + frame);
    }

    QuarterFrame message() {
        int piece = (int) ((next - base) % PIECES);
        return QuarterFrame.of(code((next - piece) / QUARTERS), piece);
    }

    Frames sent() {
        return new Frames(rate, first, next + 1, base, aheadNanos);
    }

    /** The music has gone from one position to another, and the machine does not notice. */
    Frames countingOn(long from, long to) {
        return new Frames(rate, first, next, base, aheadNanos + from - to);
    }

    /** Whether it can go on from a position with hardly a quarter frame too soon or too late. */
    boolean isNear(long position) {
        return Math.abs(quarterAt(rate, Math.max(0, position + aheadNanos)) - next) <= MOST_ASTRAY;
    }
}
