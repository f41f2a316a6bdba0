package underbaton.web.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;

/** Tells in a line how a machine is reached and counts, and who shares its line. */
final class WayTold {

    private WayTold() {}

    /** {@code network MIDI at 10.0.0.7:5004, channel 1; programs from 1, note 0 is C−2; told 40 ms early}. */
    static String of(Device device) {
        Connection connection = device.connection();
        String lead = device.leadMs() == 0 ? "" : "; told " + device.leadMs() + " ms early";
        if (connection instanceof Connection.Osc osc) {
            return "OSC " + osc.carrier().words() + " at " + osc.where() + lead;
        }
        Numbering n = device.numbering();
        String way = connection instanceof Connection.LocalMidi
                ? "MIDI port “" + connection.where() + "”"
                : "network MIDI at " + connection.where();
        return way + ", channel " + Numbering.channel(device.channel()) + "; programs from " + n.program(0)
                + ", values " + n.values().range() + ", note 0 is " + n.note(0) + lead;
    }

    /** Warnings about a machine's line: who else is on it, and whether two listen to the same channel. */
    static List<String> clashes(Show show, Device device) {
        List<String> told = new ArrayList<>();
        List<Device> others = show.devices().stream()
                .filter(d -> d.id() != device.id() && d.connection().equals(device.connection()))
                .toList();
        if (others.isEmpty() || !device.connection().carriesMidi()) {
            return told;
        }
        told.add("On this line also: "
                + others.stream()
                        .map(d -> d.name() + " on channel " + Numbering.channel(d.channel()))
                        .collect(Collectors.joining(", "))
                + ".");
        others.stream()
                .filter(d -> d.channel() == device.channel())
                .forEach(d -> told.add(device.name() + " and " + d.name() + " both listen to channel "
                        + Numbering.channel(device.channel())
                        + " of this line: each gets what is meant for the other."));
        return told;
    }
}
