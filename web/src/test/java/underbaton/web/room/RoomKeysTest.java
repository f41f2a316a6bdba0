package underbaton.web.room;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.engine.operator.GoOptions;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.VideoServer;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Edits;
import underbaton.web.stage.Manners;
import underbaton.web.stage.Stage;

/** The keys of the stand-ins, pressed by hand in the rehearsal room: over the real wire they call the demo show's cues. */
class RoomKeysTest {

    private static final LocatorAssertions.HasAttributeOptions PATIENTLY =
            new LocatorAssertions.HasAttributeOptions().setTimeout(20_000);

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Stage stage = baton.bean(Stage.class);
    private final RehearsalRoom rehearsal = baton.bean(RehearsalRoom.class);
    private Page room;
    private Page signals;

    @BeforeEach
    void theDemo() throws Exception {
        rehearsal.switchOn();
        int show = baton.show("The Ferryman’s Lantern");
        stage.open(show);
        stage.behave(show, GoOptions.PLAIN);
        baton.bean(Manners.class).set(Edits.AT_ONCE);
        signals = baton.open("/shows/" + show + "/desk");
        for (String machine : new String[] {"Pedals and pads", "Playback machine", "Video server", "Sound console"}) {
            assertThat(signals.locator("#lamps [data-device='" + machine + "']"))
                    .hasAttribute("data-reached", "true", PATIENTLY);
        }
        signals.navigate(baton.url("/shows/" + show + "/signals"));
        room = signals.context().newPage();
        room.navigate(baton.url("/shows/" + show + "/room"));
    }

    @AfterEach
    void away() throws Exception {
        rehearsal.switchOn();
        stage.openShow().ifPresent(s -> stage.behave(s.id(), GoOptions.CAREFUL));
        baton.bean(Manners.class).set(Edits.WAIT);
        stage.close();
    }

    private void press(String machine, String key) {
        room.bringToFront();
        room.locator("[data-keyed='" + machine + "'] [data-press='" + key + "']")
                .click();
        signals.bringToFront();
    }

    private Locator came() {
        return signals.locator("#came");
    }

    @Test
    void pedalsPadsConsolePlaybackAndVideoServerAreHeard() {
        press("Pedals and pads", "next");
        assertThat(came()).containsText("Right pedal standby on");
        press("Pedals and pads", "pad 1");
        assertThat(came()).containsText("Pad 1 GO");
        press("Pedals and pads", "pad 3");
        // The one wrong binding of this show, and why nothing happened.
        assertThat(came()).containsText("nothing: Pad 3, channel 10, listens on 1");
        press("Sound console", "scene 12");
        assertThat(came()).containsText("Bows scene GO 90");
        press("Video server", "cue 71.5");
        assertThat(came()).containsText("Server’s cues GO 71.5");
        press("Video server", "cue 10 by TCP");
        assertThat(came()).containsText("Server’s cues GO 10");
        press("Video server", "cue 999");
        assertThat(came()).containsText("there is no cue 999");
        press("Playback machine", "song 3");
        assertThat(came()).containsText("Song titles Video server: osc /title \"Lamps across the water\"");
        until("its title", () -> ((VideoServer)
                        rehearsal.named("Video server").orElseThrow().model())
                .title()
                .equals("Lamps across the water"));
        press("Playback machine", "wrong song");
        assertThat(came()).containsText("its list has no name for 100");
        press("Playback machine", "play");
        assertThat(came()).containsText("machine control play");
        room.bringToFront();
        assertThat(room.locator("[data-keyed='Playback machine']")).containsText("song 3, playing");
        press("Playback machine", "stop");
        assertThat(came()).containsText("machine control stop");
        rehearsal.named("Playback machine").orElseThrow().switchOff();
        room.bringToFront();
        assertThat(room.locator("[data-keyed='Playback machine'] button").first())
                .isDisabled();
    }
}
