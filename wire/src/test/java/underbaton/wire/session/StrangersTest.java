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
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import underbaton.core.loop.Clock;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SysEx;
import underbaton.core.midi.SystemCommon.SongSelect;
import underbaton.core.midi.SystemCommon.TuneRequest;
import underbaton.wire.Arrival;
import underbaton.wire.Door;
import underbaton.wire.SystemClock;
import underbaton.wire.Tshark;

/** A session is its peer’s alone: what strangers send to it, and what peers of all kinds do, held against a real one. */
class StrangersTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
    private static final int TRIES = 20;

    /** The machine's own clock, which a test can put forward. */
    private static final class Ahead implements Clock {
        private final Clock real = new SystemClock();
        private volatile long aheadNanos;

        @Override
        public long nanos() {
            return real.nanos() + aheadNanos;
        }

        @Override
        public long epochMicros() {
            return real.epochMicros() + aheadNanos / 1000;
        }
    }

    private final Ahead clock = new Ahead();
    private final List<MidiMessage> heard = new CopyOnWriteArrayList<>();
    private final AtomicInteger changes = new AtomicInteger();
    private final SessionEndpoint.Ear ear = new SessionEndpoint.Ear() {
        @Override
        public void heard(Peer peer, MidiMessage message, long arrivalNanos) {
            heard.add(message);
        }

        @Override
        public void changed(Peer peer) {
            changes.incrementAndGet();
        }
    };

    private SessionEndpoint baton;
    private IndependentPeer machine;
    private DatagramChannel stranger;

    @BeforeEach
    void begin() throws Exception {
        baton = new SessionEndpoint("Baton", LOOPBACK, 0, clock, LOOPS, ear);
        machine = new IndependentPeer(LOOPBACK, 3);
        stranger = DatagramChannel.open().bind(new InetSocketAddress(InetAddress.getByName("127.0.0.2"), 0));
    }

    @AfterEach
    void end() throws Exception {
        baton.close();
        machine.close();
        stranger.close();
    }

    private Peer opened() throws Exception {
        Peer peer = baton.invite("127.0.0.1", machine.port(), ear);
        until("open", peer::isOpen);
        return peer;
    }

    private void send(ByteBuffer packet, int port) throws IOException {
        stranger.send(packet, new InetSocketAddress(LOOPBACK, port));
    }

    private static ByteBuffer note(int ssrc, int sequence) {
        return ByteBuffer.allocate(16)
                .put(new byte[] {(byte) 0x80, 0x61})
                .putShort((short) sequence)
                .putInt(0)
                .putInt(ssrc)
                .put(new byte[] {3, (byte) 0x90, 60, 100})
                .flip();
    }

    @Test
    void aGoodbyeEndsASessionOnlyFromItsPeerAndWithItsToken() throws Exception {
        Peer peer = opened();
        for (int i = 0; i < TRIES; i++) {
            send(IndependentPeer.exchange("BY", machine.token(), machine.ssrc()), baton.port());
            send(IndependentPeer.exchange("BY", 99 + i, machine.ssrc()), baton.port());
        }
        // From the machine's own address, but not from its port; and from its port with another session's token.
        try (DatagramChannel beside = DatagramChannel.open().bind(new InetSocketAddress(LOOPBACK, 0))) {
            beside.send(
                    IndependentPeer.exchange("BY", machine.token(), machine.ssrc()),
                    new InetSocketAddress(LOOPBACK, baton.port()));
        }
        peer.send(List.of(new NoteOn(0, 1, 1)));
        until("arrived", () -> peer.arrival() == Arrival.ARRIVED);
        assertThat(peer.isOpen()).isTrue();
        assertThat(changes.get()).isLessThan(10);
    }

    @Test
    void aStrangersPacketsAreNotTheMachines() throws Exception {
        opened();
        send(note(machine.ssrc(), 1), baton.port() + 1);
        send(note(machine.ssrc(), 20_000), baton.port() + 1);
        machine.play(note(machine.ssrc(), 2));
        until("the machine is heard", () -> heard.size() == 1);
        machine.play(note(machine.ssrc(), 3));
        until("and goes on being heard", () -> heard.size() == 2);
    }

    @Test
    void aStrangersClockQuestionKeepsNoDeadMachineAlive() throws Exception {
        Peer peer = opened();
        until("measured", () -> peer.roundTripMicros() >= 0);
        machine.frozen = true;
        ByteBuffer question = ByteBuffer.allocate(36).putShort((short) 0xFFFF).put(new byte[] {'C', 'K'});
        question.putInt(machine.ssrc()).put(new byte[28]).flip();
        until("noticed", () -> {
            try {
                send(question.duplicate(), baton.port() + 1);
            } catch (IOException failed) {
                throw new AssertionError(failed);
            }
            return !peer.isOpen();
        });
        until("and told in words", () -> !peer.trouble().isEmpty());
        machine.frozen = false;
        until("a machine that stood still for seconds is back", peer::isOpen);
        assertThat(machine.goodbyes).isPositive();
    }

    @Test
    void aMachineThatAsksForTheTimeItselfIsStillAsked() throws Exception {
        Peer peer = opened();
        until("measured", () -> peer.roundTripMicros() >= 0);
        machine.answersClock = false;
        long from = System.nanoTime();
        until("noticed", () -> {
            machine.askForTheTime();
            return !peer.isOpen();
        });
        assertThat(System.nanoTime() - from).isLessThan(9_000_000_000L);
    }

    @Test
    void aMachineThatNeverAnswersTheClockDoesNotComeAndGo() throws Exception {
        machine.answersClock = false;
        Peer peer = opened();
        until("known for what it is", () -> peer.trouble().contains("does not answer the clock"));
        int before = changes.get();
        clock.aheadNanos += 12_000_000_000L;
        until("asked again", () -> machine.invitations > 3);
        assertThat(peer.isOpen()).isTrue();
        assertThat(peer.isThere()).isTrue();
        assertThat(changes.get() - before).isLessThan(12);
        machine.frozen = true;
        clock.aheadNanos += 25_000_000_000L;
        until("silent", () -> !peer.isThere());
        assertThat(peer.isOpen()).isTrue();
    }

    @Test
    void thousandsOfInvitationsKeepNoHonestConsoleOut() throws Exception {
        Random random = new Random(9);
        for (int i = 0; i < 10_000; i++) {
            send(IndependentPeer.exchange("IN", random.nextInt(), random.nextInt()), baton.port());
        }
        List<MidiMessage> atConsole = new CopyOnWriteArrayList<>();
        try (SessionEndpoint console =
                new SessionEndpoint("Console", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> atConsole.add(m))) {
            Peer in = console.invite("127.0.0.1", baton.port(), (p, m, n) -> {});
            until("in", in::isOpen);
            assertThat(baton.peers().stream().filter(p -> p.name().startsWith("Desk")))
                    .hasSizeLessThanOrEqualTo(4);
        }
    }

    @Test
    void whatWasLostBeforeTheFirstPacketIsMendedAndThenCounts() throws Exception {
        Peer peer = opened();
        machine.loss = 100;
        peer.send(List.of(new ProgramChange(0, 9)));
        peer.send(List.of(new ControlChange(0, 20, 127)));
        assertThat(peer.arrival()).isEqualTo(Arrival.AWAITED);
        machine.loss = 0;
        until("arrived", () -> peer.arrival() == Arrival.ARRIVED);
        assertThat(machine.executed()).containsExactly("C00900", "B0147F");
    }

    @Test
    void whateverIsSentHasArrivedWhenThePeerSaysSoAndOneThatSaysNothingGivesNoWord() throws Exception {
        Peer peer = opened();
        for (MidiMessage message : List.of(
                new ShowControl(2, 1, ShowControl.Command.GO, "8", "36", ""),
                new SysEx(Bytes.copyOf(new byte[300])),
                new PitchBend(0, 5),
                new PolyPressure(0, 1, 2))) {
            machine.loss = 100;
            peer.send(List.of(message));
            assertThat(peer.arrival()).as("%s", message).isNotEqualTo(Arrival.ARRIVED);
            machine.loss = 0;
            boolean carried = SentHistory.carries(message);
            until("told", () -> peer.arrival() != Arrival.AWAITED || !carried);
            if (carried) {
                assertThat(peer.arrival()).as("%s", message).isEqualTo(Arrival.ARRIVED);
            }
        }
        peer.send(List.of(new NoteOn(0, 1, 1)));
        SysEx dump = new SysEx(Bytes.copyOf(new byte[300]));
        until("arrived", () -> peer.arrival() != Arrival.AWAITED);
        peer.send(List.of(dump));
        until("arrived as well", () -> peer.arrival() == Arrival.ARRIVED);
        machine.givesFeedback = false;
        Peer silent =
                new SessionEndpoint("Other", LOOPBACK, 0, clock, LOOPS, ear).invite("127.0.0.1", machine.port(), ear);
        until("open", silent::isOpen);
        silent.send(List.of(new NoteOn(0, 1, 1)));
        until("no word", () -> silent.arrival() == Arrival.NO_WORD);
        silent.close();
    }

    @Test
    void whoWasHereComesInThroughAShutDoorOnlyIfTheDoorSaysSo() throws Exception {
        try (SessionEndpoint console =
                new SessionEndpoint("Console", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> {})) {
            Peer in = console.invite("127.0.0.1", baton.port(), (p, m, n) -> {});
            until("in", in::isOpen);
            baton.admit(Door.SHUT);
            assertThat(in.isOpen()).isTrue();
            in.close();
            Peer again = console.invite("127.0.0.1", baton.port(), (p, m, n) -> {});
            until("refused", () -> again.trouble().contains("refuses"));
            baton.admit(new Door(Door.Mode.LISTED, List.of("Console")));
            until("in again", again::isOpen);
        }
    }

    @Test
    void whatAGuestPlaysKeepsItsSessionAndSilenceEndsItWithAWord() throws Exception {
        SessionEndpoint console =
                new SessionEndpoint("Console", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> {});
        Peer in = console.invite("127.0.0.1", baton.port(), (p, m, n) -> {});
        until("in", () -> in.isOpen() && baton.peers().stream().anyMatch(Peer::isOpen));
        for (int i = 1; i <= 3; i++) {
            int wanted = i;
            clock.aheadNanos += 60_000_000_000L;
            in.send(List.of(new NoteOn(0, 60, i)));
            until("heard", () -> heard.size() == wanted);
        }
        assertThat(baton.peers()).hasSize(1);
        console.close();
        until("gone", () -> baton.peers().isEmpty());
    }

    /** Independent decoder: tshark reads journals with every chapter that we write, and finds nothing malformed. */
    @Test
    void theNetworkAnalyserReadsEveryChapter(@TempDir Path folder) throws Exception {
        Path capture = folder.resolve("chapters.pcap");
        try (Wiretap cable = new Wiretap(machine.port(), 2)) {
            Peer peer = baton.invite("127.0.0.1", cable.port(), ear);
            until("open", peer::isOpen);
            cable.dropFeedback();
            for (int n = 0; n < 128; n++) {
                peer.send(List.of(new NoteOn(6, n, 1)));
            }
            for (MidiMessage message : List.of(
                    new ProgramChange(1, 9),
                    new ControlChange(1, 20, 127),
                    new ControlChange(1, 20, 127),
                    new ControlChange(1, 101, 0),
                    new ControlChange(1, 100, 2),
                    new ControlChange(1, 6, 64),
                    new ControlChange(1, 38, 1),
                    new ControlChange(1, 99, 3),
                    new ControlChange(1, 98, 4),
                    new ControlChange(1, 6, 5),
                    new PitchBend(1, 0x2345),
                    new NoteOn(1, 60, 100),
                    new ChannelPressure(1, 70),
                    new PolyPressure(1, 60, 71),
                    new SongSelect(5),
                    new TuneRequest(),
                    new ShowControl(2, 1, ShowControl.Command.GO, "8", "36", ""),
                    new SysEx(Bytes.of(0x43, 1)))) {
                peer.send(List.of(message));
            }
            until("all there", () -> machine.executed().size() >= 146);
            cable.save(capture);
        }
        assertThat(machine.largestPacket()).isLessThanOrEqualTo(1400);
        String printed = Tshark.details(capture);
        assertThat(printed)
                .contains("Chapter P", "Chapter C", "Chapter M", "Chapter W", "Chapter N", "Chapter T", "Chapter A")
                .contains("Chapter D", "Chapter X")
                .doesNotContain("Malformed");
        assertThat(printed.lines().filter(l -> l.contains("Expert Info"))).isEmpty();
    }
}
