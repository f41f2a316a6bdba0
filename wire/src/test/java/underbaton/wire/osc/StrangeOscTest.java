package underbaton.wire.osc;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Outlet;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Connection.Carrier;
import underbaton.core.signal.Signal;
import underbaton.wire.Link;
import underbaton.wire.SystemClock;

/** What is no OSC, too much of it, or a machine that does not read: the port goes on hearing, and the show goes on. */
class StrangeOscTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
    private static final OscMessage GOOD = new OscMessage("/good", List.of(1));
    private static final int DEEP = 3000;

    private final List<OscMessage> heard = new CopyOnWriteArrayList<>();
    private final OscInlet.Ear ear = (signal, from) -> {
        heard.add((OscMessage) signal.message());
        return List.of();
    };

    private static byte[] bundle(byte[]... elements) {
        int size = 16;
        for (byte[] e : elements) {
            size += 4 + e.length;
        }
        ByteBuffer out = ByteBuffer.allocate(size);
        out.put("#bundle\0".getBytes(StandardCharsets.US_ASCII)).putLong(OscElements.AT_ONCE);
        for (byte[] e : elements) {
            out.putInt(e.length).put(e);
        }
        return out.array();
    }

    private static byte[] good() {
        return new OscCodec().encode(GOOD).toArray();
    }

    /** A bundle in a bundle in a bundle: a reader that calls itself would end with a stack overflow. */
    @Test
    void threeThousandBundlesWithinEachOtherHarmNothing() throws Exception {
        byte[] deep = good();
        for (int i = 0; i < DEEP; i++) {
            deep = bundle(deep);
        }
        assertThat(new OscCodec().decode(deep)).isEmpty();
        try (OscInlet inlet = new OscInlet(LOOPBACK, 0, new SystemClock(), LOOPS, ear);
                DatagramSocket stranger = new DatagramSocket()) {
            stranger.send(new DatagramPacket(deep, deep.length, LOOPBACK, inlet.port()));
            stranger.send(new DatagramPacket(good(), good().length, LOOPBACK, inlet.port()));
            until("the port hears on", () -> heard.contains(GOOD));
        }
        assertThat(heard).containsExactly(GOOD);
    }

    /** OSC 1.0: a receiver that does not know a type discards that message; its neighbours are read. */
    @Test
    void whatStandsBesideAnUnknownTypeIsRead() {
        byte[] unknown = "/odd\0\0\0\0,z\0\0\0\0\0\1".getBytes(StandardCharsets.ISO_8859_1);
        byte[] lies =
                ByteBuffer.allocate(20).put(bundle()).putInt(Integer.MAX_VALUE).array();
        List<Bytes> unread = new ArrayList<>();
        assertThat(new OscCodec().decode(bundle(good(), unknown, bundle(good()), lies, good()), unread::add))
                .extracting(OscCodec.Read::message)
                .containsExactly(GOOD, GOOD, GOOD);
        assertThat(unread).as("and it is told").containsExactly(Bytes.copyOf(unknown));
    }

    @Test
    void manySmallMessagesInOnePacketAreBounded() {
        byte[][] many = Collections.nCopies(5000, "/a\0\0,\0\0\0".getBytes(StandardCharsets.US_ASCII))
                .toArray(new byte[0][]);
        assertThat(new OscCodec().decode(bundle(many))).hasSize(OscElements.MOST_MESSAGES);
    }

    /** One address takes no more than its share of the places, so that the next machine finds one. */
    @Test
    void callersOfOneAddressHaveAShareOfThePlaces() throws Exception {
        List<Socket> callers = new ArrayList<>();
        try (OscTcpInlet inlet = new OscTcpInlet(LOOPBACK, 0, new SystemClock(), LOOPS, ear)) {
            for (int i = 0; i < 40; i++) {
                callers.add(new Socket(LOOPBACK, inlet.port()));
            }
            int hungUp = 0;
            for (Socket caller : callers) {
                caller.setSoTimeout(300);
                hungUp += isHungUp(caller) ? 1 : 0;
            }
            assertThat(hungUp).isEqualTo(32);
            try (Socket elsewhere = new Socket(LOOPBACK, inlet.port(), InetAddress.getByName("127.0.0.2"), 0)) {
                elsewhere.getOutputStream().write(OscFraming.withSize(good()));
                until("another address is heard", () -> heard.contains(GOOD));
            }
        } finally {
            for (Socket caller : callers) {
                caller.close();
            }
        }
    }

    private static boolean isHungUp(Socket caller) {
        try {
            return caller.getInputStream().read() < 0;
        } catch (java.net.SocketTimeoutException stillOpen) {
            return false;
        } catch (IOException reset) {
            return true;
        }
    }

    /** A machine that holds its connection and reads nothing: no send waits for it, and the lamp says what is wrong. */
    @Test
    void aMachineThatDoesNotReadHoldsUpNobody() throws Exception {
        OscMessage large = new OscMessage("/text", List.of("x".repeat(8000)));
        try (ServerSocket stuck = new ServerSocket(0, 1, LOOPBACK);
                OscLink link = new OscLink(
                        new Connection.Osc("127.0.0.1", stuck.getLocalPort(), "", Carrier.TCP_SIZE),
                        new SystemClock(),
                        LOOPS,
                        DEAF)) {
            until("reached", () -> link.health().reached());
            long longest = 0;
            int refusedInARow = 0;
            // One refusal is not yet the end: the system's own buffers may grow a little and take some more.
            for (int i = 0; i < 5000 && refusedInARow < 10; i++) {
                long before = System.nanoTime();
                refusedInARow = link.send(large) instanceof Outlet.NotSent ? refusedInARow + 1 : 0;
                longest = Math.max(longest, System.nanoTime() - before);
                Thread.sleep(refusedInARow > 0 ? 50 : 0);
            }
            assertThat(refusedInARow).isEqualTo(10);
            assertThat(link.health().words()).contains("takes no data");
            // Far above what a shared machine may take, far below any timeout of a socket.
            assertThat(longest).isLessThan(TimeUnit.SECONDS.toNanos(5));
            assertThat(link.send(GOOD)).isInstanceOf(Outlet.NotSent.class);
        }
    }

    private static final Link.Ear DEAF = new Link.Ear() {
        @Override
        public void heard(Signal signal) {}

        @Override
        public void changed() {}
    };
}
