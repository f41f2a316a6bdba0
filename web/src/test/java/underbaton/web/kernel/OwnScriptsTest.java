package underbaton.web.kernel;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.ConsoleMessage;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/** Every page works under a policy that runs our own script files and nothing else. */
class OwnScriptsTest {

    private static final List<String> PAGES = List.of("rig", "book", "score", "desk", "room", "linecheck", "log");

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    @Test
    void noPageAsksForWhatThePolicyForbids() {
        Page page = baton.browser();
        List<String> refused = new ArrayList<>();
        page.onConsoleMessage(m -> note(m, refused));
        page.onPageError(refused::add);
        Show shown = baton.bean(Shows.class).all().get(0);
        int show = shown.id();
        List<String> pages = new ArrayList<>(PAGES);
        pages.add("rig/devices/" + shown.devices().get(0).id() + "/sheet");
        for (String at : pages) {
            Response response = page.navigate(baton.url("/shows/" + show + "/" + at));
            assertThat(response.status()).as(at).isEqualTo(200);
            assertThat(response.headerValue("content-security-policy"))
                    .as(at)
                    .contains("script-src 'self';")
                    .contains("frame-ancestors 'none'");
        }
        page.navigate(baton.url("/"));
        assertThat(refused).isEmpty();
    }

    private static void note(ConsoleMessage message, List<String> refused) {
        if (message.type().equals("error") || message.type().equals("warning")) {
            refused.add(message.text());
        }
    }

    @Test
    void aScriptThatGotIntoAPageDoesNotRun() {
        Page page = baton.open("/");
        Object ran = page.evaluate("() => new Promise((done) => {"
                + " document.addEventListener('securitypolicyviolation', (e) => done(e.effectiveDirective));"
                + " const img = document.createElement('div');"
                + " img.innerHTML = '<img src=\"data:,\" onerror=\"window.stranger = true\">';"
                + " document.body.append(img); })");
        assertThat(ran).isEqualTo("script-src-attr");
        assertThat(page.evaluate("window.stranger")).isNull();
    }

    @Test
    void scriptsAndStylesComeUnderANameThatChangesWithTheirContent() {
        Page page = baton.open("/");
        List<?> names = (List<?>) page.evaluate(
                "[...document.querySelectorAll('script[src], link[rel=stylesheet]')].map((e) => e.src || e.href)");
        assertThat(names).isNotEmpty().allSatisfy(n -> assertThat(n.toString())
                .matches(".*(/[0-9a-f]{16}/.*|-[0-9a-f]{32})\\.(js|css)"));
        assertThat(names).allSatisfy(n -> {
            String path = URI.create(n.toString()).getPath();
            assertThat(baton.get(path).headers().firstValue("Cache-Control").orElse(""))
                    .as(path)
                    .startsWith("max-age=31536000, public");
        });
        assertThat(names)
                .anySatisfy(n -> assertThat(baton.get(URI.create(n.toString()).getPath())
                                .headers()
                                .firstValue("Cache-Control")
                                .orElse(""))
                        .isEqualTo("max-age=31536000, public, immutable"));
    }
}
