package underbaton.core.follow;

import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.SongPosition;

/**
 * What a sender of MIDI clock has said (MIDI 1.0): 24 clocks a quarter, start, stop, continue, and song positions in units of six clocks.
 * The first clock behind a start is the one at the beginning of the song. Clocks that tick while it does not run, as those of many
 * keyboards do, say nothing of the place. Immutable.
 *
 * @param next the clock that comes next, 0 for the first of the song
 * @param known whether that is known: a start or a song position has come
 * @param runs whether it was started, and not stopped since
 * @param told whether a clock has come since it runs
 * @param run counts each new place: a start, a song position that is another one
 * @param atNanos when a clock that counts came last, by the clock of the events
 */
public record ClockHeard(long next, boolean known, boolean runs, boolean told, int run, long atNanos) {

    public static final ClockHeard NOTHING = new ClockHeard(0, false, false, false, 0, Long.MIN_VALUE);

    private static final int UNIT_CLOCKS = 6;

    /** Whether a message is of a clock at all. */
    public static boolean is(MidiMessage message) {
        return message == RealTime.CLOCK
                || message == RealTime.START
                || message == RealTime.CONTINUE
                || message == RealTime.STOP
                || message instanceof SongPosition;
    }

    /** @param nanos when it arrived, by the clock of the events */
    public ClockHeard heard(MidiMessage message, long nanos) {
        if (message == RealTime.CLOCK) {
            return runs ? new ClockHeard(next + 1, known, true, true, run, nanos) : this;
        } else if (message == RealTime.START) {
            return new ClockHeard(0, true, true, false, run + 1, nanos);
        } else if (message == RealTime.CONTINUE) {
            return new ClockHeard(next, known, true, false, runs ? run : run + 1, nanos);
        } else if (message == RealTime.STOP) {
            return new ClockHeard(next, known, false, false, run, atNanos);
        } else if (message instanceof SongPosition place) {
            long there = (long) place.sixteenths() * UNIT_CLOCKS;
            return new ClockHeard(there, true, runs, false, known && there == next ? run : run + 1, atNanos);
        }
        return this;
    }

    /** The same with all its moments so many ns later. */
    ClockHeard shifted(long nanos) {
        return equals(NOTHING) ? this : new ClockHeard(next, known, runs, told, run, atNanos + nanos);
    }
}
