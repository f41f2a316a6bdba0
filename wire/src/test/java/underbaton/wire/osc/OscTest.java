package underbaton.wire.osc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.loop.Clock;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Outlet;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Connection.Carrier;
import underbaton.core.signal.Signal;
import underbaton.wire.Link;
import underbaton.wire.SystemClock;
import underbaton.wire.Tshark;
import underbaton.wire.Whereabouts;
import underbaton.wire.session.Wiretap;

class OscTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
    private static final Link.Ear DEAF = new Link.Ear() {
        @Override
        public void heard(Signal signal) {}

        @Override
        public void changed() {}
    };

    private final OscCodec codec = new OscCodec();
    private final List<OscMessage> heard = new CopyOnWriteArrayList<>();

    private OscInlet inlet(int port) throws Exception {
        return new OscInlet(LOOPBACK, port, new SystemClock(), LOOPS, (signal, from) -> {
            OscMessage m = (OscMessage) signal.message();
            heard.add(m);
            return m.arguments().isEmpty() ? List.of(new OscMessage(m.address(), List.of(1))) : List.of();
        });
    }

    private static OscLink link(int port, String question) {
        return new OscLink(new Connection.Osc("127.0.0.1", port, question), new SystemClock(), LOOPS, DEAF);
    }

    /** Open Sound Control 1.0, the document's two examples, from memory. */
    @Test
    void theDocumentsExamplesAreWrittenAndRead() {
        OscMessage frequency = new OscMessage("/oscillator/4/frequency", List.of(440.0f));
        Bytes first = Bytes.ofHex("2F6F7363 696C6C61 746F722F 342F6672 65717565 6E637900 2C660000 43DC0000");
        OscMessage foo = new OscMessage("/foo", List.of(1000, -1, "hello", 1.234f, 5.678f));
        Bytes second = Bytes.ofHex(
                "2F666F6F 00000000 2C696973 66660000 000003E8 FFFFFFFF 68656C6C 6F000000 3F9DF3B6 40B5B22D");
        assertThat(codec.encode(frequency)).isEqualTo(first);
        assertThat(codec.encode(foo)).isEqualTo(second);
        assertThat(codec.decode(first.toArray()))
                .extracting(OscCodec.Read::message)
                .containsExactly(frequency);
        assertThat(codec.decode(second.toArray()))
                .extracting(OscCodec.Read::message)
                .containsExactly(foo);
    }

    @Test
    void noiseIsNoMessageAndNothingIsThrown() {
        Random random = new Random(2);
        for (int i = 0; i < 20_000; i++) {
            byte[] noise = new byte[random.nextInt(64)];
            random.nextBytes(noise);
            if (noise.length > 0) {
                noise[0] = (byte) (i % 2 == 0 ? '/' : '#');
            }
            codec.decode(noise);
        }
        assertThat(codec.decode(new byte[0])).isEmpty();
        String huge = "x".repeat(70_000);
        assertThatThrownBy(() -> codec.encode(new OscMessage("/long", List.of(huge))))
                .isInstanceOf(IllegalArgumentException.class);
    }

    /** A clock that goes so much faster, so that nobody waits for seconds. */
    private static final Clock HURRIED = new Clock() {
        private final Clock real = new SystemClock();

        @Override
        public long nanos() {
            return real.nanos() * 40;
        }

        @Override
        public long epochMicros() {
            return real.epochMicros();
        }
    };

    @Test
    void aMachineThatAnswersFromAnotherPortIsHeard() throws Exception {
        try (DatagramChannel listens = DatagramChannel.open().bind(new InetSocketAddress(LOOPBACK, 0));
                DatagramChannel answers = DatagramChannel.open().bind(new InetSocketAddress(LOOPBACK, 0))) {
            Thread machine = new Thread(() -> {
                ByteBuffer room = ByteBuffer.allocate(500);
                try {
                    while (true) {
                        SocketAddress from = listens.receive(room.clear());
                        answers.send(room.flip(), from);
                    }
                } catch (IOException over) {
                    return;
                }
            });
            machine.start();
            int port = ((InetSocketAddress) listens.getLocalAddress()).getPort();
            Connection.Osc osc = new Connection.Osc("127.0.0.1", port, "/camera/program");
            try (OscLink link = new OscLink(osc, HURRIED, LOOPS, DEAF)) {
                until("reached", () -> link.health().reached());
                assertThat(link.send(new OscMessage("/camera/program", List.of(3))))
                        .isInstanceOf(Outlet.Sent.class);
            }
            listens.close();
            machine.join();
        }
    }

    @Test
    void aNameThatHasMovedIsFollowed() throws Exception {
        AtomicReference<String> at = new AtomicReference<>("127.0.0.2");
        try (OscInlet machine = inlet(0)) {
            Connection.Osc osc = new Connection.Osc("console.local", machine.port(), "");
            Whereabouts where = new Whereabouts(
                    "console.local", machine.port(), host -> new InetAddress[] {InetAddress.getByName(at.get())});
            try (OscLink link = new OscLink(osc, where, HURRIED, LOOPS, DEAF)) {
                at.set("127.0.0.1");
                until("heard at its new address", () -> {
                    link.send(new OscMessage("/scene", List.of(3)));
                    return !heard.isEmpty();
                });
            }
        }
    }

    @Test
    void aMachineThatAnswersIsReachedLostAndReachedAgain() throws Exception {
        OscInlet machine = inlet(0);
        int port = machine.port();
        try (OscLink link = link(port, "/camera/program")) {
            until("reached", () -> link.health().reached());
            assertThat(link.send(new OscMessage("/camera/program", List.of(3)))).isInstanceOf(Outlet.Sent.class);
            until("heard", () -> heard.contains(new OscMessage("/camera/program", List.of(3))));
            assertThat(link.health().roundTripMicros()).isBetween(0L, 10_000_000L);
            machine.close();
            until("lost", () -> {
                link.send(new OscMessage("/camera/program", List.of(2)));
                return !link.health().reached();
            });
            assertThat(link.health().words()).contains("nobody listens at 127.0.0.1 port " + port);
            try (OscInlet back = inlet(port)) {
                until("reached again", () -> link.health().reached());
                assertThat(back.port()).isEqualTo(port);
            }
        }
    }

    @Test
    void midiIsNotSentByOsc() {
        try (OscLink link = link(9, "")) {
            assertThat(link.send(new NoteOn(0, 1, 1))).isInstanceOf(Outlet.NotSent.class);
        }
    }

    /** Independent decoder: tshark's OSC dissector. */
    @Test
    void theNetworkAnalyserReadsWhatWeSend(@TempDir Path folder) throws Exception {
        Path capture = folder.resolve("osc.pcap");
        try (OscInlet machine = inlet(0);
                Wiretap tap = new Wiretap(machine.port(), 1);
                OscLink link = link(tap.port(), "")) {
            until("reached", () -> link.health().reached());
            link.send(new OscMessage("/camera/program", List.of(3, 0.5f, "wide")));
            until("heard", () -> !heard.isEmpty());
            tap.save(capture);
        }
        String printed = Tshark.details(capture, "--enable-heuristic", "osc_udp");
        assertThat(printed)
                .contains("Open Sound Control")
                .contains("/camera/program ,ifs")
                .contains("Int32: 3")
                .contains("Float: 0.5")
                .contains("String: wide")
                .doesNotContain("Malformed");
    }

    @ParameterizedTest
    @EnumSource(
            value = Carrier.class,
            names = {"TCP_SLIP", "TCP_SIZE"})
    void overTcpItIsReachedLostAndReachedAgainInBothFramings(Carrier carrier) throws Exception {
        OscInlet.Ear ear = (signal, from) -> {
            OscMessage m = (OscMessage) signal.message();
            heard.add(m);
            return m.arguments().isEmpty() ? List.of(new OscMessage(m.address(), List.of(192))) : List.of();
        };
        OscTcpInlet machine = new OscTcpInlet(LOOPBACK, 0, new SystemClock(), LOOPS, ear);
        int port = machine.port();
        Connection.Osc connection = new Connection.Osc("127.0.0.1", port, "/camera/program", carrier);
        try (OscLink link = new OscLink(connection, new SystemClock(), LOOPS, DEAF)) {
            until("reached", () -> link.health().reached());
            // 0xC0 and 0xDB are what SLIP has to escape.
            OscMessage awkward = new OscMessage("/level", List.of(0xC0DBDC, "wide"));
            assertThat(link.send(awkward)).isInstanceOf(Outlet.Sent.class);
            until("heard", () -> heard.contains(awkward));
            machine.close();
            until("lost", () -> !link.health().reached());
            try (OscTcpInlet back = again(port, ear)) {
                until("reached again", () -> link.health().reached());
                assertThat(back.port()).isEqualTo(port);
            }
        }
    }

    /** The port of a server that has just gone can stay taken for a moment. */
    private static OscTcpInlet again(int port, OscInlet.Ear ear) throws InterruptedException {
        AtomicReference<OscTcpInlet> inlet = new AtomicReference<>();
        until("the port is free", () -> {
            try {
                inlet.set(new OscTcpInlet(LOOPBACK, port, new SystemClock(), LOOPS, ear));
            } catch (IOException taken) {
                return false;
            }
            return true;
        });
        return inlet.get();
    }

    /** RFC 1055 and the size of OSC 1.0, from memory; cut anywhere, the packets are the same. */
    @Test
    void framesAreFoundHoweverTheStreamIsCut() throws Exception {
        byte[] packet = {0x2F, (byte) 0xC0, (byte) 0xDB, 0x00};
        assertThat(Bytes.copyOf(OscFraming.inSlip(packet)).hex()).isEqualTo("C0 2F DB DC DB DD 00 C0");
        assertThat(Bytes.copyOf(OscFraming.withSize(packet)).hex()).isEqualTo("00 00 00 04 2F C0 DB 00");
        for (byte[] framed : List.of(OscFraming.inSlip(packet), OscFraming.withSize(packet))) {
            OscFraming framing = new OscFraming();
            List<byte[]> found = new ArrayList<>();
            for (int round = 0; round < 2; round++) {
                for (byte octet : framed) {
                    found.addAll(framing.take(new byte[] {octet}, 1));
                }
            }
            assertThat(found).containsExactly(packet, packet);
        }
        assertThatThrownBy(() -> new OscFraming().take(new byte[] {0, (byte) 0xFF, 0, 0}, 4))
                .hasMessageContaining("announced");
    }
}
