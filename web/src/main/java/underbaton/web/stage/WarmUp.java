package underbaton.web.stage;

import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Scribe;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
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
    private static final long ROUND_NANOS = 100_000_000L;
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
            warmListening();
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

    /** A pedal or a keyboard may be the first that speaks, in a show that had no listener when it came onto the desk. */
    private void warmListening() {
        Connection line = new Connection.NetworkMidi("127.0.0.1", 1);
        Device pedals = new Device(0, "Warm-up", Department.LIGHTS, line, 0, Numbering.WIRE, 0, List.of());
        Show show = Show.empty(1, "Warm-up").withDevice(pedals);
        int id = show.devices().get(0).id();
        show = show.withPhrase(id, new Phrase(0, "Look", List.of(new NoteOn(0, 1, 127)), Effect.HOLDS, false))
                .withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
        Phrase look = show.devices().get(0).phrases().get(0);
        show = show.withCue(
                show.items().get(0).id(),
                new Cue(0, CueNumber.of("1"), Start.BY_HAND, "", List.of(new Call(id, look.id())), 0));
        Passage passage = new Passage.Through(id, OptionalInt.empty(), 1);
        Pattern pedal = new Pattern.Controller(11, Pattern.Way.WITHIN, 0, 127);
        for (Reaction reaction :
                List.of(new Reaction.Give(Deed.GO), new Reaction.Give(Deed.BACK), new Reaction.PassOn(passage))) {
            show = show.withListener(
                    new Listener(0, "Warm-up", Set.of(), OptionalInt.empty(), pedal, reaction, 0, 0, false, true));
        }
        show = PatchBay.withNew(show, "Warm-up", new Wiring(List.of(PatchLine.open(id, id)), Set.of()));
        Device bay = PatchBay.of(show).orElseThrow();
        PlannedCall set = PlannedCall.of(bay, bay.phrases().get(0));
        PlaybackState state = PlaybackState.of(Planner.plan(show), 0);
        state = Engine.step(state, Event.of(0, new Order.Fire(set, "warm-up"))).next();
        Source source = Source.of(show.devices().get(0));
        for (int i = 0; i < ROUNDS; i++) {
            for (MidiMessage said :
                    List.of(new ControlChange(0, 11, i % 128), new NoteOn(0, 60, 1), new NoteOff(0, 60, 0))) {
                long at = state.nowNanos() + ROUND_NANOS;
                state = Engine.step(state, Event.of(at, new Order.Heard(source, Signal.of(said, at))))
                        .next();
            }
        }
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
