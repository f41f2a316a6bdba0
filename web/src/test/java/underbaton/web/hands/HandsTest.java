package underbaton.web.hands;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.net.DatagramSocket;
import java.util.List;
import java.util.Optional;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Show;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.web.signals.TouchedBoard;
import underbaton.web.stage.Stage;

/** A page of hand cues is made by keyboard, taken to another show, and worked by touch, by digits, by a pad and over the network. */
class HandsTest extends TouchedBoard {

    @BeforeEach
    void phrases() {
        shows.edit(show, "phrases", s -> {
            Show with = phrase(s, "Organ", "program 5", Effect.HOLDS);
            with = phrase(with, "Haze on", "control 20 to 127 on channel +1", Effect.of("holds haze"));
            with = phrase(with, "Haze off", "control 20 to 0 on channel +1", Effect.of("holds haze"));
            with = phrase(with, "Bell", "note 60 on channel +2", Effect.MOMENT);
            Cue first = with.cueNumbered(CueNumber.of("1")).orElseThrow();
            int item = with.items().get(0).id();
            return with.withCue(item, first.withCalls(List.of(call(with, "Haze on"))));
        });
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        page.navigate(baton.url("/shows/" + show + "/hands/edit"));
        told.clear();
    }

    private static Show phrase(Show show, String name, String says, Effect effect) {
        Device board = show.devices().get(0);
        return show.withPhrase(
                board.id(),
                new Phrase(
                        0,
                        name,
                        new SpeechWording(board.numbering()).read(says),
                        Optional.empty(),
                        effect,
                        false,
                        false,
                        Remarks.NONE));
    }

    private static Call call(Show show, String words) {
        return Call.of(show.devices().get(0), words);
    }

    // ---- making

    private void makePage() {
        page.keyboard().press("n");
        assertThat(page.locator("#new-grid")).isVisible();
        page.keyboard().type("Night");
        page.keyboard().press("Tab");
        page.keyboard().type("2");
        page.keyboard().press("Tab");
        page.keyboard().type("3");
        page.keyboard().press("Enter");
        assertThat(page.locator("#new-grid")).not().isVisible();
        assertThat(page.locator("#places .place")).hasCount(6);
        page.locator("#place-0-0").focus();
    }

    /** Writes the key of the focused place, and goes on to the next. @param way its first letter */
    private void makeKey(String name, String way, boolean guarded, String on, String off) {
        page.keyboard().press("Enter");
        assertThat(page.locator("#key form")).isVisible();
        // What it calls comes first; its name stands before it.
        page.keyboard().type(on);
        tab("Shift+Tab", 2);
        page.keyboard().type(name);
        tab("Tab", 5);
        page.keyboard().type(way);
        tab("Tab", 2);
        if (guarded) {
            page.keyboard().press("Space");
        }
        if (!off.isEmpty()) {
            tab("Tab", 2);
            page.keyboard().type(off);
        }
        page.keyboard().press("Control+Enter");
        page.keyboard().press("Enter");
        assertThat(page.locator("#key")).not().isVisible();
        assertThat(page.locator("#places")).containsText(name);
        page.keyboard().press("ArrowRight");
    }

    private void tab(String key, int times) {
        for (int i = 0; i < times; i++) {
            page.keyboard().press(key);
        }
    }

    private void makeKeys() {
        makePage();
        makeKey("All three", "p", false, "Bell + Haze on + Organ", "");
        makeKey("Haze", "o", false, "Haze on", "Haze off");
        makeKey("Ring", "w", false, "Bell", "Look");
        page.locator("#place-1-0").focus();
        makeKey("House", "p", true, "Look", "");
    }

    private int key(String name) {
        return Hands.named(shows.get(show), name).orElseThrow().id();
    }

    /** What the machine was told, since it was asked last. */
    private void heard(String... bytes) {
        until("heard " + List.of(bytes), () -> told.size() >= bytes.length);
        Assertions.assertThat(told.stream().map(m -> m.encode().hex())).containsExactly(bytes);
        told.clear();
    }

