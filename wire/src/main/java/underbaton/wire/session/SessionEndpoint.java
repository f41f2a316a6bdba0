package underbaton.wire.session;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.Door;
import underbaton.wire.Whereabouts;

/**
 * One name on the network with which MIDI sessions (RFC 6295, payload over RTP) are held: it invites others and lets
 * itself be invited, over two neighbouring UDP ports, control N and data N+1.
 *
 * <p>One loop reads both ports and keeps the sessions: it measures the round trip every two seconds, notices within
 * about four seconds when a peer has vanished, and invites it again, first quickly, then every five seconds, for as long
 * as it takes. Sending does not pass through that loop; it goes straight to the socket. What a lost packet said is
 * restored from the next one's recovery journal ({@link SentHistory}, {@link Recovery}).
 *
 * <p>A session is known by its peer's identifier, addresses and token together; whatever fits only in part is nobody's
 * and is passed over. Strangers have a share of their own ({@link GuestLimits}).
 */
public final class SessionEndpoint implements AutoCloseable {

    /** Gets what comes from a peer, on the endpoint's thread; must return at once. */
    public interface Ear {
        /** @param arrivalNanos when the packet was read, by the endpoint's clock; of several commands that much earlier as their sender says */
        void heard(Peer peer, MidiMessage message, long arrivalNanos);

        /** The session opened, closed or was measured anew. */
        default void changed(Peer peer) {}

        /** A packet could not be read to its end. */
        default void trouble(Peer peer, String what) {}
    }

    private static final long MILLI = 1_000_000L;
    private static final long TICK_MILLIS = 100;
    /** While something is under way of which nobody has said that it arrived. */
    private static final long SHORT_TICK_MILLIS = 5;

    /** How long a goodbye waits for the word that what was said before it has come. */
    private static final long LAST_WORD = 500 * MILLI;

    private static final long SYNC_EVERY = 2000 * MILLI;
    private static final long SYNC_RETRY = 500 * MILLI;
    private static final int SYNC_TRIES = 4;
    private static final long ANSWER_WITHIN = 1000 * MILLI;
    /** Sessions may leave a minute between clock questions. */
    private static final long SILENCE_ENDS_SESSION = 75_000 * MILLI;

    private static final long HALF_OPEN_ENDS = 3000 * MILLI;
    private static final long CLOCKLESS_EVERY = 5000 * MILLI;
    static final long CLOCKLESS_SILENCE = 20_000 * MILLI;
    private static final long[] BACK_OFF = {250 * MILLI, 500 * MILLI, 1000 * MILLI, 2000 * MILLI, 5000 * MILLI};

    private final String name;
    private final Clock clock;
    private final Ear guests;
    private final Loops loops;
    private final PortPair ports;
    private final long startNanos;
    private final List<Peer> peers = new CopyOnWriteArrayList<>();
    private final GuestLimits limits = new GuestLimits();
    private final Loop loop;
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
    public SessionEndpoint(String name, InetAddress bind, int port, Clock clock, Loops loops, Ear guests)
            throws IOException {
        this.name = name;
        this.clock = clock;
        this.guests = guests;
        this.loops = loops;
        this.startNanos = clock.nanos();
        ports = new PortPair(bind, port);
        loop = loops.startUrgent("sessions of " + name, this::turn);
    }

    /** The control port; data is the next one. */
    public int port() {
        return ports.number();
    }

    /** Says who may invite us from now on; sessions that are held already go on. */
    public void admit(Door newDoor) {
        door = newDoor;
    }

