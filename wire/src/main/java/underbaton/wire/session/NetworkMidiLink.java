package underbaton.wire.session;

import java.util.List;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.Health;
import underbaton.wire.Link;

/** The way out over a network MIDI session that we invite and keep. */
public final class NetworkMidiLink implements Link {

    private final Peer peer;

    public NetworkMidiLink(SessionEndpoint endpoint, String host, int port, Ear ear) {
        this.peer = endpoint.invite(host, port, new SessionEndpoint.Ear() {
            @Override
            public void heard(Peer from, MidiMessage message, long arrivalNanos) {
                ear.heard(message);
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

    @Override
    public Health health() {
        return new Health(
                peer.isOpen(), peer.roundTripMicros(), peer.lossPerCent(), peer.lastHeardNanos(), peer.trouble());
    }

    /** By the session's feedback; for programs, controllers and notes, which is what feedback is kept for. */
    @Override
    public boolean acknowledged() {
        return peer.isOpen() && peer.hasAcknowledgedAll();
    }

    @Override
    public void close() {
        peer.close();
    }
}
