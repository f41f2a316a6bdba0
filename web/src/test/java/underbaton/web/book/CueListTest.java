package underbaton.web.book;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
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

/** Many cells and whole cues at once: filled, copied between shows, renumbered, marked, and through a spreadsheet. */
class CueListTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;
    private int other;

    @BeforeEach
    void write() {
        show = baton.bean(Shows.class)
                .create("List test", s -> filled(s, "Amber", "Blue"))
                .id();
        other = baton.bean(Shows.class)
                .create("Other list", s -> filled(s, "Blue", "Gold"))
                .id();
    }

    @AfterEach
    void remove() {
        baton.bean(Shows.class).delete(show);
        baton.bean(Shows.class).delete(other);
    }

    /** Lights and Front with these looks, a song with the cues 1 to 4, the first of which calls the first look. */
    private static Show filled(Show empty, String... looks) {
        Show s = empty;
        for (String name : List.of("Lights", "Front")) {
            Device device = new Device(
                    0,
                    name,
                    Department.LIGHTS,
                    new Connection.NetworkMidi("127.0.0.1", 9),
                    0,
                    Numbering.WIRE,
                    0,
                    List.of());
            s = s.withDevice(device);
            int id = s.devices().get(s.devices().size() - 1).id();
            for (String look : looks) {
                var says = new Wording(Numbering.WIRE).read("note " + look.length());
                s = s.withPhrase(id, new Phrase(0, look, says, Effect.HOLDS, false));
            }
        }
        s = s.withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
        for (String number : List.of("1", "2", "3", "4")) {
            int phrase = s.devices().get(0).phrases().get(0).id();
            List<Call> calls =
                    number.equals("1") ? List.of(new Call(s.devices().get(0).id(), phrase)) : List.of();
            s = s.withCue(
                    s.items().get(0).id(), new Cue(0, CueNumber.of(number), Start.BY_HAND, "Line " + number, calls, 0));
        }
        return s;
    }

    private Page book(int id) {
        Page page = baton.open("/shows/" + id + "/book");
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        return page;
    }

    private static Locator cell(Page page, int row, int column) {
        return page.locator("tr.cue").nth(row).locator("[data-column]").nth(column);
    }

    private static void press(Page page, String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
        }
    }

    private List<String> cells(int column) {
        Show now = baton.bean(Shows.class).get(show);
        Device device = now.devices().get(column);
        return now.cues().map(c -> CueTable.cell(c, device)).toList();
    }

    private List<String> numbers(int id) {
        return baton.bean(Shows.class)
                .get(id)
                .cues()
                .map(c -> c.number().toString())
                .toList();
    }

    @Test
    void aBlockOfCellsIsFilledDownPastedAndClearedEachAsOneEdit() {
        Page page = book(show);
        cell(page, 0, 3).click();
        press(page, "Shift+ArrowDown", "Shift+ArrowDown", "Control+ArrowDown");
        assertThat(cell(page, 2, 3)).hasText("Amber");
        assertThat(cells(0)).containsExactly("Amber", "Amber", "Amber", "");
        press(page, "Control+c", "Escape", "ArrowRight", "Control+v");
        assertThat(cell(page, 2, 4)).hasText("Amber");
        assertThat(cells(1)).containsExactly("Amber", "Amber", "Amber", "");
        press(page, "Control+z");
        assertThat(page.locator("#notice")).containsText("Undone: change 3 cells");
        assertThat(cells(1)).containsOnly("");
        press(page, "ArrowLeft", "Shift+ArrowDown", "Delete");
        assertThat(cell(page, 1, 3)).hasText("");
        assertThat(cells(0)).containsExactly("", "", "Amber", "");
        cell(page, 2, 3).click();
        press(page, "Control+ArrowDown");
        assertThat(cell(page, 3, 3)).hasText("Amber");
    }

    @Test
    void aBlockInWhichOneCellIsRefusedChangesNothingAndNamesTheCue() {
        Page page = book(show);
        cell(page, 0, 2).click();
        press(page, "Shift+ArrowDown", "Control+c");
        cell(page, 2, 3).click();
        press(page, "Control+v");
        assertThat(page.locator("#notice")).containsText("Cue 3: Lights has no phrase “Line 1”");
        assertThat(page.locator("#notice")).containsText("Nothing was written");
        assertThat(cells(0)).containsExactly("Amber", "", "", "");
    }

    /** As a block from another show, or from a table, has it: what this machine cannot be told stays to be seen. */
    @Test
    void aBlockWithAPhraseAndWithWordsThatAreNoneKeepsBoth() {
        Page page = book(show);
        page.evaluate("text => navigator.clipboard.writeText(text)", "Amber\nViolet haze");
        cell(page, 1, 3).click();
        press(page, "Control+v");
        assertThat(page.locator("#notice")).containsText("2 cells pasted");
        assertThat(page.locator("#notice")).containsText("“Violet haze” is no phrase of it");
        assertThat(cell(page, 2, 3)).containsText("Violet haze");
        assertThat(cells(0)).containsExactly("Amber", "Amber", "Violet haze", "");
        press(page, "Control+z");
        assertThat(page.locator("#notice")).containsText("Undone: change 2 cells");
        assertThat(cells(0)).containsExactly("Amber", "", "", "");
    }

    /** The cell is still being kept, and its editor open, when the next key falls. */
    @Test
    void whatIsPastedWhileACellIsBeingKeptGoesToTheCellBelow() {
        Page page = book(show);
        page.evaluate("text => navigator.clipboard.writeText(text)", "Amber");
        page.route("**/cell", kept -> {
            page.waitForTimeout(300);
            kept.resume();
        });
        cell(page, 1, 3).click();
        page.keyboard().type("Blue");
        press(page, "Enter", "Control+v");
        assertThat(cell(page, 2, 3)).hasText("Amber");
        assertThat(cells(0)).containsExactly("Amber", "Blue", "Amber", "");
    }

    @Test
    void wholeCuesGoToAnotherShowByTheirPhrasesNames() {
        Page page = book(show);
        cell(page, 1, 3).click();
        page.keyboard().type("Blue");
        press(page, "Enter");
        assertThat(cell(page, 1, 3)).hasText("Blue");
        cell(page, 0, 0).click();
        press(page, "Shift+ArrowDown", "Control+c");
        assertThat(page.locator("#notice")).containsText("2 cues copied");
        page.navigate(baton.url("/shows/" + other + "/book"));
        cell(page, 1, 2).click();
        press(page, "Control+v");
        assertThat(page.locator("#notice")).containsText("2 cues pasted");
        assertThat(page.locator("#notice")).containsText("Cue 1, Lights: “Amber”, no machine here has that phrase");
        assertThat(numbers(other)).containsExactly("1", "2", "2.1", "2.2", "3", "4");
        assertThat(page.locator("tr[data-number='2.2']")).containsText("Blue");
        assertThat(page.locator("tr[data-number='2.1']")).containsText("Amber");
        assertThat(page.locator("tr[data-number='2.1'] .astray").first()).isVisible();
        press(page, "Escape", "Control+z");
        assertThat(page.locator("tr.cue")).hasCount(4);
    }

    @Test
    void cuesAreRenumberedAfterOneHasSeenWhatComesOfIt() {
        Page page = book(show);
        cell(page, 1, 0).click();
        press(page, "Shift+ArrowDown", "Shift+ArrowDown");
        page.locator("[data-renumber]").click();
        assertThat(page.locator("#numbers [name=first]")).hasValue("2");
        page.locator("#numbers [name=first]").fill("1");
        assertThat(page.locator("#numbers-preview")).containsText("Cue 1 keeps its number and is in the way");
        assertThat(page.locator("#numbers .main")).isDisabled();
        page.locator("#numbers [name=first]").fill("10");
        page.locator("#numbers [name=step]").fill("5");
        assertThat(page.locator("#numbers-preview tr")).hasCount(3);
        assertThat(page.locator("#numbers-preview tr").nth(2)).containsText("20");
        assertThat(numbers(show)).containsExactly("1", "2", "3", "4");
        page.locator("#numbers .main").click();
        assertThat(page.locator("tr[data-number='20']")).containsText("Line 4");
        assertThat(numbers(show)).containsExactly("1", "10", "15", "20");
    }

    @Test
    void aCueGetsAMarkAndANoteAndADepartmentIsFoldedAway() {
        Page page = book(show);
        cell(page, 1, 2).click();
        press(page, "Control+m");
        page.locator("#remarks [name=note]").fill("x".repeat(501));
        page.locator("#remarks .main").click();
        assertThat(page.locator("#book-remarks .notice")).containsText("has 501 characters; shorten it to 500");
        assertThat(page.locator("#remarks [name=note]")).hasValue("x".repeat(501));
        page.locator("#remarks [name=note]").fill("wait for the bow");
        page.locator("#remarks input[value=SKY]").check();
        page.locator("#remarks .main").click();
        assertThat(page.locator("tr[data-number='2'] .flag")).hasText("S");
        assertThat(page.locator("tr[data-number='2'] .note")).hasText("wait for the bow");
        page.locator("[data-fold=lx]").first().click();
        assertThat(page.locator(".grid")).hasClass(Pattern.compile("fold-lx"));
        assertThat(page.locator("tr[data-number='1'] .c .said").first()).isHidden();
        press(page, "Escape");
        cell(page, 0, 2).click();
        press(page, "ArrowRight");
        assertThat(cell(page, 0, 2)).hasClass(Pattern.compile("sel"));
        page.reload();
        assertThat(page.locator(".grid")).hasClass(Pattern.compile("fold-lx"));
        page.locator("[data-fold=lx]").first().click();
        assertThat(page.locator("tr[data-number='1'] .c .said").first()).isVisible();
    }

    @Test
    void theListGoesToASpreadsheetAndComesBackChanged() throws IOException {
        Page page = book(show);
        page.locator("[command=show-modal][commandfor=book-list]").click();
        Download saved =
                page.waitForDownload(() -> page.getByText("Save as CSV").click());
        assertThat(saved.suggestedFilename()).isEqualTo("List test, cues.csv");
        String csv = Files.readString(saved.path());
        String changed = csv.replace("Line 2,,,,", "Second line,orange,,Blue,").replaceAll("(?m)^Song,Song,,4,.*$", "")
                + "Song,Song,,5,by hand,New,,,Pink,\r\n";
        // As a spreadsheet copies it.
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        page.evaluate("text => navigator.clipboard.writeText(text)", changed.replace(",", "\t"));
        page.locator("#book-list textarea").click();
        page.keyboard().press("Control+v");
        Locator change = page.locator("#book-list-change");
        assertThat(change).containsText("One cue is new");
        assertThat(change).containsText("One cue is changed");
        assertThat(change).containsText("2 cues are the same");
        assertThat(change).containsText("Cue 5, Lights: “Pink”, no machine here has that phrase");
        assertThat(numbers(show)).as("nothing yet").containsExactly("1", "2", "3", "4");
        change.locator("[name=complete]").check();
        change.getByText("Import").click();
        assertThat(page.locator("#notice")).containsText("One cue added, 1 changed, 1 taken out");
        assertThat(numbers(show)).containsExactly("1", "2", "3", "5");
        assertThat(page.locator("tr[data-number='2']")).containsText("Second line");
        assertThat(cells(0)).containsExactly("Amber", "Blue", "", "");
        page.locator("[command=show-modal][commandfor=book-list]").click();
        page.locator("#book-list input[type=file]")
                .setInputFiles(
                        new FilePayload("notes.txt", "text/plain", "hello\nyou".getBytes(StandardCharsets.UTF_8)));
        assertThat(page.locator("#book-list")).containsText("This is no cue list");
    }
}
