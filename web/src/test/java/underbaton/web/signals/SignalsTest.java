package underbaton.web.signals;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.SocketTimeoutException;
import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Connection.Carrier;
import underbaton.core.signal.Signal;
import underbaton.web.stage.OscPort;
import underbaton.wire.Link;
import underbaton.wire.osc.OscLink;

/** Pedals, pads, consoles and players call cues with real packets; the page says what came and why nothing happened. */
class SignalsTest extends TouchedBoard {

    @Test
    void pedalsAndPadsAreLearntByTouchAndThePageSaysWhyNothingHappened() {
        Locator soft = learn(new ControlChange(0, 67, 127), "control 67 to 127");
        assertThat(newest()).containsText("nobody listens for that");
        soft.locator("[name=does]").selectOption("NEXT");
        keep(soft, "soft pedal");
        Locator sostenuto = learn(new ControlChange(0, 66, 127), "control 66 to 127");
        sostenuto.locator("[name=does]").selectOption("BACK");
        keep(sostenuto, "sostenuto");
        Locator pad = learn(new NoteOn(9, 36, 64), "note C2 at 64");
        keep(pad, "pad");
        assertThat(page.locator("#listeners")).containsText("note C2 struck");

        send(new ControlChange(0, 67, 0));
        assertThat(newest()).containsText("value 0 is not pressed");
        send(new ControlChange(0, 67, 127));
        assertThat(newest()).containsText("soft pedal standby on");
        standsBy("2");
        send(new ControlChange(0, 66, 0));
        send(new ControlChange(0, 66, 127));
        assertThat(newest()).containsText("sostenuto standby back");
        standsBy("1");
        for (int velocity : new int[] {1, 64, 127}) {
            send(new NoteOn(9, 36, velocity));
            assertThat(newest()).containsText("pad GO");
            send(new NoteOn(9, 36, 0));
            assertThat(newest()).containsText("nothing: pad, velocity 0 is a release");
        }
        standsBy("12.5");

        // The same again is told, and the master switch makes all of it silent.
        page.keyboard().press("n");
        Locator twice = page.locator("#listener form");
        twice.locator("[name=kind]").selectOption("note");
        twice.locator("fieldset[data-kind=note] [name=low]").fill("C3");
        keep(twice, "pad again");
        assertThat(page.locator("#listeners")).not().containsText("bound twice");
        page.locator("#listeners [data-listener]").last().press("Enter");
        Locator again = page.locator("#listener form");
        again.locator("[name=from]")
                .selectOption(new com.microsoft.playwright.options.SelectOption().setLabel("Board"));
        again.locator("fieldset[data-kind=note] [name=low]").fill("C2");
        again.locator("[type=submit]").click();
        assertThat(page.locator("#listener .notice")).containsText("“pad” (GO) means this signal too");
        again.locator("[name=twice]").check();
        keep(again, "pad again");
        assertThat(page.locator("#listeners")).containsText("bound twice, with “pad again”");
        desk.bringToFront();
        desk.keyboard().press("d");
        assertThat(desk.locator(".tells")).containsText("Listeners are off");
        page.bringToFront();
        send(new NoteOn(9, 36, 5));
        assertThat(newest()).containsText("listeners are off");
        standsBy("12.5");
    }

    @Test
    void aConsolesSceneAPlayersSongAndShowControlCallByTheirNumbers() {
        Locator scenes = learn(new ProgramChange(0, 7), "program 8");
        scenes.locator("fieldset[data-kind=program] [name=low]").fill("");
        scenes.locator("[name=channel]").fill("1");
        scenes.locator("[name=does]").selectOption("cue");
        keep(scenes, "scenes");
        send(new ProgramChange(0, 7));
        assertThat(newest()).containsText("scenes GO 8");
        send(new ProgramChange(0, 99));
        assertThat(newest()).containsText("there is no cue 100");

        Locator songs = learn(new ProgramChange(5, 1), "program 2, channel 6");
        songs.locator("fieldset[data-kind=program] [name=low]").fill("");
        songs.locator("[name=does]").selectOption("item");
        keep(songs, "player");
        send(new ProgramChange(5, 1));
        assertThat(newest()).containsText("player plays Second");

        Locator control =
                learn(new ShowControl(2, ShowControl.LIGHTING, ShowControl.Command.GO, "12.5", "36", ""), "12.5");
        control.locator("fieldset[data-kind=showControl] [name=text]").fill("");
        control.locator("[name=does]").selectOption("cue");
        keep(control, "desk’s list");
        assertThat(page.locator("#listeners")).containsText("show control GO list 36");
        send(new ShowControl(2, ShowControl.LIGHTING, ShowControl.Command.GO, "12.5", "36", ""));
        assertThat(newest()).containsText("GO 12.5");
        send(new ShowControl(2, ShowControl.LIGHTING, ShowControl.Command.GO, "12.5", "37", ""));
        assertThat(newest()).containsText("list 37, listens for 36");
    }

