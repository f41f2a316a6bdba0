package underbaton.web;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Page;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Item;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;
import underbaton.web.library.Shows;

/**
 * A show of four machines, a song, listeners, patch sets and hand keys from nothing, by the keyboard alone. An action is a key that does
 * something, a text that is typed or pasted, or going to another field; they are counted.
 */
class BuiltByKeyboardTest {

    private static final int MOST_ACTIONS = 200;
    private static final int CUES = 20;
    private static final String NAME = "From nothing";

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private Page page;
    private int actions;
    private int keys;
    private int part;

    private void press(String key) {
        page.keyboard().press(key);
        actions++;
        keys++;
    }

    /** To another field: a deed of the hand, as a click would be, however many keys it takes. */
    private void tab(int times) {
        reach("Tab", times);
    }

    private void reach(String key, int times) {
        for (int i = 0; i < times; i++) {
            page.keyboard().press(key);
        }
        actions++;
        keys += times;
    }

    private void type(String text) {
        page.keyboard().type(text);
        actions++;
    }

    private void paste(String text) {
        page.keyboard().insertText(text);
        actions++;
    }

    /** Elsewhere, in a spreadsheet. */
    private void copied(String text) {
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        page.evaluate("text => navigator.clipboard.writeText(text)", text);
    }

    /** By the browser's line for addresses: the key to it, the address, Enter. */
    private void go(String tab) {
        page.navigate(baton.url("/shows/" + show().orElseThrow().id() + "/" + tab));
        actions += 3;
    }

    private void done(String what) {
        System.out.println(what + ": " + (actions - part) + " actions");
        part = actions;
    }

    private void focused(String selector) {
        assertThat(page.locator(selector)).isFocused();
    }

    @AfterEach
    void clear() {
        show().ifPresent(s -> shows.delete(s.id()));
    }

    private Optional<Show> show() {
        return shows.all().stream()
                .filter(s -> s.name().equals(NAME))
                .map(s -> shows.get(s.id()))
                .findFirst();
    }

