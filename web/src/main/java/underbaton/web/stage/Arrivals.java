package underbaton.web.stage;

import java.net.InetAddress;
import java.util.Optional;
import org.springframework.stereotype.Component;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Clock;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Wording;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.wire.osc.OscCodec;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/** What comes in, from machines of the rig and from others: logged with who said it. Called on the wires' threads. */
@Component
public class Arrivals implements SessionEndpoint.Ear {

    private final Traffic traffic;
    private final Clock clock;
    private volatile int showId;

    Arrivals(Traffic traffic, Clock clock) {
        this.traffic = traffic;
        this.clock = clock;
    }

    /** The show that those are logged under who belong to none. */
    void belongTo(int openShow) {
        showId = openShow;
    }

    void heard(int ofShow, Optional<Device> device, Message message) {
        log(
                ofShow,
                device.map(Device::id).orElse(0),
                device.map(Device::name).orElse("a line of ours"),
                device.map(Device::numbering).orElse(Numbering.WIRE),
                message);
    }

    /** Somebody who invited us. */
    @Override
    public void heard(Peer peer, MidiMessage message, long arrivalNanos) {
        log(showId, 0, peer.name(), Numbering.WIRE, message);
    }

    /** Somebody who spoke to our OSC port. */
    void heard(InetAddress from, OscMessage message) {
        log(showId, 0, "OSC from " + from.getHostAddress(), Numbering.WIRE, message);
    }

    private void log(int ofShow, int deviceId, String name, Numbering numbering, Message message) {
        Bytes bytes = message instanceof MidiMessage midi ? midi.encode() : new OscCodec().encode((OscMessage) message);
        traffic.add(new Entry(
                0,
                clock.epochMicros(),
                Entry.Direction.IN,
                ofShow,
                deviceId,
                name,
                bytes,
                new Wording(numbering).tell(message),
                "",
                0,
                ""));
    }
}
