package underbaton.web.rig;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.web.page.Typed;

/** A device as it is typed: all blanks are text, the channel counts from 1. */
public record DeviceForm(
        String name,
        String department,
        String wire,
        String host,
        String port,
        String question,
        String channel,
        String programs,
        String values,
        String octaves,
        String lead) {

    private static final String MIDI = "midi";
    private static final String OSC = "osc";

    static DeviceForm of(Device device) {
        boolean osc = device.connection() instanceof Connection.Osc;
        Numbering numbering = device.numbering();
        return new DeviceForm(
                device.name(),
                device.department().name(),
                osc ? OSC : MIDI,
                device.connection().host(),
                Integer.toString(device.connection().port()),
                device.connection() instanceof Connection.Osc o ? o.question() : "",
                Integer.toString(Numbering.channel(device.channel())),
                Integer.toString(numbering.firstProgram()),
                Integer.toString(numbering.firstValue()),
                Integer.toString(numbering.firstOctave()),
                Integer.toString(device.leadMs()));
    }

    /** The blanks of a machine that nobody has described yet. */
    static DeviceForm fresh() {
        return new DeviceForm("", Department.LIGHTS.name(), MIDI, "", "5004", "", "1", "1", "0", "-2", "0");
    }

    /**
     * @param old the device as it was, empty for a new one
     * @throws underbaton.core.rig.Refusal naming the blank that is wrong
     */
    Device toDevice(Optional<Device> old) {
        List<Phrase> phrases = old.map(Device::phrases).orElse(List.of());
        int id = old.map(Device::id).orElse(0);
        Connection connection = OSC.equals(wire)
                ? new Connection.Osc(host, Typed.number("port", port), question == null ? "" : question.strip())
                : new Connection.NetworkMidi(host, Typed.number("port", port));
        // An OSC machine has neither channel nor numbering; the blanks are not on the page then.
        Numbering numbering = new Numbering(
                Typed.number("programs", or(programs, "1")),
                Typed.number("values", or(values, "0")),
                Typed.number("octaves", or(octaves, "-2")));
        return new Device(
                id,
                name,
                Department.valueOf(department.toUpperCase(Locale.ROOT)),
                connection,
                Numbering.wireChannel(Typed.number("channel", or(channel, "1"))),
                numbering,
                Typed.number("lead", or(lead, "0")),
                old.flatMap(Device::list),
                phrases);
    }

    private static String or(String typed, String otherwise) {
        return typed == null || typed.isBlank() ? otherwise : typed;
    }
}
