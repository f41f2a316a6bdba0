package underbaton.web.learn;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.signal.Signal;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.OscPort;
import underbaton.web.stage.Stage;
import underbaton.wire.Link;
import underbaton.wire.Switchboard;
import underbaton.wire.osc.OscLink;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/** What comes in, by sessions of ours and of others and by OSC, is shown, told apart and taken over as a phrase. */
class LearnTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private SessionEndpoint machine;
    private int show;
    private Page page;

    @BeforeEach
    void aMachineWithTwoDevicesOnItsLine() throws IOException {
        machine = endpoint("Desk");
        Connection line = new Connection.NetworkMidi("127.0.0.1", machine.port());
        show = shows.create("Learn test", s -> s.withDevice(device("Upper keys", line, 2))
                        .withDevice(device("Lower keys", line, 3))
                        .withPhrase(
                                2, new Phrase(0, "Known one", List.of(new NoteOn(0, 61, 90)), Effect.MOMENT, false)))
                .id();
        baton.bean(Stage.class).open(show);
        page = baton.open("/shows/" + show + "/rig?device=2");
        until("reached", () -> machine.peers().stream().anyMatch(Peer::isOpen));
    }

    @AfterEach
    void away() {
        baton.bean(Stage.class).close();
        shows.delete(show);
        machine.close();
    }

    private static SessionEndpoint endpoint(String name) throws IOException {
        return new SessionEndpoint(
                name,
                InetAddress.getLoopbackAddress(),
                0,
                baton.bean(Clock.class),
                new Loops(Thread::new),
                (peer, message, at) -> {});
    }

    private static Device device(String name, Connection line, int channel) {
        return new Device(0, name, Department.KEYS, line, channel, new Numbering(1, 0, -1), 0, List.of());
    }

    @Test
    void whatIsTouchedBecomesAPhraseInItsOrder() {
        page.locator("[data-act=learn]").click();
        assertThat(page.locator(".learn")).isVisible();
        Peer us = machine.peers().get(0);
        us.send(List.of(new NoteOn(3, 61, 90)));
        Locator first = page.locator("[data-entry]", new Page.LocatorOptions().setHasText("note C♯4"));
        assertThat(first).containsText("Lower keys: Known one");
        assertThat(first).containsText("Lower keys");
        us.send(List.of(new ControlChange(3, 7, 100)));
        us.send(List.of(new ControlChange(2, 64, 127)));
        assertThat(page.locator("[data-entry]").first()).containsText("Upper keys");
        page.locator("[data-entry]").first().locator("input").uncheck();
        page.locator(".learn [name=name]").fill("Loud");
        page.locator(".learn .main").click();
        Locator learned = page.locator(".entry[data-name=Loud]");
        assertThat(learned.locator(".says")).hasText("note C♯4 at 90; control 7 to 100");
        assertThat(learned.locator(".bytes")).hasText("93 3D 5A  B3 07 64");
    }

    @Test
    void guestsAreLetInByTheDoorAndOscComesInByItsPort() throws IOException {
        page.getByText("How others reach us").click();
        page.getByLabel("Who may invite us", new Page.GetByLabelOptions().setExact(true))
                .selectOption("LISTED");
        page.getByLabel("Who may invite us: names or addresses").fill("Pad 7");
        page.locator(".door button").click();
        assertThat(page.locator(".door [name=mode]")).isHidden();
        page.locator("[data-act=learn]").click();
        Switchboard switchboard = baton.bean(Switchboard.class);
        int oscPort = baton.bean(OscPort.class).number();
        Connection.Osc osc = new Connection.Osc("127.0.0.1", oscPort, "", Connection.Carrier.TCP_SLIP);
        try (SessionEndpoint pad = endpoint("Pad 7");
                OscLink link = new OscLink(osc, baton.bean(Clock.class), new Loops(Thread::new), new Deaf())) {
            Peer us = pad.invite("127.0.0.1", switchboard.port(), (peer, message, at) -> {});
            until("let in", us::isOpen);
            us.send(List.of(new NoteOn(9, 36, 50)));
            assertThat(page.locator("[data-entry]").first()).containsText("Pad 7");
            until("the OSC port", () -> link.health().reached());
            link.send(new OscMessage("/go", List.of(2)));
            assertThat(page.locator("[data-entry]").first()).containsText("osc /go 2");
            assertThat(page.locator("[data-entry]").first()).containsText("OSC from 127.0.0.1");
        }
    }

    private static final class Deaf implements Link.Ear {
        @Override
        public void heard(Signal signal) {}

        @Override
        public void changed() {}
    }
}
