package underbaton.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.Wiring;
import underbaton.core.store.ShowFile;
import underbaton.wire.SystemClock;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * A song with a cue every three seconds, keys played through the patch, hand keys held and GOs, while two endless loops take what they can
 * of this machine. At its end each planned message must have arrived, however late, and stand in the log, and nothing sounds any more. The
 * machine is a network MIDI session of this program, which knows bytes and no book.
 */
final class SoakBench {

    private static final Loops LOOPS = new Loops(Thread::new);
    private static final int APART_SECONDS = 3;
    private static final int EACH_BY_HAND = 10;
    private static final int VALUES = 128;
    private static final int PLAYED = 1;
    private static final int HELD = 2;
    private static final Pattern TAKEN = Pattern.compile("/shows/file/(\\d+)/take");
    private static final Pattern SHOW = Pattern.compile("/shows/(\\d+)/show\\.json\"[^>]*");
    private static final Pattern ROW = Pattern.compile("data-number=\"(\\d+)\"");

    private final Clock clock = new SystemClock();
    private final Random random = new Random(20);
    private final String base;
    private final int cues;

    /** How often each cue's message has come. */
    private final Map<Integer, Integer> came = new TreeMap<>();
    /** What sounds, by channel and note. */
    private final Map<Integer, Integer> sounds = new TreeMap<>();

    private final AtomicLong arrived = new AtomicLong();

    private SoakBench(String base, int minutes) {
        this.base = base;
        this.cues = minutes * 60 / APART_SECONDS;
    }

    static void run(String base, int minutes) throws IOException, InterruptedException {
        new SoakBench(base, minutes).run();
    }

    private synchronized void arrives(Message message) {
        arrived.incrementAndGet();
        if (message instanceof ControlChange c && c.channel() == 0 && c.controller() > 0) {
            came.merge((c.controller() - 1) * VALUES + c.value(), 1, Integer::sum);
        } else if (message instanceof NoteOn n) {
            sounds.merge(n.channel() * VALUES + n.note(), n.velocity() > 0 ? 1 : -1, Integer::sum);
        } else if (message instanceof NoteOff n) {
            sounds.merge(n.channel() * VALUES + n.note(), -1, Integer::sum);
        }
    }

    private void run() throws IOException, InterruptedException {
        Application application = new Application(base, clock);
        try (SessionEndpoint machine = new SessionEndpoint(
                "Bench", InetAddress.getLoopbackAddress(), 0, clock, LOOPS, (peer, message, at) -> arrives(message))) {
            Show show = show(machine.port());
            String path = take(application, show);
            for (int i = 0; i < 400 && machine.peers().stream().noneMatch(Peer::isOpen); i++) {
                Thread.sleep(50);
            }
            Peer desk =
                    machine.peers().stream().filter(Peer::isOpen).findFirst().orElseThrow();
            int key = show.hands().get(0).keys().get(0).id();
            List<Thread> busy = List.of(spin(), spin());
            application.post(path + "/desk/go", Map.of());
            long end = clock.nanos() + (cues + 2L) * APART_SECONDS * 1_000_000_000L;
            int played = 0;
            int gos = 1;
            while (clock.nanos() < end) {
                int note = 30 + random.nextInt(60);
                desk.send(List.of(new NoteOn(0, note, 90)));
                application.post(path + "/hands/keys/" + key + "/touch", Map.of("how", "press"));
                Thread.sleep(random.nextInt(150));
                desk.send(List.of(new NoteOff(0, note, 0)));
                application.post(path + "/hands/keys/" + key + "/touch", Map.of("how", "let_go"));
                played++;
                if (played % 60 == 0 && gos <= cues / EACH_BY_HAND) {
                    application.post(path + "/desk/go", Map.of());
                    gos++;
                }
                Thread.sleep(random.nextInt(400));
            }
            busy.forEach(Thread::interrupt);
            Thread.sleep(3000);
            tell(application, path, played, gos);
            application.post(path + "/delete", Map.of("stops", "true"));
        }
    }

    private synchronized void tell(Application application, String path, int played, int gos)
            throws IOException, InterruptedException {
        List<Integer> lost = new ArrayList<>();
        for (int i = 0; i < cues; i++) {
            if (!came.containsKey(i)) {
                lost.add(i);
            }
        }
        long logged = logged(application, path);
        long sounding = sounds.values().stream().filter(n -> n != 0).count();
        System.out.printf(
                "%d cues by themselves: %d of their messages never came%s; %d GOs; %d notes played and keys held: %d sound at the end;"
                        + " %d messages arrived, %d stand in the log%n",
                cues, lost.size(), lost.isEmpty() ? "" : " " + lost, gos, played, sounding, arrived.get(), logged);
        if (!lost.isEmpty() || sounding > 0 || logged != arrived.get()) {
            System.exit(1);
        }
    }

