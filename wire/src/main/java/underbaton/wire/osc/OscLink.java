package underbaton.wire.osc;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.SocketTimeoutException;
import java.nio.channels.ClosedSelectorException;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Connection;
import underbaton.core.signal.Signal;
import underbaton.wire.Arrival;
import underbaton.wire.Health;
import underbaton.wire.Link;
import underbaton.wire.Whereabouts;

/**
 * The way out by Open Sound Control, over UDP or a TCP stream that is opened anew whenever it breaks. UDP tells nobody
 * whether a packet arrived; so where the machine has an address that it answers, it is asked every two seconds, and the
 * lamp follows the answers. One that has none counts as reached until the network says that nobody listens there. A
 * stream whose machine takes no data, or answers no more, gets nothing further until it does: what it would read then is
 * old by that time.
 */
public final class OscLink implements Link {

    private static final long ASK_EVERY_NANOS = 2_000_000_000L;
    private static final long LOOK_EVERY_NANOS = 200_000_000L;
    private static final long SILENCE_NANOS = 5_000_000_000L;
    private static final long LOOK_UP_EVERY_NANOS = 60_000_000_000L;
    /** A stream whose question is not answered for so long is not being read. */
    private static final long UNREAD_NANOS = 1_000_000_000L;

    private final Connection.Osc connection;
    private final Whereabouts where;
    private final Clock clock;
    private final Loops loops;
    private final Ear ear;
    private final OscCodec outgoing = new OscCodec();
    private final OscDelay delay;
    private volatile OscWay way;
    /** Where the way leads to. */
    private InetSocketAddress address;
    /** Whether it answers from another port than the one at which it listens. */
    private boolean anyPort;

    private long lookedUpNanos;
    private long openedNanos;
    private volatile boolean closed;
    private volatile boolean stuck;
    private volatile long lastHeardNanos;
    private volatile long lastSentNanos;
    /** When the oldest question that waits for its answer was asked; 0 for none. */
    private volatile long askedNanos;

    private volatile long nextAskNanos;
    private volatile long roundTripMicros = -1;
    private volatile String trouble = "not asked yet";
    private final Loop asker;

    /** Begins to reach for its machine at once, on loops of its own. */
    public OscLink(Connection.Osc connection, Clock clock, Loops loops, Ear ear) {
        this(connection, new Whereabouts(connection.host(), connection.port()), clock, loops, ear);
    }

    /** The same, where names are known by somebody else. */
    OscLink(Connection.Osc connection, Whereabouts where, Clock clock, Loops loops, Ear ear) {
        this.connection = connection;
        this.where = where;
        this.clock = clock;
        this.loops = loops;
        this.ear = ear;
        this.nextAskNanos = clock.nanos();
        this.delay = new OscDelay(clock, loops);
        asker = loops.start("OSC to " + connection.where(), this::keep);
    }

    /**
     * For who knows no rig: a way that asks nothing.
     *
     * @param stream whether it is TCP, framed by SLIP, or else UDP
     */
    public static OscLink to(InetSocketAddress address, boolean stream, Clock clock, Loops loops, Ear ear) {
        Connection.Carrier carrier = stream ? Connection.Carrier.TCP_SLIP : Connection.Carrier.UDP;
        String host = address.getAddress().getHostAddress();
        return new OscLink(new Connection.Osc(host, address.getPort(), "", carrier), clock, loops, ear);
    }

