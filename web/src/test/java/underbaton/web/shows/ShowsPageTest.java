package underbaton.web.shows;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Stage;

/** The shelf: names are unique, deleting asks, and a show that runs is not put away by a slip. */
class ShowsPageTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Stage stage = baton.bean(Stage.class);

    @AfterEach
    void away() {
        stage.close();
    }

    private static Locator spine(Page page, String name) {
        return page.locator(".spines li[data-name='" + name + "']");
    }

    @Test
    void aShowIsRenamedAndDeleted() {
        Shows shows = baton.bean(Shows.class);
        shows.create("Draft");
        Page page = baton.open("/");
        spine(page, "Draft").locator(".tools .word").first().click();
        spine(page, "Draft").getByLabel("Name of the show").fill("Midsummer Vigil");
        spine(page, "Draft").locator(".firm").click();
        assertThat(page.locator("#notice")).containsText("There is a show “Midsummer Vigil” already");
        spine(page, "Draft").getByLabel("Name of the show").fill("Final");
        spine(page, "Draft").locator(".firm").click();
        assertThat(spine(page, "Final")).isVisible();
        page.onceDialog(Dialog::dismiss);
        spine(page, "Final").getByText("delete").click();
        assertThat(spine(page, "Final")).isVisible();
        page.onceDialog(Dialog::accept);
        spine(page, "Final").getByText("delete").click();
        assertThat(spine(page, "Final")).hasCount(0);
        assertThat(shows.all()).noneMatch(s -> s.name().equals("Final"));
    }

    @Test
    void aRunningShowIsPutAwayOnlyAfterAsking() {
        int ferryman = baton.show("The Ferryman’s Lantern");
        int vigil = baton.show("Midsummer Vigil");
        stage.open(ferryman);
        stage.performer(ferryman).go();
        UnderBaton.until(
                "running", () -> stage.standing(ferryman).orElseThrow().last().isPresent());
        Page page = baton.open("/");
        page.onceDialog(dialog -> {
            assertThat(dialog.message()).contains("is running on the desk, at cue 1");
            dialog.dismiss();
        });
        spine(page, "Midsummer Vigil").locator(".title button").first().click();
        assertThat(stage.isOpen(ferryman)).isTrue();
        page.onceDialog(Dialog::accept);
        spine(page, "Midsummer Vigil").locator(".title button").first().click();
        page.waitForURL("**/book");
        assertThat(stage.isOpen(vigil)).isTrue();
    }

    @Test
    void aShowThatIsNotOnTheDeskCanBeReadAndSaysSo() {
        int ferryman = baton.show("The Ferryman’s Lantern");
        stage.open(baton.show("Midsummer Vigil"));
        Page page = baton.open("/shows/" + ferryman + "/desk");
        assertThat(page.locator(".elsewhere")).containsText("On the desk is Midsummer Vigil");
        assertThat(page.locator(".go")).hasCount(0);
        int status = page.request()
                .post(baton.url("/shows/" + ferryman + "/desk/go"))
                .status();
        assertThat(status).isEqualTo(409);
        page.getByText("Put The Ferryman’s Lantern on the desk").click();
        assertThat(page.locator(".go")).isVisible();
    }
}
