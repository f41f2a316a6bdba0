package underbaton.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.Map;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.wire.SystemClock;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * From a packet of a pedal to the packet that it causes, through the running application: by a listener that fires a cue, and by a
 * relay. Both ends are this program, so one clock measures both. Beside it, in the same run, the same message copied from one receiver
 * of {@code javax.sound.midi} to another, and echoed by a program that does nothing else over the same two sessions.
 */
final class SignalBench {

    private static final int TIMES = 1000;
    private static final int UNCOUNTED = 20;
    private static final int PAGES_OF_A_NIGHT = 30;
    private static final long PAUSE_MILLIS = 10;
    private static final long PATIENCE_SECONDS = 20;

    private static final Loops LOOPS = new Loops(Thread::new);

    private final Clock clock = new SystemClock();
    private final LinkedBlockingQueue<Long> arrivals = new LinkedBlockingQueue<>();
    private final Application application;
    private final String base;

    private SignalBench(String base) {
        this.base = base;
        this.application = new Application(base, clock);
    }

    /** @param base where the application answers */
    static void run(String base) throws IOException, InterruptedException, InvalidMidiDataException {
        SignalBench bench = new SignalBench(base);
        Row.head("From a controller's packet to the packet it causes, in ms");
        Row.print("copied by javax.sound.midi, no wire", bench.copied());
        Row.print("echoed by a program that does nothing else", bench.echoed());
        bench.through("by a listener: GO", Map.of("does", "cue", "cue", "1", "fires", "on"));
        bench.through(
                "by a relay: the same on channel 2",
                Map.of(
                        "does",
                        "relay",
                        "how",
                        "through",
                        "tells",
                        "1",
                        "toChannel",
                        "2",
                        "shift",
                        "0",
                        "fills",
                        "nothing"));
        bench.through(
                "by a relay: scaled",
                Map.of(
                        "does",
                        "relay",
                        "how",
                        "written",
                        "tells",
                        "1",
                        "words",
                        "control 20 to ?",
                        "fills",
                        "scaled",
                        "goesFrom",
                        "10",
                        "goesTo",
                        "100"));
    }

    // ---- what it is held against

    private long[] copied() throws InvalidMidiDataException {
        Receiver end = new Ends(at -> arrivals.add(at));
        Receiver copy = new Ends(at -> {}) {
            @Override
            public void send(MidiMessage message, long timeStamp) {
                end.send((MidiMessage) message.clone(), timeStamp);
            }
        };
        long[] taken = new long[TIMES];
        for (int i = 0; i < TIMES; i++) {
            long sent = clock.nanos();
            copy.send(new ShortMessage(ShortMessage.CONTROL_CHANGE, 0, 67, i % 128), -1);
            taken[i] = arrivals.remove() - sent;
        }
        return taken;
    }

    /** Takes what comes with the moment of it. */
    private class Ends implements Receiver {
        private final java.util.function.LongConsumer taker;

        Ends(java.util.function.LongConsumer taker) {
            this.taker = taker;
        }

        @Override
        public void send(MidiMessage message, long timeStamp) {
            taker.accept(clock.nanos());
        }

        @Override
        public void close() {}
    }

    private long[] echoed() throws IOException, InterruptedException {
        InetAddress loopback = InetAddress.getLoopbackAddress();
        try (SessionEndpoint pedal = board();
                SessionEndpoint echo = new SessionEndpoint(
                        "Echo", loopback, 0, clock, LOOPS, (peer, message, at) -> peer.send(List.of(message)))) {
            Peer to = pedal.invite("127.0.0.1", echo.port(), (peer, message, at) -> arrivals.add(at));
            for (int i = 0; i < 200 && !to.isOpen(); i++) {
                Thread.sleep(25);
            }
            return press(to);
        }
    }

    // ---- through the application

    private SessionEndpoint board() throws IOException {
        return new SessionEndpoint(
                "Bench", InetAddress.getLoopbackAddress(), 0, clock, LOOPS, (peer, message, at) -> arrivals.add(at));
    }

    private void through(String name, Map<String, String> does) throws IOException, InterruptedException {
        try (SessionEndpoint board = board()) {
            String path = application.show(board);
            application.listen(path, does);
            Peer pedal = board.peers().stream().filter(Peer::isOpen).findFirst().orElseThrow();
            Row.print(name + " (aim p99 < 1)", press(pedal));
            try (Crowd crowd = new Crowd(PAGES_OF_A_NIGHT, base, path.replaceAll("\\D", ""))) {
                Thread.sleep(2000);
                Row.print("    with " + PAGES_OF_A_NIGHT + " pages open", press(pedal));
                crowd.stillHere();
            }
            application.post(path + "/delete", Map.of("stops", "true"));
        }
    }

    private long[] press(Peer pedal) throws IOException, InterruptedException {
        long[] taken = new long[TIMES];
        for (int i = -UNCOUNTED; i < TIMES; i++) {
            long sent = clock.nanos();
            pedal.send(List.of(new ControlChange(0, 67, (i + 128) % 128)));
            Long at = arrivals.poll(PATIENCE_SECONDS, TimeUnit.SECONDS);
            if (at == null) {
                throw new IOException("what it causes never arrived");
            }
            taken[Math.max(0, i)] = at - sent;
            Thread.sleep(PAUSE_MILLIS);
        }
        return taken;
    }
}
