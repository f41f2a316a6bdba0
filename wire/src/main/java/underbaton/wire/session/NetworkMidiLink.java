package underbaton.wire.session;

import java.util.List;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.signal.Signal;
import underbaton.wire.Arrival;
import underbaton.wire.Health;
import underbaton.wire.Link;

/** The way out over a network MIDI session that we invite and keep. */
public final class NetworkMidiLink implements Link {

    private final Peer peer;

    /** Invites the machine at once; the invitation is repeated until it is taken up. */
    public NetworkMidiLink(SessionEndpoint endpoint, String host, int port, Ear ear) {
        this.peer = endpoint.invite(host, port, new SessionEndpoint.Ear() {
            @Override
            public void heard(Peer from, MidiMessage message, long arrivalNanos) {
                ear.heard(Signal.of(message, arrivalNanos));
            }

            @Override
            public void changed(Peer which) {
                ear.changed();
            }
        });
    }

    @Override
    public Outcome send(Message message) {
        if (!(message instanceof MidiMessage midi)) {
            return new NotSent("this machine is reached by MIDI and the phrase is OSC");
        }
        if (!peer.isOpen()) {
            return new NotSent(peer.trouble());
        }
        return peer.send(List.of(midi)) ? new Sent(midi.encode()) : new NotSent("the network did not take it");
    }

    /** A datagram, which the network takes or drops. */
    @Override
    public boolean isPrompt() {
        return true;
    }

    @Override
    public Health health() {
        return new Health(
                peer.isThere(), peer.roundTripMicros(), peer.lossPerCent(), peer.lastHeardNanos(), peer.trouble());
    }

    /** By the session's feedback, which names the packets that came. */
    @Override
    public Arrival arrival() {
        return peer.isOpen() ? peer.arrival() : Arrival.AWAITED;
    }

    @Override
    public void close() {
        peer.close();
    }
}
