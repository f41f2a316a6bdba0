package underbaton.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.Order;
import underbaton.core.engine.ScheduledMessage;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.perform.Clock;
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
    private static final int WARM_UPS = 500;
    private static final int SONGS = 40;
    private static final int PAGES_OF_A_NIGHT = 30;
    /** Behind the machine, its phrase, the first item and its cue. */
    private static final int FIRST_ITEM = 5;

    private static final int PAGES = 300;
    /** All pages are on this very machine, which must draw for them and read for them. */
    private static final long CROWDED_PAUSE = 100;

    private static final long PATIENCE_SECONDS = 20;
    private static final Pattern VERSION = Pattern.compile("data-cues=\"\\d+:(\\d+):");

    private static final Loops LOOPS = new Loops(Thread::new);

    private final Clock clock = new SystemClock();
    private final LinkedBlockingQueue<Long> arrivals = new LinkedBlockingQueue<>();
    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final String base;

    private GoBench(String base) {
        this.base = base;
    }

    /** @param base where the application answers, such as {@code http://127.0.0.1:8180} */
    static void run(String base) throws IOException, InterruptedException {
        new GoBench(base).run();
    }

    private void run() throws IOException, InterruptedException {
        try (SessionEndpoint machine = new SessionEndpoint(
                "Bench", InetAddress.getLoopbackAddress(), 0, clock, LOOPS, (peer, message, at) -> arrivals.add(at))) {
            System.out.printf("From GO to arrival at the machine over network MIDI, in ms%n");
            System.out.printf("%-36s %8s %8s %8s %8s%n", "", "first", "p50", "p99", "max");
            overHttp(machine);
            print("inside the process (aim p99 < 1)", inside(machine));
        }
    }

    private static void print(String name, long[] nanos) {
        long first = nanos[0];
        long[] sorted = nanos.clone();
        Arrays.sort(sorted);
        System.out.printf(
                "%-36s %8.3f %8.3f %8.3f %8.3f%n",
                name,
                first / 1e6,
                sorted[sorted.length / 2] / 1e6,
                sorted[sorted.length * 99 / 100] / 1e6,
                sorted[sorted.length - 1] / 1e6);
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
        String songs = show(machine);
        print("into a song, each once (< 5 beside)", goIntoSongs(songs));
        post(songs + "/delete", Map.of());
        Thread.sleep(1000);
        String path = show(machine);
        print("over HTTP (aim p99 < 10)", goOverHttp(path, GOS, 5));
        listenToAPedal(path);
        print("from a pedal's packet (aim p99 < 1)", goByPedal(machine));
        try (Crowd crowd = new Crowd(PAGES_OF_A_NIGHT, base, path.replaceAll("\\D", ""))) {
            Thread.sleep(2000);
            print("    with " + PAGES_OF_A_NIGHT + " pages open", goByPedal(machine));
            crowd.stillHere();
        }
        post(path + "/desk/jump", Map.of("number", "1"));
        try (Crowd crowd = new Crowd(PAGES, base, path.replaceAll("\\D", ""))) {
            Thread.sleep(3000);
            long before = crowd.letters();
            long[] taken = goOverHttp(path, GOS / 2, CROWDED_PAUSE);
            crowd.stillHere();
            print("with " + PAGES + " pages open (< 20)", taken);
            System.out.printf("    they were sent %d MB%n", (crowd.letters() - before) / 1_000_000);
        }
        Process importer = Importer.start(base, path);
        Thread.sleep(2000);
        print("with large imports beside (< 20)", goOverHttp(path, GOS, 20));
        System.out.printf("    %s%n", Importer.end(importer));
        post(path + "/delete", Map.of());
    }

    /** A show of one cue on the desk, with the machine. @return its path */
    private String show(SessionEndpoint machine) throws IOException, InterruptedException {
        String show = location(post("/shows", Map.of("name", "Bench " + clock.epochMicros())));
        String path = show.replaceAll("/rig.*", "");
        post(path + "/rig/devices", deviceForm(machine.port()));
        post(path + "/rig/devices/1/phrases", Map.of("name", "Look", "says", "note 1", "effect", "HOLDS"));
        post(path + "/book/items", Map.of("kind", "SONG", "name", "Song"));
        String table = post(path + "/book/cues", Map.of("item", "3")).body();
        Matcher version = VERSION.matcher(table);
        if (!version.find()) {
            throw new IOException("no cue was added: " + table);
        }
        post(path + "/book/cues/4/cell", Map.of("column", "1", "text", "Look", "version", version.group(1)));
        waitUntilOpen(machine);
        // The same key ten times a second is what is measured here.
        post(
                path + "/desk/manner",
                Map.of("asks", "false", "skipped", "all", "again", "0", "edits", "AT_ONCE", "lead", "5"));
        for (int i = 0; i < WARM_UPS; i++) {
            // Our own client must be warm; the application's way from GO to the wire is not touched by this.
            post(path + "/desk/jump", Map.of("number", "1"));
        }
        return path;
    }

    /** Each GO begins another song, with bars, a fade and cues that come by themselves; what is timed is its first message. */
    private long[] goIntoSongs(String path) throws IOException, InterruptedException {
        long[] taken = new long[SONGS];
        for (int i = 0; i < SONGS; i++) {
            int item = FIRST_ITEM + 2 * i;
            post(path + "/book/items", Map.of("kind", "SONG", "name", "Song " + i));
            String table = post(path + "/book/cues", Map.of("item", Integer.toString(item)))
                    .body();
            Matcher version = Pattern.compile((item + 1) + ":(\\d+):(\\d+)").matcher(table);
            if (!version.find()) {
                throw new IOException("no cue was added: " + table);
            }
            post(
                    path + "/book/cues/" + (item + 1) + "/cell",
                    Map.of("column", "1", "text", "Look", "version", version.group(1)));
            post(path + "/score/" + item + "/text", Map.of("score", "1 quarter = 120\n9 A Verse\n41 end", "bars", "8"));
            post(path + "/desk/jump", Map.of("number", version.group(2)));
            Thread.sleep(100);
            long sent = clock.nanos();
            post(path + "/desk/go", Map.of());
            taken[i] = arrival() - sent;
        }
        return taken;
    }

    /** Whatever the pedal says fires cue 1. */
    private void listenToAPedal(String path) throws IOException, InterruptedException {
        Map<String, String> form = new HashMap<>();
        for (String blank :
                List.of("channel", "high", "soft", "hard", "bank", "word", "text", "value", "offset", "target")) {
            form.put(blank, "");
        }
        form.putAll(
                Map.of("id", "0", "name", "Pedal", "from", "1", "kind", "controller", "low", "67", "way", "within"));
        form.putAll(Map.of("does", "cue", "cue", "1", "fires", "on", "pause", "0", "item", "0", "listens", "on"));
        post(path + "/signals", form);
    }

    private long[] goByPedal(SessionEndpoint machine) throws IOException, InterruptedException {
        long[] taken = new long[GOS];
        Peer pedal = machine.peers().stream().filter(Peer::isOpen).findFirst().orElseThrow();
        for (int i = 0; i < GOS; i++) {
            long sent = clock.nanos();
            pedal.send(List.of(new ControlChange(0, 67, i % 128)));
            taken[i] = arrival() - sent;
            Thread.sleep(20);
        }
        return taken;
    }

    private long[] goOverHttp(String path, int times, long pauseMillis) throws IOException, InterruptedException {
        long[] taken = new long[times];
        for (int i = 0; i < times; i++) {
            long sent = clock.nanos();
            post(path + "/desk/go", Map.of());
            taken[i] = arrival() - sent;
            post(path + "/desk/jump", Map.of("number", "1"));
            Thread.sleep(pauseMillis);
        }
        return taken;
    }

    private static void waitUntilOpen(SessionEndpoint machine) throws InterruptedException, IOException {
        for (int i = 0; i < 200; i++) {
            if (machine.peers().stream().anyMatch(p -> p.isOpen())) {
                Thread.sleep(200);
                return;
            }
            Thread.sleep(50);
        }
        throw new IOException("the application never opened a session with us");
    }

    private static Map<String, String> deviceForm(int port) {
        return Map.of(
                "name", "Lights",
                "department", "LIGHTS",
                "wire", "midi",
                "host", "127.0.0.1",
                "port", Integer.toString(port),
                "channel", "1",
                "lead", "0");
    }

    private HttpResponse<String> post(String path, Map<String, String> fields)
            throws IOException, InterruptedException {
        String form = fields.entrySet().stream()
                .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        HttpResponse<String> response = http.send(
                HttpRequest.newBuilder(URI.create(base + path))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(form))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        if (response.statusCode() >= 400) {
            throw new IOException(path + " answered " + response.statusCode() + ": " + response.body());
        }
        return response;
    }

    private static String location(HttpResponse<String> response) {
        return URI.create(response.headers()
                        .firstValue("HX-Redirect")
                        .or(() -> response.headers().firstValue("Location"))
                        .orElseThrow())
                .getPath();
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
                go(performer, cueId, WARM_UPS);
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
