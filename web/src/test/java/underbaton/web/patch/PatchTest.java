package underbaton.web.patch;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.net.DatagramSocket;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.web.signals.TouchedBoard;
import underbaton.web.stage.Stage;

/** Patch sets on their page and on the wire: the board plays, and hears what the set in use sends back to it. */
class PatchTest extends TouchedBoard {

    @BeforeEach
    void sets() {
        shows.edit(show, "sets", s -> {
            Show with = s;
            for (int channel = 1; channel <= 3; channel++) {
                PatchLine open = PatchLine.open(1, 1);
                PatchLine line = new PatchLine(
                        1,
                        OptionalInt.of(0),
                        1,
                        OptionalInt.of(channel),
                        open.kinds(),
                        open.notes(),
                        open.velocities(),
                        open.controls(),
                        open.programs(),
                        0);
                with = PatchBay.withNew(with, "To channel " + (channel + 1), new Wiring(List.of(line), Set.of()));
            }
            Cue second = with.cueNumbered(CueNumber.of("2")).orElseThrow();
            int bay = PatchBay.of(with).orElseThrow().id();
            Phrase set = PatchBay.sets(with).get(2);
            with = with.withCue(with.items().get(0).id(), second.withCalls(List.of(new Call(bay, set.id()))));
            // On channel 16 a program n loads the n-th set.
            Passage through = new Passage.Through(bay, OptionalInt.of(0), 0);
            return with.withListener(new Listener(
                    0,
                    "Sets by program",
                    Set.of(1),
                    OptionalInt.of(15),
                    new Pattern.Program(-1, 0, 127),
                    new Reaction.PassOn(through),
                    0,
                    0,
                    false,
                    true));
        });
        page.navigate(baton.url("/shows/" + show + "/patch"));
        told.clear();
    }

    private void heard(String... bytes) {
        until("heard " + List.of(bytes), () -> told.size() >= bytes.length);
        Assertions.assertThat(told.stream().map(m -> m.encode().hex())).containsExactly(bytes);
        told.clear();
    }

    private Locator set(String name) {
        return page.locator("#sets a", new Page.LocatorOptions().setHasText(name));
    }

    private int inUse() {
        return baton.bean(Stage.class).playback(show).orElseThrow().patched().setId();
    }

    @Test
    void lookingThroughAllSetsLoadsNoneAndACallAProgramAndTheNetworkLoadOneEach() throws Exception {
        set("To channel 2").focus();
        for (String name : List.of("To channel 3", "To channel 4")) {
            page.keyboard().press("ArrowDown");
            assertThat(page.locator(".of-set h2")).containsText(name);
            assertThat(page.locator(".of-set .state")).hasText("looked at; not in use");
        }
        send(new NoteOn(0, 60, 64));
        send(new NoteOff(0, 60, 0));
        Assertions.assertThat(inUse()).isZero();

        // One stray key is no act.
        page.keyboard().press("l");
        assertThat(page.locator("#load")).containsText("again: load To channel 4");
        Assertions.assertThat(inUse()).isZero();
        page.keyboard().press("l");
        assertThat(set("To channel 4")).containsText("in use");
        send(new NoteOn(0, 60, 64));
        heard("93 3C 40");

        send(new ProgramChange(15, 1));
        assertThat(set("To channel 3")).containsText("in use");
        heard("83 3C 00");
        send(new NoteOff(0, 60, 0));
        send(new NoteOn(0, 62, 64));
        heard("92 3E 40");

        try (DatagramSocket socket = new DatagramSocket()) {
            socket.setSoTimeout(5000);
            say(socket, "/baton/patch", "to channel 2");
            heard("82 3E 00");
            send(new NoteOn(0, 64, 64));
            heard("91 40 40");
            say(socket, "/baton/patch", "Nowhere");
            Assertions.assertThat(answer(socket)).contains("There is no patch set “Nowhere”");
        }
        page.request().post(baton.url("/shows/" + show + "/desk/go"));
        page.request().post(baton.url("/shows/" + show + "/desk/go"));
        assertThat(set("To channel 4")).containsText("in use");
        until("the note that was held ends", () -> told.stream()
                .anyMatch(m -> m.encode().hex().equals("81 40 00")));
        told.clear();
        send(new NoteOn(0, 65, 64));
        heard("93 41 40");
    }

