package underbaton.core.traffic;

import underbaton.core.midi.Bytes;

/**
 * One line of the log.
 *
 * @param number counts up from 1 in the order of the log
 * @param epochMicros when it left or came, µs since 1970
 * @param bytes empty when nothing left
 * @param meaning the message in the device's own numbers
 * @param cause what made us send it; empty for what came in
 * @param lateMicros how long after its due time it left, µs; 0 for what came in
 * @param trouble why it did not leave; empty when all went well
 */
public record Entry(
        long number,
        long epochMicros,
        Direction direction,
        int showId,
        int deviceId,
        String device,
        Bytes bytes,
        String meaning,
        String cause,
        long lateMicros,
        String trouble) {

    /** Seen from us. */
    public enum Direction {
        OUT,
        IN,
        /** Neither: an order that was given here. */
        ORDER
    }

    /** What was ordered: GO, a jump, an edit that is taken over. */
    public static Entry order(long epochMicros, int showId, String what) {
        return new Entry(0, epochMicros, Direction.ORDER, showId, 0, "", Bytes.NONE, what, "", 0, "");
    }

    Entry numbered(long newNumber) {
        return new Entry(
                newNumber,
                epochMicros,
                direction,
                showId,
                deviceId,
                device,
                bytes,
                meaning,
                cause,
                lateMicros,
                trouble);
    }
}
