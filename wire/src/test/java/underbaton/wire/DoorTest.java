package underbaton.wire;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.util.List;
import org.junit.jupiter.api.Test;

class DoorTest {

    @Test
    void theListedAreKnownByNameInAnyCaseOrByAddress() throws Exception {
        InetAddress from = InetAddress.getByName("10.0.0.7");
        Door listed = new Door(Door.Mode.LISTED, List.of(" Pad ", "", "10.0.0.9"));
        assertThat(listed.listed()).containsExactly("Pad", "10.0.0.9");
        assertThat(listed.admits("pad", from)).isTrue();
        assertThat(listed.admits("Desk", from)).isFalse();
        assertThat(listed.admits("Desk", InetAddress.getByName("10.0.0.9"))).isTrue();
        assertThat(Door.ANYONE.admits("Desk", from)).isTrue();
        assertThat(Door.SHUT.admits("Pad", from)).isFalse();
    }
}
