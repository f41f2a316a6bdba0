package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.follow.Following;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Outbox;
import underbaton.core.perform.Scribe;
import underbaton.core.perform.Timekeeper;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Wording;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.traffic.Entry;
import underbaton.web.live.Live;
import underbaton.wire.Link;
import underbaton.wire.Switchboard;

/** The lines to the devices of the show on the desk: what the performer sends goes out through them. */
@Component
class DeviceLines implements Outbox {

    private final Switchboard switchboard;
    private final Scribe scribe;
    private final Arrivals arrivals;
    private final Clock clock;
    private final Loops loops;
    private final Live live;
    private final RigAddresses addresses;
    /** For all lanes whose way out never blocks. */
    private final Timekeeper prompt;

    private volatile Map<Integer, DeviceLine> lines = Map.of();
    private volatile int showId;
    /** Who may have said what comes in on a line. */
    private volatile Map<Connection, List<Device>> onLine = Map.of();

    private static final long SETTLE_LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(2);
    private static final ReachWatcher NOBODY = (id, there) -> {};

    /** Held while the watcher is told, so that he hears the news of each device in their order. */
    private final Object telling = new Object();
    /** By device id, what the watcher was told last of who is there. */
    private final Map<Integer, Boolean> reached = new HashMap<>();

    private ReachWatcher watcher = NOBODY;

    /** Is told when a device is reached, and when no longer; on the wires' threads. Must return at once. */
    @FunctionalInterface
    interface ReachWatcher {
        void changed(int deviceId, boolean there);
    }

    DeviceLines(
            Switchboard switchboard,
            Scribe scribe,
            Arrivals arrivals,
            Clock clock,
            Loops loops,
            Live live,
            OscPort oscPort) {
        this.switchboard = switchboard;
        this.scribe = scribe;
        this.arrivals = arrivals;
        this.clock = clock;
        this.loops = loops;
        this.live = live;
        prompt = new Timekeeper("lanes", clock, loops);
        addresses = new RigAddresses(loops, oscPort::belongTo);
        arrivals.knowBy(addresses::speaker);
    }

    @PreDestroy
    void close() {
        addresses.close();
        prompt.close();
    }

    /** From now on this one is told, and first of all how each device is now. */
    void watch(ReachWatcher newWatcher) {
        synchronized (telling) {
            watcher = newWatcher;
            reached.clear();
            lines.keySet().forEach(this::tellReach);
        }
    }

    Collection<DeviceLine> all() {
        return lines.values();
    }

    Optional<DeviceLine> of(int deviceId) {
        return Optional.ofNullable(lines.get(deviceId));
    }

    /** Keeps the lines that still fit, opens the new ones and lets the others go. */
    void connect(Show show) {
        showId = show.id();
        Map<Integer, DeviceLine> next = new LinkedHashMap<>();
        List<DeviceLine> gone = new ArrayList<>(lines.values());
        for (Device device : show.devices()) {
            DeviceLine old = lines.get(device.id());
            if (old != null && old.device().connection().equals(device.connection())) {
                old.lane().rename(device);
                next.put(device.id(), new DeviceLine(device, old.link(), old.lane(), old.ear()));
                gone.remove(old);
            } else {
                next.put(device.id(), opened(show.id(), device));
            }
        }
        lines = next;
        onLine = next.values().stream().map(DeviceLine::device).collect(Collectors.groupingBy(Device::connection));
        gone.forEach(this::letGo);
        // A line whose device was reached before it stood here could not say so.
        next.keySet().forEach(this::tellReach);
        addresses.belongTo(show.devices());
        arrivals.followTimeOf(show.items().stream()
                .flatMap(i -> i.follows().stream())
                .map(Following::deviceId)
                .collect(Collectors.toSet()));
        arrivals.passClocksOf(PatchBay.sets(show).stream()
                .flatMap(s -> s.patch().orElseThrow().shown().lines().stream())
                .filter(l -> l.kinds().contains(PatchKind.CLOCK))
                .map(PatchLine::from)
                .collect(Collectors.toSet()));
    }

    /** Waits until all has left that was to leave, for so long at most. */
    void settle(long nanos) {
        long end = clock.nanos() + nanos;
        while (clock.nanos() - end < 0
                && lines.values().stream().anyMatch(l -> !l.lane().isIdle())) {
            LockSupport.parkNanos(this, SETTLE_LOOK_NANOS);
        }
    }

    /** Lets all go. */
    void disconnect() {
        lines.values().forEach(this::letGo);
        lines = Map.of();
        onLine = Map.of();
        watch(NOBODY);
    }

    private DeviceLine opened(int showId, Device device) {
        Link.Ear ear = new Link.Ear() {
            @Override
            public void heard(Signal signal) {
                arrivals.heard(showId, speaker(device.connection(), signal.message()), signal);
            }

            @Override
            public void changed() {
                tellReach(device.id());
                live.changed("lamps");
                live.changed("machines");
            }
        };
        Link link = switchboard.connect(device.connection(), ear);
        Lane lane = link.isPrompt()
                ? new Lane(showId, device, link, clock, scribe, prompt)
                : new Lane(showId, device, link, clock, scribe, loops);
        return new DeviceLine(device, link, lane, ear);
    }

    private void letGo(DeviceLine line) {
        line.lane().close();
        switchboard.giveBack(line.device().connection(), line.ear());
    }

    private Optional<Device> speaker(Connection line, Message message) {
        return Source.speaker(onLine.getOrDefault(line, List.of()), message);
    }

    /** Whoever cannot be reached misses what it is sent; the watcher must know of all. */
    private void tellReach(int deviceId) {
        DeviceLine line = lines.get(deviceId);
        if (line == null) {
            return;
        }
        synchronized (telling) {
            boolean there = line.link().health().reached();
            if (!Boolean.valueOf(there).equals(reached.put(deviceId, there))) {
                watcher.changed(deviceId, there);
            }
        }
    }

    // ---- the performer's outbox

    @Override
    public void send(ScheduledMessage message) {
        DeviceLine line = lines.get(message.deviceId());
        if (line != null) {
            line.lane().send(message);
        } else {
            tellLost(message);
        }
    }

    /** Of a machine that has no line, for it came with an edit that is not taken over, or has just gone with one. */
    private void tellLost(ScheduledMessage message) {
        int show = showId;
        long at = clock.epochMicros();
        scribe.later(() -> new Entry(
                0,
                at,
                Entry.Direction.OUT,
                show,
                message.deviceId(),
                "a machine that is not on the desk",
                Bytes.NONE,
                new Wording(Numbering.WIRE).tell(message.message()),
                message.cause().words(),
                0,
                "this machine is not on the desk"));
    }

    @Override
    public void sendAtOnce(ScheduledMessage message) {
        DeviceLine line = lines.get(message.deviceId());
        if (line != null) {
            line.lane().sendAtOnce(message);
        } else {
            tellLost(message);
        }
    }

    @Override
    public Withdrawn withdraw(long afterNanos) {
        List<ScheduledMessage> back = new ArrayList<>();
        long left = Long.MIN_VALUE;
        for (DeviceLine line : lines.values()) {
            Withdrawn withdrawn = line.lane().withdraw(afterNanos);
            back.addAll(withdrawn.messages());
            left = Math.max(left, withdrawn.leftNanos());
        }
        return new Withdrawn(back, left);
    }
}
