package underbaton.core.follow;

import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.rig.Refusal;

/**
 * That an item goes by the time of somebody else: a machine, or a hand that taps the beat.
 *
 * @param deviceId the machine whose time it is; 0 for a hand
 * @param rate of the frames that are expected; of meaning for a code alone
 * @param aloneMillis how long it goes on by itself while nothing is heard, 0–60,000 ms; then it holds; a hand that does not tap is not waited for
 * @param mostPercent by how much of what is written the tempo may change in a bar, 1–50 %; of meaning for a hand alone
 */
public record Following(int deviceId, Kind kind, Rate rate, int aloneMillis, int mostPercent) {

    public static final int LONGEST_ALONE_MILLIS = 60_000;
    public static final int USUAL_ALONE_MILLIS = 2_000;
    public static final int USUAL_PERCENT = 10;
    public static final int LARGEST_PERCENT = 50;

    /** What the machine says. */
    public enum Kind {
        /** MIDI clock with start, stop, continue and song position: 24 a quarter. */
        CLOCK("MIDI clock"),
        /** MIDI Time Code, the item's first frame being where it begins in the day of the code. */
        CODE("time code"),
        /** The beats of its tempo, each of them tapped. */
        TAPS("taps");

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
        if (mostPercent < 1 || mostPercent > LARGEST_PERCENT) {
            throw new Refusal("most", "A tempo changes by 1 to 50 % in a bar; type such a number.");
        }
    }

    /** By the time of a machine, as is usual. */
    public static Following of(int deviceId, Kind kind, Rate rate) {
        return new Following(deviceId, kind, rate, USUAL_ALONE_MILLIS, USUAL_PERCENT);
    }

    /** The same by the time of another machine. */
    public Following of(int newDeviceId) {
        return new Following(newDeviceId, kind, rate, aloneMillis, mostPercent);
    }

    /** {@code time code at 25} or {@code MIDI clock}. */
    public String words() {
        return kind == Kind.CODE ? kind.words() + " at " + rate.words() : kind.words();
    }
}
