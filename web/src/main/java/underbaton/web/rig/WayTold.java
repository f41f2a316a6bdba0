package underbaton.web.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.Numbering;
import underbaton.wire.Arrival;

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
        if (connection instanceof Connection.PatchBay) {
            return "our own patch bay: its phrases load the sets of the page Patch; programs from " + n.program(0);
        }
        String way = connection instanceof Connection.LocalMidi
                ? "MIDI port “" + connection.where() + "”"
                : "network MIDI at " + connection.where();
        return way + ", channel " + Numbering.channel(device.channel()) + "; programs from " + n.program(0)
                + ", values " + n.values().range() + ", note 0 is " + n.note(0) + lead
                + device.inStep().map(WayTold::inStep).orElse("");
    }

    /** {@code ; gets the MIDI clock and time code at 25}. */
    private static String inStep(InStep how) {
        List<String> gets = new ArrayList<>();
        if (how.clock()) {
            gets.add("MIDI clock");
        }
        if (how.code()) {
            gets.add("time code at " + how.rate().words());
        }
        if (how.transport()) {
            gets.add("locate, play and stop");
        }
        return "; gets " + String.join(" and ", gets);
    }

    /**
     * What this machine's line cannot promise; empty where what is lost is noticed and mended.
     *
     * @param arrival what is known of what was sent last, if the show is on the desk
     */
    static String unpromised(Device device, Optional<Arrival> arrival) {
        Connection connection = device.connection();
        if (connection instanceof Connection.Osc osc) {
            return osc.carrier() == Connection.Carrier.UDP
                    ? "What is lost on this line stays lost: OSC over UDP says nothing twice. Put it on a cable, or "
                            + "reach it over TCP where it can be."
                    : "Nothing is lost on this line, but what it has taken over before it stalls still comes, and "
                            + "comes late.";
        }
        boolean mute = connection instanceof Connection.NetworkMidi
                && arrival.filter(a -> a == Arrival.NO_WORD).isPresent();
        return mute
                ? "It never says what it got. If it does not read the journal either, what is lost on the way stays "
                        + "lost: a program or level until the next one, a note or a GO for good. Put it on a cable."
                : "";
    }

    /** Machines that answer by Open Sound Control from one address, as {@link underbaton.web.stage.OscPort} hears them. */
    private static List<String> notToldApart(Show show, Device device) {
        if (!(device.connection() instanceof Connection.Osc here)) {
            return List.of();
        }
        return show.devices().stream()
                .filter(d -> d.id() != device.id()
                        && d.connection() instanceof Connection.Osc osc
                        && osc.host().equalsIgnoreCase(here.host()))
                .map(d ->
                        device.name() + " and " + d.name() + " are both at " + here.host() + ": what comes from there "
                                + (((Connection.Osc) d.connection()).port() == here.port()
                                        ? "by OSC is taken for neither. Give them two ports, or let listeners hear anybody."
                                        : "by OSC is taken for the one from whose port it comes, and from any other port for"
                                                + " neither."))
                .toList();
    }

    /** Warnings about a machine's line: who else is on it, and whether two listen to the same channel. */
    static List<String> clashes(Show show, Device device) {
        List<String> told = new ArrayList<>(notToldApart(show, device));
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