    private Device device(String name) {
        return show().orElseThrow().devices().stream()
                .filter(d -> d.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aDeskAConsoleAWordsScreenAndASong() {
        page = baton.open("/");
        press("n");
        type(NAME);
        press("Enter");
        focused("#ways [name=name]");
        done("the show");

        lightingDesk();
        console();
        wordsScreen();
        keyboard();
        song();
        cues();
        listeners();
        patchSets();
        handKeys();

        int phrases = show().orElseThrow().devices().stream()
                .mapToInt(d -> d.phrases().size())
                .sum();
        System.out.printf(
                "in all: %d actions (%d keys besides what was typed) for %d phrases and %d cues%n",
                actions, keys, phrases, CUES);
        assertThat(actions).isLessThan(MOST_ACTIONS);
    }

    private void lightingDesk() {
        type("Desk");
        tab(3);
        type("127.0.0.1");
        tab(7);
        type("C0");
        press("Enter");
        until("the desk is there", () -> show().orElseThrow().devices().size() == 1);
        assertThat(page.locator("h2.book-title")).isVisible();
        press("l");
        focused("#list-kind");
        // Its first letter is enough; the page is drawn anew with the choice.
        type("b");
        until("it has a list", () -> device("Desk").list().isPresent());
        assertThat(page.locator("[command=show-modal][commandfor=paste]")).isVisible();
        focused("#list-kind");
        tab(2);
        press("Enter");
        focused("#paste textarea");
        paste(IntStream.rangeClosed(1, 14).mapToObj(i -> i + " Look " + i).collect(Collectors.joining("\n")));
        press("Control+Enter");
        focused(".preview .main");
        press("Enter");
        until("fourteen looks", () -> device("Desk").listed().size() == 14);
        assertThat(page.locator(".entry")).hasCount(14);
        assertThat(new SpeechWording(device("Desk").numbering())
                        .write(device("Desk").listed().get(13).says()))
                .isEqualTo("note C♯1");
        done("a lighting desk with fourteen looks, note 0 called C0");
    }

    private void console() {
        press("m");
        focused("#ways [name=name]");
        type("Console");
        tab(1);
        type("sound");
        tab(2);
        type("127.0.0.1");
        tab(2);
        type("2");
        tab(1);
        type("1");
        tab(3);
        type("1 to 128");
        tab(3);
        type("off=1, -40=31, -10=81, 0=101, 10=128");
        press("Enter");
        until("the console is there", () -> show().orElseThrow().devices().size() == 2);
        assertThat(page.locator("h2.book-title")).isVisible();
        press("y");
        focused(".families [type=radio]:checked");
        reach("ArrowDown", 3);
        press("Tab");
        focused(".families textarea");
        paste("Vox 1\nVox 2\nBed\nBand");
        press("Control+Enter");
        until("its faders are there", () -> device("Console").phrases().size() == 12);
        assertThat(page.locator(".entry")).hasCount(12);
        Device console = device("Console");
        assertThat(console.levels().value(0)).isEqualTo(100);
        assertThat(console.numbering().firstProgram()).isEqualTo(1);
        assertThat(console.phrases()).extracting(Phrase::name).contains("Vox 1 level", "Band level");
        done("a console with four faders and its level table");
    }

    private void wordsScreen() {
        press("m");
        focused("#ways [name=name]");
        type("Words");
        tab(1);
        type("words");
        tab(2);
        type("127.0.0.1");
        tab(2);
        type("3");
        press("Enter");
        until("the screen is there", () -> show().orElseThrow().devices().size() == 3);
        assertThat(page.locator("h2.book-title")).isVisible();
        press("y");
        focused(".families [type=radio]:checked");
        reach("ArrowDown", 4);
        press("Tab");
        press("Enter");
        until("next and previous", () -> device("Words").phrases().size() == 2);
        assertThat(page.locator(".entry")).hasCount(2);
        done("a words screen with next and previous");
    }

    private void keyboard() {
        press("Escape");
        press("m");
        focused("#ways [name=name]");
        type("Keys");
        tab(1);
        type("keys");
        tab(2);
        type("127.0.0.1");
        tab(2);
        type("4");
        tab(2);
        type("8");
        press("Enter");
        until("the keyboard is there", () -> show().orElseThrow().devices().size() == 4);
        assertThat(page.locator("h2.book-title")).isVisible();
        press("l");
        focused("#list-kind");
        type("by p");
        until("it has a list", () -> device("Keys").list().isPresent());
        assertThat(page.locator("[command=show-modal][commandfor=paste]")).isVisible();
        focused("#list-kind");
        tab(2);
        press("Enter");
        focused("#paste textarea");
        paste(IntStream.rangeClosed(1, 18).mapToObj(i -> i + " Patch " + i).collect(Collectors.joining("\n")));
        press("Control+Enter");
        focused(".preview .main");
        press("Enter");
        until("eighteen patches", () -> device("Keys").listed().size() == 18);
        done("a keyboard with eighteen patches in banks");
    }

    private void song() {
        go("book");
        press("Alt+n");
        focused(".new-item [name=name]");
        type("The song");
        press("Enter");
        until("the song is there", () -> show().orElseThrow().items().size() == 1);
        go("score");
        assertThat(page.locator("#paper")).isFocused();
        press("t");
        focused("#words textarea");
        press("Control+a");
        paste("pick-up 3 eighths\n1 6/8 in 2\n1 dotted quarter = 66\n1 A Verse\n17 B Chorus\n33 4/4\n33 quarter = 96\n"
                + "33 C Bridge\n49 6/8 in 2\n49 dotted quarter = 66\n49 D Chorus 2 as B\n64 end");
        press("Control+Enter");
        until("its score is kept", () -> !score().sections().isEmpty());
        assertThat(score().pickUpTicks()).isPositive();
        assertThat(score().endBar()).isEqualTo(64);
        assertThat(score().section("D").orElseThrow().as()).contains("B");
        done("64 bars in 6/8 and 4/4 with a pick-up and a linked chorus");
    }

    /** Half of them written, half from a list as spreadsheets copy them. */
    private void cues() {
        go("book");
        assertThat(page.locator(".grid")).isVisible();
        for (int i = 1; i <= CUES / 2; i++) {
            press("Insert");
            int cue = i;
            until("a cue more", () -> show().orElseThrow().cues().count() == cue);
            assertThat(page.locator("td.what.sel")).isVisible();
            type(i % 2 == 0 ? "Turn " + i : "Go on " + i);
            press("Tab");
            type("Look " + i);
        }
        press("Enter");
        until(
                "they are kept",
                () -> show().orElseThrow().cues().allMatch(c -> c.calls().size() == 1));
        copied(IntStream.rangeClosed(CUES / 2 + 1, CUES)
                .mapToObj(i -> "The song\t\t\t" + i + "\tat " + (3 * i) + ":1\tPage " + i + "\tNext\tPatch " + (i - 8))
                .collect(Collectors.joining(
                        "\n", "item\tkind\tlength\tcue\tstarts\twhat happens\tTX Words\tKY Keys\n", "")));
        press("Control+v");
        until("the cues are there", () -> show().orElseThrow().cues().count() == CUES);
        done(CUES + " cues");
    }

    private void listeners() {
        go("signals");
        assertThat(page.locator("#listeners")).isVisible();
        press("n");
        focused("#listener [name=name]");
        type("Pedal");
        press("Enter");
        until("GO has a pedal", () -> show().orElseThrow().listeners().size() == 1);
        assertThat(page.locator("#listener")).isHidden();
        listener("Back", "66", "standby b");
        listener("Stop", "65", "hold");
        press("r");
        focused("#listener [name=name]");
        type("Programs");
        press("Enter");
        until("a relay", () -> show().orElseThrow().listeners().size() == 4);
        done("three listeners and a relay");
    }

    private void listener(String name, String control, String does) {
        int before = show().orElseThrow().listeners().size();
        press("n");
        focused("#listener [name=name]");
        type(name);
        tab(4);
        type(control);
        tab(3);
        type(does);
        press("Enter");
        until(name, () -> show().orElseThrow().listeners().size() == before + 1);
        assertThat(page.locator("#listener")).isHidden();
    }

    private void patchSets() {
        go("patch");
        for (int i = 1; i <= 3; i++) {
            int sets = i;
            assertThat(page.locator(".patch")).isVisible();
            press("n");
            focused("#new-set [name=name]");
            type("Set " + i);
            press("Enter");
            assertThat(page.locator(".of-set h2")).containsText("Set " + i);
            press("a");
            focused("#line [name=from]");
            press("Enter");
            until("a set with a line", () -> linesOfSets() == sets);
            assertThat(page.locator("#line")).isHidden();
        }
        done("three patch sets of a line each");
    }

    private long linesOfSets() {
        return show().orElseThrow().devices().stream()
                .filter(PatchBay::is)
                .flatMap(d -> d.phrases().stream())
                .flatMap(p -> p.patch().stream())
                .mapToLong(w -> w.kept().lines().size())
                .sum();
    }

    private void handKeys() {
        go("hands/edit");
        press("n");
        focused("#new-grid [name=name]");
        type("Doors");
        press("Enter");
        until("a page of keys", () -> show().orElseThrow().hands().size() == 1);
        focused("#place-0-0");
        for (int i = 1; i <= 6; i++) {
            int keys = i;
            press("Enter");
            focused("#key [data-calls=on] [data-says]");
            type("Look " + i);
            press("Enter");
            until("a key more", () -> show().orElseThrow().hands().get(0).keys().size() == keys);
            assertThat(page.locator("#key")).isHidden();
            press(i < 4 ? "ArrowRight" : i == 4 ? "ArrowDown" : "ArrowLeft");
        }
        done("six hand keys");
    }

    private Score score() {
        List<Item> items = show().orElseThrow().items();
        return items.get(0).score().orElse(Score.of(""));
    }
}
