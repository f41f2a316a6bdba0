package underbaton.core.engine.instep;

import underbaton.core.midi.SystemCommon.SongPosition;
import underbaton.core.score.BeatUnit;
import underbaton.core.score.TempoMap;

/**
 * How far a machine was given the MIDI clock of an item (MIDI 1.0: 24 clocks a quarter whatever the meter; a song position is told in
 * units of six clocks). Positions are ns of the music since the item began. Immutable.
 *
 * @param next the clock that comes next, 0 for the one at the beginning of the item
 * @param aheadTicks how much further the machine counts than the music, since it counts on through vamps
 * @param begins whether the machine is told to run just before it
 */
record Beats(long next, long aheadTicks, boolean begins) {

    private static final int CLOCK_TICKS = BeatUnit.QUARTER_TICKS / 24;
    private static final int UNIT_CLOCKS = 6;
    private static final int LAST_UNIT = 0x3FFF;

    /** A place is the same when it is nearer than the rounding of a pace, ns. */
    private static final long SAME_NANOS = 1_000;

    /** So many clocks may come in one instant, and no more: a machine takes more for a much faster tempo. */
    private static final int MOST_AT_ONCE = 2;

    /** So many clocks may be waited for before the machine is told the place anew. */
    private static final int MOST_WAITED = UNIT_CLOCKS;

    /** From the first place behind a position that can be told. */
    static Beats from(TempoMap tempi, long position) {
        long clock = clockAt(tempi, position, 0);
        return new Beats(Math.floorDiv(clock + UNIT_CLOCKS - 1, UNIT_CLOCKS) * UNIT_CLOCKS, 0, true);
    }

    /** The first clock that comes at a position or behind it. */
    private static long clockAt(TempoMap tempi, long position, long ahead) {
        if (position <= SAME_NANOS) {
            return Math.floorDiv(ahead + CLOCK_TICKS - 1, CLOCK_TICKS);
        }
        long tick = tempi.tick(position) + ahead;
        long clock = Math.floorDiv(tick, CLOCK_TICKS);
        while (nanos(tempi, clock, ahead) < position - SAME_NANOS) {
            clock++;
        }
        return clock;
    }

    private static long nanos(TempoMap tempi, long clock, long ahead) {
        return tempi.nanos(Math.max(0, clock * CLOCK_TICKS - ahead));
    }

    /** Where in the music the next clock comes. */
    long nextNanos(TempoMap tempi) {
        return nanos(tempi, next, aheadTicks);
    }

    boolean startsAtTheTop() {
        return next == 0;
    }

    /** Whether the place of the next clock can be told: the first 1,024 bars of four quarters. */
    boolean canBeTold() {
        return next / UNIT_CLOCKS <= LAST_UNIT;
    }

    SongPosition place() {
        return new SongPosition((int) (next / UNIT_CLOCKS));
    }

    Beats sent() {
        return new Beats(next + 1, aheadTicks, false);
    }

    /** The music has gone from one position to another, and the machine does not notice. */
    Beats countingOn(TempoMap tempi, long from, long to) {
        return new Beats(next, aheadTicks + tempi.tick(from) - tempi.tick(to), begins);
    }

    /** Whether it can go on from a position with hardly a clock too soon or too late. */
    boolean isNear(TempoMap tempi, long position) {
        long behind = clockAt(tempi, position, aheadTicks) - next;
        return behind <= MOST_AT_ONCE && behind >= -MOST_WAITED;
    }
}
