package underbaton.web;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.SelectOption;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Item;
import underbaton.core.engine.Order;
import underbaton.core.timings.Moment;
import underbaton.standins.RehearsalRoom;
import underbaton.web.access.Role;
import underbaton.web.access.VenueAtHand;
import underbaton.web.library.Shows;
import underbaton.web.record.PerformanceMapper;
import underbaton.web.record.PerformanceMapper.MomentRow;
import underbaton.web.stage.Stage;

/** Draws the pictures of {@code docs/screenshots} from the demo shows; {@code ./baton shots} runs it. */
@Tag("shots")
class Shots {

    private static final int FADE_MILLIS = 2500;
    /** A second GO any sooner asks. */
    private static final int AGAIN_MILLIS = 400;

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    @Test
    void everyPage() {
        int show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        String book = "/shows/" + show;
        save(baton.open("/"), "shows");

        Page desk = baton.open(book + "/desk");
        desk.keyboard().press("/");
        desk.keyboard().type("30");
        desk.keyboard().press("Enter");
        assertThat(desk.locator(".go")).containsText("GO 30");
        for (String next : new String[] {"31", "32", "33"}) {
            desk.waitForTimeout(AGAIN_MILLIS);
            desk.keyboard().press("Enter");
            assertThat(desk.locator(".go")).containsText("GO " + next);
        }
        save(desk, "desk-running-blues");
        Page room = baton.open(book + "/room");
        room.waitForTimeout(FADE_MILLIS);
        save(room, "room");
        desk.locator("[data-light]").click();
        desk.keyboard().press("/");
        desk.keyboard().type("70");
        desk.keyboard().press("Enter");
        assertThat(desk.locator(".offer")).isVisible();
        desk.locator("[data-light]").click();
        desk.keyboard().press("c");
        assertThat(desk.locator("#catch-up [type=submit]")).isFocused();
        save(desk, "desk-catch-up");
        desk.keyboard().press("Enter");
        desk.waitForTimeout(AGAIN_MILLIS);
        desk.keyboard().press("Enter");
        assertThat(desk.locator(".go")).containsText("leaves the vamp");
        desk.waitForTimeout(AGAIN_MILLIS);
        desk.keyboard().press("Enter");
        assertThat(desk.locator(".done")).containsText("penny");
        desk.keyboard().press("h");
        assertThat(desk.locator(".held")).isVisible();
        baton.bean(Stage.class).close();
        baton.bean(Stage.class).open(show);
        desk.locator("[data-light]").click();

        Page tablet = baton.browser(820, 1180);
        tablet.navigate(baton.url(book + "/desk"));
        save(tablet, "desk-tablet");

        Page rig = baton.open(book + "/rig");
        save(rig, "rig");
        rig.getByText("Sound console").click();
        rig.locator(".entry[data-name='Vox 1']").press("f");
        rig.keyboard().type("-10 dB");
        save(rig, "phrasebook-console");

        Page lines = baton.open(book + "/linecheck");
        for (int i = 0; i < 3; i++) {
            lines.keyboard().press("Enter");
            assertThat(lines.locator("tr.here [data-seen]")).hasCount(2);
            lines.keyboard().press("y");
            assertThat(lines.locator(".answer .yes")).hasCount(i + 1);
        }
        save(lines, "line-check");
        Page written = baton.open(book + "/book");
        written.locator("tr[data-number='32'] [data-column]").nth(3).click();
        assertThat(written.locator("#strip")).containsText("Gold sweep");
        save(written, "book");
        signals(book);
        patchAndHands(book);
        save(baton.open(book + "/log"), "log");

        Page score = baton.open(book + "/score?bars=0");
        score.locator("#which").selectOption(new SelectOption().setLabel("The toll"));
        assertThat(score.locator(".note.copy")).not().hasCount(0);
        save(score, "score");
        score.locator("#bars").selectOption("2");
        for (int i = 0; i < 12; i++) {
            score.keyboard().press("Shift+ArrowRight");
        }
        assertThat(score.locator("#strip")).containsText("at 13:1");
        Page running = baton.open(book + "/desk");
        running.keyboard().press("/");
        running.keyboard().type("70");
        running.keyboard().press("Enter");
        assertThat(running.locator(".go")).containsText("GO 70");
        running.keyboard().press("Enter");
        running.waitForTimeout(6000);
        assertThat(running.locator("[data-bar]")).isVisible();
        save(running, "desk-song");
        baton.bean(Stage.class).order(show, "further on", new Order.Locate(8_700_000_000L));
        Page view = baton.open("/view");
        view.getByText("2 wide").click();
        assertThat(view.locator("[data-beats] i").first()).isVisible();
        save(view, "view-camera");
        save(baton.open("/view/stage"), "view-stage");
        venue();
        save(baton.open(book + "/performances?run=" + performance(show)), "performance");
        baton.bean(Stage.class).close();
    }

