package underbaton.web.signals;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.SelectOption;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.web.kernel.SettingsMapper;
import underbaton.web.stage.OscPort;
import underbaton.web.stage.Resume;
import underbaton.web.stage.Stage;

/** Relays between machines, over the real wire; what they send over OSC is read by another hand's library. */
class RelaysTest extends TouchedBoard {

    private DatagramSocket wall;
    private NpmOsc osc;

    @BeforeEach
    void aVideoWall() throws IOException {
        wall = new DatagramSocket(0, InetAddress.getLoopbackAddress());
        wall.setSoTimeout(5000);
        Connection line = new Connection.Osc("127.0.0.1", wall.getLocalPort(), "");
        shows.edit(
                show,
                "a video wall",
                s -> s.withDevice(new Device(0, "Wall", Department.VIDEO, line, 0, Numbering.WIRE, 0, List.of())));
        osc = new NpmOsc(page.context().newPage());
        page.reload();
        page.bringToFront();
    }

    @AfterEach
    void unplug() {
        wall.close();
    }

    private String read() throws IOException {
        DatagramPacket packet = new DatagramPacket(new byte[2000], 2000);
        wall.receive(packet);
        return osc.read(Arrays.copyOf(packet.getData(), packet.getLength()));
    }

    private boolean isSilent() throws IOException {
        wall.setSoTimeout(200);
        try {
            read();
            return false;
        } catch (SocketTimeoutException nothing) {
            return true;
        } finally {
            wall.setSoTimeout(5000);
        }
    }

    /** Touches the board and lets what comes be passed on, to the wall, in words written here. */
    private Locator passOn(MidiMessage touched, String told, String words) {
        us.send(List.of(touched));
        assertThat(newest()).containsText(told);
        newest().locator("[data-relay-came]").click();
        Locator form = page.locator("#listener form");
        assertThat(form.locator("h2")).hasText("New relay");
        form.locator("[name=how]").selectOption("written");
        form.locator("[name=tells]").selectOption(new SelectOption().setLabel("Wall"));
        form.locator("[name=words]").fill(words);
        return form;
    }

    @Test
    void aProgramBecomesTheNthNameOfAListAndWhatHasNoneIsTold() throws Exception {
        Locator form = passOn(new ProgramChange(0, 1), "program 2", "osc /title ?");
        form.locator("[name=fills]").selectOption("named");
        form.locator("[name=names]").fill("Slipway\nHalfway, “again”\nThe toll");
        keep(form, "titles");
        assertThat(page.locator("#listeners")).containsText("Wall: osc /title ?, the name from 1 on of 3 written here");
        us.send(List.of(new ProgramChange(0, 1)));
        Assertions.assertThat(read()).isEqualTo("/title s:Halfway, “again”");
        assertThat(newest()).containsText("titles Wall: osc /title");
        us.send(List.of(new ProgramChange(0, 9)));
        assertThat(newest()).containsText("its list has no name for 10");
        Assertions.assertThat(isSilent()).isTrue();
        // It comes back for change as it was written.
        page.locator("#listeners [data-listener]").press("Enter");
        Locator again = page.locator("#listener form");
        assertThat(again.locator("[name=names]")).hasValue("Slipway\nHalfway, “again”\nThe toll");
        again.locator("[name=listens]").uncheck();
        keep(again, "titles");
        assertThat(page.locator("#listeners [data-listener]")).hasClass(Pattern.compile("off"));
        us.send(List.of(new ProgramChange(0, 0)));
        assertThat(newest()).containsText("it is disarmed");
    }

