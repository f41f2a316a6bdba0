package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.net.InetAddress;
import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.loop.Clock;
import underbaton.core.midi.ChannelMessage.ProgramChange;

/** How long what was said is waited for, by a clock that is turned by hand, before the same is said again. */
class PatienceTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
    private static final List<ProgramChange> AGAIN = List.of(new ProgramChange(0, 9));
    private static final long MILLI = 1_000_000;

    private static final class Turned implements Clock {
        private volatile long nanos = 1_000_000_000L;

        @Override
        public long nanos() {
            return nanos;
        }

        @Override
        public long epochMicros() {
            return nanos / 1000;
        }
    }

    private final Turned clock = new Turned();

    /** By chance none of a machine's first words comes through; that is no reason to believe that none will. */
    @Test
    void aMachineWhoseFirstWordsWereLostIsWaitedForAllTheSame() throws Exception {
        try (IndependentPeer machine = new IndependentPeer(LOOPBACK, 5);
                SessionEndpoint baton = new SessionEndpoint("Baton", LOOPBACK, 0, clock, LOOPS, (p, m, n) -> {})) {
            Peer peer = baton.invite("127.0.0.1", machine.port(), (p, m, n) -> {});
            until("open", peer::isOpen);
            machine.givesFeedback = false;
            for (int i = 1; i <= 3; i++) {
                int count = i;
                peer.send(AGAIN);
                until("it came", () -> later(10) && machine.executed().size() == count);
                until("nobody says so", () -> later(10) && machine.packets >= 9 * count);
            }
            machine.loss = 100;
            int before = machine.packets;
            peer.send(AGAIN);
            until("one is lost", () -> later(10) && machine.packets > before);
            peer.send(AGAIN);
            machine.loss = 0;
            machine.givesFeedback = true;
            until("both are there", () -> later(1) && machine.executed().size() == 5);
            assertThat(machine.executed()).hasSize(5);
        }
    }

    private boolean later(int millis) {
        clock.nanos += millis * MILLI;
        return true;
    }
}
