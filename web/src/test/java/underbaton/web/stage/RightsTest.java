package underbaton.web.stage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Refusal;
import underbaton.web.stage.Rights.May;

/** Rights by who asks and what for. */
class RightsTest {

    /** Machines may ask, guests are heard; .20 may ask in any case, .30 may give orders. */
    @ParameterizedTest
    @CsvSource({
        "a machine,            192.168.1.7,  true,  ASK",
        "a guest,              192.168.1.8,  false, BE_HEARD",
        "a guest that may ask, 192.168.1.20, false, ASK",
        "one that may order,   192.168.1.30, false, ORDER",
        "a machine that may,   192.168.1.30, true,  ORDER",
        "this computer,        127.0.0.1,    false, ORDER",
        "this computer by six, ::1,          false, ORDER",
    })
    void eachMayWhatItIsGiven(String who, String address, boolean isMachine, May may) throws UnknownHostException {
        Rights rights = new Rights(May.ASK, May.BE_HEARD, List.of(" 192.168.1.20 "), List.of("192.168.1.30"));
        InetAddress from = InetAddress.getByName(address);
        assertThat(rights.of(from, isMachine)).as(who).isEqualTo(may);
        for (May wanted : May.values()) {
            if (wanted.compareTo(may) <= 0) {
                rights.require(wanted, from, isMachine);
            } else {
                assertThatThrownBy(() -> rights.require(wanted, from, isMachine))
                        .isInstanceOf(Refusal.class)
                        .hasMessageContaining(address)
                        .hasMessageContaining("on the page Rig");
            }
        }
    }

    @Test
    void nobodyButThisComputerGivesOrdersAtFirst() throws UnknownHostException {
        InetAddress tablet = InetAddress.getByName("10.0.0.9");
        assertThat(Rights.FIRST.of(tablet, true)).isEqualTo(May.BE_HEARD);
        assertThat(Rights.FIRST.of(tablet, false)).isEqualTo(May.BE_HEARD);
        assertThat(Rights.FIRST.of(InetAddress.getLoopbackAddress(), false)).isEqualTo(May.ORDER);
    }

    @Test
    void anAddressIsWrittenInNumbers() {
        assertThatThrownBy(() -> new Rights(May.ASK, May.ASK, List.of("tablet"), List.of()))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("“tablet” is no address");
    }
}
