package underbaton.wire.ports;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Synthesizer;

/** The MIDI ports of this computer, asked anew each time, so that a port plugged in just now is there. */
public final class LocalPorts {

    private LocalPorts() {}

    /** Names of the ports that MIDI can be sent to. */
    public static List<String> outs() {
        return names(d -> d.getMaxReceivers() != 0);
    }

    /** Names of the ports that MIDI comes from. */
    public static List<String> ins() {
        return names(d -> d.getMaxTransmitters() != 0);
    }

    private static List<String> names(Predicate<MidiDevice> kind) {
        return devices().filter(kind).map(LocalPorts::name).distinct().toList();
    }

    static Optional<MidiDevice> out(String name) {
        return devices()
                .filter(d -> d.getMaxReceivers() != 0 && name(d).equals(name))
                .findFirst();
    }

    static Optional<MidiDevice> in(String name) {
        return devices()
                .filter(d -> d.getMaxTransmitters() != 0 && name(d).equals(name))
                .findFirst();
    }

    private static String name(MidiDevice device) {
        return device.getDeviceInfo().getName().strip();
    }

    /** Without the JDK's own synthesizer and sequencer, which are no ports. */
    private static Stream<MidiDevice> devices() {
        return Arrays.stream(MidiSystem.getMidiDeviceInfo())
                .flatMap(info -> {
                    try {
                        return Stream.of(MidiSystem.getMidiDevice(info));
                    } catch (MidiUnavailableException | IllegalArgumentException goneMeanwhile) {
                        return Stream.empty();
                    }
                })
                .filter(d -> !(d instanceof Synthesizer) && !(d instanceof Sequencer));
    }
}
