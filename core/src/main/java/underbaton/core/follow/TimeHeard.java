package underbaton.core.follow;

import underbaton.core.midi.MidiMessage;

/** What a machine has said of its time. Immutable. */
public record TimeHeard(CodeHeard code, ClockHeard clock) {

    public static final TimeHeard NOTHING = new TimeHeard(CodeHeard.NOTHING, ClockHeard.NOTHING);

    /** Whether a message says anything of a time. */
    public static boolean is(MidiMessage message) {
        return CodeHeard.is(message) || ClockHeard.is(message);
    }

    /** @param nanos when it arrived, by the clock of the events */
    public TimeHeard heard(MidiMessage message, long nanos) {
        return CodeHeard.is(message)
                ? new TimeHeard(code.heard(message, nanos), clock)
                : new TimeHeard(code, clock.heard(message, nanos));
    }

    /** The same with all its moments so many ns later. */
    public TimeHeard shifted(long nanos) {
        return new TimeHeard(code.shifted(nanos), clock.shifted(nanos));
    }
}
