package underbaton.wire.session;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.net.UnknownHostException;
import java.nio.ByteBuffer;
import java.nio.channels.ClosedSelectorException;
import java.nio.channels.DatagramChannel;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.ThreadLocalRandom;
import underbaton.core.midi.MidiMessage;
import underbaton.core.perform.Clock;

/**
 * One name on the network with which MIDI sessions (RFC 6295, payload over RTP) are held: it invites others and lets
 * itself be invited, over two neighbouring UDP ports, control N and data N+1.
 *
 * <p>One thread reads both ports and keeps the sessions: it measures the round trip every two seconds, notices within
 * about four seconds when a peer has vanished, and invites it again, first quickly, then every five seconds, for as long
 * as it takes. Sending does not pass through that thread; it goes straight to the socket. What a lost packet said is
 * restored from the next one's recovery journal ({@link SentHistory}, {@link Recovery}).
 */
public final class SessionEndpoint implements AutoCloseable {

    /** Gets what comes from a peer, on the endpoint's thread; must return at once. */
    public interface Ear {
        /** @param arrivalNanos when the packet was read, by the endpoint's clock */
        void heard(Peer peer, MidiMessage message, long arrivalNanos);

        /** The session opened, closed or was measured anew. */
        default void changed(Peer peer) {}

        /** A packet could not be read to its end. */
        default void trouble(Peer peer, String what) {}
    }

    private static final long MILLI = 1_000_000L;
    private static final long TICK_MILLIS = 100;
    private static final long SYNC_EVERY = 2000 * MILLI;
    private static final long SYNC_RETRY = 500 * MILLI;
    private static final int SYNC_TRIES = 4;
    private static final long ANSWER_WITHIN = 1000 * MILLI;
    private static final long SILENCE_ENDS_SESSION = 15_000 * MILLI;
    private static final long[] BACK_OFF = {250 * MILLI, 500 * MILLI, 1000 * MILLI, 2000 * MILLI, 5000 * MILLI};
    private static final long CLOSING_MILLIS = 2000;
    private static final int MOST_PEERS = 64;
    private static final int LARGEST_DATAGRAM = 65_535;
    private static final int PORT_TRIES = 50;

    private final String name;
    private final Clock clock;
    private final Ear guests;
    private final ThreadFactory threads;
    private final DatagramChannel control;
    private final DatagramChannel data;
    private final Selector selector;
    private final int ssrc = ThreadLocalRandom.current().nextInt();
    private final long startNanos;
    private final List<Peer> peers = new CopyOnWriteArrayList<>();
    private final ByteBuffer incoming = ByteBuffer.allocate(LARGEST_DATAGRAM);
    private final Thread thread;
    private volatile boolean closed;
    private volatile Door door = Door.ANYONE;

    /**
     * Opens both ports and starts keeping sessions.
     *
     * @param name what others see
     * @param bind the address to listen on
     * @param port the control port, or 0 for any free pair
     * @param guests hears those who invite us
     * @throws IOException when the ports cannot be had
     */
    public SessionEndpoint(String name, InetAddress bind, int port, Clock clock, ThreadFactory threads, Ear guests)
            throws IOException {
        this.name = name;
        this.clock = clock;
        this.guests = guests;
        this.threads = threads;
        this.startNanos = clock.nanos();
        DatagramChannel[] pair = openPair(bind, port);
        control = pair[0];
        data = pair[1];
        selector = Selector.open();
        control.configureBlocking(false).register(selector, SelectionKey.OP_READ);
        data.configureBlocking(false).register(selector, SelectionKey.OP_READ);
        thread = threads.newThread(this::run);
        thread.start();
    }

    private static DatagramChannel[] openPair(InetAddress bind, int port) throws IOException {
        IOException last = null;
        for (int i = 0; i < (port == 0 ? PORT_TRIES : 1); i++) {
            DatagramChannel first = DatagramChannel.open();
            DatagramChannel second = DatagramChannel.open();
            try {
                first.bind(new InetSocketAddress(bind, port));
                int got = ((InetSocketAddress) first.getLocalAddress()).getPort();
                second.bind(new InetSocketAddress(bind, got + 1));
                return new DatagramChannel[] {first, second};
            } catch (IOException | IllegalArgumentException taken) {
                last = new IOException(
                        "UDP ports " + port + " and " + (port + 1) + " cannot be had: " + taken.getMessage(), taken);
                first.close();
                second.close();
            }
        }
        throw last;
    }

