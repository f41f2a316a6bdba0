package underbaton.standins;

import java.util.List;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;

/** What a simulated machine understands. Literal and unforgiving: what it does not know, it ignores. Thread-safe. */
public sealed interface Model {

    /** A machine that listens to MIDI. */
    non-sealed interface Midi extends Model {
        /** @param nanos when it arrived, by the clock of the wire */
        void hear(MidiMessage message, long nanos);

        /** What it says to whoever told it something, once it has heard it. */
        default List<MidiMessage> answers(MidiMessage heard) {
            return List.of();
        }
    }

    /** A machine that listens to OSC. */
    non-sealed interface Osc extends Model {
        /** @return what it answers to whoever spoke */
        List<OscMessage> hear(OscMessage message);
    }
}
