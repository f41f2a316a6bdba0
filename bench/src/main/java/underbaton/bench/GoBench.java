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
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.perform.Clock;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.perform.Scribe;
import underbaton.core.perform.Sending;
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
import underbaton.wire.session.SessionEndpoint;

/**
 * From GO to the packet's arrival at a machine: over HTTP through the running application, alone, with many pages open and
 * with large files being read beside; and inside one process. The machine is a network MIDI session of this program on loopback, so one clock measures both ends.
 */
final class GoBench {

    private static final int GOS = 500;
    private static final int WARM_UPS = 500;
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

    /** The first GO is the first that this application ever gets from outside. */
    private void overHttp(SessionEndpoint machine) throws IOException, InterruptedException {
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
        for (int i = 0; i < WARM_UPS; i++) {
            // Our own client must be warm; the application's way from GO to the wire is not touched by this.
            post(path + "/desk/jump", Map.of("number", "1"));
        }
        print("over HTTP (aim p99 < 10)", goOverHttp(path, GOS, 5));
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
            performer.jump(cueId);
            Thread.sleep(2);
            long sent = clock.nanos();
            performer.go();
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

    private record OneLane(Lane lane) implements Performer.Outbox {
        @Override
        public void send(Sending sending) {
            lane.send(sending);
        }

        @Override
        public void clear() {
            lane.clear();
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