    private Locator played(String name) {
        return page.locator(".key", new Page.LocatorOptions().setHasText(name));
    }

    private void play() {
        page.navigate(baton.url("/shows/" + show + "/hands"));
        assertThat(played("Haze")).isVisible();
        assertThat(page.locator("body.line-gone")).hasCount(0);
    }

    @Test
    void aPageIsMadeByKeyboardAndPlayedByDigitsMouseAndSeveralFingers() {
        makeKeys();
        play();
        page.keyboard().press("1");
        heard("C0 04", "B1 14 7F", "92 3C 7F");
        // What one key has set shows on another.
        assertThat(played("Haze")).hasAttribute("aria-pressed", "true");
        played("Haze").click();
        heard("B1 14 00");
        assertThat(played("Haze")).hasAttribute("aria-pressed", "false");

        page.keyboard().press("4");
        assertThat(played("House")).containsText("touch it again");
        page.keyboard().press("4");
        heard("90 01 7F");

        CDPSession touch = page.context().newCDPSession(page);
        touch.send("Input.dispatchTouchEvent", touches("touchStart", "Ring", "Haze"));
        until("both", () -> told.size() >= 2);
        Assertions.assertThat(told.stream().map(m -> m.encode().hex()))
                .containsExactlyInAnyOrder("92 3C 7F", "B1 14 7F");
        told.clear();
        touch.send("Input.dispatchTouchEvent", touches("touchEnd"));
        heard("90 01 7F");

        // A cue that sets the same shows on the key.
        played("Haze").click();
        heard("B1 14 00");
        page.request().post(baton.url("/shows/" + show + "/desk/go"));
        heard("B1 14 7F");
        assertThat(played("Haze")).hasAttribute("aria-pressed", "true");
        assertThat(played("Haze")).containsText("is on");
    }

    private JsonObject touches(String type, String... keys) {
        JsonArray points = new JsonArray();
        for (String key : keys) {
            BoundingBox box = played(key).boundingBox();
            JsonObject point = new JsonObject();
            point.addProperty("x", box.x + box.width / 2);
            point.addProperty("y", box.y + box.height / 2);
            point.addProperty("id", points.size());
            points.add(point);
        }
        JsonObject event = new JsonObject();
        event.addProperty("type", type);
        event.add("touchPoints", points);
        return event;
    }

    @Test
    void keysAreExchangedCutAndTakenToAnotherShowWhereWhatIsMissingIsTold() {
        makeKeys();
        page.locator("#place-0-0").focus();
        page.keyboard().press("Alt+ArrowRight");
        assertThat(page.locator("#place-0-1")).containsText("All three");
        assertThat(page.locator("#place-0-0")).containsText("Haze");
        page.keyboard().press("Control+x");
        page.locator("#place-1-2").focus();
        page.keyboard().press("Control+v");
        assertThat(page.locator("#place-1-2")).containsText("All three");
        assertThat(page.locator("#place-0-1")).containsText("free");
        page.keyboard().press("Control+z");
        assertThat(page.locator("#place-0-1")).containsText("All three");
        page.keyboard().press("Control+Shift+c");
        assertThat(page.locator("#notice")).containsText("The page is copied");

        int other = shows.create("Other hands", s -> {
                    Show with = s.withDevice(shows.get(show)
                            .devices()
                            .get(0)
                            .withPhrases(List.of())
                            .withId(0));
                    return phrase(
                            phrase(with, "Bell", "note 61", Effect.MOMENT),
                            "Haze on",
                            "control 1 to 127",
                            Effect.HOLDS);
                })
                .id();
        page.navigate(baton.url("/shows/" + other + "/hands/edit"));
        assertThat(page.locator("#hands")).containsText("No page yet");
        page.keyboard().press("Control+v");
        assertThat(page.locator("#places")).containsText("All three");
        assertThat(page.locator("#notice")).containsText("“All three”, Board: “Organ” is left out");
        Show pasted = shows.get(other);
        Assertions.assertThat(Hands.named(pasted, "All three").orElseThrow().on())
                .hasSize(2);
        Assertions.assertThat(Hands.named(pasted, "House").orElseThrow().guarded())
                .isTrue();
        shows.delete(other);
    }

