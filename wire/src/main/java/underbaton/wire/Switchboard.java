package underbaton.wire;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Connection;
import underbaton.core.signal.Signal;
import underbaton.wire.osc.OscLink;
import underbaton.wire.ports.LocalMidiLink;
import underbaton.wire.session.NetworkMidiLink;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * Opens the ways out, under one name on the network. Devices with the same connection share one link, which closes when
 * the last of them has given it back. Others may invite us at its port, if they are admitted.
 */
public final class Switchboard implements AutoCloseable {

    private final Clock clock;
    private final Loops loops;
    private final SessionEndpoint endpoint;
    private final Map<Connection, Shared> open = new HashMap<>();

    /** A line with those who use it; the first of them gets what comes in, all hear of its state. */
    private static final class Shared implements Link.Ear {
        private final List<Link.Ear> ears = new CopyOnWriteArrayList<>();
        private Link link;

        @Override
        public void heard(Signal signal) {
            if (!ears.isEmpty()) {
                ears.get(0).heard(signal);
            }
        }

        @Override
        public void changed() {
            ears.forEach(Link.Ear::changed);
        }
    }

    /**
     * @param name what other machines see
     * @param bind the address that sessions are held from
     * @param port the control port at which others may invite us; another one where it is taken
     * @param guests hears those who do; who may is said by {@link #admit}, at first nobody
     */
    public Switchboard(String name, InetAddress bind, int port, Clock clock, Loops loops, SessionEndpoint.Ear guests) {
        this.clock = clock;
        this.loops = loops;
        endpoint = open(name, bind, port, clock, loops, guests);
        endpoint.admit(Door.SHUT);
    }

    /** One that nobody can invite, on any free port. */
    public Switchboard(String name, InetAddress bind, Clock clock, Loops loops) {
        this(name, bind, 0, clock, loops, (peer, message, arrivalNanos) -> {});
    }

    private static SessionEndpoint open(
            String name, InetAddress bind, int port, Clock clock, Loops loops, SessionEndpoint.Ear guests) {
        try {
            return new SessionEndpoint(name, bind, port, clock, loops, guests);
        } catch (IOException taken) {
            if (port == 0) {
                throw new UncheckedIOException(taken);
            }
            return open(name, bind, 0, clock, loops, guests);
        }
    }

    /** The control port at which others may invite us. */
    public int port() {
        return endpoint.port();
    }

    /** Says who may invite us. */
    public void admit(Door door) {
        endpoint.admit(door);
    }

    /** Names of those who have invited us and are here. */
    public List<String> guests() {
        return endpoint.peers().stream()
                .filter(p -> p.isOpen() && !p.weInvited())
                .map(Peer::name)
                .toList();
    }

    /** @param ear told by the link until it is given back; see {@link Shared} for devices on one line */
    public synchronized Link connect(Connection connection, Link.Ear ear) {
        Shared shared = open.get(connection);
        if (shared == null) {
            shared = new Shared();
            open.put(connection, shared);
            shared.ears.add(ear);
            shared.link = newLink(connection, shared);
        } else {
            shared.ears.add(ear);
        }
        return shared.link;
    }

    /** @param ear the one that was given when it was connected */
    public synchronized void giveBack(Connection connection, Link.Ear ear) {
        Shared shared = open.get(connection);
        if (shared != null && shared.ears.remove(ear) && shared.ears.isEmpty()) {
            open.remove(connection);
            shared.link.close();
        }
    }

    private Link newLink(Connection connection, Link.Ear ear) {
        if (connection instanceof Connection.NetworkMidi midi) {
            return new NetworkMidiLink(endpoint, midi.host(), midi.port(), ear);
        }
        if (connection instanceof Connection.PatchBay) {
            return new WithinLink();
        }
        if (connection instanceof Connection.LocalMidi local) {
            return new LocalMidiLink(local.name(), clock, loops, ear);
        }
        return new OscLink((Connection.Osc) connection, clock, loops, ear);
    }

    @Override
    public synchronized void close() {
        open.values().forEach(s -> s.link.close());
        open.clear();
        endpoint.close();
    }
}