    @Override
    public Outcome send(Message message) {
        if (!(message instanceof OscMessage osc)) {
            return new NotSent("this machine is reached by OSC and the phrase is MIDI");
        }
        OscWay out = way;
        if (out == null) {
            return new NotSent(trouble);
        }
        try {
            if (isUnread()) {
                return new NotSent(unreadWords());
            }
            Bytes bytes = encoded(osc);
            boolean taken = out.write(bytes.toArray());
            say(stuck != !taken, !taken);
            if (!taken) {
                return new NotSent(unreadWords());
            }
            lastSentNanos = clock.nanos();
            askBeside();
            return health().reached() ? new Sent(bytes) : new NotSent(trouble);
        } catch (PortUnreachableException nobodyThere) {
            unreachable();
            return new NotSent(trouble);
        } catch (IOException broken) {
            lost(out, "the connection broke: " + broken.getMessage());
            return new NotSent(trouble);
        } catch (IllegalArgumentException unsayable) {
            return new NotSent("this cannot be sent: " + unsayable.getMessage());
        }
    }

    private Bytes encoded(OscMessage message) {
        synchronized (outgoing) {
            return outgoing.encode(message);
        }
    }

    private boolean isStream() {
        return connection.carrier() != Connection.Carrier.UDP;
    }

    private boolean isUnread() {
        long asked = askedNanos;
        return isStream() && asked != 0 && clock.nanos() - asked > UNREAD_NANOS;
    }

    private String unreadWords() {
        return "it takes no data; what is sent now would come late, so nothing is. Is it stuck?";
    }

    private void say(boolean news, boolean nowStuck) {
        stuck = nowStuck;
        if (news) {
            ear.changed();
        }
    }

    /** Whether a stream is read shows soon only if it is asked soon. */
    private void askBeside() {
        if (isStream() && askedNanos == 0) {
            nextAskNanos = clock.nanos();
            asker.wake();
        }
    }

    @Override
    public Health health() {
        boolean silent = !connection.question().isEmpty() && clock.nanos() - lastHeardNanos > SILENCE_NANOS;
        String words = !trouble.isEmpty()
                ? trouble
                : stuck || isUnread() ? unreadWords() : silent ? "no answer to " + connection.question() : "";
        return new Health(words.isEmpty(), roundTripMicros, -1, lastHeardNanos, words);
    }

    /** By anything heard since; a machine that never answers gives no word. */
    @Override
    public Arrival arrival() {
        if (lastHeardNanos != 0 && lastHeardNanos - lastSentNanos > 0) {
            return Arrival.ARRIVED;
        }
        return connection.question().isEmpty() ? Arrival.NO_WORD : Arrival.AWAITED;
    }

    @Override
    public void close() {
        closed = true;
        asker.end();
        closeWay();
        asker.close();
        delay.close();
    }

    private void closeWay() {
        OscWay open = way;
        way = null;
        askedNanos = 0;
        stuck = false;
        close(open);
    }

    private static void close(OscWay open) {
        if (open != null) {
            try {
                open.close();
            } catch (IOException alreadyGone) {
                // Nothing is left to be closed.
                return;
            }
        }
    }

    /** A stream that broke is opened again at the next turn of the asker. */
    private void lost(OscWay broken, String why) {
        if (way == broken && !closed) {
            trouble = why;
            closeWay();
            nextAskNanos = clock.nanos() + ASK_EVERY_NANOS;
            ear.changed();
        }
    }

    private void unreachable() {
        boolean news = trouble.isEmpty();
        trouble = "nobody listens at " + connection.host() + " port " + connection.port()
                + "; is it switched on, and is that its OSC port?";
        if (news) {
            ear.changed();
        }
    }

    // ---- the asker's loop opens the way and asks; the listener's loop reads

    private void keep() {
        long now = clock.nanos();
        if (nextAskNanos - now <= 0) {
            nextAskNanos = now + ASK_EVERY_NANOS;
            OscWay before = way;
            if (before == null || isToBeOpenedAnew(before, now)) {
                open();
                // What is sent meanwhile goes the old way.
                close(before == way ? null : before);
            }
            ask();
        }
        look();
        LockSupport.parkNanos(this, Math.min(LOOK_EVERY_NANOS, Math.max(1, nextAskNanos - clock.nanos())));
    }

