package underbaton.web.stage;

import java.net.InetAddress;
import java.util.Optional;
import java.util.function.BiConsumer;
import org.springframework.stereotype.Component;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.MidiMessage;
import underbaton.core.perform.Clock;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Wording;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * The one inbox: what comes in, from machines of the rig and from others, is logged with who said it, when it was read and
 * its bytes as they came. Strangers have a share of the log and no more ({@link StrangerShare}). Called on the wires'
 * threads.
 */
@Component
public class Arrivals implements SessionEndpoint.Ear {

    private final Traffic traffic;
    private final Clock clock;
    private final StrangerShare share;
    private volatile int showId;
    private volatile BiConsumer<Source, Signal> listening = (source, signal) -> {};

    Arrivals(Traffic traffic, Clock clock) {
        this.traffic = traffic;
        this.clock = clock;
        this.share = new StrangerShare(clock);
    }

    /** Is told of all that comes in, strangers' share of it alone; on the wires' threads, must return at once. */
    void listen(BiConsumer<Source, Signal> newListening) {
        listening = newListening;
    }

    /** The show that those are logged under who belong to none. */
    void belongTo(int openShow) {
        showId = openShow;
    }

    void heard(int ofShow, Optional<Device> device, Signal signal) {
        listening.accept(
                device.map(Source::of).orElse(new Source(Source.OTHERS, "a line of ours", Numbering.WIRE)), signal);
        log(
                ofShow,
                device.map(Device::id).orElse(0),
                device.map(Device::name).orElse("a line of ours"),
                device.map(Device::numbering).orElse(Numbering.WIRE),
                signal);
    }

    /** Somebody who invited us. */
    @Override
    public void heard(Peer peer, MidiMessage message, long arrivalNanos) {
        stranger(peer.name(), Signal.of(message, arrivalNanos));
    }

    /** Somebody who spoke to our OSC port. */
    void heard(InetAddress from, Signal signal) {
        stranger("OSC from " + from.getHostAddress(), signal);
    }

    private void stranger(String name, Signal signal) {
        StrangerShare.Verdict verdict = share.of(name);
        if (verdict.untold() > 0) {
            tell(
                    showId,
                    0,
                    name,
                    Bytes.NONE,
                    "and " + verdict.untold() + " more messages in that second, which are not listed",
                    clock.epochMicros());
        }
        if (verdict.listed()) {
            listening.accept(new Source(Source.OTHERS, name, Numbering.WIRE), signal);
            log(showId, 0, name, Numbering.WIRE, signal);
        }
    }

    private void log(int ofShow, int deviceId, String name, Numbering numbering, Signal signal) {
        long ageMicros = (clock.nanos() - signal.arrivalNanos()) / 1000;
        String meaning = new Wording(numbering).tell(signal.message());
        tell(ofShow, deviceId, name, signal.bytes(), meaning, clock.epochMicros() - Math.max(0, ageMicros));
    }

    private void tell(int ofShow, int deviceId, String name, Bytes bytes, String meaning, long epochMicros) {
        traffic.add(new Entry(0, epochMicros, Entry.Direction.IN, ofShow, deviceId, name, bytes, meaning, "", 0, ""));
    }
}
