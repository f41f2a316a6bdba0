package underbaton.standins;

import java.util.Optional;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/** Reads MIDI Time Code as a player does: eight quarter frames in their order are a place, and a full frame is one by itself. */
final class CodeReader {

    private static final int PIECES = 8;
    /** The eighth piece comes two frames after the one that they tell. */
    private static final int BEHIND = 2;

    private final int[] nibbles = new int[PIECES];
    private int came;
    private TimeCode shown;

    /** @return the frame by now; empty where this message does not change it */
    Optional<TimeCode> hear(MidiMessage message) {
        TimeCode before = shown;
        if (message instanceof FullFrame full) {
            shown = full.time();
            came = 0;
        } else if (message instanceof QuarterFrame quarter) {
            came = quarter.piece() == 0 ? 1 : quarter.piece() == came ? came + 1 : 0;
            nibbles[quarter.piece()] = quarter.nibble();
            shown = came == PIECES ? whole() : shown;
        }
        return Optional.ofNullable(shown).filter(s -> s != before);
    }

    private TimeCode whole() {
        Rate rate = Rate.values()[nibbles[7] >> 1];
        int hours = nibbles[6] | (nibbles[7] & 1) << 4;
        int minutes = nibbles[4] | nibbles[5] << 4;
        int seconds = nibbles[2] | nibbles[3] << 4;
        int frames = nibbles[0] | nibbles[1] << 4;
        try {
            long count = new TimeCode(rate, hours, minutes, seconds, frames).count();
            return TimeCode.ofCount(rate, count + BEHIND);
        } catch (IllegalArgumentException noPlace) {
            return shown;
        }
    }
}