    @Test
    void aSetIsMadeByKeyboardTriedKeptAndPutBack() {
        page.keyboard().press("n");
        page.keyboard().type("Low and high");
        page.keyboard().press("Enter");
        assertThat(page.locator(".of-set h2")).containsText("4 Low and high");
        page.keyboard().press("l");
        page.keyboard().press("l");
        assertThat(set("Low and high")).containsText("in use");
        send(new NoteOn(0, 40, 64));
        send(new NoteOff(0, 40, 0));

        page.keyboard().press("a");
        Locator form = page.locator("#line form");
        assertThat(form).isVisible();
        form.locator("[name=fromChannel]").fill("1");
        form.locator("[name=toChannel]").fill("7");
        form.locator("[name=low]").fill("C4");
        form.locator("[name=high]").fill("B3");
        form.locator("[name=transpose]").fill("+12");
        form.locator("[name=low]").press("Enter");
        assertThat(page.locator("#line .notice")).containsText("“C4” lies above “B3”");
        form.locator("[name=low]").fill("C3");
        form.locator("[name=low]").press("Enter");
        assertThat(page.locator("#line")).not().isVisible();
        assertThat(page.locator("#lines")).containsText("notes C3–B3; +12");
        assertThat(set("Low and high")).containsText("in use, not kept");
        // It is heard at once: the board calls note 0 C−1, so C3 is 48.
        send(new NoteOn(0, 47, 64));
        send(new NoteOn(0, 48, 64));
        heard("96 3C 40");
        page.keyboard().press("p");
        assertThat(page.locator(".of-set .state")).hasText("in use");
        heard("86 3C 00");
        page.keyboard().press("Control+z");
        assertThat(set("Low and high")).containsText("in use, not kept");
        page.keyboard().press("k");
        assertThat(page.locator(".of-set .state")).hasText("in use");
        Assertions.assertThat(PatchBay.require(shows.get(show), inUse())
                        .patch()
                        .orElseThrow()
                        .kept()
                        .lines())
                .hasSize(1);
        page.keyboard().press("d");
        assertThat(page.locator(".of-set h2")).containsText("5 Low and high 2");
        Assertions.assertThat(told).isEmpty();
    }

    @Test
    void aSetThatIsEditedWhileAnotherIsInUseIsNotHeard() {
        set("To channel 2").click();
        page.locator("#load").click();
        assertThat(set("To channel 2")).containsText("in use");
        set("To channel 3").click();
        assertThat(page.locator(".of-set h2")).containsText("To channel 3");
        page.locator("#lines tr[data-mark]").focus();
        page.keyboard().press("Delete");
        assertThat(set("To channel 3")).containsText("0 lines");
        assertThat(set("To channel 3")).not().containsText("edited, not kept");
        send(new NoteOn(0, 60, 64));
        heard("91 3C 40");
        page.keyboard().press("Control+z");
        assertThat(set("To channel 3")).containsText("1 line");
        page.locator("#lines tr[data-mark]").focus();
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        page.keyboard().press("Control+c");
        set("To channel 4").click();
        assertThat(page.locator(".of-set h2")).containsText("To channel 4");
        page.keyboard().press("Control+v");
        assertThat(page.locator("#lines tr[data-mark]")).hasCount(2);
        page.keyboard().press("Control+v");
        assertThat(page.locator("#notice")).containsText("This line is in the set already");
        page.keyboard().press("o");
        assertThat(page.locator("#notice")).containsText("All notes off was sent");
        until("told", () -> told.stream().anyMatch(m -> m.encode().hex().equals("B1 7B 00")));
        Assertions.assertThat(told.get(0).encode().hex()).isEqualTo("81 3C 00");
    }
}
