package underbaton.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.Order;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Outbox;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.perform.Scribe;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.signal.Signal;
import underbaton.core.traffic.Traffic;
import underbaton.wire.Link;
import underbaton.wire.Switchboard;
import underbaton.wire.SystemClock;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * From GO to the packet's arrival at a machine: over HTTP through the running application, alone, with many pages open and
 * with large files being read beside; and inside one process. The machine is a network MIDI session of this program on loopback, so one clock measures both ends.
 */
final class GoBench {

    private static final int GOS = 500;
    private static final int SONGS = 40;
    /** Behind the machine, its phrase, the first item and its cue. */
    private static final int FIRST_ITEM = 5;

    private static final int PAGES = 300;
    /** All pages are on this very machine, which must draw for them and read for them. */
    private static final long CROWDED_PAUSE = 100;

    private static final long IDLE_SECONDS = 10;
    private static final long PATIENCE_SECONDS = 20;
    private static final long SIGNALS_EACH_NANOS = 9_900_000;
    private static final int SIGNALS_AT_ONCE = 20;
    private static final Loops LOOPS = new Loops(Thread::new);

    private final Clock clock = new SystemClock();
    private final LinkedBlockingQueue<Long> arrivals = new LinkedBlockingQueue<>();
    private final Application application;
    private final String base;

    private GoBench(String base) {
        this.base = base;
        this.application = new Application(base, clock);
    }

    /** @param base where the application answers, such as {@code http://127.0.0.1:8180} */
    static void run(String base) throws IOException, InterruptedException {
        new GoBench(base).run();
    }

    private void run() throws IOException, InterruptedException {
        try (SessionEndpoint machine = new SessionEndpoint(
                "Bench", InetAddress.getLoopbackAddress(), 0, clock, LOOPS, (peer, message, at) -> arrivals.add(at))) {
            Row.head("From GO to arrival at the machine over network MIDI, in ms");
            overHttp(machine);
            Row.print("inside the process (aim p99 < 1)", inside(machine));
        }
    }

    private long arrival() throws InterruptedException, IOException {
        Long at = arrivals.poll(PATIENCE_SECONDS, TimeUnit.SECONDS);
        if (at == null) {
            throw new IOException("the message never arrived");
        }
        return at;
    }

    // ---- over HTTP

    /** The first GO is the first that this application ever gets from outside; the songs stand in a show of their own. */
    private void overHttp(SessionEndpoint machine) throws IOException, InterruptedException {
        String songs = application.show(machine);
        Row.print("into a song, each once (< 5 beside)", goIntoSongs(songs));
        application.post(songs + "/delete", Map.of("stops", "true"));
        Thread.sleep(1000);
        String path = application.show(machine);
        Row.print("over HTTP (aim p99 < 10)", goOverHttp(path, GOS, 5));
        Row.print("with 2,000 signals a second (< 10)", goBesideSignals(machine, path));
        try (Crowd crowd = new Crowd(PAGES, base, path.replaceAll("\\D", ""))) {
            Thread.sleep(3000);
            long before = crowd.letters();
            long[] taken = goOverHttp(path, GOS / 2, CROWDED_PAUSE);
            crowd.stillHere();
            Row.print("with " + PAGES + " pages open (< 20)", taken);
            System.out.printf("    they were sent %d MB%n", (crowd.letters() - before) / 1_000_000);
            idle(crowd);
        }
        Process importer = Importer.start(base, path);
        Thread.sleep(2000);
        Row.print("with large imports beside (< 20)", goOverHttp(path, GOS, 20));
        System.out.printf("    %s%n", Importer.end(importer));
        application.post(path + "/delete", Map.of("stops", "true"));
    }

    /** Nothing happens, and little should be said of it. */
    private static void idle(Crowd crowd) throws InterruptedException {
        Thread.sleep(1000);
        long before = crowd.letters();
        Thread.sleep(IDLE_SECONDS * 1000);
        System.out.printf("    idle they are sent %d kB a second%n", (crowd.letters() - before) / IDLE_SECONDS / 1000);
    }

    /** The machine rides twenty faders meanwhile. */
    private long[] goBesideSignals(SessionEndpoint machine, String path) throws IOException, InterruptedException {
        Peer peer = machine.peers().stream().filter(Peer::isOpen).findFirst().orElseThrow();
        AtomicInteger said = new AtomicInteger();
        Loop riding = LOOPS.start("riding", () -> {
            LockSupport.parkNanos(SIGNALS_EACH_NANOS);
            List<MidiMessage> faders = new ArrayList<>();
            for (int i = 0; i < SIGNALS_AT_ONCE; i++) {
                faders.add(new ControlChange(2, 64 + i, said.getAndIncrement() / SIGNALS_AT_ONCE % 128));
            }
            peer.send(faders);
        });
        long from = clock.nanos();
        try {
            return goOverHttp(path, GOS / 2, 20);
        } finally {
            riding.close();
            System.out.printf("    %d signals a second%n", said.get() * 1_000_000_000L / (clock.nanos() - from));
        }
    }

