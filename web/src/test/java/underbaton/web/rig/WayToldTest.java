package underbaton.web.rig;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Connection.Carrier;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.wire.Arrival;

class WayToldTest {

    private static final Connection SESSION = new Connection.NetworkMidi("10.0.0.7", 5004);

    private static String unpromised(Connection by, Arrival arrival) {
        Device device = new Device(1, "Desk", Department.LIGHTS, by, 0, Numbering.WIRE, 0, List.of());
        return WayTold.unpromised(device, Optional.ofNullable(arrival));
    }

    @Test
    void aLineThatMendsWhatIsLostNeedsNoWords() {
        assertThat(unpromised(SESSION, null)).isEmpty();
        assertThat(unpromised(SESSION, Arrival.ARRIVED)).isEmpty();
        assertThat(unpromised(SESSION, Arrival.AWAITED)).isEmpty();
        assertThat(unpromised(new Connection.LocalMidi("Loop 1"), Arrival.NO_WORD))
                .isEmpty();
    }

    @Test
    void whatALineCannotPromiseIsSaidAsATechnicianWould() {
        assertThat(unpromised(SESSION, Arrival.NO_WORD)).contains("a note or a GO for good");
        assertThat(unpromised(new Connection.Osc("10.0.0.7", 8000, "", Carrier.UDP), null))
                .contains("stays lost");
        assertThat(unpromised(new Connection.Osc("10.0.0.7", 8000, "", Carrier.TCP_SIZE), null))
                .contains("comes late");
    }
}
