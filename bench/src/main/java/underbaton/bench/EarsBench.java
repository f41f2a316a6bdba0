package underbaton.bench;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.wire.SystemClock;
import underbaton.wire.osc.OscCodec;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * What the running application hears of who has much to say: twenty presses beside a clock at 160, a ride of 1,000 steps at 200 a second
 * and fifty meters a second; by network MIDI from a machine of the rig and from a guest, by OSC from a machine and from a stranger who is
 * let in. What is heard comes back by relays to a program that knows bytes.
 */
final class EarsBench {

    private static final int STEPS = 1000;
    private static final int STEP_MILLIS = 5;
    /** In steps. */
    private static final int PRESS_EACH = 50;

    private static final int METER_EACH = 4;
    private static final int TICK_EACH = 3;
    private static final int PRESSES = STEPS / PRESS_EACH;
    private static final int PEDAL = 67;
    private static final int FADER = 11;
    /** On Linux every address that begins with 127 is this computer's. */
    private static final String MACHINE = "127.0.0.3";

    private static final String STRANGER = "127.0.0.2";

    private static final Loops LOOPS = new Loops(Thread::new);

    private final Clock clock = new SystemClock();
    private final AtomicInteger pressed = new AtomicInteger();
    private final AtomicInteger fader = new AtomicInteger(-1);
    private final Application application;

    private EarsBench(String base) {
        application = new Application(base, clock);
    }

    /** One who has much to say. */
    private interface Speaker {
        void ride(int value) throws IOException;

        void press(boolean down) throws IOException;

        void meter(int value) throws IOException;

        void tick() throws IOException;
    }

    static void run(String base) throws IOException, InterruptedException {
        new EarsBench(base).all();
    }

    private void all() throws IOException, InterruptedException {
        InetAddress loopback = InetAddress.getLoopbackAddress();
        System.out.printf("%-28s %8s %8s %10s %10s%n", "who", "presses", "heard", "last value", "heard");
        try (SessionEndpoint board =
                        new SessionEndpoint("Board", loopback, 0, clock, LOOPS, (peer, message, at) -> heard(message));
                SessionEndpoint guest =
                        new SessionEndpoint("Guest", loopback, 0, clock, LOOPS, (peer, message, at) -> {})) {
            String path = application.show(board);
            application.post(path + "/rig/door", Map.of("mode", "ANYONE"));
            application.post(
                    path + "/rig/devices",
                    Map.of(
                            "name",
                            "Layout",
                            "department",
                            "VIDEO",
                            "wire",
                            "osc-udp",
                            "host",
                            MACHINE,
                            "port",
                            "9000"));
            String rig = application.get(path + "/rig");
            String layout = number(rig, "device=(\\d+)\"[^>]*>(?:(?!</a>).)*Layout");
            for (String from : List.of("1", "others")) {
                relay(path, from, Map.of("kind", "controller", "low", "67", "soft", "127", "hard", "127"), PRESS);
                relay(path, from, Map.of("kind", "controller", "low", "11", "soft", "0", "hard", "127"), RIDE);
            }
            for (String from : List.of(layout, "others")) {
                relay(path, from, Map.of("kind", "osc", "text", "/bench/press"), PRESS);
                relay(path, from, Map.of("kind", "osc", "text", "/bench/fader"), RIDE_OF_FLOATS);
            }
            Peer machine =
                    board.peers().stream().filter(Peer::isOpen).findFirst().orElseThrow();
            row("machine, network MIDI", new ByMidi(machine));
            int port = Integer.parseInt(number(rig, "By network MIDI at port <b>(\\d+)"));
            Peer invited = guest.invite("127.0.0.1", port, (peer, message, at) -> {});
            for (int i = 0; i < 200 && !invited.isOpen(); i++) {
                Thread.sleep(25);
            }
            row("guest, network MIDI", new ByMidi(invited));
            InetSocketAddress osc =
                    new InetSocketAddress(loopback, Integer.parseInt(number(rig, "by OSC at port <b>(\\d+)")));
            for (String from : List.of(MACHINE, STRANGER)) {
                try (DatagramSocket socket = new DatagramSocket(new InetSocketAddress(from, 0))) {
                    row((from.equals(MACHINE) ? "machine" : "stranger let in") + ", OSC", new ByOsc(socket, osc));
                }
            }
            application.post(path + "/delete", Map.of("stops", "true"));
        }
    }

