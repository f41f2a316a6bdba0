package underbaton.web.stage;

import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Cause;
import underbaton.core.engine.ScheduledMessage;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Clock;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Scribe;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.signal.Signal;
import underbaton.core.traffic.Traffic;
import underbaton.wire.Link;
import underbaton.wire.Switchboard;
import underbaton.wire.osc.OscInlet;
import underbaton.wire.session.SessionEndpoint;

/**
 * A virtual machine is slow the first times it does a thing, and the first GO of the night must not be the one that
 * pays. So, beside the start, messages go through real lanes and real sockets to ears of our own, and some orders come
 * in by HTTP for a show that does not exist.
 */
@Component
class WarmUp {

    private static final Logger LOG = LoggerFactory.getLogger(WarmUp.class);
    private static final int ROUNDS = 400;
    private static final int REQUESTS = 60;
    private static final long PATIENCE_MILLIS = 3000;

    private final Clock clock;
    private final Loops loops;

    WarmUp(Clock clock, Loops loops) {
        this.clock = clock;
        this.loops = loops;
    }

    @EventListener
    void begin(WebServerInitializedEvent started) {
        int port = started.getWebServer().getPort();
        loops.once("warm-up", () -> run(port));
    }

    private void run(int port) {
        try {
            warmWires();
            warmOrders(port);
        } catch (IOException | RuntimeException failed) {
            LOG.info(
                    "The warm-up was cut short ({}); the first cue may be some milliseconds later.", failed.toString());
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }

    private void warmWires() throws IOException, InterruptedException {
        InetAddress loopback = InetAddress.getLoopbackAddress();
        try (SessionEndpoint midiEar =
                        new SessionEndpoint("Warm-up", loopback, 0, clock, loops, (peer, message, at) -> {});
                OscInlet oscEar = new OscInlet(loopback, 0, clock, loops, (signal, from) -> List.of());
                Switchboard switchboard = new Switchboard("Warm-up", loopback, clock, loops)) {
            pass(
                    switchboard,
                    new Connection.NetworkMidi("127.0.0.1", midiEar.port()),
                    List.of(new NoteOn(0, 60, 127), new ProgramChange(0, 1)));
            pass(
                    switchboard,
                    new Connection.Osc("127.0.0.1", oscEar.port(), ""),
                    List.of(new OscMessage("/warm", List.of(1))));
        }
    }

    private void pass(Switchboard switchboard, Connection connection, List<Message> messages)
            throws InterruptedException {
        Device device = new Device(0, "Warm-up", Department.LIGHTS, connection, 0, Numbering.WIRE, 0, List.of());
        Link link = switchboard.connect(connection, new Deaf());
        for (long waited = 0; !link.health().reached() && waited < PATIENCE_MILLIS; waited += 10) {
            Thread.sleep(10);
        }
        Scribe scribe = new Scribe(new Traffic(16), loops);
        Lane lane = new Lane(0, device, link, clock, scribe, loops);
        for (int i = 0; i < ROUNDS; i++) {
            messages.forEach(m -> lane.send(warming(m)));
            Thread.sleep(1);
        }
        lane.close();
        scribe.close();
    }

    private ScheduledMessage warming(Message message) {
        long now = clock.nanos();
        return ScheduledMessage.at(now, 0, message, Cause.outside("warm-up", now));
    }

    private static void warmOrders(int port) throws IOException, InterruptedException {
        HttpClient client = HttpClient.newHttpClient();
        HttpRequest order = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/shows/0/desk/go"))
                .POST(HttpRequest.BodyPublishers.noBody())
                .build();
        for (int i = 0; i < REQUESTS; i++) {
            client.send(order, HttpResponse.BodyHandlers.discarding());
        }
    }

    private static final class Deaf implements Link.Ear {
        @Override
        public void heard(Signal signal) {
            // Nobody speaks to a warm-up.
        }

        @Override
        public void changed() {
            // It has no lamp.
        }
    }
}
