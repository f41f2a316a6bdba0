package underbaton.web.signals;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Edits;
import underbaton.web.stage.Manners;
import underbaton.web.stage.Stage;
import underbaton.wire.osc.OscCodec;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/** A show with a board of pedals that speaks to it over a real session, and the page Signals beside the Desk. */
public abstract class TouchedBoard {

    private static final Phrase LOOK = new Phrase(0, "Look", List.of(new NoteOn(0, 1, 127)), Effect.HOLDS, false);

    @RegisterExtension
    protected static final UnderBaton baton = new UnderBaton();

    protected final Shows shows = baton.bean(Shows.class);
    /** What the board was told. */
    protected final List<MidiMessage> told = new CopyOnWriteArrayList<>();

    /** What the board says to what it is told. */
    protected volatile Function<MidiMessage, List<MidiMessage>> echo = message -> List.of();

    protected SessionEndpoint machine;
    protected Peer us;
    protected int show;
    protected Page page;
    protected Page desk;

    @BeforeEach
    void aBoardOfPedals() throws IOException {
        machine = new SessionEndpoint(
                "Board",
                InetAddress.getLoopbackAddress(),
                0,
                baton.bean(Clock.class),
                new Loops(Thread::new),
                (peer, message, at) -> {
                    told.add(message);
                    List<MidiMessage> answer = echo.apply(message);
                    if (!answer.isEmpty()) {
                        peer.send(answer);
                    }
                });
        Connection line = new Connection.NetworkMidi("127.0.0.1", machine.port());
        show = shows.create("Signals test", s -> {
                    Show with = s.withDevice(new Device(
                                    0, "Board", Department.KEYS, line, 0, new Numbering(1, 0, -1), 0, List.of()))
                            .withPhrase(1, LOOK)
                            .withItem(new Item(0, ItemKind.SONG, "First", 0, List.of()), 0)
                            .withItem(new Item(0, ItemKind.SONG, "Second", 0, List.of()), 1);
                    for (String number : List.of("1", "2", "8", "12.5", "30")) {
                        int item = with.items().get(number.equals("30") ? 1 : 0).id();
                        with = with.withCue(
                                item, new Cue(0, CueNumber.of(number), Start.BY_HAND, "", List.of(new Call(1, 2)), 0));
                    }
                    return with;
                })
                .id();
        baton.bean(Stage.class).open(show);
        baton.bean(Stage.class).behave(show, GoOptions.PLAIN);
        // A GO by pedal begins a run, and listeners are learnt in it here.
        baton.bean(Manners.class).set(Edits.AT_ONCE);
        page = baton.open("/shows/" + show + "/signals");
        desk = page.context().newPage();
        desk.navigate(baton.url("/shows/" + show + "/desk"));
        until("reached", () -> machine.peers().stream().anyMatch(Peer::isOpen));
        us = machine.peers().get(0);
        page.bringToFront();
    }

    @AfterEach
    void away() {
        baton.bean(Stage.class).behave(show, GoOptions.CAREFUL);
        baton.bean(Manners.class).set(Edits.WAIT);
        baton.bean(Stage.class).close();
        shows.delete(show);
        machine.close();
    }

    protected void send(MidiMessage message) {
        us.send(List.of(message));
    }

    Locator newest() {
        return page.locator("#came tr").first();
    }

    void standsBy(String number) {
        desk.bringToFront();
        assertThat(desk.locator(".standby .n")).hasText(number);
        page.bringToFront();
    }

    /** Touches the board, makes a listener of what came, and lets it do something. */
    Locator learn(MidiMessage touched, String told) {
        send(touched);
        assertThat(newest()).containsText(told);
        newest().locator("[data-from-came]").click();
        Locator form = page.locator("#listener form");
        assertThat(form).isVisible();
        assertThat(form.locator("[name=kind] option:checked")).not().isEmpty();
        return form;
    }

    void keep(Locator form, String name) {
        form.locator("[name=name]").fill(name);
        form.locator("[name=name]").press("Enter");
        assertThat(page.locator("#listener")).not().isVisible();
        assertThat(page.locator("#listeners")).containsText(name);
    }

    protected static void say(DatagramSocket socket, String address, Object... arguments) throws Exception {
        socket.send(baton.packet(address, arguments));
    }

    protected static String answer(DatagramSocket socket) throws IOException {
        DatagramPacket packet = new DatagramPacket(new byte[2000], 2000);
        socket.receive(packet);
        OscMessage message = new OscCodec()
                .decode(Arrays.copyOf(packet.getData(), packet.getLength()))
                .get(0)
                .message();
        return message.address() + " " + message.arguments();
    }
}
