package underbaton.wire.osc;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.SocketTimeoutException;
import java.util.List;
import java.util.concurrent.ThreadFactory;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Clock;
import underbaton.core.rig.Connection;
import underbaton.wire.Health;
import underbaton.wire.Link;

/**
 * The way out by Open Sound Control, over UDP or a TCP stream that is opened anew whenever it breaks. UDP tells nobody
 * whether a packet arrived; so where the machine has an address that it answers, it is asked every two seconds, and the
 * lamp follows the answers. One that has none counts as reached until the network says that nobody listens there.
 */
public final class OscLink implements Link {

    private static final long ASK_EVERY_MILLIS = 2000;
    private static final long SILENCE_NANOS = 5_000_000_000L;

    private final Connection.Osc connection;
    private final Clock clock;
    private final Ear ear;
    private final OscCodec outgoing = new OscCodec();
    private volatile OscWay way;
    private volatile boolean closed;
    private volatile long lastHeardNanos;
    private volatile long lastSentNanos;
    private volatile long askedNanos;
    private volatile long roundTripMicros = -1;
    private volatile String trouble = "not asked yet";
    private final Thread asker;

    public OscLink(Connection.Osc connection, Clock clock, ThreadFactory threads, Ear ear) {
        this.connection = connection;
        this.clock = clock;
        this.ear = ear;
        asker = threads.newThread(() -> keep(threads));
        asker.start();
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
            Bytes bytes;
            synchronized (outgoing) {
                bytes = outgoing.encode(osc);
            }
            out.write(bytes.toArray());
            lastSentNanos = clock.nanos();
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

    @Override
    public Health health() {
        boolean silent = !connection.question().isEmpty() && clock.nanos() - lastHeardNanos > SILENCE_NANOS;
        String words = trouble.isEmpty() && silent ? "no answer to " + connection.question() : trouble;
        return new Health(words.isEmpty(), roundTripMicros, -1, lastHeardNanos, words);
    }

    /** By anything heard since; a machine that never answers never acknowledges. */
    @Override
    public boolean acknowledged() {
        return lastHeardNanos != 0 && lastHeardNanos - lastSentNanos > 0;
    }

    @Override
    public void close() {
        closed = true;
        asker.interrupt();
        closeWay();
    }

    private void closeWay() {
        OscWay open = way;
        way = null;
        if (open != null) {
            try {
                open.close();
            } catch (IOException alreadyGone) {
                trouble = "closed";
            }
        }
    }

    /** A stream that broke is opened again at the next turn of the asker. */
    private void lost(OscWay broken, String why) {
        if (way == broken && !closed) {
            trouble = why;
            closeWay();
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

    // ---- the asker's thread opens the channel and asks; the listener's thread reads

    private void keep(ThreadFactory threads) {
        while (!closed) {
            try {
                if (way == null) {
                    open(threads);
                }
                ask();
                Thread.sleep(ASK_EVERY_MILLIS);
            } catch (InterruptedException ended) {
                return;
            }
        }
    }

    private void open(ThreadFactory threads) {
        try {
            InetSocketAddress address = new InetSocketAddress(connection.host(), connection.port());
            if (address.isUnresolved()) {
                trouble = "nobody on this network is called “" + connection.host() + "”";
                return;
            }
            OscWay opened = OscWay.open(address, connection.carrier());
            way = opened;
            if (closed) {
                closeWay();
            }
            if (connection.question().isEmpty()) {
                trouble = "";
                ear.changed();
            }
            threads.newThread(() -> listen(opened)).start();
        } catch (ConnectException | SocketTimeoutException nobodyThere) {
            unreachable();
        } catch (IOException failed) {
            trouble = "the network of this machine gave no way out: " + failed.getMessage();
        }
    }

    private void ask() {
        OscWay out = way;
        if (out == null || connection.question().isEmpty()) {
            return;
        }
        try {
            Bytes question;
            synchronized (outgoing) {
                question = outgoing.encode(new OscMessage(connection.question(), List.of()));
            }
            askedNanos = clock.nanos();
            out.write(question.toArray());
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
            } catch (IOException ended) {
                lost(in, "the connection broke: " + ended.getMessage());
                return;
            }
        }
    }

    private void heard(List<OscMessage> messages) {
        long now = clock.nanos();
        lastHeardNanos = now;
        boolean news = !trouble.isEmpty();
        trouble = "";
        for (OscMessage message : messages) {
            boolean answer = askedNanos != 0 && message.address().equals(connection.question());
            if (answer) {
                roundTripMicros = (now - askedNanos) / 1000;
                askedNanos = 0;
            } else {
                ear.heard(message);
            }
        }
        if (news) {
            ear.changed();
        }
    }
}
