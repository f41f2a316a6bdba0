package underbaton.core.engine.out;

import underbaton.core.midi.Message;

/**
 * One message on its way to one device.
 *
 * @param dueNanos when it should leave, by the clock of the events
 * @param wantedNanos when it should have left, had the line been free and the item begun early enough
 * @param bornNanos the moment of the playing that brought it forth
 * @param cause what made us send it
 * @param beforeStart whether it should have left before its item began
 */
public record ScheduledMessage(
        int deviceId,
        Message message,
        long dueNanos,
        long wantedNanos,
        long bornNanos,
        Cause cause,
        boolean beforeStart) {

    /** One that leaves at its moment. */
    public static ScheduledMessage at(long nanos, int deviceId, Message message, Cause cause) {
        return new ScheduledMessage(deviceId, message, nanos, nanos, nanos, cause, false);
    }
}
