package underbaton.web.rig;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
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

    @Test
    void whoCannotBeToldApartByAnAddressIsNamed() {
        Show show = at(at(at(Show.empty(1, "Pair"), "Layout", 9000), "Words", 9001), "Film", 9000);
        assertThat(WayTold.clashes(show, show.devices().get(0)))
                .containsExactly(
                        "Layout and Words are both at Stage-Box: what comes from there by OSC is taken for the one from"
                                + " whose port it comes, and from any other port for neither.",
                        "Layout and Film are both at Stage-Box: what comes from there by OSC is taken for neither. Give"
                                + " them two ports, or let listeners hear anybody.");
        assertThat(WayTold.clashes(
                        show.withoutDevice(show.devices().get(1).id()),
                        show.devices().get(0)))
                .hasSize(1);
    }

    private static Show at(Show show, String name, int port) {
        String host = name.equals("Words") ? "stage-box" : "Stage-Box";
        Connection by = new Connection.Osc(host, port, "", Carrier.UDP);
        return show.withDevice(new Device(0, name, Department.VIDEO, by, 0, Numbering.WIRE, 0, List.of()));
    }
}
