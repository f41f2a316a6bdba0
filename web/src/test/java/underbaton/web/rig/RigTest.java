package underbaton.web.rig;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.traffic.Traffic;
import underbaton.web.UnderBaton;
import underbaton.web.shows.Shows;
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
        return page.locator(".phrase:has([aria-label='Name of " + phrase + "'])");
    }

    private void press(String button) {
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName(button).setExact(true))
                .click();
    }

    @Test
    void aWrongBlankIsMarkedAndStays() {
        page.getByLabel("Port").fill("99999");
        press("Keep");
        assertThat(page.locator("#notice")).containsText("A port is 1 to 65534, not 99999");
        assertThat(page.getByLabel("Port")).hasClass("blank num wrong");
        assertThat(page.getByLabel("Port")).hasValue("99999");
        page.getByLabel("Port").fill("five");
        press("Keep");
        assertThat(page.locator("#notice")).containsText("“five” is no whole number");
        assertThat(shows.get(copy).devices().get(4).connection().port()).isEqualTo(baton.standInPort(4));
    }

    @Test
    void aMachineIsTurnedOverToOsc() {
        page.navigate(baton.url("/shows/" + copy + "/rig/new"));
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Second switcher");
        page.getByLabel("Connection").selectOption("osc");
        assertThat(page.getByLabel("Channel")).isHidden();
        page.getByLabel("Host").fill("127.0.0.1");
        page.getByLabel("Port").fill("9000");
        page.getByLabel("Address it answers").fill("/camera/program");
        press("Add this machine");
        assertThat(page.locator(".book-title")).isVisible();
        assertThat(shows.get(copy).devices().get(5).connection())
                .isEqualTo(new Connection.Osc("127.0.0.1", 9000, "/camera/program"));
        page.locator(".new-phrase [name=name]").fill("Camera 2");
        page.locator(".new-phrase [name=says]").fill("note 3");
        page.locator(".new-phrase [name=says]").press("Enter");
        assertThat(page.locator("#notice")).containsText("is reached by OSC");
        page.locator(".new-phrase [name=says]").fill("/camera/program 2");
        page.locator(".new-phrase [name=says]").press("Enter");
        assertThat(page.locator(".phrase[data-phrase] .bytes"))
                .hasText("2F 63 61 6D 65 72 61 2F 70 72 6F 67 72 61 6D 00 2C 69 00 00 00 00 00 02");
    }

    @Test
    void aPhraseIsChangedInItsLineAndAWrongOneIsRefused() {
        Locator says = line("Scene 3 reading").locator("[name=says]");
        assertThat(line("Scene 3 reading").locator(".bytes")).hasText("C4 02");
        says.fill("program 13");
        says.press("Tab");
        assertThat(line("Scene 3 reading").locator(".bytes")).hasText("C4 0C");
        says.fill("program 129");
        says.press("Tab");
        assertThat(page.locator("#notice")).containsText("programs run from 1 to 128; 129 is none of them");
        assertThat(says).hasValue("program 129");
        line("Scene 3 reading").locator("[name=name]").fill("Scene 4 talk");
        says.fill("program 3");
        says.press("Tab");
        assertThat(page.locator("#notice")).containsText("has a phrase “Scene 4 talk” already");
    }

    @Test
    void aGuardedPhraseWantsASecondPress() {
        Traffic traffic = baton.bean(Traffic.class);
        line("Scene 1 welcome").locator("[name=guarded]").check();
        until("reached", () -> baton.bean(Stage.class).lamps().stream().allMatch(l -> l.reached()));
        long before = traffic.last();
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
        line("Scene 2 songs").getByText("delete").click();
        assertThat(line("Scene 2 songs")).isVisible();
        page.onceDialog(dialog -> {
            assertThat(dialog.message()).contains("2 cues call it");
            dialog.accept();
        });
        line("Scene 2 songs").getByText("delete").click();
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
