package underbaton.wire;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.ThreadFactory;
import underbaton.core.midi.MidiMessage;
import underbaton.core.perform.Clock;
import underbaton.core.rig.Connection;
import underbaton.wire.osc.OscLink;
import underbaton.wire.session.NetworkMidiLink;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * Opens the ways out, under one name on the network. Devices with the same connection share one link, which closes when
 * the last of them has given it back.
 */
public final class Switchboard implements AutoCloseable {

    private final Clock clock;
    private final ThreadFactory threads;
    private final SessionEndpoint endpoint;
    private final Map<Connection, Shared> open = new HashMap<>();

    private static final class Shared {
        private final Link link;
        private int users;

        Shared(Link link) {
            this.link = link;
        }
    }

    /**
     * @param name what other machines see
     * @param bind the address that sessions are held from
     */
    public Switchboard(String name, InetAddress bind, Clock clock, ThreadFactory threads) {
        this.clock = clock;
        this.threads = threads;
        try {
            endpoint = new SessionEndpoint(name, bind, 0, clock, threads, new SessionEndpoint.Ear() {
                @Override
                public void heard(Peer peer, MidiMessage message, long arrivalNanos) {
                    // Nobody is told of our port, so nobody invites us.
                }
            });
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** @param ear told by the link if this call opens it; devices that share a link share the first one's ear */
    public synchronized Link connect(Connection connection, Link.Ear ear) {
        Shared shared = open.computeIfAbsent(connection, c -> new Shared(newLink(c, ear)));
        shared.users++;
        return shared.link;
    }

    public synchronized void giveBack(Connection connection) {
        Shared shared = open.get(connection);
        if (shared != null && --shared.users == 0) {
            open.remove(connection);
            shared.link.close();
        }
    }

    private Link newLink(Connection connection, Link.Ear ear) {
        if (connection instanceof Connection.NetworkMidi midi) {
            return new NetworkMidiLink(endpoint, midi.host(), midi.port(), ear);
        }
        return new OscLink((Connection.Osc) connection, clock, threads, ear);
    }

    @Override
    public synchronized void close() {
        open.values().forEach(s -> s.link.close());
        open.clear();
        endpoint.close();
    }
}
