package underbaton.web.view;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.web.UnderBaton;
import underbaton.web.access.Role;
import underbaton.web.access.VenueAtHand;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** What the departments look at while the show runs, from the book and by GO alone. */
class ViewTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;

    @BeforeEach
    void onTheDesk() {
        show = baton.show("The Ferryman’s Lantern");
        // Put there anew, it has told its machines nothing.
        baton.bean(Stage.class).open(baton.show("Midsummer Vigil"));
        baton.bean(Stage.class).open(show);
    }

    private void go() {
        baton.bean(Stage.class).order(show, "GO", new Order.Go());
    }

    private void standBy(String number) {
        int cue = baton.bean(Shows.class)
                .get(show)
                .cueNumbered(CueNumber.of(number))
                .orElseThrow()
                .id();
        baton.bean(Stage.class).order(show, "jump", new Order.StandBy(cue));
    }

    private static void hasWords(Page page, String part, String words) {
        assertThat(page.locator(part)).containsText(words);
    }

    @Test
    void a_department_sees_what_it_has_what_comes_and_that_it_stands_by() {
        Page lights = baton.open("/view/lx");
        hasWords(lights, ".now", "nothing yet");
        hasWords(lights, ".next .light", "stand by");
        hasWords(lights, ".next .gets", "House open");
        hasWords(lights, ".next .gets", "cue 1");
        go();
        hasWords(lights, ".now", "House open");
        assertThat(lights.locator(".now")).hasClass(Pattern.compile("fresh"));
        hasWords(lights, ".next .gets", "cue 2");
        hasWords(lights, ".then", "House half");
        Page video = baton.open("/view/vd");
        hasWords(video, ".now", "Clip 2");
        assertThat(video.locator(".department")).not().hasClass(Pattern.compile("standing"));
        hasWords(video, ".next .light", "next");
        assertThat(UnderBaton.serious(new AxeBuilder(lights))).isEmpty();
        baton.bean(Stage.class).order(show, "stop all", new Order.StopAll());
        hasWords(lights, ".told", "stopped");
    }

    private int song() {
        Show written = baton.bean(Shows.class).get(show);
        return written.items().stream()
                .filter(i -> i.kind() == ItemKind.SONG && i.name().equals("The toll"))
                .findFirst()
                .orElseThrow()
                .id();
    }

    @Test
    void what_comes_in_bars_is_counted_on_the_beat_also_without_a_network() {
        Page lights = baton.open("/view/lx");
        Page band = baton.open("/view/band");
        baton.bean(Stage.class).order(show, "play", new Order.Play(song(), 0));
        hasWords(lights, ".next .count", "when the vamp is left");
        hasWords(band, "[data-next-section]", "when the vamp is left");
        baton.bean(Stage.class).order(show, "further on", new Order.Locate(9_000_000_000L));
        assertThat(lights.locator("[data-bar]")).hasText(Pattern.compile("\\d+:[1-4]"));
        hasWords(lights, ".next .gets", "River green");
        assertThat(lights.locator(".next [data-unit]")).hasText(Pattern.compile("bars?|beats?"));
        assertThat(lights.locator("[data-beats] i").first()).isVisible();
        // The anchor that was told is that of the engine: the browser counts the same beats.
        double seconds = seconds(lights);
        lights.context().setOffline(true);
        until("counted on", () -> seconds(lights) < seconds - 0.5);
        assertThat(band.locator("[data-section]")).hasText(Pattern.compile("A Verse 1"));
        lights.context().setOffline(false);
        baton.bean(Stage.class).order(show, "hold", new Order.Hold());
        hasWords(lights, ".told", "held");
        baton.bean(Stage.class).order(show, "stop all", new Order.StopAll());
    }

    @Test
    void a_camera_sees_whether_it_is_on_air_when_it_comes_and_what_is_asked_of_it() {
        Page camera = baton.open("/view");
        camera.getByText("2 wide").click();
        hasWords(camera, ".tally", "2 wide");
        hasWords(camera, ".tally", "next");
        hasWords(camera, ".next .light", "stand by");
        go();
        hasWords(camera, ".tally", "on air");
        hasWords(camera, ".then", "2 wide");
        baton.bean(Stage.class).order(show, "play", new Order.Play(song(), 0));
        hasWords(camera, ".tally", "clear");
        hasWords(camera, ".then", "3 band");
        baton.bean(Stage.class).order(show, "further on", new Order.Locate(9_000_000_000L));
        hasWords(camera, ".next .gets", "all six at the rail");
        assertThat(camera.locator(".next .gets")).not().containsText("haze");
        assertThat(camera.locator(".next [data-unit]")).hasText(Pattern.compile("bars?|beats?"));
        assertThat(UnderBaton.serious(new AxeBuilder(camera))).isEmpty();
        baton.bean(Stage.class).order(show, "stop all", new Order.StopAll());
    }

    private static double seconds(Page page) {
        String shown = page.locator(".next [data-seconds]").textContent();
        return shown.isEmpty() ? Double.MAX_VALUE : Double.parseDouble(shown.replace(" s", ""));
    }

    @Test
    void who_calls_the_show_sees_all_departments_and_which_of_them_stand_by() {
        Page stage = baton.open("/view/stage");
        hasWords(stage, ".calls", "Stand by LX 1");
        hasWords(stage, "tbody", "CM 1 2 wide");
        go();
        hasWords(stage, ".calls", "next GO: cue 2, Half hour");
        standBy("3");
        hasWords(stage, ".calls", "Stand by LX 3, VD 3");
        assertThat(UnderBaton.serious(new AxeBuilder(stage))).isEmpty();
    }

    @Test
    void a_link_shows_whatever_show_is_on_the_desk_and_one_machine_where_one_is_meant() {
        Page keys = baton.open("/view");
        keys.getByText("Keys 2").first().click();
        hasWords(keys, ".of", "Keys 2");
        String link = keys.url();
        baton.bean(Stage.class).open(baton.show("Midsummer Vigil"));
        // The page comes again by itself, and this machine is not in that show.
        keys.waitForURL("**/view");
        baton.bean(Stage.class).open(show);
        keys.navigate(link);
        hasWords(keys, ".of", "Keys 2");
        keys.navigate(baton.url("/view/nobody"));
        assertThat(keys).hasURL(baton.url("/view"));
    }

    @Test
    void a_viewer_of_the_venue_sees_that_and_nothing_else() {
        try (VenueAtHand venue = new VenueAtHand(baton)) {
            Page tablet = baton.browser(820, 1180);
            venue.comesIn(tablet, Role.VIEWER, "/start");
            tablet.getByText("Cameras").click();
            hasWords(tablet, ".next", "2 wide");
            assertThat(tablet.evaluate("document.documentElement.scrollWidth <= innerWidth"))
                    .isEqualTo(true);
            standBy("24");
            hasWords(tablet, ".told", "jumped");
            tablet.navigate(venue.url("/shows/" + show + "/desk"));
            hasWords(tablet, "body", "As viewer");
        }
    }

    @Test
    void a_caller_has_the_standby_in_full_and_gives_GO_with_a_thumb() {
        try (VenueAtHand venue = new VenueAtHand(baton)) {
            Page phone = baton.browser(412, 860);
            venue.comesIn(phone, Role.CALLER, "/start");
            assertThat(phone).hasURL(venue.url("/call"));
            hasWords(phone, ".number", "1 Doors open");
            hasWords(phone, ".said", "House open");
            until("the line", () -> (boolean) phone.evaluate("!document.body.classList.contains('line-gone')"));
            phone.locator(".hand .go").click();
            hasWords(phone, ".calling", "given: cue 1");
            hasWords(phone, ".number", "2 Half hour");
            assertThat(phone.evaluate("document.documentElement.scrollWidth <= innerWidth"))
                    .isEqualTo(true);
            assertThat(UnderBaton.serious(new AxeBuilder(phone))).isEmpty();
            phone.getByText("Note", new Page.GetByTextOptions().setExact(true)).click();
            phone.getByLabel("The note").fill("late again");
            phone.getByText("Save").click();
            assertThat(phone.locator("dialog[open]")).hasCount(0);
            phone.locator("[data-held]").click(new Locator.ClickOptions().setDelay(900));
            hasWords(phone, ".told", "stopped");
        }
    }
}