    @Test
    void aVideoServerCallsCuesByOscOverUdpAndTcp() throws Exception {
        page.keyboard().press("n");
        Locator form = page.locator("#listener form");
        form.locator("[name=from]").selectOption("others");
        form.locator("[name=kind]").selectOption("osc");
        form.locator("fieldset[data-kind=osc] [name=text]").fill("/call/*");
        form.locator("[name=does]").selectOption("cue");
        keep(form, "video server");
        for (Carrier carrier : List.of(Carrier.UDP, Carrier.TCP_SLIP)) {
            Connection.Osc osc =
                    new Connection.Osc("127.0.0.1", baton.bean(OscPort.class).number(), "", carrier);
            try (OscLink link = new OscLink(osc, baton.bean(Clock.class), new Loops(Thread::new), new Deaf())) {
                until("the OSC port", () -> link.health().reached());
                link.send(new OscMessage("/call/cue", List.of("12.5")));
                assertThat(newest()).containsText("video server GO 12.5");
                link.send(new OscMessage("/call/cue", List.of(2)));
                assertThat(newest()).containsText("video server GO 2");
                link.send(new OscMessage("/other", List.of(2)));
                assertThat(newest()).containsText("/other, listens for /call/*");
            }
        }
        page.locator("#listeners [data-listener]").press("Delete");
        assertThat(page.locator("#listeners")).containsText("None yet. Touch a pedal");
        page.keyboard().press("Control+z");
        assertThat(page.locator("#listeners")).containsText("video server");
        page.locator("#listeners [data-listener]").press("Enter");
        page.locator("#listener fieldset[data-kind=osc] [name=text]").fill("call");
        page.locator("#listener [type=submit]").click();
        assertThat(page.locator("#listener .notice")).containsText("An address begins with /");
    }

    @Test
    void ourOwnWordsAreUnderstoodOverOscAndAnswered() throws Exception {
        try (DatagramSocket socket = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            socket.setSoTimeout(5000);
            for (Object number : new Object[] {12.5f, "12.5", "12.50"}) {
                say(socket, "/baton/standby", 1);
                say(socket, "/baton/go/cue", number);
                assertThat(desk.locator(".done b")).hasText("12.5");
                standsBy("30");
            }
            say(socket, "/baton/back");
            standsBy("12.5");
            say(socket, "/baton/ask");
            org.assertj.core.api.Assertions.assertThat(List.of(
                            answer(socket),
                            answer(socket),
                            answer(socket),
                            answer(socket),
                            answer(socket),
                            answer(socket),
                            answer(socket),
                            answer(socket)))
                    .contains(
                            "/baton/is/show [Signals test]",
                            "/baton/is/patch []",
                            "/baton/is/standby [12.5, ]",
                            "/baton/is/last [12.5, ]",
                            "/baton/is/item [First, 1]",
                            "/baton/is/place [0, 0]",
                            "/baton/is/next [, -1.0]");
            say(socket, "/baton/play", "second");
            assertThat(desk.locator(".done b")).hasText("30");
            say(socket, "/baton/go/cue", 4711);
            org.assertj.core.api.Assertions.assertThat(answer(socket))
                    .isEqualTo("/baton/error [There is no cue 4711 in this show.]");
            say(socket, "/baton/dance");
            org.assertj.core.api.Assertions.assertThat(answer(socket)).contains("There is no /baton/dance");
            say(socket, "/baton/play", "Second", 3);
            org.assertj.core.api.Assertions.assertThat(answer(socket)).contains("Second has no bars.");
        }
    }