    private static final Map<String, String> PRESS =
            Map.of("how", "written", "words", "control 67 to 127 on channel +1", "fills", "nothing");
    private static final Map<String, String> RIDE =
            Map.of("how", "through", "toChannel", "2", "shift", "0", "fills", "nothing");
    private static final Map<String, String> RIDE_OF_FLOATS = Map.of(
            "how",
            "written",
            "words",
            "control 11 to ? on channel +1",
            "fills",
            "scaled",
            "comesFrom",
            "0",
            "comesTo",
            "1",
            "goesFrom",
            "0",
            "goesTo",
            "127");

    private void relay(String path, String from, Map<String, String> what, Map<String, String> how)
            throws IOException, InterruptedException {
        Map<String, String> form = new HashMap<>(how);
        form.putAll(what);
        form.putAll(Map.of(
                "name",
                "Relay " + clock.nanos(),
                "from",
                from,
                "channel",
                what.get("kind").equals("osc") ? "" : "1",
                "does",
                "relay",
                "tells",
                "1"));
        form.put("twice", "on");
        application.listen(path, form);
    }

    private static String number(String page, String pattern) throws IOException {
        Matcher found = Pattern.compile(pattern, Pattern.DOTALL).matcher(page);
        if (!found.find()) {
            throw new IOException("the page does not say " + pattern);
        }
        return found.group(1);
    }

    private void heard(MidiMessage message) {
        if (message instanceof ControlChange change && change.channel() == 1) {
            if (change.controller() == PEDAL && change.value() == 127) {
                pressed.incrementAndGet();
            } else if (change.controller() == FADER) {
                fader.set(change.value());
            }
        }
    }

    private void row(String who, Speaker speaker) throws IOException, InterruptedException {
        pressed.set(0);
        fader.set(-1);
        int last = 0;
        for (int i = 1; i <= STEPS; i++) {
            last = i * 7 % 128;
            speaker.ride(last);
            if (i % PRESS_EACH == 0) {
                speaker.press(true);
            } else if (i % PRESS_EACH == PRESS_EACH / 5) {
                speaker.press(false);
            }
            if (i % METER_EACH == 0) {
                speaker.meter(i % 128);
            }
            if (i % TICK_EACH == 0) {
                speaker.tick();
            }
            Thread.sleep(STEP_MILLIS);
        }
        for (int i = 0; i < 100 && (pressed.get() < PRESSES || fader.get() != last); i++) {
            Thread.sleep(20);
        }
        System.out.printf("%-28s %8d %8d %10d %10d%n", who, PRESSES, pressed.get(), last, fader.get());
    }

    private record ByMidi(Peer peer) implements Speaker {
        @Override
        public void ride(int value) {
            peer.send(List.of(new ControlChange(0, FADER, value)));
        }

        @Override
        public void press(boolean down) {
            peer.send(List.of(new ControlChange(0, PEDAL, down ? 127 : 0)));
        }

        @Override
        public void meter(int value) {
            peer.send(List.of(new ControlChange(0, 20, value)));
        }

        @Override
        public void tick() {
            peer.send(List.of(RealTime.CLOCK));
        }
    }

    private record ByOsc(DatagramSocket socket, InetSocketAddress to) implements Speaker {
        @Override
        public void ride(int value) throws IOException {
            say("/bench/fader", value / 127f);
        }

        @Override
        public void press(boolean down) throws IOException {
            if (down) {
                say("/bench/press", 1f);
            }
        }

        @Override
        public void meter(int value) throws IOException {
            say("/bench/meter", value / 127f);
        }

        @Override
        public void tick() throws IOException {
            say("/bench/tick", 1f);
        }

        private void say(String address, float value) throws IOException {
            byte[] packet = new OscCodec()
                    .encode(new OscMessage(address, List.of(value)))
                    .toArray();
            socket.send(new DatagramPacket(packet, packet.length, to));
        }
    }
}
