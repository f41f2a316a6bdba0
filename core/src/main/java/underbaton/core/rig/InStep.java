package underbaton.core.rig;

import underbaton.core.midi.TimeCode;

/**
 * How a machine that has a time of its own is kept in step with the music. Its lead does not count here: clocks and frames leave at
 * their moments, and what a machine makes of them late is set at the machine.
 *
 * @param clock whether it gets the MIDI clock: 24 a quarter, with start, stop, continue and song position
 * @param code whether it gets MIDI Time Code: quarter frames while the music runs, a full frame at each new place
 * @param transport whether it gets MIDI Machine Control: locate and play at each new place, stop when the music stands
 * @param rate of the frames of the code, and of the places of the transport
 * @param vamps what it does in a vamp
 */
public record InStep(boolean clock, boolean code, boolean transport, TimeCode.Rate rate, Vamping vamps) {

    public static final InStep NOT = new InStep(false, false, false, TimeCode.Rate.PAL_25, Vamping.COUNTS_ON);

    /** What a machine does while the music goes round. */
    public enum Vamping {
        /** It goes on without noticing: right for what only takes the tempo. */
        COUNTS_ON("counts on"),
        /** It is sent back with the music: right for what plays the bars themselves. */
        GOES_BACK("goes back with the music");

        private final String words;

        Vamping(String words) {
            this.words = words;
        }

        /** {@code counts on}. */
        public String words() {
            return words;
        }
    }

    /** Whether it is given any of them. */
    public boolean any() {
        return clock || code || transport;
    }
}
