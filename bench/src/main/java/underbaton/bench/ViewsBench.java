package underbaton.bench;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.http.WebSocket;
import java.util.Map;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.wire.SystemClock;
import underbaton.wire.session.SessionEndpoint;

/**
 * Two hundred views and twenty pages of hand cues through the venue's door, over TLS, all on this very machine, and somebody who guesses
 * the operator's password: how late GO is, how soon a key is lit, what the views are sent, and what room they take.
 */
final class ViewsBench {

    private static final int GOS = 250;
    private static final int VIEWS = 200;
    private static final int TABLETS = 20;
    private static final int TOUCHES = 200;
    private static final long PAUSE = 100;
    private static final int DOOR = 8543;
    private static final Pattern USED = Pattern.compile("used (\\d+)K");

    private final Clock clock = new SystemClock();
    private final LinkedBlockingQueue<Long> arrivals = new LinkedBlockingQueue<>();
    private final Application application;
    private final String process;

    private ViewsBench(String base, String process) {
        this.application = new Application(base, clock);
        this.process = process;
    }

    /** @param process the application's, of which the heap is looked at */
    static void run(String base, String process) throws IOException, InterruptedException {
        new ViewsBench(base, process).run();
    }

    private void run() throws IOException, InterruptedException {
        Loops loops = new Loops(Thread::new);
        try (SessionEndpoint machine = new SessionEndpoint(
                        "Bench",
                        InetAddress.getLoopbackAddress(),
                        0,
                        clock,
                        loops,
                        (peer, message, at) -> arrivals.add(at));
                Visitors visitors = new Visitors(application, DOOR)) {
            Row.head("From GO to arrival at the machine over network MIDI, in ms");
            String path = application.show(machine);
            int key = key(path);
            Row.print("alone", gos(path));
            long heap = heap();
            String show = path.replaceAll("\\D", "");
            visitors.come(VIEWS, "VIEWER", show, "\"view:lx\",\"playing\"");
            long withViews = heap();
            WebSocket tablet = visitors.come(TABLETS, "HANDS", show, "\"keys:5\",\"hands\",\"alarms\"");
            Thread.sleep(1000);
            long before = visitors.letters();
            long from = clock.nanos();
            Row.print("%d views and %d tablets (aim p99 < 20)".formatted(VIEWS, TABLETS), gos(path));
            perView(visitors.letters() - before, clock.nanos() - from);
            visitors.stillHere();
            System.out.printf("    heap: %d kB a view%n", Math.max(0, withViews - heap) / VIEWS);
            try (Guesser guesser = new Guesser(visitors)) {
                Row.print("and somebody who guesses (aim p99 < 20)", gos(path));
                System.out.printf("    %d guesses were refused%n", guesser.refused());
            }
            visitors.stillHere();
            Row.head("From a touch on a tablet to the light of its key there, in ms");
            Row.print(
                    "%d views and %d tablets (aim < 100)".formatted(VIEWS, TABLETS),
                    touches(visitors, tablet, key, show));
            application.post(path + "/delete", Map.of("stops", "true"));
        }
    }

    /** A page of hand cues with one key that stays on. */
    private int key(String path) throws IOException, InterruptedException {
        application.post(path + "/rig/devices/1/phrases", Map.of("name", "Other", "says", "note 2", "effect", "HOLDS"));
        application.post(path + "/hands/pages", Map.of("name", "Bench", "rows", "3", "columns", "4"));
        Matcher page = Pattern.compile("page=(\\d+)").matcher(application.get(path + "/hands"));
        if (!page.find()) {
            throw new IOException("no page of hand cues was made");
        }
        application.post(
                path + "/hands/keys",
                Map.of(
                        "id",
                        "0",
                        "page",
                        page.group(1),
                        "row",
                        "0",
                        "column",
                        "0",
                        "name",
                        "Look",
                        "mark",
                        "NONE",
                        "way",
                        "ON_OFF",
                        "on",
                        "1 Other",
                        "off",
                        "1 Look"));
        Matcher key = Pattern.compile("data-key=\"(\\d+)\"").matcher(application.get(path + "/hands"));
        if (!key.find()) {
            throw new IOException("no key was made");
        }
        return Integer.parseInt(key.group(1));
    }

    private long[] gos(String path) throws IOException, InterruptedException {
        long[] taken = new long[GOS];
        arrivals.clear();
        for (int i = 0; i < GOS; i++) {
            long sent = clock.nanos();
            application.post(path + "/desk/go", Map.of());
            Long at = arrivals.poll(20, TimeUnit.SECONDS);
            if (at == null) {
                throw new IOException("the message never arrived");
            }
            taken[i] = at - sent;
            application.post(path + "/desk/jump", Map.of("number", "1"));
            Thread.sleep(PAUSE);
        }
        return taken;
    }

    private long[] touches(Visitors visitors, WebSocket tablet, int key, String show)
            throws IOException, InterruptedException {
        long[] taken = new long[TOUCHES];
        for (int i = 0; i < TOUCHES; i++) {
            visitors.forgetLights();
            long sent = System.nanoTime();
            tablet.sendText("{\"order\":" + (i + 1) + ",\"show\":" + show + ",\"what\":\"touch " + key + "\"}", true)
                    .join();
            taken[i] = visitors.light() - sent;
            Thread.sleep(PAUSE);
        }
        return taken;
    }

    /** Ten cues a second are more than any show has. */
    private static void perView(long letters, long nanos) {
        double minutes = nanos / 60e9;
        System.out.printf(
                "    a view is sent %.0f kB a minute, at %.0f GOs a minute%n",
                letters / 1000.0 / minutes / (VIEWS + TABLETS), GOS / minutes);
    }

    /** What is used of the heap when all that nobody needs is gone, kB. */
    private long heap() throws IOException, InterruptedException {
        jcmd("GC.run");
        Matcher used = USED.matcher(jcmd("GC.heap_info"));
        long all = 0;
        while (used.find()) {
            all += Long.parseLong(used.group(1));
        }
        return all;
    }

    private String jcmd(String command) throws IOException, InterruptedException {
        Process jcmd = new ProcessBuilder("jcmd", process, command)
                .redirectErrorStream(true)
                .start();
        StringBuilder said = new StringBuilder();
        try (BufferedReader reader = new BufferedReader(new InputStreamReader(jcmd.getInputStream()))) {
            reader.lines()
                    .filter(l -> !l.contains("Metaspace") && !l.contains("class space"))
                    .forEach(said::append);
        }
        jcmd.waitFor();
        return said.toString();
    }
}
