package underbaton.web;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.stage.Stage;

/** The whole job from nothing, as a technician does it: rig, phrasebook, book, desk; the stand-in does what it says. */
class WholeJobTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    @Test
    void fromAnEmptyShelfToTwoCuesOnARealWire() {
        // The first show of a house goes on the desk by itself; one that is there already would stay.
        baton.bean(Stage.class).close();
        Page page = baton.open("/");
        page.getByPlaceholder("its name").fill("First night");
        page.getByText("Start its book").click();
        addLights(page);
        addPhrase(page, "Gold sweep", "note F#-2");
        addPhrase(page, "Amber wash", "note 7");
        assertThat(page.locator(".entry .bytes")).hasText(new String[] {"90 06 7F", "90 07 7F"});

        tab(page, "Book");
        writeTheBook(page);

        tab(page, "Desk");
        assertThat(page.locator("#lamps [data-device='FOH lights']")).hasAttribute("data-reached", "true");
        assertThat(page.locator(".standby .n")).hasText("1");
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).hasText("2");
        // Within 300 ms another GO would want a second press.
        page.waitForTimeout(400);
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby h2")).hasText("End of the book");

        tab(page, "Room");
        assertThat(page.locator("#lights")).hasAttribute("data-look", "8");
        assertThat(page.locator("#lights")).containsText("look 8, Amber wash");

        tab(page, "Log");
        Locator lines = page.locator("#rows tr.out");
        assertThat(lines).hasCount(2);
        assertThat(lines.nth(0)).containsText("90 07 7F");
        assertThat(lines.nth(0)).containsText("note G−2, channel 1");
        assertThat(lines.nth(0)).containsText("cue 2");
        assertThat(lines.nth(1)).containsText("90 06 7F");
        assertThat(lines.nth(1)).containsText("cue 1");
    }

    private static void addLights(Page page) {
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("FOH lights");
        page.getByLabel("Host").fill("127.0.0.1");
        page.getByLabel("Port", new Page.GetByLabelOptions().setExact(true))
                .fill(Integer.toString(baton.standInPort(0)));
        page.getByText("Add this machine").click();
        assertThat(page.locator(".book-title")).isVisible();
    }

    private static void addPhrase(Page page, String name, String says) {
        int before = page.locator(".entry").count();
        page.keyboard().press("n");
        Locator blanks = page.locator(".blanks");
        blanks.locator("[name=name]").fill(name);
        blanks.locator("[name=says]").fill(says);
        blanks.locator("[name=says]").press("Enter");
        assertThat(page.locator(".entry")).hasCount(before + 1);
        assertThat(blanks.locator("[name=name]")).hasValue("");
        page.keyboard().press("Escape");
        assertThat(blanks).hasCount(0);
    }

    /** One item, two cues; the second one by keyboard alone. */
    private static void writeTheBook(Page page) {
        Locator form = page.locator(".new-item");
        form.locator("[name=name]").fill("Opening");
        form.locator("[name=length]").fill("3:30");
        form.getByText("Add item").click();
        page.getByText("add cue").click();
        Locator rows = page.locator("tr.cue");
        assertThat(rows).hasCount(1);
        page.keyboard().type("Lights up");
        page.keyboard().press("Tab");
        page.keyboard().type("gold");
        page.keyboard().press("Enter");
        assertThat(rows.nth(0)).containsText("Gold sweep");
        page.keyboard().press("Insert");
        assertThat(rows).hasCount(2);
        page.keyboard().type("Warmer");
        page.keyboard().press("Tab");
        page.keyboard().type("amb");
        page.keyboard().press("Enter");
        assertThat(rows.nth(1)).containsText("Amber wash");
        assertThat(page.locator("tr.cue .no")).hasText(new String[] {"1", "2"});
    }

    private static void tab(Page page, String name) {
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true))
                .click();
        page.waitForLoadState();
    }
}
