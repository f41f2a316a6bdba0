package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SysEx;
import underbaton.wire.SystemClock;
import underbaton.wire.Tshark;
import underbaton.wire.Whereabouts;

class SessionTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();

    private final List<MidiMessage> heard = new CopyOnWriteArrayList<>();
    private final List<AutoCloseable> open = new ArrayList<>();
    private final SessionEndpoint.Ear ear = (peer, message, nanos) -> heard.add(message);

    private SessionEndpoint endpoint(String name, int port) throws IOException {
        SessionEndpoint endpoint = new SessionEndpoint(name, LOOPBACK, port, new SystemClock(), LOOPS, ear);
        open.add(endpoint);
        return endpoint;
    }

    @AfterEach
    void closeAll() throws Exception {
        for (AutoCloseable one : open) {
            one.close();
        }
    }

    @Test
    void eachAddressOfANameIsTriedAndOneThatMovedIsFound() throws Exception {
        SessionEndpoint machine = endpoint("Machine", 0);
        List<String> at = new CopyOnWriteArrayList<>(List.of("127.0.0.2"));
        Whereabouts where = new Whereabouts("machine.local", machine.port(), host -> {
            InetAddress[] all = new InetAddress[at.size()];
            for (int i = 0; i < all.length; i++) {
                all[i] = InetAddress.getByName(at.get(i));
            }
            return all;
        });
        Peer peer = endpoint("Baton", 0).invite(where, ear);
        at.add("127.0.0.1");
        until("open", peer::isOpen);
    }

    @Test
    void aSessionOpensCarriesMessagesAndMeasuresTheRoundTrip() throws Exception {
        SessionEndpoint listener = endpoint("Desk", 0);
        Peer peer = endpoint("Baton", 0).invite("127.0.0.1", listener.port(), ear);
        until("open", peer::isOpen);
        assertThat(peer.name()).isEqualTo("Desk");
        SysEx large = new SysEx(Bytes.copyOf(new byte[40_000]));
        peer.send(List.of(new NoteOn(0, 28, 127), new ProgramChange(1, 9), large));
        until("heard", () -> heard.size() == 3);
        assertThat(heard).containsExactly(new NoteOn(0, 28, 127), new ProgramChange(1, 9), large);
        until("measured", () -> peer.roundTripMicros() >= 0);
        assertThat(peer.roundTripMicros()).isLessThan(10_000_000);
        assertThat(listener.peers()).singleElement().satisfies(p -> {
            assertThat(p.name()).isEqualTo("Baton");
            assertThat(p.lost()).isZero();
        });
    }

    /** Whoever looks up its name, or asks once more, finds it so. */
    @Test
    void aPeerThatWasClosedStaysClosed() throws Exception {
        Peer peer = endpoint("Baton", 0).invite("nobody.invalid", 5004, ear);
        peer.close();
        peer.become(Peer.State.WAITING, "found after all");
        assertThat(peer.state()).isEqualTo(Peer.State.CLOSED);
        assertThat(peer.isOpen()).isFalse();
    }

    @Test
    void messagesTravelBothWays() throws Exception {
        SessionEndpoint listener = endpoint("Desk", 0);
        Peer peer = endpoint("Baton", 0).invite("127.0.0.1", listener.port(), ear);
        until("open", () -> peer.isOpen() && listener.peers().stream().anyMatch(Peer::isOpen));
        listener.peers().get(0).send(List.of(new ControlChange(0, 66, 127)));
        until("heard", () -> heard.contains(new ControlChange(0, 66, 127)));
    }

    @Test
    void severalPeersHearOnlyWhatIsTheirs() throws Exception {
        SessionEndpoint one = endpoint("One", 0);
        List<MidiMessage> other = new CopyOnWriteArrayList<>();
        SessionEndpoint two =
                new SessionEndpoint("Two", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> other.add(m));
        open.add(two);
        SessionEndpoint baton = endpoint("Baton", 0);
        Peer toOne = baton.invite("127.0.0.1", one.port(), ear);
        Peer toTwo = baton.invite("127.0.0.1", two.port(), ear);
        until("both open", () -> toOne.isOpen() && toTwo.isOpen());
        toOne.send(List.of(new NoteOn(0, 1, 1)));
        toTwo.send(List.of(new NoteOn(0, 2, 2)));
        until("both heard", () -> heard.size() == 1 && other.size() == 1);
        assertThat(heard).containsExactly(new NoteOn(0, 1, 1));
        assertThat(other).containsExactly(new NoteOn(0, 2, 2));
    }

    @Test
    void aPeerThatSaysGoodbyeAndReturnsIsFoundAgain() throws Exception {
        SessionEndpoint listener = endpoint("Desk", 0);
        int port = listener.port();
        Peer peer = endpoint("Baton", 0).invite("127.0.0.1", port, ear);
        until("open", peer::isOpen);
        listener.close();
        until("lost", () -> !peer.isOpen());
        assertThat(peer.send(List.of(new NoteOn(0, 1, 1)))).isFalse();
        assertThat(peer.trouble()).isNotEmpty();
        endpoint("Desk", port);
        until("back", peer::isOpen);
        peer.send(List.of(new NoteOn(0, 2, 2)));
        until("heard", () -> heard.contains(new NoteOn(0, 2, 2)));
    }

    @Test
    void aPeerThatVanishesWithoutAWordIsNoticedAndInvitedAgain() throws Exception {
        SessionEndpoint listener = endpoint("Desk", 0);
        Wiretap cable = new Wiretap(listener.port(), 2);
        Peer peer = endpoint("Baton", 0).invite("127.0.0.1", cable.port(), ear);
        until("open", peer::isOpen);
        cable.close();
        until("noticed", () -> !peer.isOpen());
        assertThat(peer.trouble()).isNotEmpty();
    }

    @Test
    void nobodyThereIsSaidInWords() throws Exception {
        int silent;
        try (DatagramChannel port = DatagramChannel.open().bind(new InetSocketAddress(LOOPBACK, 0))) {
            silent = port.socket().getLocalPort();
        }
        Peer peer = endpoint("Baton", 0).invite("127.0.0.1", silent, ear);
        until("said", () -> peer.trouble().contains("no answer at 127.0.0.1 port " + silent));
    }

    @Test
    void strangersPacketsDisturbNobody() throws Exception {
        SessionEndpoint listener = endpoint("Desk", 0);
        Peer peer = endpoint("Baton", 0).invite("127.0.0.1", listener.port(), ear);
        until("open", peer::isOpen);
        Random random = new Random(4);
        try (DatagramChannel stranger = DatagramChannel.open()) {
            for (int i = 0; i < 2000; i++) {
                byte[] noise = new byte[random.nextInt(80)];
                random.nextBytes(noise);
                if (noise.length > 12) {
                    noise[0] = (byte) (i % 2 == 0 ? 0x80 : 0xFF);
                    noise[1] = (byte) (i % 2 == 0 ? 0x61 : 0xFF);
                }
                stranger.send(ByteBuffer.wrap(noise), new InetSocketAddress(LOOPBACK, listener.port() + i % 2));
            }
        }
        // So many at once can fill the socket's buffer, and then the note is lost with them: it is said until it is
        // heard.
        until("heard", () -> {
            peer.send(List.of(new NoteOn(0, 5, 5)));
            return heard.contains(new NoteOn(0, 5, 5));
        });
        assertThat(heard).containsOnly(new NoteOn(0, 5, 5));
    }

    /** Independent decoder: tshark's dissectors for the session protocol and RTP MIDI. */
    @Test
    void theNetworkAnalyserReadsWhatWeSend(@TempDir Path folder) throws Exception {
        SessionEndpoint listener = endpoint("Desk", 0);
        String printed;
        try (Wiretap tap = new Wiretap(listener.port(), 2)) {
            Peer peer = endpoint("Baton", 0).invite("127.0.0.1", tap.port(), ear);
            until("open", () -> peer.isOpen() && peer.roundTripMicros() >= 0);
            peer.send(List.of(new NoteOn(0, 28, 127)));
            peer.send(List.of(new BankProgram(4, 131, 9), new PitchBend(2, 0x2000)));
            peer.send(List.of(new ShowControl(2, 1, ShowControl.Command.GO, "8", "36", "")));
            until("heard", () -> heard.size() == 6);
            Path capture = folder.resolve("session.pcap");
            tap.save(capture);
            printed = Tshark.details(capture);
        }
        assertThat(printed)
                .contains("Apple Network-MIDI Session Protocol")
                .contains("Invitation (0x494e)")
                .contains("Invitation Accepted (0x4f4b)")
                .contains("Synchronization (0x434b)")
                .contains("Note On (c=1, n=E1, v=127)")
                .contains(": E1 (28)")
                .contains("Bank Select (msb), v=1")
                .contains("Bank Select (lsb), v=3")
                .contains("Program Change (c=5, p=9)")
                .contains("Pitch Bend Change (c=3")
                .contains("Common RT: MIDI Show Control")
                .doesNotContain("Malformed");
    }
}
