package underbaton.wire.near;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;
import static underbaton.wire.Waiting.DAEMONS;
import static underbaton.wire.Waiting.until;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.MulticastSocket;
import java.net.NetworkInterface;
import org.junit.jupiter.api.Test;

class NeighbourhoodTest {

    @Test
    void whoMakesItselfKnownIsFoundAndTheWordsSayWhatToDoOtherwise() throws Exception {
        assumeTrue(multicastPasses(), "no multicast on this machine");
        try (Neighbourhood desk = new Neighbourhood("Test desk 7", DAEMONS, () -> {});
                Neighbourhood baton = new Neighbourhood("Test baton", DAEMONS, () -> {})) {
            desk.announceUs(41_230);
            desk.announceNear("Test lamp", 41_240);
            baton.announceUs(41_250);
            desk.found();
            assertThat(baton.found().words()).isEqualTo("Looking …");
            until("found", () -> baton.found().machines().stream()
                    .anyMatch(m -> m.name().equals("Test desk 7") && m.port() == 41_230));
            until("the near one too", () -> baton.found().machines().stream()
                    .anyMatch(m -> m.name().equals("Test lamp") && m.host().equals("127.0.0.1")));
            assertThat(baton.found().machines()).noneMatch(m -> m.name().equals("Test baton"));
            until("looked about", () -> baton.found().words().contains("network"));
        }
    }

    /** Some machines let no multicast pass even to themselves; there nobody can be found by it. */
    private static boolean multicastPasses() throws IOException {
        InetAddress group = InetAddress.getByName("224.0.0.251");
        NetworkInterface loopback = NetworkInterface.getByInetAddress(InetAddress.getLoopbackAddress());
        try (MulticastSocket socket = new MulticastSocket(0)) {
            socket.setNetworkInterface(loopback);
            socket.joinGroup(new InetSocketAddress(group, 0), loopback);
            socket.setSoTimeout(2000);
            byte[] sent = {1, 2, 3};
            socket.send(new DatagramPacket(sent, sent.length, group, socket.getLocalPort()));
            DatagramPacket got = new DatagramPacket(new byte[8], 8);
            socket.receive(got);
            return got.getLength() == sent.length;
        } catch (IOException none) {
            return false;
        }
    }
}
