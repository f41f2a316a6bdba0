package underbaton.standins;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.EnumMap;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.IntSupplier;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Message;
import underbaton.core.signal.Signal;
import underbaton.wire.Link;
import underbaton.wire.osc.OscLink;

/** How an OSC machine speaks by itself: one way for each carrier, made when it is first wanted. Thread-safe. */
final class OscMouth implements Keyed.Mouth, AutoCloseable {

    private static final long PATIENCE_NANOS = TimeUnit.SECONDS.toNanos(2);
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(5);

    private static final Link.Ear DEAF = new Link.Ear() {
        @Override
        public void heard(Signal signal) {}

        @Override
        public void changed() {}
    };

    private final InetAddress host;
    private final IntSupplier port;
    private final Clock clock;
    private final Loops loops;
    private final Map<Keyed.Way, OscLink> links = new EnumMap<>(Keyed.Way.class);

    OscMouth(InetAddress host, IntSupplier port, Clock clock, Loops loops) {
        this.host = host;
        this.port = port;
        this.clock = clock;
        this.loops = loops;
    }

    @Override
    public void say(Message... messages) {
        for (Message message : messages) {
            say(Keyed.Way.UDP, message);
        }
    }

    /** Waits at most two seconds for a stream to be there. */
    @Override
    public synchronized void say(Keyed.Way way, Message message) {
        int to = port.getAsInt();
        if (to == 0) {
            return;
        }
        OscLink link = links.computeIfAbsent(
                way, w -> OscLink.to(new InetSocketAddress(host, to), w == Keyed.Way.TCP, clock, loops, DEAF));
        long until = clock.nanos() + PATIENCE_NANOS;
        while (!link.health().reached() && clock.nanos() < until) {
            LockSupport.parkNanos(this, LOOK_NANOS);
        }
        link.send(message);
    }

    @Override
    public synchronized void close() {
        links.values().forEach(OscLink::close);
        links.clear();
    }
}
