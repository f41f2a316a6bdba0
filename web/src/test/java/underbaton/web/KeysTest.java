package underbaton.web;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.stage.Stage;

/** The one table of keys: what is printed, what the sheet says and what a key does are the same, also when it was bound anew. */
class KeysTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;

    @BeforeEach
    void open() {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
    }

    private Page page(String tab) {
        return baton.open("/shows/" + show + "/" + tab);
    }

    private static Locator line(Page page, String words) {
        return page.locator("#key-sheet tr").filter(new Locator.FilterOptions().setHasText(words));
    }

    @Test
    void everyPageTellsItsKeysAndPrintsNoneThatItHasNot() {
        List<String> wrong = new ArrayList<>();
        Page page = baton.browser();
        for (String tab : EveryPageTest.TABS) {
            page.navigate(baton.url("/shows/" + show + "/" + tab));
            wrong.addAll(page.locator("key-of")
                    .evaluateAll("all => all.filter(k => !k.shadowRoot.textContent).map(k => k.outerHTML)")
                    .toString()
                    .lines()
                    .filter(l -> !l.equals("[]"))
                    .map(l -> tab + ": " + l)
                    .toList());
            page.keyboard().press("F1");
            assertThat(line(page, "Do again what was undone")).containsText("Ctrl Shift Z");
            page.keyboard().press("Escape");
            assertThat(page.locator("#key-sheet")).not().isVisible();
        }
        assertThat(wrong).isEmpty();
    }

    /** The orders of the Desk stand in the server's table, the rest of its keys in the page's. */
    @Test
    void noKeyOfTheDeskHasTwoMeanings() {
        Page page = baton.open("/shows/" + baton.show("The Ferryman’s Lantern") + "/desk");
        Object twice = page.evaluate("async () => { const { KEYS } = await import('/js/keytable.js');"
                + " const all = Object.values(KEYS.desk).flatMap((k) => k.keys);"
                + " return all.filter((k, i) => all.indexOf(k) !== i).join(); }");
        assertThat(twice).isEqualTo("");
    }

    @Test
    void aKeyIsBoundAnewOnAnyPageAndPutBack() {
        Page page = page("rig");
        page.keyboard().press("F1");
        line(page, "Add a machine").locator("button").click();
        page.keyboard().press("n");
        assertThat(line(page, "Add a machine")).containsText("taken: A new phrase");
        line(page, "Add a machine").locator("button").click();
        page.keyboard().press("Tab");
        assertThat(line(page, "Add a machine").locator("button")).hasText("M");
        assertThat(line(page, "Add a machine").locator("button")).isFocused();
        line(page, "Add a machine").locator("button").click();
        page.keyboard().press("Control+Shift+u");
        assertThat(line(page, "Add a machine")).containsText("Ctrl Shift U");
        page.keyboard().press("Escape");
        assertThat(page.locator("a[data-act=machine]")).containsText("Ctrl Shift U");
        page.reload();
        page.keyboard().press("m");
        assertThat(page).hasURL(Pattern.compile("/rig(\\?.*)?$"));
        page.keyboard().press("Control+Shift+u");
        assertThat(page).hasURL(Pattern.compile("/rig/new"));

        Page back = page("rig");
        back.keyboard().press("F1");
        back.locator("[data-keys-reset]").click();
        back.keyboard().press("Escape");
        assertThat(back.locator("a[data-act=machine]")).containsText("Add a machine M");
    }

    /** On many keyboards a sign such as the stroke is reached with Shift only; a capital letter by a locked Shift is the letter. */
    @Test
    void aSignIsTheSignOnAnyKeyboardAndALockedShiftMutesNoKey() {
        Page book = page("book");
        press(book, "/", true);
        assertThat(book.locator("#find")).isFocused();
        Page patch = page("patch");
        press(patch, "N", false);
        assertThat(patch.locator("#new-set")).isVisible();
        patch.keyboard().press("Escape");
        press(patch, "K", true);
        assertThat(patch.locator("#keep-as [name=name]")).hasValue(Pattern.compile(".* 2"));
    }

    private static void press(Page page, String key, boolean shift) {
        page.evaluate(
                "([key, shiftKey]) => document.body.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true, cancelable: true }))",
                List.of(key, shift));
    }
}
