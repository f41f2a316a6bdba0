package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.SystemClock;

/** A goodbye goes by the other port than what is played: it may neither overtake it nor leave it to a packet that was lost. */
class LastWordTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
    private static final SessionEndpoint.Ear DEAF = (peer, message, nanos) -> {};

    private static SessionEndpoint endpoint(String name, SessionEndpoint.Ear ear) throws IOException {
        return new SessionEndpoint(name, LOOPBACK, 0, new SystemClock(), LOOPS, ear);
    }

    @Test
    void whatIsSaidLastComesBeforeTheGoodbyeOnALineThatLosesHalf() throws Exception {
        try (SessionEndpoint baton = endpoint("Baton", DEAF)) {
            for (int seed = 1; seed <= 10; seed++) {
                try (IndependentPeer machine = new IndependentPeer(LOOPBACK, seed)) {
                    Peer peer = baton.invite("127.0.0.1", machine.port(), DEAF);
                    until("open", peer::isOpen);
                    peer.send(List.of(new NoteOn(0, 1, 1)));
                    until("answered", () -> !peer.isUnsettled());
                    machine.loss = 50;
                    peer.send(List.of(new NoteOn(0, 2, 2)));
                    peer.close();
                    assertThat(peer.send(List.of(new NoteOn(0, 3, 3)))).isFalse();
                    until("gone", () -> machine.goodbyes > 0);
                    assertThat(machine.executed()).containsExactly("900101", "900202");
                    until("closed", () -> peer.state() == Peer.State.CLOSED);
                }
            }
        }
    }

    @Test
    void aMachineThatIsSilentKeepsNobodyWaiting() throws Exception {
        try (IndependentPeer machine = new IndependentPeer(LOOPBACK, 1);
                SessionEndpoint baton = endpoint("Baton", DEAF)) {
            Peer peer = baton.invite("127.0.0.1", machine.port(), DEAF);
            until("open", peer::isOpen);
            peer.send(List.of(new NoteOn(0, 1, 1)));
            until("answered", () -> !peer.isUnsettled());
            machine.frozen = true;
            peer.send(List.of(new NoteOn(0, 2, 2)));
            peer.close();
            until("closed", () -> peer.state() == Peer.State.CLOSED);
        }
    }

    @Test
    void whatCameBeforeAGoodbyeIsHeardBeforeIt() throws Exception {
        CountDownLatch busy = new CountDownLatch(1);
        List<MidiMessage> heard = new CopyOnWriteArrayList<>();
        SessionEndpoint.Ear slow = (peer, message, nanos) -> {
            await(busy);
            heard.add(message);
        };
        try (SessionEndpoint desk = endpoint("Desk", slow);
                SessionEndpoint baton = endpoint("Baton", DEAF)) {
            Peer peer = baton.invite("127.0.0.1", desk.port(), DEAF);
            until("open", peer::isOpen);
            IntStream.range(0, 400).forEach(i -> peer.send(List.of(new NoteOn(0, i % 128, 1))));
            peer.close();
            busy.countDown();
            until("gone", () -> desk.peers().isEmpty());
            assertThat(heard).hasSize(400);
        }
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }
}
