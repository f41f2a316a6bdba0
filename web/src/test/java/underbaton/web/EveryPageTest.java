package underbaton.web;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.stage.Stage;

/** axe-core on every page in both lights, and nothing wider than the window. */
class EveryPageTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    /** The pages of a show. */
    static final List<String> TABS = List.of(
            "rig",
            "rig/new",
            "linecheck",
            "book",
            "score",
            "signals",
            "patch",
            "hands",
            "hands/edit",
            "desk",
            "room",
            "log",
            "performances");

    private static List<String> paths() {
        int show = baton.show("The Ferryman’s Lantern");
        List<String> paths = new ArrayList<>(List.of("/"));
        for (String tab : TABS) {
            paths.add("/shows/" + show + "/" + tab);
        }
        return paths;
    }

    @Test
    void axeFindsNothingSeriousInEitherLight() {
        baton.bean(Stage.class).open(baton.show("The Ferryman’s Lantern"));
        List<String> found = new ArrayList<>();
        Page page = baton.browser();
        for (String path : paths()) {
            page.navigate(baton.url(path));
            UnderBaton.serious(new AxeBuilder(page)).forEach(f -> found.add(path + ": " + f));
            page.locator("[data-light]").click();
            // Colours fade on some elements; judge them when they have arrived.
            page.waitForTimeout(100);
            // Nothing but colours is another in the other light.
            UnderBaton.serious(new AxeBuilder(page), "color-contrast")
                    .forEach(f -> found.add(path + ", other light: " + f));
            page.locator("[data-light]").click();
        }
        assertThat(found).isEmpty();
    }

    @Test
    void nothingIsWiderThanTheWindow() {
        Page page = baton.browser();
        for (String path : paths()) {
            page.navigate(baton.url(path));
            Object over = page.evaluate("() => [...document.querySelectorAll('.body, .sheet, #desk')]"
                    + ".filter(e => e.scrollWidth > e.clientWidth + 1).map(e => e.className).join()");
            assertThat(over).as(path).isEqualTo("");
        }
    }

    @Test
    void theDeskFitsATabletInPortrait() {
        baton.bean(Stage.class).open(baton.show("The Ferryman’s Lantern"));
        Page page = baton.browser(800, 1280);
        page.navigate(baton.url("/shows/" + baton.show("The Ferryman’s Lantern") + "/desk"));
        Object fits = page.evaluate("() => document.documentElement.scrollWidth <= 800 && "
                + "document.querySelector('.go').getBoundingClientRect().right <= 800");
        assertThat(fits).isEqualTo(true);
    }
}