    /** The control port; data is the next one. */
    public int port() {
        return control.socket().getLocalPort();
    }

    /** Says who may invite us from now on; sessions that are held already go on. */
    public void admit(Door newDoor) {
        door = newDoor;
    }

    public List<Peer> peers() {
        return List.copyOf(peers);
    }

    /**
     * Invites another endpoint, and again whenever it is lost, until the peer is closed.
     *
     * @param host name or address; looked up off this thread
     * @param port its control port
     */
    public Peer invite(String host, int port, Ear ear) {
        Peer peer = new Peer(this, true, host + ":" + port, ear);
        peer.nextActionNanos = clock.nanos();
        threads.newThread(() -> lookUp(peer, host, port)).start();
        return peer;
    }

    private void lookUp(Peer peer, String host, int port) {
        while (!closed && peer.state() != Peer.State.CLOSED) {
            try {
                InetAddress address = InetAddress.getByName(host);
                peer.control = new InetSocketAddress(address, port);
                peer.data = new InetSocketAddress(address, port + 1);
                peers.add(peer);
                if (peer.state() == Peer.State.CLOSED) {
                    peers.remove(peer);
                }
                selector.wakeup();
                return;
            } catch (UnknownHostException unknown) {
                peer.become(Peer.State.WAITING, "nobody on this network is called “" + host + "”");
                try {
                    Thread.sleep(BACK_OFF[BACK_OFF.length - 1] / MILLI);
                } catch (InterruptedException ended) {
                    return;
                }
            }
        }
    }

    int ssrc() {
        return ssrc;
    }

    long nanos() {
        return clock.nanos();
    }

    /** Session time in units of 100 µs. */
    long now() {
        return (clock.nanos() - startNanos) / 100_000;
    }

    boolean sendData(ByteBuffer packet, SocketAddress to) {
        return send(data, packet, to);
    }

    private static boolean send(DatagramChannel channel, ByteBuffer packet, SocketAddress to) {
        try {
            return channel.send(packet, to) > 0;
        } catch (IOException | RuntimeException unreachable) {
            return false;
        }
    }

    void leave(Peer peer) {
        boolean wasOpen = peer.isOpen();
        peer.become(Peer.State.CLOSED, "closed");
        peers.remove(peer);
        if (wasOpen) {
            send(control, new SessionPacket.Goodbye(peer.token, ssrc).encode(), peer.control);
        }
    }