    /** What comes from nowhere known can be taken into the rig from where it is seen. */
    @Test
    void whoIsNotInTheRigIsAddedFromWhereItIsSeen() throws Exception {
        try (DatagramSocket socket = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            say(socket, "/layout/next", 1);
            Locator came = page.locator("#came tr").first();
            assertThat(came).containsText("osc /layout/next 1");
            assertThat(came).containsText("not in the rig");
            came.getByText("add it").click();
            assertThat(page.locator("[name=name]").first()).hasValue("OSC from 127.0.0.1");
            assertThat(page.locator("[name=host]").first()).hasValue("127.0.0.1");
            assertThat(page.locator("[name=wire]").first()).hasValue("osc-udp");
        }
    }

    /** A button of a touch surface says 1 when it is pressed and 0 when it is let go (common practice). */
    @Test
    void aButtonThatIsPressedAndLetGoIsOneOrder() throws Exception {
        try (DatagramSocket socket = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            socket.setSoTimeout(5000);
            say(socket, "/baton/standby", 1);
            standsBy("1");
            say(socket, "/baton/next", 1f);
            say(socket, "/baton/next", 0f);
            standsBy("2");
            say(socket, "/baton/go", 0f);
            say(socket, "/baton/ask");
            for (int i = 0; i < 8; i++) {
                org.assertj.core.api.Assertions.assertThat(answer(socket)).doesNotContain("/baton/is/last [2");
            }
            say(socket, "/baton/go", 12.5f);
            org.assertj.core.api.Assertions.assertThat(answer(socket))
                    .isEqualTo(
                            "/baton/error [/baton/go takes nothing, or 1 for pressed and 0 for let go; for a cue send"
                                    + " /baton/go/cue and its number.]");
            say(socket, "/baton/next", 1f, 0f);
            org.assertj.core.api.Assertions.assertThat(answer(socket)).contains("takes at most 1, not 2");
            standsBy("2");
        }
    }

    /** Five answers to one packet of many questions would be a gift to whoever asks in another's name. */
    @Test
    void manyQuestionsGetFewAnswers() throws Exception {
        try (DatagramSocket socket = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            socket.setSoTimeout(1500);
            for (int i = 0; i < 400; i++) {
                say(socket, "/baton/ask");
            }
            int answers = 0;
            try {
                while (true) {
                    answer(socket);
                    answers++;
                }
            } catch (SocketTimeoutException noMore) {
                org.assertj.core.api.Assertions.assertThat(answers).isBetween(8, 400);
            }
        }
    }

    @Test
    void whoFollowsIsToldEveryChangeUntilItAsksForNoMore() throws Exception {
        try (DatagramSocket socket = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            socket.setSoTimeout(5000);
            say(socket, "/baton/follow", 1);
            for (int i = 0; i < 8; i++) {
                answer(socket);
            }
            desk.bringToFront();
            desk.keyboard().press("Enter");
            org.assertj.core.api.Assertions.assertThat(
                            List.of(answer(socket), answer(socket), answer(socket), answer(socket)))
                    .containsExactlyInAnyOrder(
                            "/baton/is/standby [2, ]",
                            "/baton/is/last [1, ]",
                            "/baton/is/item [First, 1]",
                            "/baton/is/state [playing]");
            say(socket, "/baton/follow", "perhaps");
            org.assertj.core.api.Assertions.assertThat(answer(socket)).contains("/baton/error [Send 1");
            say(socket, "/baton/follow", 0);
            say(socket, "/baton/ask");
            for (int i = 0; i < 8; i++) {
                answer(socket);
            }
            desk.keyboard().press("Enter");
            assertThat(desk.locator(".done b")).hasText("2");
            socket.setSoTimeout(300);
            org.assertj.core.api.Assertions.assertThatThrownBy(() -> answer(socket))
                    .isInstanceOf(java.net.SocketTimeoutException.class);
        }
    }

    private static final class Deaf implements Link.Ear {
        @Override
        public void heard(Signal signal) {}

        @Override
        public void changed() {}
    }
}
