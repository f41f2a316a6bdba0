package underbaton.web.hands;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.CueNumber;
import underbaton.core.engine.Order;
import underbaton.standins.FohLights;
import underbaton.standins.Model;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.SoundPlayer;
import underbaton.standins.WordsScreen;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** Hand cues of a demo show, seen working at the machines of the rehearsal room. */
class HandsInTheRoomTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;
    private Page page;

    @BeforeEach
    void openHands() throws Exception {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).open(show);
        page = baton.open("/shows/" + show + "/desk");
        for (String machine : List.of("FOH lights", "Sound player", "Words screen")) {
            assertThat(page.locator("#lamps [data-device='" + machine + "']")).hasAttribute("data-reached", "true");
        }
        page.navigate(baton.url("/shows/" + show + "/hands"));
    }

    @AfterEach
    void leave() {
        baton.bean(Stage.class).close();
    }

    private Locator key(String name) {
        return page.locator(".key", new Page.LocatorOptions().setHasText(name));
    }

    private Model model(String machine) {
        return baton.bean(RehearsalRoom.class).named(machine).orElseThrow().model();
    }

    @Test
    void keysReachTheMachinesAndShowWhatACueDidToo() {
        FohLights lights = (FohLights) model("FOH lights");
        key("House half").click();
        assertThat(key("House half")).containsText("touch it again");
        // On a slow machine the first touch may be forgotten before the second.
        until("house half", () -> {
            key("House half").click();
            return lights.state().look().name().equals("House half");
        });
        key("Applause").click();
        until("applause light", () -> lights.state().look().name().equals("Full and bright"));

        SoundPlayer player = (SoundPlayer) model("Sound player");
        key("River bed").click();
        until("the bed runs", () -> player.state().loop().isPresent());
        assertThat(key("River bed")).hasAttribute("aria-pressed", "true");
        key("River bed").click();
        until("the bed is out", () -> player.state().loop().isEmpty());

        WordsScreen words = (WordsScreen) model("Words screen");
        int cue = baton.bean(Shows.class)
                .get(show)
                .cueNumbered(CueNumber.of("20.5"))
                .orElseThrow()
                .id();
        baton.bean(Stage.class).performer(show).order(new Order.StandBy(cue));
        baton.bean(Stage.class).performer(show).order(new Order.Go());
        until("a cue has set the bed going", () -> player.state().loop().isPresent());
        assertThat(key("River bed")).hasAttribute("aria-pressed", "true");
        key("Words out").click();
        until("no words", () -> words.state().blank());
        assertThat(player.state().loop()).as("the bed goes on").isPresent();
        key("River bed").click();
        until("the bed is out", () -> player.state().loop().isEmpty());
    }
}
