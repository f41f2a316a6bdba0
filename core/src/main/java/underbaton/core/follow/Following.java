package underbaton.core.follow;

import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.rig.Refusal;

/**
 * That an item goes by the time of a machine.
 *
 * @param deviceId the machine whose time it is
 * @param rate of the frames that are expected; of no meaning for a clock
 * @param aloneMillis how long it goes on by itself while nothing is heard, 0–60,000 ms; then it holds
 */
public record Following(int deviceId, Kind kind, Rate rate, int aloneMillis) {

    public static final int LONGEST_ALONE_MILLIS = 60_000;
    public static final int USUAL_ALONE_MILLIS = 2_000;

    /** What the machine says. */
    public enum Kind {
        /** MIDI clock with start, stop, continue and song position: 24 a quarter. */
        CLOCK("MIDI clock"),
        /** MIDI Time Code, the item's first frame being where it begins in the day of the code. */
        CODE("time code");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** {@code time code}. */
        public String words() {
            return words;
        }
    }

    public Following {
        if (aloneMillis < 0 || aloneMillis > LONGEST_ALONE_MILLIS) {
            throw new Refusal("alone", "An item goes on by itself for at most 60 seconds; type 0 to 60.");
        }
    }

    /** The same by the time of another machine. */
    public Following of(int newDeviceId) {
        return new Following(newDeviceId, kind, rate, aloneMillis);
    }

    /** {@code time code at 25} or {@code MIDI clock}. */
    public String words() {
        return kind == Kind.CODE ? kind.words() + " at " + rate.words() : kind.words();
    }
}
