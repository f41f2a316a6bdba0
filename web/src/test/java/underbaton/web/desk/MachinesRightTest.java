package underbaton.web.desk;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.standins.BandTablet;
import underbaton.standins.FohLights;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.RiverScreen;
import underbaton.standins.SoundConsole;
import underbaton.standins.SoundPlayer;
import underbaton.standins.StandIn;
import underbaton.standins.WordsScreen;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.Settings;
import underbaton.web.library.Shows;
import underbaton.web.stage.Resume;
import underbaton.web.stage.Stage;

/** Shows do not run straight: jumps, holds, machines that were off; over the real wire, as an operator does it. */
class MachinesRightTest {

    private static final LocatorAssertions.HasAttributeOptions PATIENTLY =
            new LocatorAssertions.HasAttributeOptions().setTimeout(20_000);
    private static final LocatorAssertions.ContainsTextOptions SOON =
            new LocatorAssertions.ContainsTextOptions().setTimeout(20_000);

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private int show;
    private Page page;

    @BeforeEach
    void openDesk() throws Exception {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).open(show);
        page = baton.open("/shows/" + show + "/desk");
        for (String machine : RehearsalRoom.NAMES) {
            assertThat(lamp(machine)).hasAttribute("data-reached", "true", PATIENTLY);
        }
    }

    @AfterEach
    void leaveDesk() throws Exception {
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).close();
    }

    private Locator lamp(String machine) {
        return page.locator("#lamps [data-device='" + machine + "']");
    }

    private StandIn machine(String name) {
        return baton.bean(RehearsalRoom.class).named(name).orElseThrow();
    }

    private void jump(String number) {
        page.keyboard().press("/");
        page.keyboard().type(number);
        assertThat(page.locator("input:focus")).hasValue(number);
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).hasText(number);
    }

    private void go(String cue) {
        assertThat(page.locator(".go b")).hasText("GO " + cue);
        page.waitForTimeout(350);
        page.keyboard().press("Enter");
    }

    private void itIsOnSong(int place) {
        page.keyboard().press("l");
        Locator tablet = page.locator("#catch-up form[data-places]")
                .filter(new Locator.FilterOptions().setHasText("Band tablet"));
        tablet.locator("input[name=place]").fill(Integer.toString(place));
        tablet.locator("button").click();
        assertThat(page.locator("#catch-up .toast")).containsText("is there by now");
        page.keyboard().press("Escape");
        assertThat(lamp("Band tablet")).containsText("song " + place, SOON);
    }

    private List<Entry> sent(long after) {
        return baton.bean(Traffic.class).after(after, 9999).stream()
                .filter(e -> e.direction() == Entry.Direction.OUT && e.showId() == show)
                .toList();
    }

    private BandTablet.State tablet() {
        return ((BandTablet) machine("Band tablet").model()).state();
    }

    private SoundPlayer.State player() {
        return ((SoundPlayer) machine("Sound player").model()).state();
    }

    @Test
    void theCueBeforeIsBroughtBackByOneKey() {
        jump("20");
        go("20");
        long first = baton.bean(Traffic.class).last();
        go("21");
        until("cue 21 is sent", () -> !bytes(first, "cue 21").isEmpty());
        go("24");
        jump("24");
        long before = baton.bean(Traffic.class).last();
        page.keyboard().press("b");
        until("cue 21 is sent again", () -> bytes(before, "cue 21").containsAll(bytes(first, "cue 21")));
        assertThat(bytes(before, "catch-up")).as("cue 24 is taken back").isNotEmpty();
        assertThat(page.locator(".standby .n")).hasText("24");
    }

    private List<String> bytes(long after, String cause) {
        return sent(after).stream()
                .filter(e -> e.cause().equals(cause))
                .map(e -> e.device() + " " + e.bytes().hex())
                .toList();
    }

    @Test
    void aJumpFarAheadIsShownFirstAndThenMakesEveryMachineRight() {
        int stands = tablet().song();
        itIsOnSong(stands);
        // The words are blank once, so that nothing but the song that is shown after it takes that back.
        go("1");
        jump("20");
        go("20");
        assertThat(page.locator(".running")).containsText("River bed", SOON);
        go("21");
        go("24");
        until("the bed runs", () -> player().loop().isPresent());
        jump("70");
        assertThat(page.locator(".offer")).containsText("from the book here");
        page.keyboard().press("c");
        Locator sheet = page.locator("#catch-up");
        assertThat(sheet).containsText("just before cue 70");
        assertThat(sheet).containsText("River bed");
        long before = baton.bean(Traffic.class).last();
        page.keyboard().press("Enter");
        assertThat(sheet).not().isVisible();
        assertThat(page.locator(".offer")).hasCount(0);
        until("the tablet is on song 2", () -> tablet().song() == 2);
        until("the bed is stopped", () -> player().loop().isEmpty());
        until(
                "house lights",
                () -> ((FohLights) machine("FOH lights").model()).state().number() == 3);
        until(
                "the console's scene",
                () -> ((SoundConsole) machine("Sound console").model()).state().scene() == 2);
        until(
                "the words are gone",
                () -> ((WordsScreen) machine("Words screen").model()).state().blank());
        assertThat(sent(before))
                .as("nothing else was sent, the time of the music apart")
                .allMatch(e -> e.cause().equals("catch-up") || e.cause().equals("in step"));
        go("70");
        until("the tablet is on the song of cue 70", () -> tablet().song() == 3);
    }

    @Test
    void holdStopsWhatTheSongSetGoingAndGoingOnMakesItRightAgain() {
        baton.bean(Stage.class).performer(show).order(new Order.Behave(GoOptions.PLAIN));
        jump("70");
        sendTheSheet();
        baton.bean(Stage.class).performer(show).order(new Order.Play(item("The toll"), 25_000_000_000L));
        assertThat(page.locator(".by-itself")).containsText("bar", SOON);
        RiverScreen screen = (RiverScreen) machine("River screen").model();
        FohLights lights = (FohLights) machine("FOH lights").model();
        until("the chorus", () -> screen.state().running() && lights.state().number() == 7);
        page.waitForTimeout(500);
        page.keyboard().press("h");
        assertThat(page.locator(".held")).containsText("The toll, bar");
        until("the clip is off", () -> !screen.state().running());
        assertThat(lights.state().number()).as("looks stay: gold sweep").isEqualTo(7);
        page.keyboard().press("v");
        assertThat(page.locator("#catch-up")).containsText("at bar 13");
        page.keyboard().press("Enter");
        assertThat(page.locator(".held")).hasCount(0);
        until("the clip of the chorus runs again", () -> screen.state().running());
        assertThat(lights.state().number()).isEqualTo(7);
        // A hold alone leaves nothing to be made right: it goes on at the key.
        page.waitForTimeout(500);
        page.keyboard().press("h");
        until("the clip is off again", () -> !screen.state().running());
        page.keyboard().press("g");
        assertThat(page.locator(".held")).hasCount(0);
        assertThat(page.locator("#catch-up")).not().isVisible();
        until("and runs again", () -> screen.state().running());
    }

    /** Nothing of a show goes on behind the back of the next one, and its page says that it is no longer on the desk. */
    @Test
    void anotherShowOnTheDeskStopsWhatThisOneHasSetGoing() {
        baton.bean(Stage.class).performer(show).order(new Order.Play(item("The toll"), 25_000_000_000L));
        RiverScreen screen = (RiverScreen) machine("River screen").model();
        // Something else of the song may run before the clip does, and the screen may still be as another test has left
        // it.
        assertThat(page.locator(".running")).containsText("Clip 1", SOON);
        until("the chorus", () -> screen.state().running());
        page.keyboard().press("c");
        assertThat(page.locator("#catch-up")).isVisible();
        baton.bean(Stage.class).open(baton.show("Midsummer Vigil"));
        until("the clip is off", () -> !screen.state().running());
        assertThat(page.locator(".empty")).containsText("This show is not on the desk");
        assertThat(page.locator("#catch-up")).not().isVisible();
    }

    /** A pedal's order that could not be carried out is told where the operator looks, until he has seen it. */
    @Test
    void whatCouldNotBeDoneStandsOnTheDeskUntilItWasSeen() {
        baton.bean(Stage.class).performer(show).order("a pedal", new Order.CueBefore());
        Locator told = page.locator(".tells [role=alert]");
        assertThat(told).containsText("There is no cue before this one");
        page.keyboard().press("x");
        assertThat(told).hasCount(0);
    }

    private void sendTheSheet() {
        page.keyboard().press("c");
        assertThat(page.locator("#catch-up [type=submit]")).isFocused();
        page.keyboard().press("Enter");
        assertThat(page.locator("#catch-up")).not().isVisible();
    }

    /** A slot without a name, and one line alone: a form's own ways with blanks and commas must not touch its key. */
    @Test
    void aCatchUpOfASingleLineIsSent() {
        jump("10");
        sendTheSheet();
        FohLights lights = (FohLights) machine("FOH lights").model();
        int right = 3;
        until("the look before cue 10", () -> lights.state().number() == right);
        Show rig = baton.bean(Shows.class).get(show);
        Device desk = rig.devices().stream()
                .filter(d -> d.name().equals("FOH lights"))
                .findFirst()
                .orElseThrow();
        Phrase other = desk.phrases().stream()
                .filter(p -> p.effect().kind() == Effect.Kind.HOLDS && !p.guarded())
                .filter(p -> rig.cues()
                        .noneMatch(c -> c.number().equals(CueNumber.of("10"))
                                && c.calls().stream().anyMatch(call -> call.phraseId() == p.id())))
                .reduce((one, later) -> later)
                .orElseThrow();
        baton.bean(Stage.class).performer(show).order(new Order.Fire(PlannedCall.of(desk, other), "by hand"));
        until("another look", () -> lights.state().number() != right);
        page.keyboard().press("c");
        assertThat(page.locator("#catch-up [type=submit]")).isFocused();
        assertThat(page.locator("#catch-up [name=send]")).hasCount(1);
        page.keyboard().press("Enter");
        assertThat(page.locator("#catch-up")).not().isVisible();
        until("the look of the book", () -> lights.state().number() == right);
    }

    /** What has gone wrong while the sheet was open is sent too, and said. */
    @Test
    void aSheetWhoseLinesNoLongerMatchSaysSo() {
        jump("70");
        sendTheSheet();
        page.keyboard().press("c");
        assertThat(page.locator("#catch-up")).containsText("All machines are as the book says");
        FohLights lights = (FohLights) machine("FOH lights").model();
        int right = 3;
        until("the look before cue 70", () -> lights.state().number() == right);
        Device desk = baton.bean(Shows.class).get(show).devices().stream()
                .filter(d -> d.name().equals("FOH lights"))
                .findFirst()
                .orElseThrow();
        Phrase other = desk.phrases().stream()
                .filter(p -> p.effect().kind() == Effect.Kind.HOLDS && !p.guarded())
                .reduce((one, later) -> later)
                .orElseThrow();
        baton.bean(Stage.class).performer(show).order(new Order.Fire(PlannedCall.of(desk, other), "by hand"));
        until("another look", () -> lights.state().number() != right);
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice .toast")).containsText("FOH lights: ");
        until("the look of the book", () -> lights.state().number() == right);
    }

    /** It was off before its show came onto the desk: that is known from the first moment. */
    @Test
    void aMachineThatIsOffWhenTheShowComesOntoTheDeskMissesWhatItIsTold() throws Exception {
        baton.bean(Stage.class).close();
        machine("FOH lights").switchOff();
        FohLights lights = (FohLights) machine("FOH lights").model();
        try {
            baton.bean(Stage.class).open(show);
            assertThat(lamp("FOH lights")).hasAttribute("data-reached", "false", PATIENTLY);
            assertThat(lamp("River screen")).hasAttribute("data-reached", "true", PATIENTLY);
            assertThat(page.locator(".standby .n")).hasText("1");
            jump("30");
            go("30");
            until("the standby moved on", () -> baton.bean(Stage.class)
                    .playback(show)
                    .orElseThrow()
                    .last()
                    .isPresent());
        } finally {
            machine("FOH lights").switchOn();
        }
        assertThat(lamp("FOH lights")).containsText("1 behind", SOON);
        page.keyboard().press("u");
        until("the look of cue 30", () -> lights.state().number() == 6);
    }

    private int item(String name) {
        return baton.bean(Shows.class).get(show).items().stream()
                .filter(i -> i.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    @Test
    void aMachineThatWasOffForThreeCuesIsBroughtUpByOneKey() throws Exception {
        jump("30");
        go("30");
        FohLights lights = (FohLights) machine("FOH lights").model();
        until("the look of cue 30", () -> lights.state().number() == 6);
        machine("FOH lights").switchOff();
        assertThat(lamp("FOH lights")).hasAttribute("data-reached", "false", PATIENTLY);
        go("31");
        go("32");
        go("33");
        machine("FOH lights").switchOn();
        assertThat(lamp("FOH lights")).containsText("1 behind", SOON);
        assertThat(lights.state().number()).isEqualTo(6);
        long before = baton.bean(Traffic.class).last();
        page.keyboard().press("u");
        until("the look that the book has at 33", () -> lights.state().number() == 7);
        assertThat(lamp("FOH lights")).not().containsText("behind");
        assertThat(sent(before)).hasSize(1);
    }

    @Test
    void aSongWithoutACueByHandBeginsAtGo() {
        int item = baton.bean(Shows.class)
                .edit(
                        show,
                        "a song that only plays",
                        s -> s.withoutCue(
                                s.cueNumbered(CueNumber.of("70")).orElseThrow().id()))
                .items()
                .size();
        assertThat(item).isPositive();
        jump("61");
        go("61");
        assertThat(page.locator(".standby")).containsText("GO starts the song");
        go("71");
        assertThat(page.locator(".now h1")).hasText("The toll");
        assertThat(page.locator(".by-itself")).containsText("71");
        assertThat(page.locator(".go")).containsText("GO leaves the vamp", SOON);
        baton.bean(Shows.class).undo(show);
    }

    /** As in a rehearsal: from a section, on to the next cue, with the tempo of the day. */
    @Test
    void theShowIsPlayedFromASectionAndOnFromCueToCue() {
        jump("70");
        page.keyboard().press("f");
        Locator sheet = page.locator("#catch-up");
        assertThat(sheet).containsText("The toll");
        sheet.getByText("Verse 2").click();
        assertThat(sheet).containsText("The toll at bar 21");
        assertThat(sheet.locator(".catch-up")).containsText("Key F major");
        page.keyboard().press("Enter");
        assertThat(page.locator("[data-bar]"))
                .hasText(Pattern.compile("2[1-4]:\\d"), new LocatorAssertions.HasTextOptions().setTimeout(20_000));
        until("verse 2's look", () -> ((FohLights) machine("FOH lights").model())
                .state()
                .look()
                .name()
                .contains("white"));
        page.keyboard().press("+");
        assertThat(page.locator("[data-section]")).containsText("tempo 101 %");
        page.keyboard().press("j");
        assertThat(sheet).containsText("on the way to cue 72 in D");
        page.keyboard().press("Enter");
        assertThat(sheet).not().isVisible();
        assertThat(page.locator("[data-section]")).containsText("C Verse 2");
        assertThat(page.locator(".by-itself li").first()).containsText("72 in D");
        page.keyboard().press("f");
        page.keyboard().type("cue 76");
        page.keyboard().press("Enter");
        assertThat(sheet).containsText("at cue 76");
        page.keyboard().press("Enter");
        assertThat(sheet).not().isVisible();
        assertThat(page.locator(".done b")).hasText("76");
        page.keyboard().press("a");
        assertThat(sheet.locator("button").first()).isVisible();
        // A closed sheet keeps the focus until the page is drawn again; a key pressed before that is a key of the Desk.
        page.evaluate(
                "() => { const sheet = document.getElementById('catch-up'); sheet.querySelector('button').focus();"
                        + " sheet.close(); document.activeElement.dispatchEvent("
                        + "new KeyboardEvent('keydown', { key: 'f', bubbles: true, cancelable: true })); }");
        assertThat(sheet).containsText("Play from");
        page.keyboard().type("cue 4711");
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("There is no cue 4711 in this show.");
    }

    /** The file that a running show keeps is put back as a crash leaves it, and the application's start reads it. */
    @Test
    void afterACrashTheDeskOffersToGoOnAndStopAllKnowsWhatRuns() throws Exception {
        Stage stage = baton.bean(Stage.class);
        jump("70");
        stage.performer(show).order(new Order.Play(item("The toll"), 25_000_000_000L));
        RiverScreen screen = (RiverScreen) machine("River screen").model();
        until("the clip of the chorus runs", () -> screen.state().running());
        Path file = baton.bean(Settings.class).data().resolve("desk.json");
        until("it is written down", () -> Files.exists(file) && text(file).contains("Clip 1"));
        String left = text(file);
        stage.close();
        assertThat(file).doesNotExist();
        Files.writeString(file, left);
        baton.bean(Resume.class).run(null);
        // A second crash before anybody has done anything does not make the first one later.
        until("it is written down again", () -> text(file).contains("Clip 1"));
        assertThat(micros(text(file))).isEqualTo(micros(left));
        page.reload();
        assertThat(page.locator(".crashed")).containsText("was interrupted");
        assertThat(lamp("River screen")).hasAttribute("data-reached", "true", PATIENTLY);
        assertThat(page.locator(".held")).containsText("The toll, bar");
        assertThat(page.locator(".running")).containsText("Clip 1");
        page.keyboard().press("n");
        assertThat(page.locator("#catch-up")).containsText("at bar");
        // Over the open sheet: whoever wants all to stop does not look for a way out first.
        page.keyboard().down("s");
        until("the clip is off", () -> !screen.state().running());
        page.keyboard().up("s");
    }

    private static String micros(String standing) {
        return standing.replaceAll("(?s).*\"epochMicros\" ?: ?(\\d+).*", "$1");
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException beingExchanged) {
            return "";
        }
    }
}
