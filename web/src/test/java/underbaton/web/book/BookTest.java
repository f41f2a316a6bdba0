package underbaton.web.book;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import java.util.Optional;
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
import underbaton.core.cue.Start;
import underbaton.core.engine.Order;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Wording;
import underbaton.core.score.Score;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** Writing in the book: refusals, undo, two writers. */
class BookTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;

    @BeforeEach
    void write() {
        Shows shows = baton.bean(Shows.class);
        show = shows.create("Book test", s -> {
                    Device lights = new Device(
                            0,
                            "Lights",
                            Department.LIGHTS,
                            new Connection.NetworkMidi("127.0.0.1", 9),
                            0,
                            new Numbering(1, 0, -1),
                            40,
                            List.of());
                    var filled = s.withDevice(lights);
                    for (String name : List.of("Amber wash", "Blue wash", "Dark")) {
                        filled = filled.withPhrase(
                                1,
                                new Phrase(
                                        0,
                                        name,
                                        new Wording(Numbering.WIRE).read("note " + name.length()),
                                        name.equals("Dark") ? Effect.STOPS : Effect.HOLDS,
                                        false));
                    }
                    filled = filled.withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
                    int item = filled.items().get(0).id();
                    for (String number : List.of("1", "2", "3")) {
                        List<Call> calls = number.equals("1") ? List.of(new Call(1, 2)) : List.of();
                        filled = filled.withCue(
                                item, new Cue(0, CueNumber.of(number), Start.BY_HAND, "Line " + number, calls, 0));
                    }
                    return filled;
                })
                .id();
    }

    @AfterEach
    void remove() {
        baton.bean(Shows.class).delete(show);
    }

    private Page book() {
        return baton.open("/shows/" + show + "/book");
    }

    private static Locator cell(Page page, int row, int column) {
        return page.locator("tr.cue").nth(row).locator("[data-column]").nth(column);
    }

    @Test
    void theStripNamesBytesAndTheMachinesOwnDisplay() {
        Page page = book();
        cell(page, 0, 3).click();
        assertThat(page.locator("#strip")).containsText("its display reads note A♯−1, channel 1");
        assertThat(page.locator("#strip")).containsText("90 0A 7F");
        cell(page, 1, 3).click();
        assertThat(page.locator("#strip")).containsText("still at Amber wash");
    }

    @Test
    void whatIsRefusedStaysInTheCellAndIsExplained() {
        Page page = book();
        cell(page, 1, 3).click();
        page.keyboard().type("purple");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("Lights has no phrase “purple”");
        assertThat(page.locator(".editing input")).hasValue("purple");
        page.keyboard().press("ControlOrMeta+A");
        page.keyboard().type("wash");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        assertThat(cell(page, 1, 3)).hasText("Blue wash");
        cell(page, 1, 0).click();
        page.keyboard().type("3");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("There is a cue 3 already");
        page.keyboard().press("Escape");
        assertThat(cell(page, 1, 0)).hasText("2");
    }

    /** A hand that is used to tables: the tabulator goes from cell to cell, written or not, and on into the next row. */
    @Test
    void theTabulatorGoesFromCellToCellAndNothingTypedVanishes() {
        Page page = book();
        page.keyboard().type("x");
        assertThat(page.locator("#notice")).containsText("Nothing is chosen");
        cell(page, 1, 1).click();
        page.keyboard().press("Tab");
        page.keyboard().type("Lamp out");
        page.keyboard().press("Tab");
        page.keyboard().type("Blue wash");
        page.keyboard().press("Tab");
        page.keyboard().type("4");
        page.keyboard().press("Shift+Tab");
        assertThat(cell(page, 1, 2)).hasText("Lamp out");
        assertThat(cell(page, 1, 3)).hasText("Blue wash");
        assertThat(cell(page, 2, 0)).hasText("4");
        assertThat(cell(page, 1, 3)).hasClass(Pattern.compile("sel"));
        page.keyboard().press("Escape");
        page.keyboard().press("Tab");
        assertThat(page.locator("tr.cue [data-column]:focus")).hasCount(0);
    }

    /** Whoever clicks elsewhere has not chosen the only phrase that begins so. */
    @Test
    void anUnfinishedNameDoesNotBecomeAPhraseByAClickElsewhere() {
        Page page = book();
        cell(page, 1, 3).click();
        page.keyboard().type("Blu");
        cell(page, 2, 2).click();
        assertThat(page.locator("#notice")).containsText("“Blu” is not a whole name yet. Press Enter for “Blue wash”");
        assertThat(page.locator(".editing input")).hasValue("Blu");
        page.keyboard().press("Enter");
        assertThat(cell(page, 1, 3)).hasText("Blue wash");
    }

    /** Two people in one cue, each in another cell, both keep their words; in the same cell the second is told. */
    @Test
    void twoPeopleAtTwoCellsOfOneCueDoNotCollide() {
        Page one = book();
        Page other = book();
        cell(one, 1, 2).click();
        one.keyboard().type("The lamp");
        cell(other, 1, 3).click();
        other.keyboard().type("Blue wash");
        other.keyboard().press("Enter");
        assertThat(cell(other, 1, 3)).hasText("Blue wash");
        one.keyboard().press("Enter");
        assertThat(cell(one, 1, 2)).hasText("The lamp");
        assertThat(cell(other, 1, 2)).hasText("The lamp");
        assertThat(cell(one, 1, 3)).hasText("Blue wash");
    }

    @Test
    void everyEditCanBeUndoneAndDoneAgain() {
        Page page = book();
        cell(page, 0, 3).click();
        page.keyboard().press("Delete");
        assertThat(cell(page, 0, 3)).hasText("");
        page.keyboard().press("Control+z");
        assertThat(cell(page, 0, 3)).hasText("Amber wash");
        page.keyboard().press("Control+Delete");
        assertThat(page.locator("tr.cue")).hasCount(2);
        page.keyboard().press("Control+z");
        assertThat(page.locator("tr.cue")).hasCount(3);
        page.keyboard().press("Control+y");
        assertThat(page.locator("tr.cue")).hasCount(2);
    }

    @Test
    void cuesAreDuplicatedAndMovedByKey() {
        Page page = book();
        cell(page, 0, 2).click();
        page.keyboard().press("Control+d");
        assertThat(page.locator("tr.cue .no")).hasText(new String[] {"1", "1.5", "2", "3"});
        assertThat(cell(page, 1, 3)).hasText("Amber wash");
        cell(page, 0, 2).click();
        page.keyboard().press("Alt+ArrowDown");
        assertThat(page.locator("tr.cue .no")).hasText(new String[] {"1", "1.5", "2", "3"});
    }

    @Test
    void theSecondOfTwoWritersIsToldAndLosesNothing() {
        Page first = book();
        Page second = book();
        cell(second, 1, 3).click();
        second.keyboard().press("Enter");
        second.keyboard().type("Blue wash");

        cell(first, 1, 3).click();
        first.keyboard().type("Amber wash");
        first.keyboard().press("Enter");
        assertThat(cell(first, 1, 3)).hasText("Amber wash");

        second.keyboard().press("Enter");
        assertThat(second.locator("#notice")).containsText("Somebody changed cue 2 while you wrote");
        assertThat(second.locator("#notice")).containsText("it says “Amber wash” now; you wrote “Blue wash”");
        assertThat(second.locator(".editing input")).hasValue("Blue wash");
        // What is written on while the question stands open counts too.
        second.locator(".editing input").fill("Blue wash + Dark");
        second.getByText("Put mine").click();
        assertThat(cell(second, 1, 3)).hasText("Blue wash + Dark");
        assertThat(cell(first, 1, 3)).hasText("Blue wash + Dark");
    }

    @Test
    void aPhraseThatTakesAnAmountAsksForIt() {
        Shows shows = baton.bean(Shows.class);
        shows.edit(
                show,
                "a level",
                s -> s.withPhrase(
                        1,
                        new Phrase(
                                0,
                                "Haze",
                                new SpeechWording(Numbering.WIRE).read("control 20 to ?"),
                                Optional.of(Argument.of("per cent")),
                                Effect.LEVELS,
                                false,
                                false,
                                Remarks.NONE)));
        Page page = book();
        cell(page, 1, 3).click();
        page.keyboard().type("haz");
        page.keyboard().press("Enter");
        assertThat(page.locator(".editing input")).hasValue("Haze → ");
        page.keyboard().type("lots");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("“lots” is no amount for this phrase");
        page.locator(".editing input").fill("haze 50 %");
        page.keyboard().press("Enter");
        assertThat(cell(page, 1, 3)).hasText("Haze → 50 %");
        cell(page, 1, 3).click();
        assertThat(page.locator("#strip")).containsText("B0 14 40");
    }

    @Test
    void aSongGetsItsBarsAndACueLandsOnABeat() {
        Page page = book();
        cell(page, 1, 1).click();
        page.keyboard().type("at 3:1");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("This item has no bars yet");
        page.keyboard().press("Escape");
        page.locator(".item-name summary").click();
        page.locator("[name=score]").fill("1 4/4\n1 quarter = fast");
        page.locator(".item-form .main").click();
        assertThat(page.locator("#notice")).containsText("“1 quarter = fast” cannot be read");
        page.locator("[name=score]").fill("1 4/4\n1 quarter = 240\n3 A Verse 1");
        page.locator(".item-form .main").click();
        assertThat(page.locator(".item-name i")).containsText("Song");
        cell(page, 1, 1).click();
        page.keyboard().type("at 3:5");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("There is no 3:5; bar 3 has 4/4");
        page.locator(".editing input").fill("at 3:1");
        page.keyboard().press("Enter");
        assertThat(cell(page, 1, 1)).hasText("at 3:1");
        Stage stage = baton.bean(Stage.class);
        stage.open(show);
        stage.performer(show).order(new Order.Go());
        UnderBaton.until("the second cue came by itself", () -> stage.playback(show)
                .flatMap(s -> s.last())
                .filter(f -> f.cue().number().toString().equals("2"))
                .isPresent());
        stage.close();
    }

    @Test
    void columnsAreAsWideAsWhatTheySay() {
        Page page = baton.open("/shows/" + baton.show("The Ferryman’s Lantern") + "/book");
        double cameras = width(page, "Camera switcher");
        assertThat(width(page, "Video server")).as("no cue calls it").isLessThan(cameras - 10);
        assertThat(width(page, "Keys 2")).as("Harmonium").isGreaterThan(cameras + 10);
        page.locator("thead th:has(small:text-is('Keys 2')) [data-fold]").click();
        assertThat(width(page, "Keys 2")).as("folded").isLessThan(40);
    }

    private static double width(Page page, String machine) {
        return page.locator("thead th:has(.dept)")
                .filter(new Locator.FilterOptions().setHasText(machine))
                .boundingBox()
                .width;
    }

    @Test
    void theBookIsFoundInByNumberAndByWords() {
        Page page = book();
        page.keyboard().press("/");
        page.keyboard().type("line 3");
        page.keyboard().press("Enter");
        assertThat(page.locator("tr.cue .sel")).hasText("Line 3");
        assertThat(page.locator(".sel").count()).isEqualTo(1);
    }

    @Test
    void anItemIsMovedSeveralPlacesAtOnceAndWhatCannotBeMeantIsMarked() {
        Shows shows = baton.bean(Shows.class);
        shows.edit(show, "items", s -> s.withItem(new Item(0, ItemKind.SCENE, "Scene", 0, List.of()), 0)
                .withItem(new Item(0, ItemKind.SPEECH, "Speech", 0, List.of()), 0)
                .withItem(new Item(0, ItemKind.OTHER, "Bows", 0, List.of()), 0));
        Page page = book();
        page.locator(".item-name summary")
                .filter(new Locator.FilterOptions().setHasText("Bows"))
                .click();
        page.locator(".item-form [name=place]").fill("9");
        page.locator(".item-form .main").click();
        assertThat(page.locator("#notice")).containsText("places 1 to 4");
        page.locator(".item-form [name=place]").fill("1");
        page.locator(".item-form .main").click();
        assertThat(page.locator(".item-name b").first()).hasText("Bows");

        shows.edit(show, "offset", s -> {
            Cue first = s.cueNumbered(CueNumber.of("1")).orElseThrow();
            Device lights = s.devices().get(0);
            int item = s.items().stream()
                    .filter(i -> i.cues().contains(first))
                    .findFirst()
                    .orElseThrow()
                    .id();
            return s.withCue(item, first.withCalls(List.of(Call.of(lights, "Blue wash @ -2 s"))));
        });
        page.reload();
        assertThat(page.locator(".said.astray")).hasText("Blue wash @ −2 s");
        assertThat(page.locator("td.c:has(.astray)")).hasAttribute("title", Pattern.compile("lies before GO"));
    }

    /** The chorus comes twice: the second time the Book shows its cue where it comes, and the Desk with its own bar. */
    @Test
    void aCueOfALinkedSectionStandsWhereItComesAgain() {
        Shows shows = baton.bean(Shows.class);
        shows.edit(show, "a score", s -> {
            Item song = s.items().get(0);
            Cue chorus = s.cueNumbered(CueNumber.of("2")).orElseThrow();
            return s.withItem(
                            song.withScore(Optional.of(Score.of(
                                    "1 4/4\n1 quarter = 120\n5 B Chorus\n9 C Verse\n13 D Chorus 2 as B\n17 end"))),
                            0)
                    .withCue(song.id(), chorus.withStart(Start.of("at 5:1")).withCalls(List.of(new Call(1, 3))));
        });
        Page page = book();
        Locator again = page.locator("tr.again");
        assertThat(again).hasCount(1);
        assertThat(again.locator(".no")).hasText("2 in D");
        assertThat(again.locator(".start")).hasText("at 13:1");
        assertThat(again.locator("td.c .said")).hasText("Blue wash");
        assertThat(again.locator("td.c u")).hasCount(1);
        cell(page, 1, 3).click();
        page.keyboard().type("Amber wash");
        page.keyboard().press("Enter");
        assertThat(again.locator("td.c .said")).hasText("Amber wash");

        Stage stage = baton.bean(Stage.class);
        stage.open(show);
        Page desk = baton.open("/shows/" + show + "/desk");
        assertThat(desk.locator(".coming .next").filter(new Locator.FilterOptions().setHasText("2 in D")))
                .containsText("at 13:1");
        stage.close();
    }
}
