package underbaton.web.page;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FormData;
import com.microsoft.playwright.options.RequestOptions;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Stage;

/** What cannot be taken is told whole, where it was typed, and is no error of the browser. */
class RefusalsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;

    @BeforeEach
    void open() {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
    }

    @AfterEach
    void close() {
        baton.bean(Stage.class).close();
    }

    private String path(String tab) {
        return baton.url("/shows/" + show + "/" + tab);
    }

    @Test
    void allThatIsWrongInAFormIsToldAtOnceAndMarked() {
        Page page = baton.open("/shows/" + show + "/rig/new");
        page.locator("[name=name]").fill("Second console");
        page.locator("[name=host]").fill("127.0.0.1");
        page.locator("[name=port]").fill("x");
        page.locator("[name=lead]").fill("-3");
        page.locator("[name=levels]").fill("-10 80");
        page.locator(".prose .main").click();
        assertThat(page.locator("#notice p")).hasText("“x” is no whole number; type one for the port.");
        assertThat(page.locator("#notice li")).hasCount(2);
        assertThat(page.locator("#notice")).containsText("A lead is 0 to 10,000 ms, not -3.");
        assertThat(page.locator("#notice")).containsText("One point alone, −10 dB, makes no scale");
        for (String field : List.of("port", "lead", "levels")) {
            assertThat(page.locator("[name=" + field + "]")).hasAttribute("aria-invalid", "true");
        }
        assertThat(page.locator("[aria-invalid]")).hasCount(3);
        assertThat(page.locator("[name=levels]")).hasValue("-10 80");
        page.keyboard().press("Escape");
        assertThat(page.locator("[aria-invalid]")).hasCount(0);
    }

    @Test
    void whatWasToldLastCanBeCalledBack() {
        Page page = baton.open("/shows/" + show + "/rig/new");
        assertThat(page.locator("[data-last]")).hasCount(0);
        page.locator("[name=name]").fill("Second console");
        page.locator("[name=host]").fill("127.0.0.1");
        page.locator("[name=port]").fill("x");
        page.locator(".prose .main").click();
        told(page, "no whole number");
        page.keyboard().press("Escape");
        assertThat(page.locator("#notice")).not().containsText("no whole number");
        page.locator("[data-last]").click();
        told(page, "no whole number");
    }

    @Test
    void aRefusalIsNoErrorOfTheBrowserOnAnyPage() {
        Page page = baton.browser();
        List<String> errors = new ArrayList<>();
        page.onConsoleMessage(m -> {
            if (m.type().equals("error")) {
                errors.add(page.url() + " " + m.text());
            }
        });
        page.navigate(path("rig/new"));
        page.locator("[name=name]").fill("Second console");
        page.locator("[name=port]").fill("x");
        page.locator(".prose .main").click();
        told(page, "no whole number");

        page.navigate(path("rig"));
        page.keyboard().press("n");
        page.locator(".blanks [name=name]").fill("Odd");
        page.locator(".blanks [name=says]").fill("note Q");
        page.keyboard().press("Enter");
        told(page, "is no note");

        page.navigate(path("book"));
        page.locator("tr.cue td.c.lx").first().click();
        page.keyboard().type("No such look");
        page.keyboard().press("Enter");
        told(page, "No such look");

        page.navigate(path("score"));
        page.keyboard().press("t");
        page.locator("#words textarea").fill("1 9/0");
        page.locator("#words .main").click();
        assertThat(page.locator("#score-words .notice")).isVisible();

        page.navigate(path("desk"));
        page.locator("#jump-number").fill("999");
        page.keyboard().press("Enter");
        told(page, "There is no cue 999");

        page.navigate(path("hands/edit"));
        page.keyboard().press("n");
        page.locator("#new-grid [name=name]").fill("Wide");
        page.locator("#new-grid [name=columns]").fill("99");
        page.keyboard().press("Enter");
        assertThat(page.locator("#new-grid .notice")).isVisible();

        page.navigate(path("signals"));
        page.locator("#trial [name=words]").fill("loud noise");
        page.keyboard().press("Enter");
        told(page, "loud noise");
        assertThat(errors).isEmpty();
    }

    private static void told(Page page, String words) {
        assertThat(page.locator("#notice .notice")).containsText(words);
        assertThat(page.locator("#notice .fault")).hasCount(0);
    }

    @Test
    void whoeverIsNoPageOfOursGetsTheStatusItself() {
        FormData jump = FormData.create().set("number", "999");
        APIResponse plain = baton.browser()
                .request()
                .post(path("desk/jump"), RequestOptions.create().setForm(jump));
        assertThat(plain.status()).isEqualTo(422);
        APIResponse ours = baton.browser()
                .request()
                .post(path("desk/jump"), RequestOptions.create().setForm(jump).setHeader("Baton-Page", "yes"));
        assertThat(ours.status()).isEqualTo(200);
        assertThat(ours.headers()).containsEntry("baton-refused", "422");
        assertThat(ours.text()).isEqualTo(plain.text());
    }
}
