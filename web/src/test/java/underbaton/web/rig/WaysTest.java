package underbaton.web.rig;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.standins.CameraSwitcher;
import underbaton.standins.RehearsalRoom;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;
import underbaton.wire.ports.LoopPorts;

/** Every way to a machine, from the page to the machine: ports of this computer, OSC over TCP, what is found nearby. */
class WaysTest {

    private static final String PORT = "Stage box";

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private int show;
    private Page page;

    @BeforeEach
    void anEmptyRig() {
        show = shows.create("Ways test").id();
        baton.bean(Stage.class).open(show);
        LoopPorts.plug(PORT);
        page = baton.open("/shows/" + show + "/rig/new");
    }

    @AfterEach
    void away() {
        LoopPorts.unplug(PORT);
        baton.bean(Stage.class).close();
        shows.delete(show);
    }

    private void describe(String name, String connection) {
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill(name);
        page.getByLabel("Connection").selectOption(connection);
    }

    private void add() {
        page.getByText("Add this machine").click();
        assertThat(page.locator(".book-title")).isVisible();
    }

    private void write(String name, String says) {
        page.keyboard().press("n");
        Locator blanks = page.locator(".blanks");
        blanks.locator("[name=name]").fill(name);
        blanks.locator("[name=says]").fill(says);
        blanks.locator("[name=says]").press("Enter");
        assertThat(page.locator(".entry[data-name='" + name + "']")).isVisible();
        assertThat(blanks.locator("[name=name]")).hasValue("");
        page.keyboard().press("Escape");
    }

    private Locator lamp(String machine) {
        return page.locator(".machine-list [data-device='" + machine + "']");
    }

    @Test
    void aPortOfThisComputerIsPulledOutAndPluggedInAgain() {
        describe("Old desk", "local");
        assertThat(page.locator("#local-ports option[value='" + PORT + "']")).hasCount(1);
        page.getByLabel("Port of this computer").fill(PORT);
        add();
        assertThat(lamp("Old desk")).hasAttribute("data-reached", "true");
        write("Look 1", "note C-1");
        Traffic traffic = baton.bean(Traffic.class);
        long before = traffic.last();
        page.locator(".entry").press("f");
        // What went into the loop comes out of it: the same port's in is heard.
        until("heard", () -> traffic.after(before, 99).stream()
                .anyMatch(e -> e.direction() == Entry.Direction.IN
                        && e.bytes().hex().equals("90 0C 7F")
                        && e.device().equals("Old desk")));
        LoopPorts.unplug(PORT);
        assertThat(lamp("Old desk")).hasAttribute("data-reached", "false");
        assertThat(lamp("Old desk")).containsText("no MIDI port “" + PORT + "” now");
        LoopPorts.plug(PORT);
        assertThat(lamp("Old desk")).hasAttribute("data-reached", "true");
    }

    @Test
    void camerasAreReachedOverTcpInBothFramings() {
        CameraSwitcher cameras = (CameraSwitcher) baton.bean(RehearsalRoom.class)
                .named("Camera switcher")
                .orElseThrow()
                .model();
        int camera = 2;
        for (String carrier : new String[] {"osc-tcp-slip", "osc-tcp-size"}) {
            page.navigate(baton.url("/shows/" + show + "/rig/new"));
            describe("Cameras " + carrier, carrier);
            page.getByLabel("Host").fill("127.0.0.1");
            page.getByLabel("Port", new Page.GetByLabelOptions().setExact(true))
                    .fill(Integer.toString(baton.standInPort(3)));
            page.getByLabel("Address it answers").fill("/camera/program");
            add();
            assertThat(lamp("Cameras " + carrier)).hasAttribute("data-reached", "true");
            write("Camera", "/camera/program " + camera);
            page.locator(".entry").press("f");
            int wanted = camera;
            until("camera " + camera + " by " + carrier, () -> cameras.program() == wanted);
            camera++;
        }
    }

    @Test
    void whatMakesItselfKnownIsTakenWithOneClick() {
        Locator found = page.locator("#found [data-take][data-port='" + baton.standInPort(2) + "']");
        found.click();
        assertThat(page.getByLabel("Host")).hasValue("127.0.0.1");
        assertThat(page.getByLabel("Port", new Page.GetByLabelOptions().setExact(true)))
                .hasValue(Integer.toString(baton.standInPort(2)));
        // Which words depends on the networks that this computer is on.
        assertThat(page.locator("#found p")).containsText("network");
        page.keyboard().press("Enter");
        assertThat(lamp("Words screen")).hasAttribute("data-reached", "true");
    }

    @Test
    void aFileThatIsNoMachineLeavesTheRigAsItWas(@TempDir Path folder) throws IOException {
        page.getByLabel("Saved machine")
                .setInputFiles(new FilePayload("wrong.json", "application/json", "{\"format\": 3}".getBytes()));
        assertThat(page.locator("#notice")).containsText("This is no file of a machine");
        page.getByLabel("Saved machine").setInputFiles(Files.write(folder.resolve("huge.json"), new byte[34_000_000]));
        assertThat(page.locator("#notice")).containsText("larger than 32 MB");
        assertThat(shows.get(show).devices()).isEmpty();
    }
}