    /** All with whom a session is held or sought. Any thread. */
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
        return invite(new Whereabouts(host, port), ear);
    }

    /** The same, where names are known by somebody else. */
    Peer invite(Whereabouts where, Ear ear) {
        Peer peer = new Peer(this, where, where.toString(), ear);
        peer.nextActionNanos = clock.nanos();
        loops.once("look up " + where.host(), () -> lookUp(peer));
        return peer;
    }

    private void lookUp(Peer peer) {
        while (!closed && peer.state() != Peer.State.CLOSED) {
            Optional<InetSocketAddress> there = peer.where.next();
            if (there.isPresent()) {
                peer.isAt(there.get());
                peers.add(peer);
                if (peer.state() == Peer.State.CLOSED) {
                    peers.remove(peer);
                }
                ports.wake();
                return;
            }
            peer.become(Peer.State.WAITING, "nobody on this network is called “" + peer.where.host() + "”");
            LockSupport.parkNanos(this, BACK_OFF[BACK_OFF.length - 1]);
        }
    }

    /** It may have another address by now, or another of its addresses may be the one where it can be reached. */
    private void lookAgain(Peer peer) {
        if (peer.where.isNumber() || !peer.lookedUp.compareAndSet(false, true)) {
            return;
        }
        loops.once("look up " + peer.where.host(), () -> {
            Optional<InetSocketAddress> there = peer.where.next();
            if (peer.state() == Peer.State.WAITING) {
                there.ifPresent(peer::isAt);
            }
            peer.lookedUp.set(false);
        });
    }

    long nanos() {
        return clock.nanos();
    }

    /** Session time in units of 100 µs. */
    long now() {
        return (clock.nanos() - startNanos) / 100_000;
    }

    boolean sendData(ByteBuffer packet, InetSocketAddress to) {
        return ports.sendData(packet, to);
    }

    /**
     * Nothing more is said to it. The goodbye goes by the other port and could overtake what was said last, or outlive it: it waits
     * until that has come, on a machine that tells.
     */
    void leave(Peer peer) {
        if (peer.saysItsLast(clock.nanos() + LAST_WORD) && !closed) {
            ports.wake();
        } else {
            part(peer);
        }
    }

    private void part(Peer peer) {
        sayGoodbye(peer);
        peer.become(Peer.State.CLOSED, "closed");
        peers.remove(peer);
    }

    /** To whoever has at least been asked: nobody waits for a session that is over. */
    private void sayGoodbye(Peer peer) {
        boolean begun = peer.state() == Peer.State.OPEN
                || peer.state() == Peer.State.HALF_OPEN
                || peer.state() == Peer.State.INVITED;
        if (begun && peer.control != null) {
            ports.sendControl(new SessionPacket.Goodbye(peer.token, peer.ourSsrc).encode(), peer.control);
        }
    }

    /** Says goodbye to all and gives both ports back; when it returns they are free. */
    @Override
    public void close() {
        if (closed) {
            return;
        }
        peers.forEach(this::leave);
        awaitLastWords();
        closed = true;
        peers.forEach(this::part);
        loop.end();
        ports.wake();
        loop.close();
        try {
            ports.close();
        } catch (IOException gone) {
            peers.clear();
        }
    }

    private void awaitLastWords() {
        long end = clock.nanos() + LAST_WORD;
        while (peers.stream().anyMatch(Peer::isLeaving) && clock.nanos() - end < 0) {
            LockSupport.parkNanos(this, SHORT_TICK_MILLIS * MILLI);
        }
    }

    // ---- the endpoint's loop

    private void turn() throws IOException {
        boolean unsettled = peers.stream().anyMatch(Peer::isUnsettled);
        ports.read(unsettled ? SHORT_TICK_MILLIS : TICK_MILLIS, this::take);
        long now = clock.nanos();
        for (Peer peer : peers) {
            acknowledge(peer);
            peer.guard(now);
            if (peer.hasLeft(now)) {
                part(peer);
            } else if (peer.nextActionNanos - now <= 0) {
                act(peer, now);
            }
        }
    }

    private void take(ByteBuffer datagram, boolean control, InetSocketAddress from) {
        long now = clock.nanos();
        if (SessionPacket.claims(datagram)) {
            SessionPacket.decode(datagram).ifPresent(packet -> keep(packet, control, from, now));
        } else if (!control) {
            RtpHeader.get(datagram).ifPresent(header -> speaking(header.ssrc(), from, false)
                    .filter(Peer::isOpen)
                    .ifPresent(peer -> {
                        stillHere(peer, now);
                        peer.hear(header, datagram, now);
                    }));
        }
    }

    /** One feedback for all packets read in one go; it is what lets the other side forget them. */
    private void acknowledge(Peer peer) {
        if (peer.owesFeedback && peer.isOpen()) {
            peer.owesFeedback = false;
            ports.sendControl(new SessionPacket.Feedback(peer.ourSsrc, peer.window.highest()).encode(), peer.control);
        }
    }

    /** The one of that identifier at that very address; of a machine that also invited us, the session that we keep. */
    private Optional<Peer> speaking(int ssrc, InetSocketAddress from, boolean control) {
        Peer found = null;
        for (Peer p : peers) {
            boolean here = from.equals(control ? p.control : p.data);
            boolean talks = p.state() == Peer.State.OPEN || p.state() == Peer.State.HALF_OPEN;
            if (here && talks && p.ssrc == ssrc && (found == null || p.weInvite)) {
                found = p;
            }
        }
        return Optional.ofNullable(found);
    }

    private void keep(SessionPacket packet, boolean control, InetSocketAddress from, long now) {
        if (packet instanceof SessionPacket.Invitation invitation) {
            if (limits.hears(from.getAddress(), now)) {
                invited(invitation, control, from, now);
            }
        } else if (packet instanceof SessionPacket.Acceptance acceptance) {
            accepted(acceptance, control, from, now);
        } else if (packet instanceof SessionPacket.Rejection rejection) {
            pendingWith(rejection.token(), from, control)
                    .ifPresent(p -> retry(p, now, "it refuses our invitation; allow “" + name + "” to connect there"));
        } else if (packet instanceof SessionPacket.Goodbye goodbye) {
            if (control) {
                takeWhatCameBefore();
            }
            speaking(goodbye.ssrc(), from, control)
                    .filter(p -> p.token == goodbye.token())
                    .ifPresent(p -> farewell(p, now));
        } else if (packet instanceof SessionPacket.Sync sync && !control) {
            speaking(sync.ssrc(), from, false).ifPresent(p -> synchronise(p, sync, now));
        } else if (packet instanceof SessionPacket.Feedback feedback) {
            speaking(feedback.ssrc(), from, control).ifPresent(p -> {
                p.heardAt(now);
                p.acknowledged(feedback.sequence(), now);
            });
        }
    }

    /** What was said before a goodbye waits in the other port. */
    private void takeWhatCameBefore() {
        try {
            ports.readData(this::take);
        } catch (IOException gone) {
            // The loop's next look at the ports meets it too, and tells.
        }
    }

    // ---- being invited

    private void invited(SessionPacket.Invitation in, boolean control, InetSocketAddress from, long now) {
        Optional<Peer> known = peers.stream()
                .filter(p -> !p.weInvite && p.ssrc == in.ssrc())
                .filter(p -> p.control.getAddress().equals(from.getAddress()))
                .findFirst();
        if (!control) {
            known.filter(p -> p.token == in.token()).ifPresent(guest -> {
                guest.data = from;
                guest.become(Peer.State.OPEN, "");
                stillHere(guest, now);
                ports.sendData(new SessionPacket.Acceptance(in.token(), guest.ourSsrc, name).encode(), from);
            });
            return;
        }
        GuestLimits.Room room = limits.roomFor(from.getAddress(), peers);
        boolean welcome = door.admits(in.name(), from.getAddress());
        if (!welcome || known.isEmpty() && !room.there()) {
            // Under a name of the moment: our own identifier in a session is for its peer alone.
            int nobody = ThreadLocalRandom.current().nextInt();
            ports.sendControl(new SessionPacket.Rejection(in.token(), nobody).encode(), from);
            return;
        }
        Peer guest = known.orElseGet(() -> {
            room.leaves().ifPresent(this::part);
            return newGuest(in, from);
        });
        if (guest.token != in.token() || !guest.isOpen()) {
            guest.control = from;
            guest.token = in.token();
            guest.begin();
            guest.become(Peer.State.HALF_OPEN, "it has not opened the data port yet");
            guest.nextActionNanos = now + HALF_OPEN_ENDS;
        }
        guest.heardAt(now);
        ports.sendControl(new SessionPacket.Acceptance(in.token(), guest.ourSsrc, name).encode(), from);
    }

    private Peer newGuest(SessionPacket.Invitation in, InetSocketAddress from) {
        Peer guest = new Peer(this, null, in.name(), guests);
        guest.ssrc = in.ssrc();
        guest.control = from;
        peers.add(guest);
        return guest;
    }

    /** Anything of a guest's shows that it is there: its questions and what it plays. */
    private static void stillHere(Peer peer, long now) {
        peer.heardAt(now);
        if (!peer.weInvite && peer.isOpen()) {
            peer.nextActionNanos = now + SILENCE_ENDS_SESSION;
        }
    }

    // ---- inviting

    /** An answer may be late: one to an earlier invitation with the same token will do, also after we have rested. */
    private Optional<Peer> pendingWith(int token, InetSocketAddress from, boolean control) {
        return peers.stream()
                .filter(p -> p.weInvite && p.token == token && from.equals(control ? p.control : p.data))
                .filter(p -> p.state() != Peer.State.OPEN && p.state() != Peer.State.CLOSED)
                .findFirst();
    }

    private void accepted(SessionPacket.Acceptance ok, boolean control, InetSocketAddress from, long now) {
        speaking(ok.ssrc(), from, control).filter(p -> p.token == ok.token()).ifPresent(p -> p.heardAt(now));
        pendingWith(ok.token(), from, control).ifPresent(peer -> {
            peer.heardAt(now);
            if (control && peer.state() != Peer.State.HALF_OPEN) {
                peer.ssrc = ok.ssrc();
                peer.name = ok.name().isEmpty() ? peer.name : ok.name();
                peer.become(Peer.State.HALF_OPEN, "it answers on its control port but not on its data port");
                peer.nextActionNanos = now + ANSWER_WITHIN;
                ports.sendData(new SessionPacket.Invitation(peer.token, peer.ourSsrc, name).encode(), peer.data);
            } else if (!control && peer.state() == Peer.State.HALF_OPEN && peer.ssrc == ok.ssrc()) {
                peer.tries = 0;
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
        lookAgain(peer);
    }

    /** The session is over; the next one has a token of its own. */
    private void beginAnew(Peer peer, long now, String why) {
        peer.token = ThreadLocalRandom.current().nextInt();
        peer.tries = 0;
        retry(peer, now, why);
    }

    // ---- keeping

    private void farewell(Peer peer, long now) {
        if (peer.weInvite) {
            beginAnew(peer, now, "it closed the session; reconnecting");
        } else {
            peer.become(Peer.State.CLOSED, "it closed the session");
            peers.remove(peer);
        }
    }

    private void synchronise(Peer peer, SessionPacket.Sync in, long now) {
        stillHere(peer, now);
        if (in.count() == 0) {
            ports.sendData(new SessionPacket.Sync(peer.ourSsrc, 1, in.first(), now(), 0).encode(), peer.data);
        } else if (in.count() == 1 && peer.weInvite && peer.isOpen()) {
            long third = now();
            ports.sendData(new SessionPacket.Sync(peer.ourSsrc, 2, in.first(), in.second(), third).encode(), peer.data);
            boolean newest = in.first() == peer.syncStamp;
            if (peer.unanswered > 1 || !newest) {
                peer.unanswered(now, false);
            }
            peer.unanswered = 0;
            peer.answersClock = true;
            peer.clockless = false;
            peer.nextActionNanos = now + SYNC_EVERY;
            if (newest) {
                peer.measured(Math.max(0, (now - peer.syncSentNanos) / 1000));
            }
        }
    }

    private void sync(Peer peer, long now) {
        if (peer.unanswered > 0) {
            peer.unanswered(now, true);
        }
        peer.unanswered++;
        peer.asked(now);
        peer.syncSentNanos = now;
        peer.syncStamp = now();
        peer.nextActionNanos = now + (peer.clockless ? CLOCKLESS_EVERY : SYNC_RETRY);
        ports.sendData(new SessionPacket.Sync(peer.ourSsrc, 0, peer.syncStamp, 0, 0).encode(), peer.data);
    }

    /** A peer's time has come: try again, ask again, or give it up. */
    private void act(Peer peer, long now) {
        if (!peer.weInvite) {
            sayGoodbye(peer);
            peer.become(Peer.State.CLOSED, "nothing heard from it any more");
            peers.remove(peer);
            return;
        }
        switch (peer.state()) {
            case WAITING -> {
                peer.become(Peer.State.INVITED, peer.trouble);
                peer.nextActionNanos = now + ANSWER_WITHIN;
                ports.sendControl(new SessionPacket.Invitation(peer.token, peer.ourSsrc, name).encode(), peer.control);
            }
            case INVITED ->
                retry(
                        peer,
                        now,
                        "no answer at " + peer.control.getHostString() + " port " + peer.control.getPort()
                                + "; is it switched on, and is that its control port?");
            case HALF_OPEN -> retry(peer, now, peer.trouble);
            case OPEN -> ask(peer, now);
            case CLOSED -> peers.remove(peer);
        }
    }

    private void ask(Peer peer, long now) {
        if (peer.unanswered < SYNC_TRIES) {
            sync(peer, now);
        } else if (peer.answersClock) {
            sayGoodbye(peer);
            beginAnew(peer, now, "it stopped answering; inviting it again");
        } else {
            // It has accepted and never told the time. Letting go and inviting again would never end; an invitation
            // that
            // it knows already is answered by most, and shows that it is there.
            peer.clockless = true;
            ports.sendControl(new SessionPacket.Invitation(peer.token, peer.ourSsrc, name).encode(), peer.control);
            sync(peer, now);
            peer.measured(peer.roundTripMicros());
        }
    }
}
