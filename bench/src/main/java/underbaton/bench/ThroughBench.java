package underbaton.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.Map;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.SystemClock;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * A keyboard through the patch of the running application, note by note in turns with the same keyboard through a program that does
 * nothing but copy from a transmitter of {@code javax.sound.midi} to a receiver, over the same kind of sessions. Both are programs of
 * their own, started alike ({@link Copy}); what is played and what arrives is this program's, so one clock measures both.
 */
final class ThroughBench {

    private static final int TIMES = 2000;
    private static final int UNCOUNTED = 200;
    private static final long PAUSE_MILLIS = 5;
    private static final long PATIENCE_SECONDS = 20;
    private static final Pattern CHOSEN = Pattern.compile("data-chosen=\"(\\d+)\"");
    private static final Loops LOOPS = new Loops(Thread::new);

    private final Clock clock = new SystemClock();
    private final LinkedBlockingQueue<Long> arrivals = new LinkedBlockingQueue<>();

    private ThroughBench() {}

    /** @param base where the application answers */
    static void run(String base) throws IOException, InterruptedException {
        new ThroughBench().measure(base);
    }

    private void measure(String base) throws IOException, InterruptedException {
        Application application = new Application(base, clock);
        try (SessionEndpoint keyboard = end();
                SessionEndpoint other = end();
                Copy.Running copy = Copy.start()) {
            String path = application.show(keyboard);
            load(application, path);
            Peer through =
                    keyboard.peers().stream().filter(Peer::isOpen).findFirst().orElseThrow();
            Peer bare = other.invite("127.0.0.1", copy.port(), (peer, message, at) -> arrivals.add(at));
            for (int i = 0; i < 200 && !bare.isOpen(); i++) {
                Thread.sleep(25);
            }
            Row.head("From a key of a keyboard to the output, in ms");
            inTurns(through, bare, "");
            try (Crowd crowd = new Crowd(30, base, path.replaceAll("\\D", ""))) {
                Thread.sleep(2000);
                inTurns(through, bare, ", 30 pages open");
                crowd.stillHere();
            }
            application.post(path + "/delete", Map.of("stops", "true"));
        }
    }

    private void inTurns(Peer through, Peer bare, String with) throws IOException, InterruptedException {
        long[] ours = new long[TIMES];
        long[] copied = new long[TIMES];
        for (int i = -UNCOUNTED; i < TIMES; i++) {
            MidiMessage played = i % 2 == 0 ? new NoteOn(0, 60, 1 + Math.floorMod(i, 127)) : new NoteOff(0, 60, 0);
            ours[Math.max(0, i)] = play(through, played);
            copied[Math.max(0, i)] = play(bare, played);
        }
        Row.print("copied by javax.sound.midi" + with, copied);
        Row.print("through the patch" + with + " (aim p99 < 1)", ours);
    }

    private long play(Peer to, MidiMessage message) throws IOException, InterruptedException {
        long sent = clock.nanos();
        to.send(List.of(message));
        Long at = arrivals.poll(PATIENCE_SECONDS, TimeUnit.SECONDS);
        if (at == null) {
            throw new IOException("what was played never arrived");
        }
        Thread.sleep(PAUSE_MILLIS);
        return at - sent;
    }

    private SessionEndpoint end() throws IOException {
        return new SessionEndpoint(
                "Bench", InetAddress.getLoopbackAddress(), 0, clock, LOOPS, (peer, message, at) -> arrivals.add(at));
    }

    /** One line from the board to itself on channel 2, in use. */
    private static void load(Application application, String path) throws IOException, InterruptedException {
        Matcher set = CHOSEN.matcher(
                application.post(path + "/patch", Map.of("name", "Bench")).body());
        if (!set.find()) {
            throw new IOException("no patch set was made");
        }
        String of = path + "/patch/" + set.group(1);
        application.post(
                of + "/line",
                Map.ofEntries(
                        Map.entry("was", ""),
                        Map.entry("from", "1"),
                        Map.entry("fromChannel", "1"),
                        Map.entry("to", "1"),
                        Map.entry("toChannel", "2"),
                        Map.entry("kinds", "NOTES,CONTROLS"),
                        Map.entry("low", ""),
                        Map.entry("high", ""),
                        Map.entry("soft", ""),
                        Map.entry("hard", ""),
                        Map.entry("firstControl", ""),
                        Map.entry("lastControl", ""),
                        Map.entry("firstProgram", ""),
                        Map.entry("lastProgram", ""),
                        Map.entry("transpose", "")));
        application.post(of + "/keep", Map.of());
        application.post(of + "/load", Map.of());
    }
}
