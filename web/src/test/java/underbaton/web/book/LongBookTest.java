package underbaton.web.book;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.KeyboardModifier;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.CueTable;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wording;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/** A book of which a page shows a part: what is out of sight can be reached, chosen and changed all the same. */
class LongBookTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int ITEMS = 12;
    private static final int CUES = 50;
    private int show;

    @BeforeEach
    void write() {
        show = baton.bean(Shows.class).create("Long book", LongBookTest::filled).id();
    }

    @AfterEach
    void remove() {
        baton.bean(Shows.class).delete(show);
    }

    /** Twelve songs of fifty cues; the first cue of all calls Amber. */
    private static Show filled(Show empty) {
        Show s = empty.withDevice(new Device(
                0,
                "Lights",
                Department.LIGHTS,
                new Connection.NetworkMidi("127.0.0.1", 9),
                0,
                Numbering.WIRE,
                0,
                List.of()));
        int lights = s.devices().get(0).id();
        for (String look : List.of("Amber", "Blue")) {
            var says = new Wording(Numbering.WIRE).read("note " + look.length());
            s = s.withPhrase(lights, new Phrase(0, look, says, Effect.HOLDS, false));
        }
        int amber = s.devices().get(0).phrases().get(0).id();
        int number = 0;
        for (int i = 0; i < ITEMS; i++) {
            s = s.withItem(new Item(0, ItemKind.SONG, "Song " + (i + 1), 0, List.of()), i);
            List<Cue> cues = new ArrayList<>();
            for (int c = 0; c < CUES; c++) {
                List<Call> calls = number == 0 ? List.of(new Call(lights, amber)) : List.of();
                number++;
                cues.add(new Cue(0, CueNumber.of(Integer.toString(number)), Start.BY_HAND, "Line " + number, calls, 0));
            }
            s = s.withCues(s.items().get(i).id(), cues);
        }
        return s;
    }

    private Page book() {
        Page page = baton.open("/shows/" + show + "/book");
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        return page;
    }

    private static Locator cell(Page page, int number, String column) {
        return page.locator("tr[data-number='" + number + "'] ." + column);
    }

    private static void find(Page page, String words) {
        page.keyboard().press("/");
        page.locator("#find").fill(words);
        page.keyboard().press("Enter");
    }

    private List<String> lights() {
        Show now = baton.bean(Shows.class).get(show);
        Device device = now.devices().get(0);
        return now.cues().map(c -> CueTable.cell(c, device)).toList();
    }

    @Test
    void aPageDrawsWhatIsNearTheWindowAndTheRestAsItIsReached() {
        Page page = book();
        assertThat(page.locator("#count")).hasText("600 cues, 12 items");
        assertThat(page.locator("tr.cue").count()).isBetween(40, 200);
        find(page, "450");
        assertThat(cell(page, 450, "no")).isInViewport();
        assertThat(page.locator(".sel")).hasText("Line 450");
        page.keyboard().press("ArrowDown");
        assertThat(page.locator(".sel")).hasText("Line 451");
        BoundingBox box = page.locator(".sel").boundingBox();
        page.waitForTimeout(2500);
        assertThat(page.locator("tr.cue").count())
                .as("far ones are folded again")
                .isLessThan(200);
        assertThat(page.locator(".sel").boundingBox().y).as("nothing jumps").isEqualTo(box.y);
        find(page, "line 599");
        assertThat(page.locator(".sel")).hasText("Line 599");
        find(page, "line 7");
        assertThat(page.locator(".sel")).hasText("Line 7");
    }

    @Test
    void keysDoNotWaitForRowsThatDoNotCome() {
        Page page = book();
        cell(page, 1, "what").click();
        page.route("**/leaves?*", Route::abort);
        find(page, "450");
        page.locator("#find").press("Escape");
        page.keyboard().press("ArrowDown");
        assertThat(page.locator(".sel")).hasText("Line 2");
        page.unroute("**/leaves?*");
        find(page, "450");
        assertThat(page.locator(".sel")).hasText("Line 450");
    }

    @Test
    void stepsGoOnWhereNothingIsDrawnYet() {
        Page page = book();
        cell(page, 1, "what").click();
        for (int i = 0; i < 130; i++) {
            page.keyboard().press("ArrowDown");
        }
        assertThat(page.locator(".sel")).hasText("Line 131");
        assertThat(page.locator(".sel")).isInViewport();
    }

    @Test
    void anEditSendsTheRowsThatChangedAndALookIsHeldDownToWhereItEnds() {
        Page page = book();
        cell(page, 3, "c").click();
        var answer = page.waitForResponse(Pattern.compile("/cell$"), () -> {
            page.keyboard().type("Blue");
            page.keyboard().press("Enter");
        });
        assertThat(cell(page, 3, "c")).hasText("Blue");
        assertThat(answer.text()).contains("data-number=\"4\"").doesNotContain("data-number=\"1\"");
        assertThat(cell(page, 20, "c").getAttribute("title")).isEqualTo("still Blue");
        find(page, "600");
        assertThat(cell(page, 600, "c")).hasAttribute("title", "still Blue");
        find(page, "2");
        assertThat(cell(page, 2, "c")).hasAttribute("title", "still Amber");
    }

    @Test
    void aBlockThatReachesOutOfSightIsCopiedClearedAndFilled() {
        Page page = book();
        cell(page, 1, "c").click();
        page.evaluate("document.querySelector('.body').scrollTop = 1e6");
        cell(page, 600, "c").click(new Locator.ClickOptions().setModifiers(List.of(KeyboardModifier.SHIFT)));
        page.keyboard().press("Control+ArrowDown");
        assertThat(cell(page, 600, "c")).hasText("Amber");
        assertThat(lights()).hasSize(600).containsOnly("Amber");
        page.keyboard().press("Control+c");
        UnderBaton.until(
                "it is on the clipboard",
                () -> page.evaluate("navigator.clipboard.readText()").toString().matches("(Amber\n){599}Amber"));
        page.keyboard().press("Delete");
        assertThat(cell(page, 600, "c")).hasText("");
        assertThat(lights()).containsOnly("");
        page.keyboard().press("Control+z");
        assertThat(cell(page, 600, "c")).hasText("Amber");
    }

    @Test
    void aFormThatIsOpenStaysWhenSomebodyElseWrites() {
        Page page = book();
        page.locator(".item-name summary").first().click();
        page.locator(".item-form [name=name]").fill("Reprise");
        baton.bean(Shows.class).edit(show, "an edit elsewhere", s -> {
            Cue cue = s.items().get(0).cues().get(1);
            return s.withCue(s.items().get(0).id(), cue.withWhat("Written elsewhere"));
        });
        assertThat(cell(page, 2, "what")).hasText("Written elsewhere");
        assertThat(page.locator(".item-form [name=name]")).hasValue("Reprise");
        page.locator(".item-form .main").click();
        assertThat(page.locator(".item-name b").first()).hasText("Reprise");
        assertThat(cell(page, 2, "what")).hasText("Written elsewhere");
    }
}
