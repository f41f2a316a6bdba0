package underbaton.core.midi;

/**
 * One thing said on a wire. A phrase can speak MIDI or Open Sound Control, so the two stand side by side here.
 */
public sealed interface Message permits MidiMessage, OscMessage {

    /**
     * The same message for a device that listens on the given channel.
     *
     * @param channel 0–15; added to the message's own channel, which in a phrase counts from the device's
     * @return this message where it has no channel
     */
    default Message shiftedTo(int channel) {
        return this;
    }
}
