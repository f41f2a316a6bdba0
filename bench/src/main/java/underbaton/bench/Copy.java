package underbaton.bench;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Transmitter;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.SystemClock;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/** A program that does nothing but copy, from a transmitter of {@code javax.sound.midi} to a receiver: what passing through costs at least. */
final class Copy {

    private Copy() {}

    /** It runs until its input is closed, and says its port first. */
    static void run() throws IOException {
        SessionEndpoint.Ear ear = (peer, message, at) -> {
            Input input = new Input();
            input.setReceiver(new Output(peer));
            input.played(message);
        };
        try (SessionEndpoint copy = new SessionEndpoint(
                "Copy", InetAddress.getLoopbackAddress(), 0, new SystemClock(), new Loops(Thread::new), ear)) {
            System.out.println(copy.port());
            while (System.in.read() >= 0) {
                continue;
            }
        }
    }

    /** The program, started as this one was. */
    record Running(Process process, int port) implements AutoCloseable {
        @Override
        public void close() throws IOException {
            process.getOutputStream().close();
            try {
                if (!process.waitFor(5, TimeUnit.SECONDS)) {
                    process.destroyForcibly();
                }
            } catch (InterruptedException interrupted) {
                process.destroyForcibly();
                Thread.currentThread().interrupt();
            }
        }
    }

    static Running start() throws IOException {
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(ManagementFactory.getRuntimeMXBean().getInputArguments());
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), Bench.class.getName(), "copy"));
        Process process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        BufferedReader said =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        String port = said.readLine();
        if (port == null) {
            throw new IOException("the copying program did not start");
        }
        return new Running(process, Integer.parseInt(port));
    }

    /** A session as a transmitter. */
    private static final class Input implements Transmitter {
        private Receiver receiver;

        void played(MidiMessage message) {
            byte[] bytes = message.encode().toArray();
            try {
                receiver.send(new ShortMessage(bytes[0] & 0xFF, bytes[1], bytes[2]), -1);
            } catch (InvalidMidiDataException neverSent) {
                throw new IllegalStateException(neverSent);
            }
        }

        @Override
        public void setReceiver(Receiver newReceiver) {
            receiver = newReceiver;
        }

        @Override
        public Receiver getReceiver() {
            return receiver;
        }

        @Override
        public void close() {}
    }

    /** A session as a receiver. */
    private record Output(Peer peer) implements Receiver {
        @Override
        public void send(javax.sound.midi.MidiMessage message, long timeStamp) {
            ShortMessage copied = (ShortMessage) message;
            peer.send(List.of(ChannelMessage.decode(copied.getStatus(), copied.getData1(), copied.getData2())));
        }

        @Override
        public void close() {}
    }
}