    @Test
    void aPedalIsScaledAndThreeProgramsGoToThreeAddressesMadeInOneGo() throws Exception {
        Locator size = passOn(new ControlChange(0, 11, 3), "control 11 to 3", "osc /size ?");
        size.locator("[name=goesFrom]").fill("-1");
        size.locator("[name=goesTo]").fill("1");
        keep(size, "size");
        for (int value : new int[] {0, 127}) {
            us.send(List.of(new ControlChange(0, 11, value)));
            Assertions.assertThat(read()).isEqualTo("/size f:" + (value == 0 ? -1 : 1));
        }
        Locator cameras = passOn(new ProgramChange(2, 0), "program 1, channel 3", "osc /camera/#/take");
        cameras.locator("fieldset[data-kind=program] [name=low]").fill("1");
        cameras.locator("fieldset[data-kind=program] [name=high]").fill("3");
        cameras.locator("[name=each]").check();
        keep(cameras, "camera");
        assertThat(page.locator("#listeners")).containsText("camera 3");
        for (int n = 0; n < 3; n++) {
            us.send(List.of(new ProgramChange(2, n)));
            Assertions.assertThat(read()).isEqualTo("/camera/" + (n + 1) + "/take");
        }
    }

    @Test
    void theTrialBenchShowsWhatWouldBeSentAndASecondKeySendsIt() throws Exception {
        Locator form = passOn(new ProgramChange(0, 1), "program 2", "osc /title ?");
        form.locator("[name=fills]").selectOption("named");
        form.locator("[name=names]").fill("One\nTwo");
        keep(form, "titles");
        page.keyboard().press("t");
        page.locator("#trial [name=words]").fill("program 1");
        page.keyboard().press("Enter");
        Locator tried = page.locator("#tried");
        assertThat(tried).containsText("titles: Wall: osc /title \"One\"");
        // As OSC 1.0 has it: address, type tags and text, each filled up to four octets.
        assertThat(tried).containsText("2F 74 69 74 6C 65 00 00 2C 73 00 00 4F 6E 65 00");
        Assertions.assertThat(isSilent()).isTrue();
        page.keyboard().press("Control+Enter");
        Assertions.assertThat(read()).isEqualTo("/title s:One");
        assertThat(newest()).containsText("program 1");
        page.locator("#trial [name=words]").fill("control 20 to 5");
        page.keyboard().press("Enter");
        assertThat(tried).containsText("nothing: nobody listens for that");
        page.locator("#trial [name=words]").fill("abracadabra");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("abracadabra");
    }

    @Test
    void aRelayThatWouldHearItselfIsRefusedWithWhatToChange() {
        us.send(List.of(new ControlChange(0, 7, 3)));
        assertThat(newest()).containsText("control 7 to 3");
        newest().locator("[data-relay-came]").click();
        Locator form = page.locator("#listener form");
        form.locator("[name=how]").selectOption("through");
        form.locator("[name=tells]").selectOption(new SelectOption().setLabel("Board"));
        form.locator("[name=name]").fill("round");
        form.locator("[type=submit]").click();
        assertThat(form.page().locator("#listener .notice"))
                .containsText("“round” would hear what it says itself. Let it listen to another machine or channel");
        form.locator("[name=toChannel]").fill("4");
        form.locator("[name=channel]").fill("1");
        keep(form, "round");
    }

    /** The board says the pedal again whenever it is told control 30: no rule sees that, and it would never end. */
    @Test
    void aLoopOverAMachineIsStoppedAndTold() {
        Locator form = passOn(new ControlChange(0, 11, 3), "control 11 to 3", "osc /unused");
        form.locator("[name=tells]").selectOption(new SelectOption().setLabel("Board"));
        form.locator("[name=words]").fill("control 30 to 1");
        keep(form, "round");
        // Twice each time, so that it is soon too much on a slow machine as well.
        ControlChange again = new ControlChange(0, 11, 3);
        echo = message -> message.equals(new ControlChange(0, 30, 1)) ? List.of(again, again) : List.of();
        us.send(List.of(new ControlChange(0, 11, 3)));
        // It is struck through, and one word arms it again.
        Locator row = page.locator("#listeners [data-listener]");
        assertThat(row).containsText("stopped: it would hear itself");
        assertThat(row).hasClass(Pattern.compile("off"));
        Assertions.assertThat(told).hasSizeBetween(12, 400);
        echo = message -> List.of();
        row.locator("[data-arm]").click();
        assertThat(row).not().hasClass(Pattern.compile("off"));
        us.send(List.of(new ControlChange(0, 11, 3)));
        assertThat(newest()).containsText("round Board: control 30 to 1");
        page.navigate(baton.url("/shows/" + show + "/log"));
        assertThat(page.locator("body")).containsText("relay “round” stopped");
    }

