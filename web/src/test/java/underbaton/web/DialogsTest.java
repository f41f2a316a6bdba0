package underbaton.web;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.stage.Stage;

/** Dialogs and comboboxes by axe-core, and every page by the Tab key alone. */
class DialogsTest {

    private static final int MOST_TABS = 900;
    private static final int TABS_AT_ONCE = 20;

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

    private static void judge(Page page, String part, String where, List<String> found) {
        List<String> parts = List.of(part);
        UnderBaton.serious(new AxeBuilder(page).include(parts)).forEach(f -> found.add(where + ": " + f));
        turnLight(page);
        // Nothing but colours is another in the other light.
        UnderBaton.serious(new AxeBuilder(page).include(parts), "color-contrast")
                .forEach(f -> found.add(where + ", other light: " + f));
        turnLight(page);
    }

    private static void turnLight(Page page) {
        page.evaluate(
                "() => { const root = document.documentElement.dataset; root.bsTheme = root.bsTheme === 'dark' ? 'light' : 'dark'; }");
        page.waitForTimeout(100);
    }

    @Test
    void axeFindsNothingSeriousWithADialogOpen() {
        List<String> found = new ArrayList<>();
        int dialogs = 0;
        Set<String> judged = new HashSet<>();
        Page page = baton.browser();
        for (String tab : List.of("rig", "book", "score", "signals", "patch", "hands/edit", "desk")) {
            page.navigate(baton.url("/shows/" + show + "/" + tab));
            Locator openers = page.locator("[command=show-modal]:visible");
            for (int i = 0; i < openers.count(); i++) {
                String name = openers.nth(i).getAttribute("commandfor");
                if (!judged.add(tab + name)) {
                    continue;
                }
                openers.nth(i).click();
                assertThat(page.locator("#" + name)).isVisible();
                assertThat(page.locator("#" + name + " :is(button, a)").first()).isVisible();
                judge(page, "#" + name, tab + " " + name, found);
                page.keyboard().press("Escape");
                assertThat(page.locator("#" + name)).not().isVisible();
                dialogs++;
            }
            page.keyboard().press("F1");
            judge(page, "#key-sheet", tab + " keys", found);
            dialogs++;
        }
        assertThat(found).isEmpty();
        assertThat(dialogs).isGreaterThan(8);
    }

    @Test
    void phrasesAreOfferedByAComboboxWithTheirAmounts() {
        List<String> found = new ArrayList<>();
        Page page = baton.open("/shows/" + show + "/book");
        Locator cell = page.locator("tr.cue")
                .filter(new Locator.FilterOptions().setHasText("Oars"))
                .locator("td.c.sd")
                .filter(new Locator.FilterOptions().setHasText("−15 dB"));
        cell.click();
        page.keyboard().press("Enter");
        Locator field = page.locator("input[role=combobox]");
        assertThat(field).hasAttribute("aria-expanded", "true");
        judge(page, ".editing", "cell", found);
        field.fill("Bed → −15");
        assertThat(page.locator(".choices")).isVisible();
        field.fill("Be");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("ArrowUp");
        assertThat(page.locator(".choices [aria-selected=true]")).hasCount(1);
        String active = field.getAttribute("aria-activedescendant");
        assertThat(page.locator(".choices [aria-selected=true]")).hasAttribute("id", active);
        field.fill("Bed ");
        assertThat(page.locator(".choices")).containsText("−∞ dB to");
        assertThat(page.locator(".choices")).containsText("−15 dB in 3 s");
        page.keyboard().press("Escape");

        Page score = baton.open("/shows/" + show + "/score");
        score.keyboard().press("Enter");
        assertThat(score.locator("input[role=combobox]")).hasAttribute("aria-expanded", "true");
        judge(score, ".writer", "writer", found);
        score.keyboard().press("Escape");
        assertThat(found).isEmpty();
    }

    /** From the first element through all of them and out again: nothing holds the focus, nothing is visited twice. */
    @Test
    void everyPageIsWalkedByTabAlone() {
        Page page = baton.browser();
        for (String tab : EveryPageTest.TABS) {
            page.navigate(baton.url("/shows/" + show + "/" + tab));
            page.evaluate("() => { document.activeElement.blur(); window.visited = [];"
                    + " document.addEventListener('focusin', (e) => window.visited.push(e.target)); }");
            int again = -1;
            for (int tabs = 0; again < 0 && tabs < MOST_TABS; tabs += TABS_AT_ONCE) {
                for (int i = 0; i < TABS_AT_ONCE; i++) {
                    page.keyboard().press("Tab");
                }
                again = ((Number) page.evaluate(
                                "() => window.visited.findIndex((e, i) => window.visited.indexOf(e) < i)"))
                        .intValue();
            }
            assertThat(again)
                    .as("%s: how many are visited before one comes again", tab)
                    .isGreaterThan(5);
            assertThat(((Number) page.evaluate("(i) => window.visited.indexOf(window.visited[i])", again)).intValue())
                    .as("%s: the first is the one that comes again", tab)
                    .isZero();
        }
    }
}
