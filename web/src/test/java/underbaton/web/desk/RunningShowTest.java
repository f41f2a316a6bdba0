package underbaton.web.desk;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.engine.Order;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.traffic.Traffic;
import underbaton.standins.FohLights;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.StandIn;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.record.Journal;
import underbaton.web.stage.Stage;

/** A show goes on: with machines gone and back, with the database gone and back, by keys, by buttons. */
class RunningShowTest {

    private static final LocatorAssertions.HasAttributeOptions PATIENTLY =
            new LocatorAssertions.HasAttributeOptions().setTimeout(20_000);

    private static final int TABS = 8;

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;
    private Page page;
    private StandIn lights;

    @BeforeEach
    void openDesk() {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        baton.bean(Stage.class).performer(show).order(new Order.Behave(GoOptions.PLAIN));
        lights = baton.bean(RehearsalRoom.class).named("FOH lights").orElseThrow();
        page = baton.open("/shows/" + show + "/desk");
        assertThat(lamp()).hasAttribute("data-reached", "true", PATIENTLY);
        jump("30");
    }

    @AfterEach
    void leaveDesk() throws Exception {
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).close();
    }

    private Locator lamp() {
        return page.locator("#lamps [data-device='FOH lights']");
    }

    private void jump(String number) {
        page.keyboard().press("/");
        page.keyboard().type(number);
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).hasText(number);
    }

    private int look() {
        return ((FohLights) lights.model()).state().number();
    }

    /** Browsers hold six connections to one address; all pages of one browser share a single line. */
    @Test
    void moreTabsThanABrowserHasConnectionsAllFireAndAllFollow() {
        List<Page> tabs = new ArrayList<>(List.of(page));
        for (int i = 1; i < TABS; i++) {
            Page tab = page.context().newPage();
            tab.navigate(baton.url("/shows/" + show + "/desk"));
            assertThat(tab.locator(".standby .n")).hasText("30");
            tabs.add(tab);
        }
        Page last = tabs.get(TABS - 1);
        last.bringToFront();
        last.keyboard().press("Enter");
        for (Page tab : tabs) {
            assertThat(tab.locator(".standby .n")).hasText("31");
        }
        page.bringToFront();
        page.keyboard().press("Enter");
        for (Page tab : tabs) {
            assertThat(tab.locator(".standby .n")).hasText("32");
        }
    }

    @Test
    void aMachineThatGoesDelaysNobodyAndComesBackByItself() throws Exception {
        lights.switchOff();
        assertThat(lamp()).hasAttribute("data-reached", "false", PATIENTLY);
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).hasText("31");
        until("the words screen heard its part", () -> baton.bean(Traffic.class).after(0, 9999).stream()
                .anyMatch(e -> e.device().equals("Words screen")
                        && e.cause().equals("cue 30")
                        && e.trouble().isEmpty()));
        until("the log says what the lights missed", () -> baton.bean(Traffic.class).after(0, 9999).stream()
                .anyMatch(e -> e.device().equals("FOH lights")
                        && e.cause().equals("cue 30")
                        && !e.trouble().isEmpty()));
        lights.switchOn();
        assertThat(lamp()).hasAttribute("data-reached", "true", PATIENTLY);
        jump("32");
        page.keyboard().press("Enter");
        until("the look of cue 32", () -> look() == 7);
    }

    private enum Away {
        STOPPED,
        PAUSED
    }

    @ParameterizedTest
    @EnumSource(Away.class)
    void withoutTheDatabaseGoWorksEditsAreRefusedAndTheJournalIsCompleteAfterwards(Away away) throws Exception {
        Page book = baton.open("/shows/" + show + "/book");
        Journal journal = baton.bean(Journal.class);
        Traffic traffic = baton.bean(Traffic.class);
        if (away == Away.PAUSED) {
            baton.pauseDatabase();
        } else {
            baton.stopDatabase();
        }
        try {
            long before = traffic.last();
            page.keyboard().press("Enter");
            until("the look of cue 30", () -> look() == 6);
            page.keyboard().press("Enter");
            page.keyboard().press("Enter");
            until("the look of cue 32", () -> look() == 7);
            // The log is written a moment after the machines were told, so that it delays none of them.
            until("the log tells of the three", () -> traffic.last() > before + 8);
            book.locator("tr[data-number='32'] .what").click();
            book.keyboard().type("Refrain");
            book.keyboard().press("Enter");
            assertThat(book.locator("#notice")).containsText("The database does not answer");
            assertThat(book.locator(".editing input")).hasValue("Refrain");
            assertThat(baton.bean(Shows.class).get(show).cues().map(c -> c.what()))
                    .doesNotContain("Refrain");
            for (String at : List.of("desk", "book", "score", "rig", "room", "log")) {
                assertThat(answer(at)).as(at).isEqualTo(200);
            }
            assertThat(page.locator(".alarms")).containsText("The database does not answer");
        } finally {
            if (away == Away.PAUSED) {
                baton.continueDatabase();
            } else {
                baton.startDatabase();
            }
        }
        long ours =
                traffic.after(0, 9999).stream().filter(e -> e.showId() == show).count();
        until("the journal is complete", () -> written(journal) >= ours);
        book.locator(".editing input").press("Enter");
        assertThat(book.locator("tr[data-number='32'] .what")).hasText("Refrain");
        assertThat(page.locator(".alarms")).not().containsText("The database");
        baton.bean(Shows.class).undo(show);
    }

    /** The status of a page, which has ten seconds. */
    private int answer(String at) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(baton.url("/shows/" + show + "/" + at)))
                                .timeout(Duration.ofSeconds(10))
                                .build(),
                        HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    private long written(Journal journal) {
        try {
            return journal.written(show);
        } catch (RuntimeException notBackYet) {
            return -1;
        }
    }

    @Test
    void stopAllWantsToBeHeldAndStopsTheRunningClip() {
        jump("32");
        page.keyboard().press("Enter");
        page.keyboard().press("s");
        assertThat(page.locator(".done em")).hasText("sent");
        page.keyboard().down("s");
        assertThat(page.locator(".done em")).hasText("all stopped");
        page.keyboard().up("s");
        until("the stop went out", () -> baton.bean(Traffic.class).after(0, 9999).stream()
                .anyMatch(e -> e.cause().equals("stop all") && e.bytes().hex().equals("91 23 7F")));
    }

    @Test
    void theStandbyMovesByArrowsAndTheBarSaysWhere() {
        page.keyboard().press("ArrowDown");
        assertThat(page.locator(".go")).containsText("GO 31");
        page.keyboard().press("Backspace");
        assertThat(page.locator(".go")).containsText("GO 30");
        page.keyboard().press("/");
        page.keyboard().type("999");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("There is no cue 999");
    }

    @Test
    void aNumberTypedWhereItsFieldIsNotIsNoGo() {
        List<String> astray = List.of(
                "document.body.classList.add('left-the-desk')",
                "document.getElementById('jump-number').addEventListener('focus', (e) => e.target.blur(), { once: true })");
        for (String how : astray) {
            page.evaluate(how);
            page.keyboard().press("/");
            page.keyboard().type("4");
            page.evaluate("document.body.classList.remove('left-the-desk')");
            page.keyboard().type("0");
            page.keyboard().press("Enter");
            assertThat(page.locator("#notice")).containsText("press / and type it again");
            assertThat(page.locator(".go")).containsText("GO 30");
            page.keyboard().press("Escape");
        }
        jump("31");
        jump("30");
        page.waitForTimeout(350);
        page.keyboard().press("Enter");
        assertThat(page.locator(".go")).containsText("GO 31");
    }

    @Test
    void keysCanBeRebound() {
        page.getByText("keys", new Page.GetByTextOptions().setExact(true)).click();
        page.locator(".keys-list button").first().click();
        page.keyboard().press(" ");
        page.getByText("Done", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(page.locator(".go kbd")).hasText("Space");
        page.locator(".now h1").click();
        page.keyboard().press(" ");
        assertThat(page.locator(".go")).containsText("GO 31");
    }

    /** Kept for the next show too: what the operator has chosen is asked for when one is put on the desk. */
    @Test
    void theOperatorSaysHowGoBehaves() {
        Stage stage = baton.bean(Stage.class);
        page.getByText("keys", new Page.GetByTextOptions().setExact(true)).click();
        page.locator(".manner [name=asks]").check();
        page.locator(".manner [name=skipped]").selectOption("all");
        page.locator(".manner [name=again]").fill("500");
        page.locator(".manner [name=again]").press("Tab");
        GoOptions chosen = new GoOptions(true, true, 500_000_000L, false);
        until("it behaves so", () -> stage.playback(show)
                .filter(s -> s.operator().options().equals(chosen))
                .isPresent());
        stage.close();
        stage.open(show);
        until("and does again", () -> stage.playback(show)
                .filter(s -> s.operator().options().equals(chosen))
                .isPresent());
        stage.behave(show, GoOptions.CAREFUL);
    }
}
