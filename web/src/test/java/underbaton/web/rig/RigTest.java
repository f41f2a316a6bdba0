package underbaton.web.rig;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.traffic.Traffic;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.SoundConsole;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.Stage;

/** Describing a machine and its phrases: what is wrong is marked, said, and stays as it was typed. */
class RigTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private Page page;
    private int copy;

    /** A show of its own with the rig and the cues of a demo show. */
    @BeforeEach
    void open() {
        Show vigil = shows.get(baton.show("Midsummer Vigil"));
        copy = shows.create("Rig test", s -> s.withContentOf(vigil).renamed("Rig test"))
                .id();
        baton.bean(Stage.class).open(copy);
        int console = vigil.devices().get(4).id();
        page = baton.open("/shows/" + copy + "/rig?device=" + console);
    }

    @AfterEach
    void close() {
        baton.bean(Stage.class).close();
        shows.delete(copy);
    }

    private Locator line(String phrase) {
        return page.locator(".entry[data-name='" + phrase + "']");
    }

    private Locator port() {
        return page.getByLabel("Port", new Page.GetByLabelOptions().setExact(true));
    }

    /** Opens the blanks of a phrase. */
    private Locator blanks(String phrase) {
        line(phrase).press("Enter");
        assertThat(page.locator(".blanks [name=name]")).hasValue(phrase);
        return page.locator(".blanks");
    }

    private void press(String button) {
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName(button).setExact(true))
                .click();
    }

    @Test
    void aWrongBlankIsMarkedAndStays() {
        page.locator(".ways > summary").click();
        port().fill("99999");
        press("Save");
        assertThat(page.locator("#notice")).containsText("A port is 1 to 65534, not 99999");
        assertThat(port()).hasClass("blank num is-invalid");
        assertThat(port()).hasValue("99999");
        port().fill("five");
        press("Save");
        assertThat(page.locator("#notice")).containsText("“five” is no whole number");
        assertThat(shows.get(copy).devices().get(4).connection().where())
                .isEqualTo("127.0.0.1:" + baton.standInPort(4));
    }

    @Test
    void aMachineIsTurnedOverToOsc() {
        page.navigate(baton.url("/shows/" + copy + "/rig/new"));
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Second switcher");
        page.getByLabel("Connection").selectOption("osc-udp");
        assertThat(page.getByLabel("Channel", new Page.GetByLabelOptions().setExact(true)))
                .isHidden();
        page.getByLabel("Host").fill("127.0.0.1");
        port().fill("9000");
        page.getByLabel("Address it answers").fill("/camera/program");
        press("Add this machine");
        assertThat(page.locator(".book-title")).isVisible();
        assertThat(shows.get(copy).devices())
                .extracting(Device::connection)
                .contains(new Connection.Osc("127.0.0.1", 9000, "/camera/program"));
        page.keyboard().press("n");
        page.locator(".blanks [name=name]").fill("Camera 2");
        page.locator(".blanks [name=says]").fill("note 3");
        page.locator(".blanks [name=says]").press("Enter");
        assertThat(page.locator("#notice")).containsText("is reached by OSC");
        page.locator(".blanks [name=says]").fill("/camera/program 2");
        page.locator(".blanks [name=says]").press("Enter");
        assertThat(page.locator(".entry .bytes"))
                .hasText("2F 63 61 6D 65 72 61 2F 70 72 6F 67 72 61 6D 00 2C 69 00 00 00 00 00 02");
    }

    @Test
    void aPhraseIsChangedInItsPlaceAndAWrongOneIsRefused() {
        assertThat(line("Scene 3 reading").locator(".bytes")).hasText("C4 02");
        Locator says = blanks("Scene 3 reading").locator("[name=says]");
        says.fill("program 13; after 50 ms control 7 to 100");
        says.press("Enter");
        assertThat(line("Scene 3 reading").locator(".bytes")).hasText("C4 0C  +50 ms B4 07 64");
        says = blanks("Scene 3 reading").locator("[name=says]");
        says.fill("program 129");
        says.press("Enter");
        assertThat(page.locator("#notice")).containsText("programs run from 1 to 128; 129 is none of them");
        assertThat(says).hasValue("program 129");
        page.locator(".blanks [name=name]").fill("Scene 4 talk");
        says.fill("program 3");
        says.press("Enter");
        assertThat(page.locator("#notice")).containsText("has a phrase “Scene 4 talk” already");
        page.keyboard().press("Escape");
        assertThat(page.locator(".blanks")).hasCount(0);
        assertThat(line("Scene 3 reading")).isFocused();
    }

    /** The console's own table gives the value; see the scale of the demo's console. */
    @Test
    void aLevelGoesOutByTheConsolesOwnScale() {
        page.locator(".ways > summary").click();
        page.getByLabel("Levels").fill("−∞=0, −20=51, −10=78, 0=110");
        press("Save");
        assertThat(page.getByLabel("Levels")).isHidden();
        Locator blanks = blanks("Leader up");
        blanks.locator("[name=name]").fill("Leader");
        blanks.locator("[name=says]").fill("control 0 to ?");
        blanks.locator("[name=unit]").selectOption("decibels");
        blanks.locator("[name=name]").press("Enter");
        until("reached", () -> baton.bean(Lamps.class).all().stream().allMatch(l -> l.reached()));
        assertThat(line("Leader").locator(".bytes")).hasText("B4 00 ··");
        line("Leader").press("f");
        page.keyboard().type("-15 dB");
        page.keyboard().press("Enter");
        SoundConsole console = (SoundConsole) baton.bean(RehearsalRoom.class)
                .named("Sound console")
                .orElseThrow()
                .model();
        until("the fader", () -> console.state().strips().get(0).fader() == 65);
        line("Leader").locator(".amount").fill("-30 dB");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("Between −∞ and −20 dB this scale has no points");
    }

    @Test
    void aFamilyATableAndAFileFillAPhrasebook() {
        int before = page.locator(".entry").count();
        page.getByText("fill from a family").click();
        page.getByLabel("strips by controller: level, mute, pan on three channels")
                .check();
        page.getByLabel("Names, a line each").fill("Harp\nFlute");
        press("Fill it");
        assertThat(page.locator(".entry")).hasCount(before + 6);
        assertThat(page.locator(".group")).hasText("Strips");
        assertThat(line("Flute mute").locator(".says"))
                .hasText("control 1 to 127 on channel 6 | control 1 to 0 on channel 6");

        page.getByText("table", new Page.GetByTextOptions().setExact(true)).click();
        page.getByLabel("CSV file").setInputFiles(csv("name,says\nHarp level,note 3\nDrum,note 200"));
        press("Import");
        assertThat(page.locator("#table .notice")).containsText("Row 3, column note: “200” is outside");
        page.getByLabel("CSV file").setInputFiles(csv("name,says\nHarp level,note 3\nDrum,note 20"));
        press("Import");
        assertThat(line("Harp level").locator(".says")).hasText("note D♯−2");
        assertThat(line("Drum")).isVisible();

        String saved = page.request()
                .get(page.url().replaceFirst("rig\\?device=(\\d+)", "rig/devices/$1/device.json"))
                .text();
        page.navigate(baton.url("/shows/" + copy + "/rig/new"));
        page.getByLabel("Saved machine")
                .setInputFiles(new FilePayload(
                        "console.json",
                        "application/json",
                        saved.replace("Sound console", "Second console").getBytes(StandardCharsets.UTF_8)));
        assertThat(page.locator(".ways b")).hasText("Second console");
        assertThat(line("Drum")).isVisible();
        assertThat(page.locator(".clash").nth(1)).containsText("both listen to channel 5 of this line");
    }

    private static FilePayload csv(String text) {
        return new FilePayload("phrases.csv", "text/csv", text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void aGuardedPhraseWantsASecondPress() {
        Traffic traffic = baton.bean(Traffic.class);
        blanks("Scene 1 welcome").locator("[name=guarded]").check();
        press("Save");
        assertThat(line("Scene 1 welcome")).containsText("guarded");
        until("reached", () -> baton.bean(Lamps.class).all().stream().allMatch(l -> l.reached()));
        long before = traffic.last();
        line("Scene 1 welcome").hover();
        line("Scene 1 welcome").locator("[data-fire]").click();
        assertThat(line("Scene 1 welcome").locator("[data-fire]")).hasText("fire?");
        assertThat(traffic.after(before, 9)).noneMatch(e -> e.cause().equals("fired from the rig"));
        line("Scene 1 welcome").locator("[data-fire]").click();
        until("fired", () -> traffic.after(before, 99).stream()
                .anyMatch(e -> e.cause().equals("fired from the rig")
                        && e.bytes().hex().equals("C4 00")));
    }

    @Test
    void aPhraseThatCuesCallIsDeletedOnlyAfterAskingAndUndoBringsItBack() {
        long calls = shows.get(copy).cues().mapToLong(c -> c.calls().size()).sum();
        page.onceDialog(Dialog::dismiss);
        line("Scene 2 songs").press("Delete");
        assertThat(line("Scene 2 songs")).isVisible();
        page.onceDialog(dialog -> {
            assertThat(dialog.message()).contains("2 cues call it");
            dialog.accept();
        });
        blanks("Scene 2 songs").getByText("delete").click();
        assertThat(line("Scene 2 songs")).hasCount(0);
        assertThat(shows.get(copy).cues().mapToLong(c -> c.calls().size()).sum())
                .isEqualTo(calls - 2);
        page.reload();
        page.locator("h1").click();
        page.keyboard().press("Control+z");
        assertThat(page.locator(".head")).containsText("machines");
        until(
                "undone",
                () -> shows.get(copy).cues().mapToLong(c -> c.calls().size()).sum() == calls);
    }
}
