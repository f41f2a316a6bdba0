package underbaton.web.rig;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.Optional;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.engine.Order;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.standins.PedalBoard;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.SoundConsole;
import underbaton.standins.StandIn;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Lamp;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.Stage;

/** A console that says what it did: confirmed, gone astray, silent; on lamp, Desk, log and line check, over the real wire. */
class AnsweredTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;

    @BeforeEach
    void putOnTheDesk() {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        until("all reached", () -> baton.bean(Lamps.class).all().stream().allMatch(Lamp::reached));
    }

    @AfterEach
    void close() {
        baton.bean(Stage.class).close();
    }

    private StandIn console() {
        return baton.bean(RehearsalRoom.class).named("Sound console").orElseThrow();
    }

    private String lamp() {
        return baton.bean(Lamps.class).all().stream()
                .filter(l -> l.device().name().equals("Sound console"))
                .map(Lamp::unanswered)
                .findFirst()
                .orElseThrow();
    }

    private static void fire(Page page, String phrase) {
        Locator entry = page.locator(".entry[data-name='" + phrase + "']");
        entry.hover();
        entry.locator("[data-fire]").click();
        assertThat(page.locator("#notice")).containsText("Fired: " + phrase);
    }

    private static boolean isLogged(String words) {
        Predicate<Entry> told = e -> e.meaning().contains(words) || e.trouble().contains(words);
        return baton.bean(Traffic.class).after(0, Integer.MAX_VALUE).stream().anyMatch(told);
    }

    private Page phrasebook() {
        int id = baton.bean(Shows.class).get(show).devices().stream()
                .filter(d -> d.name().equals("Sound console"))
                .findFirst()
                .orElseThrow()
                .id();
        return baton.open("/shows/" + show + "/rig?device=" + id);
    }

    @Test
    void aRecallThatWentAstrayOrUnansweredStandsOnTheLampAndInTheLog() {
        Page book = phrasebook();
        Page desk = baton.open("/shows/" + show + "/desk");
        fire(book, "Scene 9 song");
        // What was fired has to be there before the next recall is the one that goes astray.
        until("recalled", () -> ((SoundConsole) console().model()).state().scene() == 9);
        console().press("astray");
        fire(book, "Scene 10 film");
        Locator lamp = desk.locator("#lamps li[data-device='Sound console']");
        assertThat(lamp).containsText("says “Scene 11 storm”, was told “Scene 10 film”");
        until("logged", () -> isLogged("says “Scene 11 storm”, was told “Scene 10 film”"));
        fire(book, "Scene 10 film");
        until("confirmed", () -> lamp().isEmpty());
        console().press("silent");
        fire(book, "Scene 9 song");
        until("told", () -> lamp().equals("has not answered to “Scene 9 song”"));
        console().press("silent");
        fire(book, "Scene 9 song");
        until("answered", () -> lamp().isEmpty());
        assertThat(isLogged("has not answered to “Scene 8")).isFalse();
    }

    @Test
    void theLineCheckTakesTheMachinesOwnWord() {
        Page page = baton.open("/shows/" + show + "/linecheck");
        Locator row = page.locator(".lines tbody tr").filter(new Locator.FilterOptions().setHasText("Sound console"));
        row.locator("[name=phrase]").selectOption("Scene 9 song");
        row.locator("[data-send]").click();
        assertThat(row.locator(".answer .yes")).hasText("yes");
        console().press("astray");
        row.locator("[data-send]").click();
        assertThat(row.locator(".answer .no")).hasText("no");
        assertThat(row.locator(".why")).hasText("says “Scene 10 film”, was told “Scene 9 song”");
    }

    @Test
    void anAnswerIsLearntByFiringOnceAndListening() {
        Page page = phrasebook();
        page.locator(".entry[data-name='Scene 11 storm']").click();
        page.locator("[name=answer]").fill("");
        page.locator("[data-hear-answer]").click();
        assertThat(page.locator("[name=answer]")).hasValue("program 11");
        page.keyboard().press("Escape");
        page.locator(".entry[data-name='Bed']").click();
        page.locator("[name=answer]").fill("");
        page.locator("[data-hear-answer]").click();
        assertThat(page.locator("#notice")).containsText("move it at the machine");
        // The page says so before the order to listen has arrived.
        until("heard", () -> {
            console().press("bed up");
            page.waitForTimeout(200);
            return page.locator("[name=answer]").inputValue().equals("control 13 to ?");
        });
    }

    private String lamps() {
        return ((PedalBoard) baton.bean(RehearsalRoom.class)
                        .named("Pedals and pads")
                        .orElseThrow()
                        .model())
                .lamps()
                .toString();
    }

    /** Standby dim, on bright: what the pads stand for is seen on them, and again after they were plugged in anew. */
    @Test
    void padsAreLitByWhatTheyStandFor() throws Exception {
        StandIn pads = baton.bean(RehearsalRoom.class).named("Pedals and pads").orElseThrow();
        until("standby", () -> lamps().equals("[30, 1, 0, 1]"));
        int rain = baton.bean(Shows.class).get(show).hands().stream()
                .flatMap(p -> p.keys().stream())
                .filter(k -> k.name().equals("Rain"))
                .findFirst()
                .orElseThrow()
                .id();
        baton.bean(Stage.class).order(show, "rain", new Order.Touch(rain, KeyTouch.PRESS, ""));
        until("rain", () -> lamps().equals("[30, 1, 0, 127]"));
        pads.switchOff();
        baton.bean(Stage.class).order(show, "rain", new Order.Touch(rain, KeyTouch.LET_GO, ""));
        until("seen off", () -> baton.bean(Lamps.class).all().stream().anyMatch(l -> !l.reached()));
        pads.switchOn();
        until("told anew", () -> lamps().equals("[30, 1, 0, 1]"));
        baton.bean(Stage.class).open(baton.show("Midsummer Vigil"));
        until("dark", () -> lamps().equals("[1, 1, 0, 1]"));
    }

    @Test
    void aLightIsChosenFromThePhrasesOfItsMachine() {
        Page page = baton.open("/shows/" + show + "/signals");
        page.locator("[data-listener]")
                .filter(new Locator.FilterOptions().setHasText("Right pedal"))
                .hover();
        page.locator("[data-listener]")
                .filter(new Locator.FilterOptions().setHasText("Right pedal"))
                .locator("[data-edit]")
                .click();
        page.locator("[name=lightOf]").selectOption("Pedals and pads");
        page.locator("[name=lightOn]").selectOption("Pad 2 dim");
        page.locator("#listener [type=submit]").click();
        assertThat(page.locator("#listener form")).not().isVisible();
        until("kept", () -> baton.bean(Shows.class).get(show).listeners().stream()
                .anyMatch(l -> l.name().equals("Right pedal") && l.light().isPresent()));
        baton.bean(Shows.class)
                .edit(
                        show,
                        "as before",
                        s -> s.withListener(s.listeners().stream()
                                .filter(l -> l.name().equals("Right pedal"))
                                .findFirst()
                                .orElseThrow()
                                .withLight(Optional.empty())));
    }
}
