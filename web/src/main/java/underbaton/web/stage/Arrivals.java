package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BiConsumer;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Wording;
import underbaton.core.signal.Flood;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.web.kernel.Alarm;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/**
 * The one inbox: what comes in, from machines of the rig and from others, is logged with who said it, when it was read and
 * its bytes as they came, and is heard. Strangers have a share of the log and no more ({@link StrangerShare}); what is heard is limited
 * for nobody but who says more than can be heard at all ({@link Flood}). Called on the wires' threads.
 */
@Component
public class Arrivals implements SessionEndpoint.Ear, Alarm {

    private static final int LINES_A_SECOND = 30;
    private static final int MOST_UNREAD = 64;
    private static final long RELEASE_NANOS = TimeUnit.MILLISECONDS.toNanos(20);

    private final Traffic traffic;
    private final Clock clock;
    private final StrangerShare share;
    /** Of what cannot be read one line a minute. */
    private final StrangerShare unread;

    private final Flood flood;
    private final Loop releasing;
    private volatile Function<InetSocketAddress, Optional<Device>> rig = from -> Optional.empty();
    private final Map<Integer, Long> lastHeard = new ConcurrentHashMap<>();
    private volatile Set<Integer> clocks = Set.of();
    private volatile Set<Integer> leaders = Set.of();
    private volatile int showId;
    private volatile BiConsumer<Source, Signal> listening = (source, signal) -> {};

    Arrivals(Traffic traffic, Clock clock, Loops loops) {
        this.traffic = traffic;
        this.clock = clock;
        this.share = new StrangerShare(clock, LINES_A_SECOND, TimeUnit.SECONDS.toNanos(1));
        this.unread = new StrangerShare(clock, 1, TimeUnit.MINUTES.toNanos(1));
        this.flood = new Flood(clock);
        releasing = loops.start("what a flood held back", () -> {
            LockSupport.parkNanos(this, RELEASE_NANOS);
            flood.release((source, signal) -> listening.accept(source, signal));
        });
    }

    /** Says which machine of the rig speaks from an address. */
    void knowBy(Function<InetSocketAddress, Optional<Device>> whoIsThere) {
        rig = whoIsThere;
    }

    @Override
    public List<String> alarms() {
        return flood.words();
    }

    @PreDestroy
    void close() {
        releasing.close();
    }

    /** Is told of all that comes in and can be heard; on the wires' threads, must return at once. */
    void listen(BiConsumer<Source, Signal> newListening) {
        listening = newListening;
    }

    /** When a machine of the rig last said something that is a signal, by the clock of the events; empty for never. */
    OptionalLong lastHeard(int deviceId) {
        Long at = lastHeard.get(deviceId);
        return at == null ? OptionalLong.empty() : OptionalLong.of(at);
    }

    /** The show that those are logged under who belong to none. */
    void belongTo(int openShow) {
        lastHeard.clear();
        showId = openShow;
    }

    /** The machines whose clock some line of some patch set carries. */
    void passClocksOf(Set<Integer> deviceIds) {
        clocks = Set.copyOf(deviceIds);
    }

    /** The machines by whose time some item goes. */
    void followTimeOf(Set<Integer> deviceIds) {
        leaders = Set.copyOf(deviceIds);
    }

    void heard(int ofShow, Optional<Device> device, Signal signal) {
        if (!isSignal(signal)) {
            // What ticks is heard where a line of the patch carries it or an item goes by it, and goes nowhere else.
            device.filter(d -> isWanted(d.id(), signal)).ifPresent(d -> hear(Source.of(d), signal));
            return;
        }
        device.ifPresent(d -> lastHeard.put(d.id(), signal.arrivalNanos()));
        hear(device.map(Source::of).orElse(new Source(Source.OTHERS, "a line of ours", Numbering.WIRE)), signal);
        log(
                ofShow,
                device.map(Device::id).orElse(0),
                device.map(Device::name).orElse("a line of ours"),
                device.map(Device::numbering).orElse(Numbering.WIRE),
                signal);
    }

    /** Somebody who invited us. */
    @Override
    public void heard(Peer peer, MidiMessage message, long arrivalNanos) {
        stranger(peer.name(), Signal.of(message, arrivalNanos));
    }

    /** Somebody who spoke to our OSC port: a machine of the rig, or another. */
    void heard(InetSocketAddress from, Signal signal) {
        Optional<Device> machine = rig.apply(from);
        if (machine.isPresent()) {
            heard(showId, machine, signal);
        } else {
            stranger("OSC from " + from.getAddress().getHostAddress(), signal);
        }
    }

    /** Something came at our OSC port that is no OSC, or of a type that nobody knows; it is said to nobody. */
    void unread(InetSocketAddress from, Bytes bytes) {
        Optional<Device> machine = rig.apply(from);
        String name =
                machine.map(Device::name).orElse("OSC from " + from.getAddress().getHostAddress());
        StrangerShare.Verdict verdict = unread.of(name);
        if (verdict.listed()) {
            String more = verdict.untold() == 0 ? "" : "; " + verdict.untold() + " more since the last line";
            String words = "cannot be read as OSC: no address, or a type that nobody knows" + more;
            tell(
                    showId,
                    machine.map(Device::id).orElse(0),
                    name,
                    bytes.slice(0, Math.min(MOST_UNREAD, bytes.length())),
                    words,
                    clock.epochMicros());
        }
    }

    private boolean isWanted(int deviceId, Signal signal) {
        return signal.message() == RealTime.CLOCK && clocks.contains(deviceId)
                || signal.message() != RealTime.ACTIVE_SENSING && leaders.contains(deviceId);
    }

    /** A clock and a time code tick, and a line says that it is there: neither is said to anybody. */
    private static boolean isSignal(Signal signal) {
        return signal.message() != RealTime.CLOCK
                && signal.message() != RealTime.ACTIVE_SENSING
                && !(signal.message() instanceof QuarterFrame);
    }

    private void hear(Source source, Signal signal) {
        flood.hear(source, signal).forEach(s -> listening.accept(source, s));
    }

    private void stranger(String name, Signal signal) {
        if (!isSignal(signal)) {
            return;
        }
        hear(new Source(Source.OTHERS, name, Numbering.WIRE), signal);
        StrangerShare.Verdict verdict = share.of(name);
        if (verdict.untold() > 0) {
            tell(
                    showId,
                    0,
                    name,
                    Bytes.NONE,
                    "and " + verdict.untold() + " more messages in that second, which are not listed",
                    clock.epochMicros());
        }
        if (verdict.listed()) {
            log(showId, 0, name, Numbering.WIRE, signal);
        }
    }

    private void log(int ofShow, int deviceId, String name, Numbering numbering, Signal signal) {
        long ageMicros = (clock.nanos() - signal.arrivalNanos()) / 1000;
        String meaning = new Wording(numbering).tell(signal.message());
        tell(ofShow, deviceId, name, signal.bytes(), meaning, clock.epochMicros() - Math.max(0, ageMicros));
    }

    private void tell(int ofShow, int deviceId, String name, Bytes bytes, String meaning, long epochMicros) {
        traffic.add(new Entry(0, epochMicros, Entry.Direction.IN, ofShow, deviceId, name, bytes, meaning, "", 0, ""));
    }
}
