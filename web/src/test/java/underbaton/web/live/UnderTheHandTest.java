package underbaton.web.live;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.List;
import java.util.Set;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Stage;

/** What has focus or is being pressed is not exchanged by a drawing that comes meanwhile. */
class UnderTheHandTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int DRAWINGS = 50;
    private static final int MOST_TRIES = 2000;

    /** A page, what on it is focused, and a topic that draws it. */
    private static final List<String[]> PLACES = List.of(
            new String[] {"rig", ".machine-list li:nth-child(3) a", "machines"},
            new String[] {"signals", "#listeners table:first-of-type tr[data-listener]:nth-child(2)", "listeners"},
            new String[] {"room", "[data-press='pad 2']", "room"});

    @Test
    void whatHasFocusStaysTheSameElementThroughManyDrawings() {
        int show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        for (String[] place : PLACES) {
            Page page = baton.open("/shows/" + show + "/" + place[0]);
            page.locator(place[1]).focus();
            page.evaluate(
                    "topic => { window.probe = document.activeElement; window.drawings = 0;"
                            + " document.addEventListener('live', (e) => { if (e.detail.topic === topic) window.drawings += 1; }); }",
                    place[2]);
            int drawings = 0;
            for (int i = 0; i < MOST_TRIES && drawings < DRAWINGS; i++) {
                baton.bean(Live.class).anew(Set.of(new Live.Part(show, place[2])));
                page.waitForTimeout(5);
                drawings = ((Number) page.evaluate("() => window.drawings")).intValue();
            }
            Assertions.assertThat(drawings).as(place[0]).isGreaterThanOrEqualTo(DRAWINGS);
            Assertions.assertThat(
                            page.evaluate("() => window.probe === document.activeElement && window.probe.isConnected"))
                    .as(place[0])
                    .isEqualTo(true);
        }
        baton.bean(Stage.class).close();
    }

    @Test
    void whatLooksAsBeforeIsNotSentAgain() {
        int show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        Page page = baton.open("/shows/" + show + "/signals");
        page.locator("#listeners table").first().waitFor();
        page.evaluate("() => { window.drawings = 0; document.addEventListener('live', (e) => {"
                + " if (e.detail.topic === 'listeners') window.drawings += 1; }); }");
        for (int i = 0; i < 20; i++) {
            baton.bean(Live.class).changed("listeners");
            page.waitForTimeout(30);
        }
        // One may have been under way for the page itself.
        Assertions.assertThat(((Number) page.evaluate("() => window.drawings")).intValue())
                .isLessThanOrEqualTo(1);
        baton.bean(Live.class).anew(Set.of(new Live.Part(show, "listeners")));
        page.waitForFunction("() => window.drawings > 0");
        baton.bean(Stage.class).close();
    }

    @Test
    void aSlowClickOnTheRigIsNotLostWhileTheListIsDrawn() {
        int show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        Page page = baton.open("/shows/" + show + "/rig");
        for (int i = 0; i < 6; i++) {
            String other = i % 2 == 0 ? "Words screen" : "River screen";
            page.locator(".machine-list a", new Page.LocatorOptions().setHasText(other))
                    .hover();
            page.mouse().down();
            for (int drawing = 0; drawing < 10; drawing++) {
                baton.bean(Live.class).anew(Set.of(new Live.Part(show, "machines")));
                page.waitForTimeout(30);
            }
            page.mouse().up();
            assertThat(page.locator(".ways > summary")).containsText(other);
        }
        assertThat(page.locator(".machine-list a[aria-current]")).hasCount(1);
        baton.bean(Stage.class).close();
    }
}