    /** Each GO begins another song, with bars, a fade and cues that come by themselves; what is timed is its first message. */
    private long[] goIntoSongs(String path) throws IOException, InterruptedException {
        long[] taken = new long[SONGS];
        for (int i = 0; i < SONGS; i++) {
            int item = FIRST_ITEM + 2 * i;
            application.post(path + "/book/items", Map.of("kind", "SONG", "name", "Song " + i));
            String table = application
                    .post(path + "/book/cues", Map.of("item", Integer.toString(item)))
                    .body();
            Matcher version = Pattern.compile((item + 1) + ":(\\d+):(\\d+)").matcher(table);
            if (!version.find()) {
                throw new IOException("no cue was added: " + table);
            }
            application.post(
                    path + "/book/cues/" + (item + 1) + "/cell",
                    Map.of("column", "1", "text", "Look", "version", version.group(1)));
            application.post(
                    path + "/score/" + item + "/text",
                    Map.of("score", "1 quarter = 120\n9 A Verse\n41 end", "bars", "8"));
            application.post(path + "/desk/jump", Map.of("number", version.group(2)));
            Thread.sleep(100);
            long sent = clock.nanos();
            application.post(path + "/desk/go", Map.of());
            taken[i] = arrival() - sent;
        }
        return taken;
    }

    private long[] goOverHttp(String path, int times, long pauseMillis) throws IOException, InterruptedException {
        long[] taken = new long[times];
        for (int i = 0; i < times; i++) {
            long sent = clock.nanos();
            application.post(path + "/desk/go", Map.of());
            taken[i] = arrival() - sent;
            application.post(path + "/desk/jump", Map.of("number", "1"));
            Thread.sleep(pauseMillis);
        }
        return taken;
    }

    // ---- inside one process

    private long[] inside(SessionEndpoint machine) throws IOException, InterruptedException {
        Show show = show(machine.port());
        Device device = show.devices().get(0);
        int cueId = show.cues().findFirst().orElseThrow().id();
        try (Switchboard switchboard = new Switchboard("Bench baton", InetAddress.getLoopbackAddress(), clock, LOOPS)) {
            Link link = switchboard.connect(device.connection(), new Deaf());
            Lane lane = new Lane(1, device, link, clock, new Scribe(new Traffic(1000), LOOPS), LOOPS);
            Performer performer = new Performer(clock, Planner.plan(show), new OneLane(lane), s -> {});
            try (PerformerThread thread = new PerformerThread(performer, LOOPS)) {
                for (int i = 0; i < 400 && !link.health().reached(); i++) {
                    Thread.sleep(25);
                }
                go(performer, cueId, Application.WARM_UPS);
                return go(performer, cueId, GOS);
            } finally {
                lane.close();
            }
        }
    }

    private long[] go(Performer performer, int cueId, int times) throws IOException, InterruptedException {
        long[] taken = new long[times];
        for (int i = 0; i < times; i++) {
            performer.order(new Order.StandBy(cueId));
            Thread.sleep(2);
            long sent = clock.nanos();
            performer.order(new Order.Go());
            taken[i] = arrival() - sent;
        }
        return taken;
    }

    private static Show show(int port) {
        Phrase look = new Phrase(0, "Look", List.of(new NoteOn(0, 1, 127)), Effect.HOLDS, false);
        Show show = Show.empty(1, "Bench")
                .withDevice(new Device(
                        0,
                        "Lights",
                        Department.LIGHTS,
                        new Connection.NetworkMidi("127.0.0.1", port),
                        0,
                        Numbering.WIRE,
                        0,
                        List.of()))
                .withPhrase(1, look)
                .withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
        Call call = new Call(1, 2);
        return show.withCue(3, new Cue(0, CueNumber.of("1"), Start.BY_HAND, "", List.of(call), 0));
    }

    private record OneLane(Lane lane) implements Outbox {
        @Override
        public void send(ScheduledMessage message) {
            lane.send(message);
        }

        @Override
        public Withdrawn withdraw(long afterNanos) {
            return lane.withdraw(afterNanos);
        }
    }

    private static final class Deaf implements Link.Ear {
        @Override
        public void heard(Signal signal) {
            // The machine of this bench says nothing.
        }

        @Override
        public void changed() {
            // Nobody looks at its lamp.
        }
    }
}