    @Test
    void bothHalvesOfAControlAreOneGestureAndATableNamesCues() throws Exception {
        us.send(List.of(new ControlChange(0, 1, 64), new ControlChange(0, 33, 5)));
        assertThat(newest()).containsText("control 33 to 5");
        newest().locator("[data-relay-came]").click();
        Locator fine = page.locator("#listener form");
        assertThat(fine.locator("fieldset[data-kind=controller] [name=low]")).hasValue("1");
        fine.locator("[name=how]").selectOption("written");
        fine.locator("[name=tells]").selectOption(new SelectOption().setLabel("Wall"));
        fine.locator("[name=words]").fill("osc /fine ?");
        keep(fine, "fine");
        us.send(List.of(new ControlChange(0, 1, 127), new ControlChange(0, 33, 127)));
        // 16,383 of 16,383.
        Assertions.assertThat(read()).isEqualTo("/fine f:1");

        Locator table = learn(new ProgramChange(0, 4), "program 5");
        table.locator("fieldset[data-kind=program] [name=low]").fill("");
        table.locator("[name=does]").selectOption("cue");
        table.locator("[name=table]").fill("5=12.5, 6=30");
        keep(table, "scenes");
        us.send(List.of(new ProgramChange(0, 4)));
        assertThat(newest()).containsText("scenes GO 12.5");
    }

    /** Relays pass on from the start of the application: the show that was on the desk last is put there. */
    @Test
    void afterAQuietEndTheShowIsOnTheDeskAgainAndItsRelaysPassOn() throws Exception {
        Locator form = passOn(new ControlChange(0, 11, 3), "control 11 to 3", "osc /size ?");
        keep(form, "size");
        Stage stage = baton.bean(Stage.class);
        until("it is remembered", () -> baton.bean(SettingsMapper.class)
                .get("show on the desk")
                .equals(Optional.of(Integer.toString(show))));
        stage.close();
        Assertions.assertThat(stage.openShow()).isEmpty();
        baton.bean(Resume.class).run(null);
        Assertions.assertThat(stage.isOpen(show)).isTrue();
        until("reached again", () -> machine.peers().stream().anyMatch(p -> p.isOpen() && p != us));
        machine.peers().stream()
                .filter(p -> p.isOpen() && p != us)
                .forEach(p -> p.send(List.of(new ControlChange(0, 11, 127))));
        Assertions.assertThat(read()).isEqualTo("/size f:1");
    }

    /** What another hand's library writes is understood, and reads what is answered. */
    @Test
    void anyOscProgramSpeaksWithUs() throws Exception {
        int port = baton.bean(OscPort.class).number();
        for (Object[] said : new Object[][] {{"s", "12.5"}, {"f", 12.5}, {"i", 30}}) {
            byte[] packet = osc.write("/baton/go/cue", (String) said[0], said[1]);
            wall.send(new DatagramPacket(packet, packet.length, InetAddress.getLoopbackAddress(), port));
            desk.bringToFront();
            assertThat(desk.locator(".done b")).hasText(said[1].toString());
        }
        try (Socket stream = new Socket(InetAddress.getLoopbackAddress(), port)) {
            // OSC 1.0 over a stream: the length in four octets, then the packet.
            byte[] go = osc.write("/baton/go/cue", "s", "12.5");
            ByteBuffer framed =
                    ByteBuffer.allocate(4 + go.length).putInt(go.length).put(go);
            stream.getOutputStream().write(framed.array());
            assertThat(desk.locator(".done b")).hasText("12.5");
        }
        byte[] packet = osc.write("/baton/standby", "i", 4711);
        wall.send(new DatagramPacket(packet, packet.length, InetAddress.getLoopbackAddress(), port));
        Assertions.assertThat(read()).isEqualTo("/baton/error s:There is no cue 4711 in this show.");
    }
}
