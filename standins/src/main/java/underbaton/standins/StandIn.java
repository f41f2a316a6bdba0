package underbaton.standins;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntSupplier;
import java.util.stream.Stream;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.wire.osc.OscInlet;
import underbaton.wire.osc.OscTcpInlet;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * A simulated machine with its plug in a real wire: it hears only what arrives at its port, and can be switched off and
 * on like the real thing. Its model keeps its state while it is off.
 */
public final class StandIn implements AutoCloseable {

    private final String name;
    private final Model model;
    private final int port;
    private final InetAddress bind;
    private final Clock clock;
    private final Loops loops;
    private static final long PULSES_SHOWN_NANOS = 250_000_000;

    private final Runnable watcher;
    /** When somebody was told last that it has changed; on the wire's thread alone. */
    private long shownNanos;

    private final AtomicLong heard = new AtomicLong();
    private final IntSupplier listener;
    private AutoCloseable plug;
    private volatile Keyed.Mouth mouth;
    private volatile boolean on;

    /**
     * @param port control port of a MIDI machine (data is the next one), or the OSC port
     * @param listener the OSC port, on this computer, of whoever hears what it says by itself; 0 for nobody
     * @param watcher called after each change on the wire's thread; must return at once
     */
    public StandIn(
            String name,
            Model model,
            InetAddress bind,
            int port,
            Clock clock,
            Loops loops,
            IntSupplier listener,
            Runnable watcher) {
        this.listener = listener;
        this.name = name;
        this.model = model;
        this.bind = bind;
        this.port = port;
        this.clock = clock;
        this.loops = loops;
        this.watcher = watcher;
    }

    /** By what it is reached, in words. */
    public String wire() {
        return model instanceof Model.Osc ? "OSC" : "network MIDI";
    }

    public String name() {
        return name;
    }

    public Model model() {
        return model;
    }

    public int port() {
        return port;
    }

    public boolean isOn() {
        return on;
    }

    /** How many messages have come in since it was made, clocks and pieces of time code apart. */
    public long heard() {
        return heard.get();
    }

    /** @throws IOException when its port is taken */
    public synchronized void switchOn() throws IOException {
        if (on) {
            return;
        }
        plug = model instanceof Model.Midi midi ? midiPlug(midi) : oscPlug((Model.Osc) model);
        on = true;
        watcher.run();
    }

    public synchronized void switchOff() {
        if (!on) {
            return;
        }
        on = false;
        if (model instanceof Keyed keyed) {
            keyed.unplugged();
        }
        try {
            plug.close();
        } catch (Exception alreadyGone) {
            throw new IllegalStateException("the stand-in “" + name + "” could not be switched off", alreadyGone);
        }
        watcher.run();
    }

    @Override
    public void close() {
        switchOff();
    }

    /**
     * Presses one of its keys, so that it says something; nothing comes of it while it is off.
     *
     * @throws IllegalArgumentException when it has no keys
     */
    public void press(String key) {
        if (!(model instanceof Keyed keyed)) {
            throw new IllegalArgumentException(name + " has no keys");
        }
        if (on) {
            keyed.press(key, mouth);
            watcher.run();
        }
    }

    private AutoCloseable midiPlug(Model.Midi midi) throws IOException {
        SessionEndpoint endpoint = new SessionEndpoint(name, bind, port, clock, loops, new SessionEndpoint.Ear() {
            @Override
            public void heard(Peer peer, MidiMessage message, long arrivalNanos) {
                midi.hear(message, arrivalNanos);
                List<MidiMessage> answers = midi.answers(message);
                if (!answers.isEmpty()) {
                    peer.send(answers);
                }
                boolean pulse = message == RealTime.CLOCK || message instanceof QuarterFrame;
                if (!pulse) {
                    heard.incrementAndGet();
                }
                // What it shows of a clock is looked at a few times a second.
                if (!pulse || arrivalNanos - shownNanos >= PULSES_SHOWN_NANOS) {
                    shownNanos = arrivalNanos;
                    watcher.run();
                }
            }
        });
        mouth = new Keyed.Mouth() {
            @Override
            public void say(Message... messages) {
                List<MidiMessage> said =
                        Stream.of(messages).map(MidiMessage.class::cast).toList();
                endpoint.peers().stream().filter(Peer::isOpen).forEach(p -> p.send(said));
            }

            @Override
            public void say(Keyed.Way way, Message message) {
                say(message);
            }
        };
        return endpoint;
    }

    private AutoCloseable oscPlug(Model.Osc osc) throws IOException {
        OscInlet.Ear ear = (signal, from) -> {
            OscMessage message = (OscMessage) signal.message();
            List<OscMessage> answers = osc.hear(message);
            if (!message.arguments().isEmpty()) {
                heard.incrementAndGet();
                watcher.run();
            }
            return answers;
        };
        OscInlet datagrams = new OscInlet(bind, port, clock, loops, ear);
        OscTcpInlet streams = new OscTcpInlet(bind, port, clock, loops, ear);
        OscMouth says = new OscMouth(bind, listener, clock, loops);
        mouth = says;
        return () -> {
            says.close();
            datagrams.close();
            streams.close();
        };
    }
}
