package underbaton.web.desk;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.net.InetAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.Order;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wording;
import underbaton.web.Measured;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;
import underbaton.wire.SystemClock;
import underbaton.wire.session.SessionEndpoint;

/**
 * From the key GO in one of thirty tabs of a browser to the packet at a machine over network MIDI, and the same with one tab.
 * The key is pressed as a person would press it; the time is that of the browser's own event. Part of {@code ./baton bench go}.
 */
@Tag("bench")
class TabsBench {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int TABS = 30;
    private static final int GOS = 200;
    /** Not counted: the first keys of a page meet a browser and a driver that have never seen one. */
    private static final int WARM_UPS = 10;

    private static final String NOTE_THE_KEY =
            "addEventListener('keydown', (e) => { window.pressed = performance.timeOrigin + e.timeStamp; }, true)";

    /** A tab that stands behind another; the driver of this test lets all pages believe that they are in front. */
    private static final String BEHIND = "Object.defineProperty(document, 'hidden', { get: () => !window.inFront })";

    private final SystemClock clock = new SystemClock();
    private final LinkedBlockingQueue<Long> arrivals = new LinkedBlockingQueue<>();

    private static Show show(Show empty, int port) {
        Device lights = new Device(
                0,
                "Lights",
                Department.LIGHTS,
                new Connection.NetworkMidi("127.0.0.1", port),
                0,
                Numbering.WIRE,
                0,
                List.of());
        var says = new Wording(Numbering.WIRE).read("note 1");
        Show show = empty.withDevice(lights)
                .withPhrase(1, new Phrase(0, "Look", says, Effect.HOLDS, false))
                .withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
        List<Cue> cues = IntStream.rangeClosed(1, 2 * GOS + 50)
                .mapToObj(n -> new Cue(
                        0,
                        CueNumber.of(Integer.toString(n)),
                        Start.BY_HAND,
                        "",
                        List.of(new Call(
                                1, show.devices().get(0).phrases().get(0).id())),
                        0))
                .toList();
        return show.withCues(show.items().get(0).id(), cues);
    }

    @Test
    void howLateAPacketIsWithManyTabs() throws Exception {
        Loops loops = new Loops(Thread::new);
        try (SessionEndpoint machine = new SessionEndpoint(
                "Bench",
                InetAddress.getLoopbackAddress(),
                0,
                clock,
                loops,
                (peer, message, at) -> arrivals.add(clock.epochMicros()))) {
            int id = baton.bean(Shows.class)
                    .create("Tabs bench", s -> show(s, machine.port()))
                    .id();
            baton.bean(Stage.class).open(id);
            baton.bean(Stage.class).performer(id).order(new Order.Behave(GoOptions.PLAIN));
            UnderBaton.until(
                    "the machine is reached", () -> machine.peers().stream().anyMatch(p -> p.isOpen()));
            Measured.head(GOS + " GOs each, from the key to the packet");
            Page page = baton.open("/shows/" + id + "/desk");
            assertThat(page.locator(".standby .n")).hasText("1");
            Measured.row("one tab", fire(page));
            List<Page> tabs = new ArrayList<>();
            for (int i = 1; i < TABS; i++) {
                Page tab = page.context().newPage();
                tab.addInitScript(BEHIND);
                tab.navigate(baton.url("/shows/" + id + "/desk"));
                tabs.add(tab);
            }
            page.bringToFront();
            List<Double> taken = fire(page);
            Measured.row(TABS + " tabs (aim p99 < 50)", taken);
            for (Page tab : tabs) {
                tab.evaluate("window.inFront = true; document.dispatchEvent(new Event('visibilitychange'))");
                assertThat(tab.locator(".standby .n"))
                        .hasText(page.locator(".standby .n").textContent());
            }
            baton.bean(Stage.class).close();
        }
    }

    private List<Double> fire(Page page) throws InterruptedException {
        page.evaluate(NOTE_THE_KEY);
        List<Double> taken = new ArrayList<>();
        for (int i = 0; i < WARM_UPS + GOS; i++) {
            arrivals.clear();
            page.keyboard().press("Enter");
            Long at = arrivals.poll(20, TimeUnit.SECONDS);
            if (at == null) {
                throw new AssertionError("GO " + i + " never came to the machine: "
                        + page.locator("#notice").textContent());
            }
            double late = at / 1000.0 - ((Number) page.evaluate("window.pressed")).doubleValue();
            if (i >= WARM_UPS) {
                taken.add(late);
            }
            page.waitForTimeout(100);
        }
        return taken;
    }
}
