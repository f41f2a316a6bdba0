package underbaton.web.desk;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.follow.Following;
import underbaton.core.traffic.Traffic;
import underbaton.standins.FilmPlayer;
import underbaton.standins.FohLights;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.StandIn;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Lamp;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.Stage;

/** A song that goes by the time code of a film player with a clock of its own, over the real wire. */
class FollowedTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private final Stage stage = baton.bean(Stage.class);
    private Show show;

    @BeforeEach
    void putOnTheDesk() {
        Show ferryman = shows.get(baton.show("The Ferryman’s Lantern"));
        show = shows.create("Followed", s -> s.withContentOf(ferryman).renamed("Followed"));
        stage.open(show.id());
        until("all reached", () -> baton.bean(Lamps.class).all().stream().allMatch(Lamp::reached));
    }

    @AfterEach
    void close() {
        player().press("stop");
        player().press("to the start");
        stage.close();
        shows.delete(show.id());
    }

    private StandIn player() {
        return baton.bean(RehearsalRoom.class).named("Film player").orElseThrow();
    }

    private FilmPlayer film() {
        return (FilmPlayer) player().model();
    }

    private String look() {
        return ((FohLights) baton.bean(RehearsalRoom.class)
                        .named("FOH lights")
                        .orElseThrow()
                        .model())
                .state()
                .look()
                .name();
    }

    private Item song() {
        return shows.get(show.id()).items().stream()
                .filter(i -> i.name().equals("Cold dawn"))
                .findFirst()
                .orElseThrow();
    }

    private PlaybackState state() {
        return stage.performer(show.id()).state();
    }

    /** How far the music is from the film, ms. */
    private double apart() {
        PlaybackState state = state();
        long film = film().place().count() * 40;
        return state.playing().orElseThrow().position(state.nowNanos()) / 1e6 - (film - 9 * 3_600_000L);
    }

    private static boolean isLogged(String meaning) {
        return baton.bean(Traffic.class).after(0, Integer.MAX_VALUE).stream()
                .anyMatch(e -> e.meaning().equals(meaning));
    }

    private Page standingBy() {
        Page desk = baton.open("/shows/" + show.id() + "/desk");
        stage.order(
                show.id(),
                "to cue 80",
                new Order.StandBy(shows.get(show.id())
                        .cueNumbered(CueNumber.of("80"))
                        .orElseThrow()
                        .id()));
        assertThat(desk.locator(".led")).containsText("waits for Film player");
        return desk;
    }

    @Test
    void a_film_begins_the_song_and_takes_all_machines_with_it_when_it_jumps_and_stops() {
        Page desk = standingBy();
        player().press("play");
        Locator led = desk.locator(".led");
        assertThat(led).containsText("follows Film player");
        until("with the film", () -> Math.abs(apart()) < 60);
        assertThat(look()).isEqualTo("Cold dawn");
        player().press("on by 30 s");
        until("as the book has it there", () -> look().equals("Moon on water"));
        until("with the film", () -> Math.abs(apart()) < 60);
        assertThat(led).containsText("follows Film player");
        player().press("stop");
        assertThat(led).containsText("goes on by itself: nothing is heard of Film player");
        assertThat(led).containsText("stands: nothing is heard of Film player");
        assertThat(desk.locator(".held")).isVisible();
        player().press("play");
        assertThat(led).containsText("follows Film player");
        assertThat(desk.locator(".held")).not().isVisible();
        until("it stands in the log", () -> isLogged("Cold dawn stands: nothing is heard of Film player"));
    }

    @Test
    void a_nudge_takes_it_by_hand_and_a_key_gives_it_back() {
        Page desk = standingBy();
        player().press("play");
        Locator led = desk.locator(".led");
        assertThat(led).containsText("follows Film player");
        desk.keyboard().press(".");
        until("the nudge has come", () -> isLogged("the music 20 ms later"));
        assertThat(led).containsText("taken by hand");
        player().press("on by 30 s");
        desk.waitForTimeout(500);
        assertThat(apart()).isLessThan(-20_000);
        desk.keyboard().press("i");
        assertThat(led).containsText("follows Film player");
        until("with the film", () -> Math.abs(apart()) < 60);
        desk.keyboard().press("i");
        assertThat(led).containsText("taken by hand");
    }

    @Test
    void by_whose_time_an_item_goes_is_written_in_its_form() {
        Page book = baton.open("/shows/" + show.id() + "/book");
        Locator summary = book.locator("summary").filter(new Locator.FilterOptions().setHasText("Cold dawn"));
        book.locator("[data-item='" + song().id() + "']").first().scrollIntoViewIfNeeded();
        summary.click();
        Locator form = book.locator(".item-form form");
        assertThat(form.getByLabel("What that machine sends")).hasValue("25");
        form.getByLabel("What that machine sends").selectOption("24");
        form.getByLabel("How long it goes on by itself").fill("a while");
        form.locator("button.main").click();
        assertThat(book.locator("#notice")).containsText("“a while” is no number of seconds; type 0 to 60.");
        form.getByLabel("How long it goes on by itself").fill("1,5");
        form.locator("button.main").click();
        until("kept", () -> song().follows().map(Following::words).equals(Optional.of("time code at 24")));
        assertThat(song().follows().orElseThrow().aloneMillis()).isEqualTo(1_500);
        // It is told that what comes is another one.
        Page desk = standingBy();
        player().press("play");
        desk.keyboard().press("Enter");
        desk.waitForTimeout(300);
        desk.keyboard().press("i");
        assertThat(desk.locator(".led")).containsText("it sends 25 frames a second, and 24 are expected");
        summary.click();
        form.getByLabel("By whose time it goes").selectOption("0");
        assertThat(form.getByLabel("What that machine sends")).not().isVisible();
        form.locator("button.main").click();
        until("by its own", () -> song().follows().isEmpty());
    }
}
