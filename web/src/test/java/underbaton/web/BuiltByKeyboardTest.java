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
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;
import underbaton.web.shows.Shows;

/** A small rig and a song from nothing, by the keyboard alone: each key and each text that is typed is an action, and they are counted. */
class BuiltByKeyboardTest {

    private static final int MOST_ACTIONS = 120;
    private static final String NAME = "From nothing";

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private Page page;
    private int actions;
    private int part;

    private void press(String key) {
        page.keyboard().press(key);
        actions++;
    }

    private void tab(int times) {
        for (int i = 0; i < times; i++) {
            press("Tab");
        }
    }

    private void type(String text) {
        page.keyboard().type(text);
        actions++;
    }

    private void paste(String text) {
        page.keyboard().insertText(text);
        actions++;
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
        song();

        System.out.println("in all: " + actions + " actions");
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
        for (int i = 0; i < 3; i++) {
            press("ArrowDown");
        }
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
        press("n");
        focused("#new-phrase [name=name]");
        type("Next");
        tab(2);
        type("note 60");
        tab(4);
        type("steps by +1");
        press("Enter");
        until("next", () -> device("Words").phrases().size() == 1);
        focused("#new-phrase [name=name]");
        type("Previous");
        tab(2);
        type("note 59");
        tab(4);
        type("steps by -1");
        press("Enter");
        until("previous", () -> device("Words").phrases().size() == 2);
        done("a words screen with next and previous");
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
        paste(
                "1 quarter = 100\n1 A Verse\n9 B Chorus\n9 quarter = 112\n17 C Verse 2\n17 quarter = 92\n25 D Chorus 2 as B\n"
                        + "33 vamp 2 bars, leave at the bar\n40 end");
        press("Control+Enter");
        until("its score is kept", () -> !score().sections().isEmpty());
        assertThat(score().tempi()).hasSize(3);
        assertThat(score().section("D").orElseThrow().as()).contains("B");
        assertThat(score().vamps()).hasSize(1);
        done("a song of three tempi with a linked chorus and a vamp");
    }

    private Score score() {
        List<Item> items = show().orElseThrow().items();
        return items.get(0).score().orElse(Score.of(""));
    }
}
