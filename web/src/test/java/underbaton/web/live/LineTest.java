package underbaton.web.live;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.net.URI;
import java.util.function.BiConsumer;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Stage;

/** A Desk whose line is gone says so and fires nothing; it finds back by itself. */
class LineTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final Pattern GONE = Pattern.compile(".*line-gone.*");
    private int show;
    private Relay relay;
    private Page page;

    @BeforeEach
    void openThroughTheRelay() throws Exception {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        relay = new Relay(URI.create(baton.url("/")).getPort());
        page = baton.browser();
        page.navigate("http://127.0.0.1:" + relay.port() + "/shows/" + show + "/desk");
        assertThat(page.locator(".standby .n")).isVisible();
    }

    @AfterEach
    void leave() throws Exception {
        relay.close();
        baton.bean(Stage.class).close();
    }

    @Test
    void silenceIsTold() {
        goneAndBack(Relay::silence);
    }

    @Test
    void aCutLineIsTold() {
        goneAndBack(Relay::cut);
    }

    private void goneAndBack(BiConsumer<Relay, Boolean> trouble) {
        String first = page.locator(".standby .n").textContent();
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).not().hasText(first);
        String second = page.locator(".standby .n").textContent();
        trouble.accept(relay, true);
        assertThat(page.locator("body")).hasClass(GONE);
        assertThat(page.locator(".line-told")).isVisible();
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("does not answer");
        trouble.accept(relay, false);
        assertThat(page.locator("body")).not().hasClass(GONE);
        assertThat(page.locator(".line-told")).isHidden();
        assertThat(page.locator(".standby .n")).hasText(second);
        assertThat(baton.bean(Stage.class).playback(show)).isPresent();
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).not().hasText(second);
    }

    /** A key pressed before the line of a new page is open waits for it a moment. */
    @Test
    void aKeyRightAfterThePageCameIsNotLost() {
        String first = page.locator(".standby .n").textContent();
        page.navigate("about:blank");
        page.navigate("http://127.0.0.1:" + relay.port() + "/shows/" + show + "/desk");
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).not().hasText(first);
    }
}
