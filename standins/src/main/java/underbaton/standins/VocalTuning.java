package underbaton.standins;

import java.util.List;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/** A tuner for voices: programs 0–11 are the major keys from C upwards, 12–23 the minor ones. Nothing else is heard. */
public final class VocalTuning implements Model.Midi {

    private static final List<String> KEYS = List.of("C", "D♭", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B");
    private static final int CHANNEL = 6;

    private volatile String key = "C major";

    @Override
    public void hear(MidiMessage message, long nanos) {
        if (message instanceof ProgramChange p && p.channel() == CHANNEL && p.program() < 2 * KEYS.size()) {
            key = KEYS.get(p.program() % KEYS.size()) + (p.program() < KEYS.size() ? " major" : " minor");
        }
    }

    /** {@code E♭ minor}. */
    public String key() {
        return key;
    }
}