    /** What is left of a packet goes out as soon as the machine takes it. */
    private void look() {
        OscWay out = way;
        try {
            if (out != null && stuck) {
                boolean flows = out.flows();
                say(flows, !flows);
            }
        } catch (IOException broken) {
            lost(out, "the connection broke: " + broken.getMessage());
        }
    }

    private void open() {
        try {
            address = where.next().orElse(null);
            lookedUpNanos = clock.nanos();
            openedNanos = lookedUpNanos;
            if (address == null) {
                trouble = "nobody on this network is called “" + connection.host() + "”";
                return;
            }
            OscWay opened = anyPort ? OscWay.toAnyPortOf(address) : OscWay.open(address, connection.carrier());
            way = opened;
            askedNanos = 0;
            stuck = false;
            if (closed) {
                closeWay();
                return;
            }
            if (connection.question().isEmpty()) {
                trouble = "";
                ear.changed();
            }
            loops.once("OSC from " + connection.where(), () -> listen(opened));
        } catch (ConnectException | SocketTimeoutException nobodyThere) {
            unreachable();
        } catch (IOException failed) {
            trouble = "the network of this machine gave no way out: " + failed.getMessage();
        }
    }

    /**
     * Whether the way has to be opened anew. A name may have moved, or the machine be at another of its addresses; and one that does not
     * answer may do so from another port, which the network hands to nobody who has said from which one he wants to hear.
     */
    private boolean isToBeOpenedAnew(OscWay open, long now) {
        if (anyPort && open.hearsMoreThanItNeeds()) {
            // It was only off: on a way that is bound to its port the network tells at once when it is off again.
            anyPort = false;
            return true;
        }
        if (!where.isNumber() && now - lookedUpNanos > LOOK_UP_EVERY_NANOS) {
            lookedUpNanos = now;
            if (!where.isStillAt(address)) {
                return true;
            }
        }
        boolean silent =
                !connection.question().isEmpty() && now - Math.max(openedNanos, lastHeardNanos) > SILENCE_NANOS;
        if (silent && !isStream() && !anyPort) {
            anyPort = true;
            return true;
        }
        return (silent || !trouble.isEmpty()) && where.hasSeveral() && now - openedNanos > SILENCE_NANOS;
    }

    private void ask() {
        OscWay out = way;
        if (out == null || connection.question().isEmpty()) {
            return;
        }
        try {
            if (!isStream() || askedNanos == 0) {
                // Noted before it leaves: the answer may be here before the next line is.
                long before = askedNanos;
                askedNanos = clock.nanos();
                boolean taken = out.write(encoded(new OscMessage(connection.question(), List.of()))
                        .toArray());
                if (!taken) {
                    askedNanos = before;
                }
            }
            ear.changed();
        } catch (PortUnreachableException nobodyThere) {
            unreachable();
        } catch (IOException broken) {
            lost(out, "the connection broke: " + broken.getMessage());
        }
    }

    private void listen(OscWay in) {
        OscCodec codec = new OscCodec();
        while (!closed && way == in) {
            try {
                for (byte[] packet : in.read()) {
                    heard(codec.decode(packet));
                }
            } catch (PortUnreachableException nobodyThere) {
                unreachable();
            } catch (IOException | ClosedSelectorException ended) {
                lost(in, "the connection broke: " + ended.getMessage());
                return;
            }
        }
    }

    private void heard(List<OscCodec.Read> messages) {
        long now = clock.nanos();
        lastHeardNanos = now;
        boolean news = !trouble.isEmpty();
        trouble = "";
        for (OscCodec.Read read : messages) {
            boolean answer = askedNanos != 0 && read.message().address().equals(connection.question());
            if (answer) {
                roundTripMicros = (now - askedNanos) / 1000;
                news |= now - askedNanos > UNREAD_NANOS;
                askedNanos = 0;
            } else {
                delay.at(read.timeTag(), () -> ear.heard(new Signal(read.message(), read.bytes(), now)));
            }
        }
        if (news) {
            ear.changed();
        }
    }
}
