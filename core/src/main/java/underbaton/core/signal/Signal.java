package underbaton.core.signal;

import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;

/**
 * A message that has arrived.
 *
 * @param bytes as they came, without what carried them
 * @param arrivalNanos when they were read, by the clock of whoever reads
 */
public record Signal(Message message, Bytes bytes, long arrivalNanos) {

    /** A MIDI message, whose bytes say just what it says. */
    public static Signal of(MidiMessage message, long arrivalNanos) {
        return new Signal(message, message.encode(), arrivalNanos);
    }
}