    /** The door with one at it and two in. */
    private static void venue() {
        try (VenueAtHand venue = new VenueAtHand(baton)) {
            Page phone = baton.browser(412, 860);
            for (String[] name : new String[][] {{"Stage left tablet", "HANDS"}, {"Camera 3", "VIEWER"}}) {
                venue.asks(phone, name[0]);
                venue.letsIn(Role.valueOf(name[1]));
                phone.context().clearCookies();
            }
            venue.asks(phone, "Anna's phone");
            Page door = baton.open("/venue");
            assertThat(door.locator("[data-device]")).hasCount(1);
            save(door, "venue");
        }
    }

    /** An evening of the demo show: how long each item lasted, and two notes. @return what it is called by */
    private static void signals(String book) {
        RehearsalRoom room = baton.bean(RehearsalRoom.class);
        Page signals = baton.open(book + "/signals");
        String[][] pressed = {
            {"Video server", "cue 999"},
            {"Playback machine", "song 3"},
            {"Pedals and pads", "toe"},
            {"Pedals and pads", "pad 3"},
            {"Sound console", "scene 9"},
            {"Pedals and pads", "next"}
        };
        for (String[] key : pressed) {
            room.named(key[0]).orElseThrow().press(key[1]);
            signals.waitForTimeout(AGAIN_MILLIS);
        }
        signals.locator("#trial [name=from]").selectOption(new SelectOption().setLabel("Playback machine"));
        signals.locator("#trial [name=words]").fill("program 2");
        signals.keyboard().press("Enter");
        assertThat(signals.locator("#tried")).containsText("Is anyone across?");
        save(signals, "signals");
    }

    private static void patchAndHands(String book) {
        Page patch = baton.open(book + "/patch");
        patch.locator("#sets a", new Page.LocatorOptions().setHasText("Toll, verse"))
                .click();
        assertThat(patch.locator(".of-set h2")).containsText("Toll, verse");
        patch.locator("#load").click();
        assertThat(patch.locator(".of-set .state")).hasText("in use");
        patch.locator("#sets a", new Page.LocatorOptions().setHasText("Toll, chorus"))
                .click();
        assertThat(patch.locator(".of-set h2")).containsText("Toll, chorus");
        save(patch, "patch");
        Page hands = baton.browser(820, 1180);
        hands.navigate(baton.url("/hands"));
        hands.keyboard().type("14");
        assertThat(hands.locator(".key.on")).containsText("River bed");
        hands.keyboard().type("32");
        assertThat(hands.locator(".key.asks")).containsText("Blackout");
        save(hands, "hands-tablet");
    }

    private static long performance(int show) {
        PerformanceMapper mapper = baton.bean(PerformanceMapper.class);
        long began = LocalDateTime.of(2026, 11, 24, 19, 30)
                .atZone(ZoneId.systemDefault())
                .toEpochSecond();
        int[] lasted = {935, 142, 171, 238, 175, 205, 930, 131, 226, 133};
        mapper.begin(began * 1_000_000, show);
        long at = began;
        List<MomentRow> rows = new ArrayList<>();
        List<Item> items = baton.bean(Shows.class).get(show).items();
        for (int i = 0; i < items.size(); i++) {
            rows.add(row(
                    began,
                    rows.size(),
                    at,
                    Moment.Kind.ITEM,
                    items.get(i),
                    items.get(i).name()));
            if (i == 3 || i == 7) {
                String words = i == 3
                        ? "cue 33 Last line, hold: she breathes before it, a beat later"
                        : "cue 74 Patter: bed too loud";
                rows.add(row(began, rows.size(), at + 97, Moment.Kind.NOTE, items.get(i), words));
            }
            at += lasted[i % lasted.length];
        }
        mapper.put(rows);
        mapper.end(began * 1_000_000, at * 1_000_000);
        return began * 1_000_000;
    }

    private static MomentRow row(long began, int number, long at, Moment.Kind kind, Item item, String words) {
        return new MomentRow(began * 1_000_000, number, at * 1_000_000, kind.name(), item.id(), 0, -1, words);
    }

    private static void save(Page page, String name) {
        page.waitForTimeout(400);
        page.screenshot(new Page.ScreenshotOptions().setPath(Path.of("../docs/screenshots", name + ".png")));
    }
}
