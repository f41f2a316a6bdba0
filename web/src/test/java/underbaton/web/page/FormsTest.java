package underbaton.web.page;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** Forms work by Enter as by leaving the blank, and what is too long is refused and not cut. */
class FormsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);

    @Test
    void enterInTheLogsFilterKeepsThePageAndASharpIsFoundAsItIsTyped() {
        int show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        Device lights = shows.get(show).devices().get(0);
        for (String look : new String[] {"House half", "House open"}) {
            PlannedCall call = PlannedCall.of(lights, lights.phraseNamed(look).orElseThrow());
            baton.bean(Stage.class).fire(show, call, "for the log");
        }
        Page page = baton.open("/shows/" + show + "/log");
        assertThat(page.locator("#rows")).containsText("for the log");
        page.evaluate("() => { window.stays = true; }");
        Locator text = page.locator("#log-text");
        text.fill("c#-2");
        text.press("Enter");
        assertThat(page.locator("#rows tr")).not().hasCount(0);
        assertThat(page.locator("#rows")).containsText("C♯−2");
        assertThat(page.locator("#rows")).not().containsText("note D−2");
        assertThat(text).hasValue("c#-2");
        org.assertj.core.api.Assertions.assertThat(page.evaluate("() => window.stays"))
                .isEqualTo(true);
        baton.bean(Stage.class).close();
    }

    @Test
    void enterInTheFirstEntryOfAListKeepsTheMachine() {
        int show = baton.show("The Ferryman’s Lantern");
        int lights = shows.get(show).devices().get(0).id();
        Page page = baton.open("/shows/" + show + "/rig?device=" + lights);
        page.evaluate("() => { window.stays = true; }");
        page.locator("#list-first").fill("3");
        page.locator("#list-first").press("Enter");
        until(
                "kept",
                () -> shows.get(show).devices().get(0).list().orElseThrow().first() == 3);
        assertThat(page.locator(".ways > summary")).containsText("FOH lights");
        org.assertj.core.api.Assertions.assertThat(page.evaluate("() => window.stays"))
                .isEqualTo(true);
        // Enter changes the field and submits the form: both have come before it is undone.
        page.waitForTimeout(500);
        assertThat(page.locator(".htmx-request")).hasCount(0);
        shows.undo(show);
        org.assertj.core.api.Assertions.assertThat(
                        shows.get(show).devices().get(0).list().orElseThrow().first())
                .isZero();
    }

    @Test
    void aNameThatIsTooLongIsRefusedWithItsWordsLeftInTheForm() {
        int show = baton.show("The Ferryman’s Lantern");
        Page page = baton.open("/shows/" + show + "/hands/edit");
        page.keyboard().press("n");
        page.locator("#new-grid [name=name]").fill("x".repeat(41));
        page.locator("#new-grid [name=name]").press("Enter");
        assertThat(page.locator("#new-grid .notice")).containsText("has 41 characters; shorten it to 40");
        assertThat(page.locator("#new-grid [name=name]")).hasValue("x".repeat(41));
    }
}
