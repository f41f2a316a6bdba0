package underbaton.web.performances;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.standins.RehearsalRoom;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Edits;
import underbaton.web.stage.Manners;
import underbaton.web.stage.Stage;

/** A run of a show, as an operator gives it: what waits, what is out tonight, what is kept of it. */
class PerformanceTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;
    private Page page;

    @BeforeEach
    void openDesk() throws Exception {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).open(show);
        page = baton.open("/shows/" + show + "/desk");
    }

    @AfterEach
    void leaveDesk() {
        baton.bean(Manners.class).set(Edits.WAIT);
        baton.bean(Stage.class).close();
    }

    private void go(String cue) {
        assertThat(page.locator(".go b")).hasText("GO " + cue);
        page.waitForTimeout(350);
        page.keyboard().press("Enter");
    }

    private Cue cue(String number) {
        return baton.bean(Shows.class)
                .get(show)
                .cueNumbered(CueNumber.of(number))
                .orElseThrow();
    }

    private void renames(String number, String what) {
        edit(number, c -> c.withWhat(what));
    }

    private void edit(String number, UnaryOperator<Cue> change) {
        int id = cue(number).id();
        baton.bean(Shows.class)
                .edit(
                        show,
                        "cue " + number,
                        s -> s.withCuesExchanged(List.of(change.apply(s.cue(id).orElseThrow()))));
    }

    private List<String> causes(long after) {
        return baton.bean(Traffic.class).after(after, 9999).stream()
                .filter(e -> e.direction() == Entry.Direction.OUT && e.showId() == show)
                .map(Entry::cause)
                .distinct()
                .toList();
    }

    @Test
    void editsMadeWhileTheShowRunsWaitForTheOperatorsWord() {
        String second = page.locator(".coming .next b").first().textContent();
        renames(second, "Before the run");
        assertThat(page.locator(".coming .next .w").first()).hasText("Before the run");
        go(page.locator(".standby .n").textContent());
        assertThat(page.locator(".standby h2")).hasText("Before the run");
        String later = page.locator(".coming .next b").last().textContent();
        renames(later, "In the run");
        assertThat(page.locator(".waits")).containsText("1 edit waits");
        assertThat(page.locator(".coming .next .w").last()).not().hasText("In the run");
        Page book = page.context().newPage();
        book.navigate(baton.url("/shows/" + show + "/book"));
        assertThat(book.locator(".edits-wait")).containsText("1 edit waits");
        page.bringToFront();
        page.keyboard().press("e");
        assertThat(page.locator(".waits")).hasCount(0);
        assertThat(page.locator(".coming .next .w").last()).hasText("In the run");
        assertThat(book.locator(".edits-wait")).hasCount(0);
        book.close();

        // What lies ahead is let through when the operator has said so, what stands by is not.
        baton.bean(Manners.class).set(Edits.AHEAD);
        renames(later, "Far ahead");
        assertThat(page.locator(".coming .next .w").last()).hasText("Far ahead");
        edit(second, c -> c.withCalls(List.of()));
        assertThat(page.locator(".waits")).containsText("1 edit waits");
        assertThat(page.locator(".standby .none")).hasCount(0);
        page.keyboard().press("e");
        assertThat(page.locator(".standby .none")).hasText("no machine gets anything");
        for (int i = 0; i < 4; i++) {
            baton.bean(Shows.class).undo(show);
        }
    }

    @Test
    void aCueThatIsTakenOutIsStruckThroughAndSendsNothingTillItIsPutBack() {
        String first = page.locator(".standby .n").textContent();
        page.keyboard().press("a");
        Locator sheet = page.locator("#catch-up .tonight");
        sheet.locator("input[name=number]").fill(first);
        sheet.locator("input[name=number]").press("Enter");
        assertThat(sheet.locator("fieldset").last()).containsText(first);
        page.keyboard().press("Escape");
        assertThat(page.locator(".out-now")).containsText("cue " + first);
        assertThat(page.locator(".standby .n")).not().hasText(first);
        Page book = page.context().newPage();
        book.navigate(baton.url("/shows/" + show + "/book"));
        assertThat(book.locator("#cue-" + cue(first).id() + " .what .said"))
                .hasCSS("text-decoration-line", "line-through");

        // In the Book it is put back at the cue itself.
        book.locator("#cue-" + cue(first).id() + " [data-column=what]").click();
        book.keyboard().press("Alt+o");
        assertThat(page.locator(".out-now")).hasCount(0);
        assertThat(page.locator(".standby .n")).hasText(first);
        assertThat(book.locator("#cue-" + cue(first).id() + " .what .said")).hasCSS("text-decoration-line", "none");
        book.close();

        page.bringToFront();
        page.keyboard().press("a");
        Locator lights =
                page.locator("#catch-up .tonight label").filter(new Locator.FilterOptions().setHasText("FOH lights"));
        lights.locator("input").uncheck();
        assertThat(page.locator("#lamps [data-device='FOH lights']")).containsText("out tonight");
        page.keyboard().press("Escape");
        long before = baton.bean(Traffic.class).last();
        go(first);
        assertThat(page.locator(".done b")).hasText(first);
        page.keyboard().press("a");
        lights.locator("input").check();
        until("the lights are told what they missed", () -> causes(before).contains("catch-up"));
        page.keyboard().press("Escape");
    }

    @Test
    void theBeatAtWhichGoCameIsWrittenDownAndTakenOnTheScore() {
        page.keyboard().press("/");
        page.keyboard().type("80");
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).hasText("80");
        page.keyboard().press("w");
        assertThat(page.locator(".waits")).containsText("Recording GO times");
        go("80");
        go("83");
        assertThat(page.locator(".go")).containsText("press again");
        page.keyboard().press("Enter");
        assertThat(page.locator(".done b")).hasText("83");

        int song = baton.bean(Shows.class)
                .get(show)
                .itemOf(cue("83").id())
                .orElseThrow()
                .id();
        page.navigate(baton.url("/shows/" + show + "/score?item=" + song));
        assertThat(page.locator(".written")).containsText("83 at 1:");
        assertThat(page.locator(".proposed text")).hasText("GO 83");
        page.locator(".written").getByText("take").click();
        assertThat(page.locator(".written")).hasCount(0);
        assertThat(cue("83").start().toString()).startsWith("at 1:");
        baton.bean(Shows.class).undo(show);
        assertThat(cue("83").start().toString()).isEqualTo("by hand");
    }

    @Test
    void aRunIsKeptWithItsTimesAndItsNotes() {
        String first = page.locator(".standby .n").textContent();
        go(first);
        assertThat(page.locator(".done b")).hasText(first);
        page.keyboard().press("m");
        Locator note = page.locator("#catch-up .note");
        assertThat(note).containsText("cue " + first);
        page.keyboard().type("The curtain sticks");
        page.keyboard().press("Enter");
        assertThat(page.locator("#catch-up")).not().isVisible();
        page.onceDialog(d -> d.accept());
        page.getByText("end the run").click();
        assertThat(page.getByText("end the run")).hasCount(0);

        page.navigate(baton.url("/shows/" + show + "/performances"));
        assertThat(page.locator(".when")).containsText("ended");
        assertThat(page.locator(".timings tbody tr")).hasCount(1);
        assertThat(page.locator(".timings tbody tr td").first())
                .hasText(baton.bean(Shows.class).get(show).items().get(0).name());
        assertThat(page.locator("table.list").nth(1)).containsText("The curtain sticks");
        page.locator(".all summary").click();
        assertThat(page.locator(".all")).containsText("the performance is over");
        assertThat(page.locator(".all")).containsText("GO");
        page.onceDialog(d -> d.accept());
        page.getByText("delete this performance").click();
        assertThat(page.locator("body")).not().containsText("The curtain sticks");
    }
}