    @Test
    void aPadIsLearntAndWorksTheKeyWhileItIsHeld() {
        makeKeys();
        page.locator("#place-0-2").focus();
        page.keyboard().press("Enter");
        page.locator("[data-learn]").click();
        assertThat(page.locator(".learnt")).containsText("waits for a touch");
        send(new NoteOn(9, 37, 80));
        send(new NoteOff(9, 37, 0));
        assertThat(page.locator(".learnt")).containsText("learnt: note C♯2 struck of Board");
        send(new NoteOn(9, 37, 11));
        heard("92 3C 7F");
        send(new NoteOff(9, 37, 0));
        heard("90 01 7F");
    }

    @Test
    void whatIsHeldIsLetGoWhenThePageIsGoneOrSilent() {
        makeKeys();
        play();
        Page other = page.context().newPage();
        other.navigate(baton.url("/shows/" + show + "/hands"));
        other.locator(".key", new Page.LocatorOptions().setHasText("Ring")).focus();
        other.keyboard().down("Enter");
        heard("92 3C 7F");
        other.close();
        heard("90 01 7F");
        until("told on the Desk", () -> baton.bean(Stage.class).troubles(show).stream()
                .anyMatch(t -> t.contains("“Ring” was held on a page that is gone")));

        HandTouches touches = baton.bean(HandTouches.class);
        touches.take("touch " + key("Ring"), show, "a tablet/1/");
        touches.take("touch " + key("Ring"), show, "another/1/");
        heard("92 3C 7F", "92 3C 7F");
        touches.take("let " + key("Ring"), show, "another/1/");
        Assertions.assertThat(told).as("the tablet still holds it").isEmpty();
        // It says no more that it holds it: asleep, or out of reach.
        heard("90 01 7F");
    }

    @Test
    void theNetworkWorksAKeyByItsNameAndIsToldWhatCannotBe() throws Exception {
        makeKeys();
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.setSoTimeout(5000);
            say(socket, "/baton/hand", "haze", 1);
            say(socket, "/baton/hand", "Haze", 0);
            heard("B1 14 7F", "B1 14 00");
            say(socket, "/baton/hand", "Haze");
            heard("B1 14 7F");
            say(socket, "/baton/hand", "Fog");
            Assertions.assertThat(answer(socket)).contains("There is no hand cue “Fog”");
            say(socket, "/baton/hand", "Haze", 2);
            Assertions.assertThat(answer(socket)).contains("Send 1 for on or 0 for off");
        }
        page.navigate(baton.url("/shows/" + show + "/log"));
        assertThat(page.locator("body")).containsText("hand by OSC from 127.0.0.1: Haze, on");
    }

    @Test
    void badInputIsToldInTheFormAndNothingIsLost() {
        makePage();
        page.keyboard().press("Enter");
        page.locator("#key [name=name]").fill("Wrong");
        page.locator("#key [data-calls=on] [data-says]").fill("Nonsense");
        page.locator("#key [type=submit]").click();
        assertThat(page.locator("#key .notice")).containsText("Board: ");
        assertThat(page.locator("#key [data-calls=on] [data-says]")).hasValue("Nonsense");
        page.keyboard().press("Escape");
        page.keyboard().press("Escape");
        page.keyboard().press("g");
        page.locator("#grid [name=columns]").fill("9");
        page.keyboard().press("Enter");
        assertThat(page.locator("#grid .notice")).containsText("2 to 6 rows of 2 to 8 keys");
    }

    @Test
    void theSheetPrintsEveryPageWithWhatItsKeysCall() {
        makeKeys();
        page.navigate(baton.url("/shows/" + show + "/hands/sheet"));
        assertThat(page.locator("td")).hasCount(6);
        assertThat(page.locator("body")).containsText("Board: Haze on — then Board: Haze off");
    }
}