    /** A thread that never rests. */
    private static Thread spin() {
        Thread thread = new Thread(
                () -> {
                    long turns = 0;
                    while (!Thread.currentThread().isInterrupted()) {
                        turns++;
                    }
                    System.out.printf("beside: %d turns of an endless loop%n", turns);
                },
                "busy");
        thread.setDaemon(true);
        thread.start();
        return thread;
    }

    private long logged(Application application, String path) throws IOException, InterruptedException {
        Set<Long> rows = new TreeSet<>();
        long before = 0;
        while (true) {
            String page = application.get(
                    path + "/log/rows?direction=out&device=1" + (before == 0 ? "" : "&before=" + before));
            Matcher row = ROW.matcher(page);
            long oldest = Long.MAX_VALUE;
            while (row.find()) {
                long number = Long.parseLong(row.group(1));
                rows.add(number);
                oldest = Math.min(oldest, number);
            }
            if (oldest == Long.MAX_VALUE || oldest == before) {
                return rows.size();
            }
            before = oldest;
        }
    }

    private String take(Application application, Show show) throws IOException, InterruptedException {
        Matcher number = TAKEN.matcher(application.upload("/shows/file", "soak.json", ShowFile.write(show)));
        if (!number.find()) {
            throw new IOException("the show was not read");
        }
        String name = "Soak " + clock.epochMicros();
        application.post("/shows/file/" + number.group(1) + "/take", Map.of("name", name));
        Matcher shows = SHOW.matcher(application.get("/"));
        int newest = 0;
        while (shows.find()) {
            newest = Math.max(newest, Integer.parseInt(shows.group(1)));
        }
        String path = "/shows/" + newest;
        application.post(path + "/open", Map.of());
        return path;
    }

    private Show show(int port) {
        Show show = Show.empty(1, "Soak")
                .withDevice(new Device(
                        0,
                        "Board",
                        Department.LIGHTS,
                        new Connection.NetworkMidi("127.0.0.1", port),
                        0,
                        Numbering.WIRE,
                        0,
                        List.of()));
        for (int i = 0; i < cues; i++) {
            show = phrase(show, "Look " + i, new ControlChange(0, 1 + i / VALUES, i % VALUES), Effect.HOLDS);
        }
        show = phrase(show, "By hand", new ControlChange(0, 0, 1), Effect.MOMENT);
        show = phrase(show, "Held", new NoteOn(HELD, 100, 100), Effect.STARTS);
        show = phrase(show, "Let go", new NoteOff(HELD, 100, 0), Effect.STOPS);
        Device board = show.devices().get(0);
        show = PatchBay.withNew(show, "Bench", new Wiring(List.of(line(board.id())), Set.of()));
        show = show.withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
        int item = show.items().get(0).id();
        Phrase set = PatchBay.sets(show).iterator().next();
        int bay = PatchBay.of(show).orElseThrow().id();
        show = show.withCue(item, cue("1", Start.BY_HAND, new Call(bay, set.id())));
        List<Cue> all = new ArrayList<>();
        for (int i = 0; i < cues; i++) {
            int seconds = (i + 1) * APART_SECONDS;
            Start start = Start.of("at time %d:%02d".formatted(seconds / 60, seconds % 60));
            all.add(cue(Integer.toString(10 + i), start, call(board, "Look " + i)));
        }
        for (int i = 0; i < cues / EACH_BY_HAND; i++) {
            all.add(cue(Integer.toString(10 + cues + i), Start.BY_HAND, call(board, "By hand")));
        }
        for (Cue cue : all) {
            show = show.withCue(item, cue);
        }
        HandKey key = new HandKey(
                show.nextId() + 1,
                0,
                0,
                "Held",
                Mark.NONE,
                HandKey.Way.HELD,
                List.of(call(board, "Held")),
                List.of(call(board, "Let go")),
                false);
        HandPage page = new HandPage(show.nextId(), "Hands", 2, 2, List.of(key));
        return new Show(
                show.id(),
                show.name(),
                show.revision(),
                show.nextId() + 2,
                show.devices(),
                show.items(),
                show.listeners(),
                List.of(page));
    }

    private static Show phrase(Show show, String name, MidiMessage says, Effect effect) {
        return show.withPhrase(1, new Phrase(0, name, List.of(says), effect, false));
    }

    private static Cue cue(String number, Start start, Call call) {
        return new Cue(0, CueNumber.of(number), start, "", List.of(call), 0);
    }

    private static Call call(Device board, String phrase) {
        return new Call(board.id(), board.phraseNamed(phrase).orElseThrow().id());
    }

    /** From the board's first channel back to its second. */
    private static PatchLine line(int board) {
        return new PatchLine(
                board,
                OptionalInt.of(0),
                board,
                OptionalInt.of(PLAYED),
                Set.of(PatchKind.NOTES),
                PatchRange.ALL,
                PatchLine.ALL_VELOCITIES,
                PatchRange.ALL,
                PatchRange.ALL,
                0);
    }
}