    /** Says goodbye to all and gives both ports back; when it returns they are free. */
    @Override
    public void close() {
        if (closed) {
            return;
        }
        closed = true;
        peers.forEach(this::leave);
        selector.wakeup();
        try {
            if (Thread.currentThread() != thread) {
                thread.join(CLOSING_MILLIS);
            }
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    // ---- the endpoint's thread

    private void run() {
        try (selector;
                control;
                data) {
            while (!closed) {
                selector.select(TICK_MILLIS);
                selector.selectedKeys().clear();
                drain(control);
                drain(data);
                long now = clock.nanos();
                for (Peer peer : peers) {
                    acknowledge(peer);
                    peer.guard(now);
                    if (peer.nextActionNanos - now <= 0) {
                        act(peer, now);
                    }
                }
            }
        } catch (IOException | ClosedSelectorException end) {
            closed = true;
            peers.forEach(p -> p.become(Peer.State.CLOSED, "the network of this machine failed: " + end.getMessage()));
        }
    }

    private void drain(DatagramChannel channel) throws IOException {
        incoming.clear();
        SocketAddress from = receive(channel);
        while (from != null) {
            incoming.flip();
            long now = clock.nanos();
            if (SessionPacket.claims(incoming)) {
                Optional<SessionPacket> packet = SessionPacket.decode(incoming);
                if (packet.isPresent()) {
                    keep(packet.get(), channel, (InetSocketAddress) from, now);
                }
            } else if (channel == data) {
                hear(now);
            }
            incoming.clear();
            from = receive(channel);
        }
    }

    /** A refused port of one peer must not stop us from reading the others. */
    private SocketAddress receive(DatagramChannel channel) throws IOException {
        try {
            return channel.receive(incoming);
        } catch (java.net.PortUnreachableException nobodyThere) {
            return null;
        }
    }

    /** One feedback for all packets read in one go; it is what lets the other side forget them. */
    private void acknowledge(Peer peer) {
        if (peer.owesFeedback && peer.isOpen()) {
            peer.owesFeedback = false;
            send(control, new SessionPacket.Feedback(ssrc, peer.window.highest()).encode(), peer.control);
        }
    }

    private void hear(long now) {
        RtpHeader.get(incoming)
                .ifPresent(header ->
                        find(header.ssrc()).filter(Peer::isOpen).ifPresent(p -> p.hear(header, incoming, now)));
    }

    private Optional<Peer> find(int peerSsrc) {
        return peers.stream()
                .filter(p -> p.ssrc == peerSsrc && p.state() != Peer.State.WAITING)
                .findFirst();
    }

    private void keep(SessionPacket packet, DatagramChannel channel, InetSocketAddress from, long now) {
        if (packet instanceof SessionPacket.Invitation invitation) {
            invited(invitation, channel, from, now);
        } else if (packet instanceof SessionPacket.Acceptance acceptance) {
            accepted(acceptance, channel, now);
        } else if (packet instanceof SessionPacket.Rejection rejection) {
            pendingWith(rejection.token())
                    .ifPresent(p -> retry(p, now, "it refuses our invitation; allow “" + name + "” to connect there"));
        } else if (packet instanceof SessionPacket.Goodbye goodbye) {
            find(goodbye.ssrc()).ifPresent(p -> farewell(p, now));
        } else if (packet instanceof SessionPacket.Sync sync) {
            find(sync.ssrc()).ifPresent(p -> synchronise(p, sync, now));
        } else if (packet instanceof SessionPacket.Feedback feedback) {
            find(feedback.ssrc()).ifPresent(p -> p.acknowledged(feedback.sequence()));
        }
    }

    // ---- being invited

    private void invited(SessionPacket.Invitation in, DatagramChannel channel, InetSocketAddress from, long now) {
        Optional<Peer> known =
                peers.stream().filter(p -> !p.weInvite && p.ssrc == in.ssrc()).findFirst();
        if (channel == control) {
            boolean welcome = door.admits(in.name(), from.getAddress());
            if (known.isEmpty() && (!welcome || peers.size() >= MOST_PEERS)) {
                send(control, new SessionPacket.Rejection(in.token(), ssrc).encode(), from);
                return;
            }
            Peer guest = known.orElseGet(() -> newGuest(in));
            guest.control = from;
            guest.token = in.token();
            guest.begin();
            guest.become(Peer.State.HALF_OPEN, "it has not opened the data port yet");
        } else {
            known.ifPresent(guest -> {
                guest.data = from;
                guest.become(Peer.State.OPEN, "");
            });
        }
        known.or(() -> peers.stream().filter(p -> p.ssrc == in.ssrc()).findFirst())
                .ifPresent(guest -> {
                    guest.heardAt(now);
                    guest.nextActionNanos = now + SILENCE_ENDS_SESSION;
                    send(channel, new SessionPacket.Acceptance(in.token(), ssrc, name).encode(), from);
                });
    }

    private Peer newGuest(SessionPacket.Invitation in) {
        Peer guest = new Peer(this, false, in.name(), guests);
        guest.ssrc = in.ssrc();
        peers.add(guest);
        return guest;
    }

    // ---- inviting

    private Optional<Peer> pendingWith(int token) {
        return peers.stream()
                .filter(p -> p.weInvite && p.token == token)
                .filter(p -> p.state() == Peer.State.INVITED || p.state() == Peer.State.HALF_OPEN)
                .findFirst();
    }

    private void accepted(SessionPacket.Acceptance ok, DatagramChannel channel, long now) {
        pendingWith(ok.token()).ifPresent(peer -> {
            peer.heardAt(now);
            if (channel == control && peer.state() == Peer.State.INVITED) {
                peer.ssrc = ok.ssrc();
                peer.name = ok.name().isEmpty() ? peer.name : ok.name();
                peer.become(Peer.State.HALF_OPEN, "it answers on its control port but not on its data port");
                peer.nextActionNanos = now + ANSWER_WITHIN;
                send(data, new SessionPacket.Invitation(peer.token, ssrc, name).encode(), peer.data);
            } else if (channel == data && peer.state() == Peer.State.HALF_OPEN) {
                peer.tries = 0;
                peer.unanswered = 0;
                peer.begin();
                peer.become(Peer.State.OPEN, "");
                sync(peer, now);
            }
        });
    }

    private void retry(Peer peer, long now, String why) {
        peer.become(Peer.State.WAITING, why);
        peer.nextActionNanos = now + BACK_OFF[Math.min(peer.tries, BACK_OFF.length - 1)];
        peer.tries++;
    }

    // ---- keeping

    private void farewell(Peer peer, long now) {
        if (peer.weInvite) {
            retry(peer, now, "it said goodbye; inviting it again");
        } else {
            peer.become(Peer.State.CLOSED, "it said goodbye");
            peers.remove(peer);
        }
    }

    private void synchronise(Peer peer, SessionPacket.Sync in, long now) {
        peer.heardAt(now);
        if (in.count() == 0) {
            peer.nextActionNanos = now + SILENCE_ENDS_SESSION;
            sendData(new SessionPacket.Sync(ssrc, 1, in.first(), now(), 0).encode(), peer.data);
        } else if (in.count() == 1 && peer.weInvite && peer.isOpen()) {
            long third = now();
            sendData(new SessionPacket.Sync(ssrc, 2, in.first(), in.second(), third).encode(), peer.data);
            peer.unanswered = 0;
            peer.nextActionNanos = now + SYNC_EVERY;
            if (in.first() == peer.syncStamp) {
                peer.answered(true);
                peer.measured(Math.max(0, (now - peer.syncSentNanos) / 1000));
            } else {
                peer.answeredLate();
            }
        }
    }

    private void sync(Peer peer, long now) {
        if (peer.unanswered > 0) {
            peer.answered(false);
        }
        peer.unanswered++;
        peer.syncSentNanos = now;
        peer.syncStamp = now();
        peer.nextActionNanos = now + SYNC_RETRY;
        sendData(new SessionPacket.Sync(ssrc, 0, peer.syncStamp, 0, 0).encode(), peer.data);
    }

    /** A peer's time has come: try again, ask again, or give it up. */
    private void act(Peer peer, long now) {
        if (!peer.weInvite) {
            peer.become(Peer.State.CLOSED, "nothing heard from it for 15 s");
            peers.remove(peer);
            return;
        }
        switch (peer.state()) {
            case WAITING -> {
                peer.token = ThreadLocalRandom.current().nextInt();
                peer.become(Peer.State.INVITED, peer.trouble);
                peer.nextActionNanos = now + ANSWER_WITHIN;
                send(control, new SessionPacket.Invitation(peer.token, ssrc, name).encode(), peer.control);
            }
            case INVITED ->
                retry(
                        peer,
                        now,
                        "no answer at " + peer.control.getHostString() + " port " + peer.control.getPort()
                                + "; is it switched on, and is that its control port?");
            case HALF_OPEN -> retry(peer, now, peer.trouble);
            case OPEN -> {
                if (peer.unanswered >= SYNC_TRIES) {
                    peer.tries = 0;
                    retry(peer, now, "it stopped answering; inviting it again");
                } else {
                    sync(peer, now);
                }
            }
            case CLOSED -> peers.remove(peer);
        }
    }
}
