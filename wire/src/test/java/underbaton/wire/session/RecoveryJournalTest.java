package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.net.InetAddress;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.SystemClock;
import underbaton.wire.Tshark;

/** The recovery journal, its layout from memory of RFC 6295 §4–5 and appendix A. */
class RecoveryJournalTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();

    private final SentHistory history = new SentHistory();

    private void sent(long packet, MidiMessage... messages) {
        for (MidiMessage message : messages) {
            message.commands().forEach(c -> history.sent(c, packet));
        }
    }

    @Test
    void chaptersAreLaidOutAsInTheDocument() {
        sent(7, new BankProgram(1, 3 << 7 | 5, 9), new ControlChange(1, 7, 100));
        sent(8, new NoteOn(1, 60, 127), new NoteOff(1, 33, 0));
        // A, one channel; checkpoint 1; channel 1, 14 octets, P C N; only the notes are of the packet before.
        assertThat(Bytes.copyOf(history.journal(9, 1000)).hex())
                .isEqualTo("20 00 01 08 0E C8 89 83 05 80 87 64 01 44 3C FF 40");
    }

    @Test
    void whatIsAcknowledgedLeavesTheJournal() {
        sent(1, new ProgramChange(0, 1));
        sent(2, new ControlChange(0, 7, 1));
        history.acknowledged(1);
        assertThat(Bytes.copyOf(history.journal(3, 1000)).hex()).isEqualTo("20 00 02 00 06 40 00 07 01");
        history.acknowledged(2);
        assertThat(history.journal(4, 1000)).isEmpty();
        assertThat(history.isEmpty()).isTrue();
    }

    @Test
    void aLossIsMendedOnceAndOnlyWhereItMatters() {
        Recovery recovery = new Recovery();
        recovery.heard(new ControlChange(0, 7, 100), 1);
        recovery.heard(new NoteOn(0, 1, 127), 1);
        recovery.heard(new NoteOn(0, 2, 127), 1);
        sent(1, new ControlChange(0, 7, 100), new NoteOn(0, 1, 127), new NoteOn(0, 2, 127));
        sent(2, new ProgramChange(0, 5), new NoteOff(0, 2, 0), new NoteOn(0, 3, 90));
        byte[] journal = history.journal(3, 1000);
        assertThat(recovery.mend(ByteBuffer.wrap(journal), 3))
                .containsExactly(new ProgramChange(0, 5), new NoteOff(0, 2, 0), new NoteOn(0, 3, 90));
        assertThat(recovery.mend(ByteBuffer.wrap(history.journal(4, 1000)), 4)).isEmpty();
    }

    @Test
    void theSameLookCalledAgainIsMendedWhenTheFirstCallWasAcknowledged() {
        Recovery recovery = new Recovery();
        recovery.heard(new NoteOn(0, 1, 127), 1);
        sent(1, new NoteOn(0, 1, 127));
        history.acknowledged(1);
        sent(2, new NoteOn(0, 1, 127));
        assertThat(recovery.mend(ByteBuffer.wrap(history.journal(3, 1000)), 3)).containsExactly(new NoteOn(0, 1, 127));
    }

    @Test
    void aJournalOfEverythingStaysInsideAPacket() {
        long packet = 0;
        for (int channel = 0; channel < 16; channel++) {
            for (int number = 0; number < 128; number++) {
                sent(++packet, new ControlChange(channel, number, 1), new NoteOn(channel, number, 1));
            }
        }
        assertThat(history.journal(packet + 1, 900).length).isBetween(400, 900);
    }

    @Test
    void noiseIsNeverThrown() {
        Random random = new Random(6);
        for (int i = 0; i < 50_000; i++) {
            byte[] noise = new byte[random.nextInt(60)];
            random.nextBytes(noise);
            new Recovery().mend(ByteBuffer.wrap(noise), i);
            if (noise.length > 0) {
                CommandReader.journal(ByteBuffer.wrap(noise));
            }
        }
    }

    /** Packets dropped, doubled and exchanged by seed, in both directions, between two real endpoints. */
    @ParameterizedTest
    @ValueSource(ints = {0, 5, 20})
    void theFinalStateIsRightWhateverIsLost(int percent) throws Exception {
        Heard heard = new Heard();
        try (SessionEndpoint machine =
                        new SessionEndpoint("Desk", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> heard.take(m));
                Wiretap cable = new Wiretap(machine.port(), 2);
                SessionEndpoint baton =
                        new SessionEndpoint("Baton", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> {})) {
            Peer peer = baton.invite("127.0.0.1", cable.port(), (p, m, n) -> {});
            until("open", peer::isOpen);
            until("both sides open", () -> machine.peers().stream().anyMatch(Peer::isOpen));
            cable.spoil(percent, new Random(percent));
            Heard sent = new Heard();
            Random random = new Random(100 + percent);
            for (int i = 0; i < 1500; i++) {
                MidiMessage message = random(random);
                sent.take(message);
                peer.send(List.of(message));
                if (i % 10 == 0) {
                    Thread.sleep(1);
                }
            }
            until("the same state", () -> heard.sameStateAs(sent));
            assertThat(heard.triggers)
                    .allSatisfy((note, times) -> assertThat(times).isLessThanOrEqualTo(sent.triggers.get(note)));
            if (percent == 0) {
                assertThat(heard.messages.equals(sent.messages) || sorted(heard).equals(sorted(sent)))
                        .isTrue();
            }
        }
    }

    /** A note’s end may wait for its beginning, so what concerns different notes may change places. */
    private static List<String> sorted(Heard heard) {
        return heard.messages.stream().map(MidiMessage::toString).sorted().toList();
    }

    private static MidiMessage random(Random random) {
        int channel = random.nextInt(3);
        return switch (random.nextInt(5)) {
            case 0 -> new ProgramChange(channel, random.nextInt(128));
            case 1 -> new BankProgram(channel, random.nextInt(0x4000), random.nextInt(128));
            case 2 -> new ControlChange(channel, 1 + random.nextInt(20), random.nextInt(128));
            case 3 -> new NoteOff(channel, random.nextInt(30), 0);
            default -> new NoteOn(channel, random.nextInt(30), 1 + random.nextInt(127));
        };
    }

    /** Appendix A.4: S, P, E (a parameter is chosen and not closed), U, W, Z, ten bits of length; then number, fields, value. */
    @Test
    void aParameterThatIsChosenAndNotClosedIsSaidToBeOpen() {
        sent(1, new ControlChange(0, 101, 0), new ControlChange(0, 100, 2), new ControlChange(0, 6, 64));
        assertThat(Bytes.copyOf(history.journal(2, 1000)).hex()).isEqualTo("20 00 01 00 09 20 20 06 02 00 82 40");
        sent(2, new ControlChange(0, 101, 127), new ControlChange(0, 100, 127));
        assertThat(Bytes.copyOf(history.journal(3, 1000)).hex())
                .as("closed; and choosing nothing is kept, so that what is lost of it is mended")
                .isEqualTo("20 00 01 00 0C 20 00 09 82 00 82 40 7F 7F 02");
    }

    /**
     * Independent decoder: tshark's RTP MIDI dissector reads the journals without complaint. Of chapters N that stand at a packet's end
     * tshark 4.0 calls just those malformed that have more logs than OFFBITS octets (680 of 2,971 by chance, and no other): it gives the
     * list of those octets the length of the list of logs. Here there is one of each.
     */
    @Test
    void theNetworkAnalyserReadsOurJournals(@TempDir Path folder) throws Exception {
        List<MidiMessage> arrived = new CopyOnWriteArrayList<>();
        Path capture = folder.resolve("journal.pcap");
        try (SessionEndpoint machine = new SessionEndpoint(
                        "Desk", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> arrived.add(m));
                Wiretap cable = new Wiretap(machine.port(), 2);
                SessionEndpoint baton =
                        new SessionEndpoint("Baton", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> {})) {
            Peer peer = baton.invite("127.0.0.1", cable.port(), (p, m, n) -> {});
            until("open", peer::isOpen);
            // Feedback is dropped, so the journal grows and every packet carries all of it.
            cable.dropFeedback();
            for (MidiMessage message : List.of(
                    new BankProgram(1, 3 << 7 | 5, 9),
                    new ControlChange(1, 7, 100),
                    new NoteOn(1, 60, 127),
                    new NoteOff(1, 33, 0),
                    new NoteOn(0, 28, 127),
                    new ControlChange(0, 101, 0),
                    new ControlChange(0, 100, 2),
                    new ControlChange(0, 6, 64))) {
                peer.send(List.of(message));
            }
            until("arrived", () -> arrived.size() >= 10);
            cable.save(capture);
        }
        assertThat(Tshark.details(capture))
                .contains("J-Flag: Journal present")
                .contains("Chapter P")
                .contains("Program: 9")
                .contains("Chapter C")
                .contains("Chapter N")
                .containsPattern("1\\. \\.{4}.*Chapter M E-Flag|\\.1.*Chapter M E-Flag")
                .doesNotContain("Malformed");
    }

    /** The state that messages lead to, and how often each note was begun. */
    private static final class Heard {
        private final Map<String, Integer> state = new HashMap<>();
        private final TreeSet<String> sounding = new TreeSet<>();
        private final Map<String, Integer> triggers = new HashMap<>();
        private final List<MidiMessage> messages = new ArrayList<>();

        synchronized void take(MidiMessage message) {
            for (MidiMessage command : message.commands()) {
                messages.add(command);
                if (command instanceof ProgramChange p) {
                    state.put("program " + p.channel(), p.program());
                } else if (command instanceof ControlChange c) {
                    state.put("control " + c.channel() + "/" + c.controller(), c.value());
                } else if (command instanceof NoteOn on) {
                    sounding.add(on.channel() + "/" + on.note());
                    triggers.merge(on.channel() + "/" + on.note(), 1, Integer::sum);
                } else if (command instanceof NoteOff off) {
                    sounding.remove(off.channel() + "/" + off.note());
                }
            }
        }

        synchronized boolean sameStateAs(Heard sent) {
            return state.equals(sent.state) && sounding.equals(sent.sounding);
        }
    }
}
