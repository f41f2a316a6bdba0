package underbaton.core.midi;

import java.util.List;

/** One message of MIDI 1.0 (Detailed Specification, MMA/AMEI), complete and with its own status. */
public sealed interface MidiMessage extends Message permits ChannelMessage, SystemCommon, RealTime, Exclusive {

    /** The bytes as they stand on a MIDI cable, status first, without running status. */
    Bytes encode();

    /** The single commands that this message is made of: itself, but for a bank with its program. */
    default List<MidiMessage> commands() {
        return List.of(this);
    }
}
