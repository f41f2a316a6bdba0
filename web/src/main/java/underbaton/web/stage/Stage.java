package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Show;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.perform.Clock;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.perform.Scribe;
import underbaton.core.perform.Sending;
import underbaton.core.perform.Standing;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.signal.Signal;
import underbaton.core.traffic.Entry;
import underbaton.web.live.Live;
import underbaton.web.shows.Backups;
import underbaton.web.shows.Shows;
import underbaton.wire.Arrival;
import underbaton.wire.Health;
import underbaton.wire.Link;
import underbaton.wire.Switchboard;

/**
 * The one show that is on the desk: its performer, its devices' ways out and queues. It runs from memory alone; an edit
 * reaches it the moment it is saved.
 */
@Component
public class Stage {

    private static final long TRY_NANOS = TimeUnit.MILLISECONDS.toNanos(2500);
    private static final long TRY_STEP_NANOS = TimeUnit.MILLISECONDS.toNanos(2);
    private static final long LAMP_PAUSE_NANOS = TimeUnit.SECONDS.toNanos(1);

    private final Shows shows;
    private final Switchboard switchboard;
    private final Scribe scribe;
    private final Arrivals arrivals;
    private final Clock clock;
    private final Loops loops;
    private final Live live;
    private final Backups backups;
    private final OscPort oscPort;
    private volatile Map<Integer, Post> posts = Map.of();
    private volatile Running running;
    private final Loop lampsLoop;

    /** The open show. */
    private record Running(int showId, Performer performer, PerformerThread thread) {}

    Stage(
            Shows shows,
            Switchboard switchboard,
            Scribe scribe,
            Arrivals arrivals,
            Clock clock,
            Loops loops,
            Live live,
            Backups backups,
            OscPort oscPort) {
        this.backups = backups;
        this.oscPort = oscPort;
        this.arrivals = arrivals;
        this.shows = shows;
        this.switchboard = switchboard;
        this.scribe = scribe;
        this.clock = clock;
        this.loops = loops;
        this.live = live;
        shows.watch(this::changed);
        lampsLoop = loops.start("lamps", this::keepLampsFresh);
    }

    // ---- which show

    public boolean isOpen(int showId) {
        Running now = running;
        return now != null && now.showId == showId;
    }

    public Optional<Show> openShow() {
        Running now = running;
        return now == null ? Optional.empty() : shows.find(now.showId);
    }

    /** Puts a show on the desk, and the one that was there away; does nothing when it is there already. */
    public synchronized void open(int showId) {
        if (isOpen(showId)) {
            return;
        }
        close();
        Show show = shows.get(showId);
        arrivals.belongTo(showId);
        connect(show);
        Performer performer = new Performer(clock, Planner.plan(show), new ToPosts(), s -> played());
        running = new Running(showId, performer, new PerformerThread(performer, loops));
        backups.keep(show);
    }

    private void played() {
        live.changed("desk");
        live.changed("playing");
    }

    /** Takes the open show from the desk; its devices are let go. */
    @PreDestroy
    public synchronized void close() {
        Running now = running;
        running = null;
        if (now != null) {
            now.thread.close();
        }
        posts.values().forEach(this::letGo);
        posts = Map.of();
    }

    /**
     * The performer of a show that must be the open one.
     *
     * @throws NotOnDesk when another show is, or none
     */
    public Performer performer(int showId) {
        Running now = running;
        if (now == null || now.showId != showId) {
            throw new NotOnDesk();
        }
        return now.performer;
    }

    /**
     * Gives the performer of the open show an order, which stands in the log.
     *
     * @param what the order in a few words
     * @throws NotOnDesk when another show is, or none
     */
    public void order(int showId, String what, Consumer<Performer> order) {
        order.accept(performer(showId));
        long at = clock.epochMicros();
        scribe.later(() -> Entry.order(at, showId, what));
    }

    public Optional<Standing> standing(int showId) {
        Running now = running;
        return now != null && now.showId == showId ? Optional.of(now.performer.standing()) : Optional.empty();
    }

    // ---- edits

    private synchronized void changed(Show show) {
        if (isOpen(show.id())) {
            connect(show);
            order(
                    show.id(),
                    "the edit “" + shows.undoable(show.id()).orElse("undone") + "” is taken over",
                    p -> p.adopt(Planner.plan(show, p.standing().plan())));
        }
        live.changed("book");
        lampsChanged();
    }

    /** Keeps the ways out that still fit, opens the new ones and lets the others go. */
    private void connect(Show show) {
        Map<Integer, Post> next = new LinkedHashMap<>();
        List<Post> gone = new ArrayList<>(posts.values());
        for (Device device : show.devices()) {
            Post old = posts.get(device.id());
            if (old != null && old.device().connection().equals(device.connection())) {
                old.lane().rename(device);
                next.put(device.id(), new Post(device, old.link(), old.lane(), old.ear()));
                gone.remove(old);
            } else {
                next.put(device.id(), newPost(show.id(), device));
            }
        }
        posts = next;
        gone.forEach(this::letGo);
        oscPort.belongTo(addresses(show));
    }

    /** By their addresses alone; a name is looked up by whoever connects, and not waited for here. */
    private static Set<InetAddress> addresses(Show show) {
        Set<InetAddress> addresses = new HashSet<>();
        for (Device device : show.devices()) {
            if (device.connection() instanceof Connection.Network network
                    && network.host().matches("[0-9.]+|[0-9a-fA-F:]+:[0-9a-fA-F:]*")) {
                try {
                    addresses.add(InetAddress.getByName(network.host()));
                } catch (UnknownHostException noAddress) {
                    continue;
                }
            }
        }
        return addresses;
    }

    private Post newPost(int showId, Device device) {
        Link.Ear ear = new Link.Ear() {
            @Override
            public void heard(Signal signal) {
                arrivals.heard(showId, speaker(device.connection(), signal.message()), signal);
            }

            @Override
            public void changed() {
                lampsChanged();
            }
        };
        Link link = switchboard.connect(device.connection(), ear);
        return new Post(device, link, new Lane(showId, device, link, clock, scribe, loops), ear);
    }

    private void letGo(Post post) {
        post.lane().close();
        switchboard.giveBack(post.device().connection(), post.ear());
    }

    /** Of several devices on one line the one whose channel it came on, else the first. */
    private Optional<Device> speaker(Connection line, Message message) {
        List<Device> onLine = posts.values().stream()
                .map(Post::device)
                .filter(d -> d.connection().equals(line))
                .toList();
        return onLine.stream()
                .filter(d -> message instanceof ChannelMessage m && m.channel() == d.channel())
                .findFirst()
                .or(() -> onLine.stream().findFirst());
    }

    private final class ToPosts implements Performer.Outbox {
        @Override
        public void send(Sending sending) {
            Post post = posts.get(sending.deviceId());
            if (post != null) {
                post.lane().send(sending);
            }
        }

        @Override
        public void clear() {
            posts.values().forEach(p -> p.lane().clear());
        }
    }

    // ---- line check

    /**
     * Sends one call and waits, for a moment at most, for what becomes of it. For a line check, not for a running show.
     *
     * @throws NotOnDesk when the show is not the open one
     */
    public Tried tryOut(int showId, PlannedCall call) {
        Performer performer = performer(showId);
        Post post = posts.get(call.deviceId());
        long before = clock.nanos();
        performer.fire(call, "line check");
        long deadline = before + TRY_NANOS;
        while (clock.nanos() < deadline && (post.lane().last().atNanos() < before || isAwaited(post))) {
            LockSupport.parkNanos(this, TRY_STEP_NANOS);
        }
        Lane.Last last = post.lane().last();
        boolean sent = last.atNanos() >= before && last.trouble().isEmpty();
        return new Tried(
                sent,
                sent && post.link().arrival() == Arrival.ARRIVED,
                sent ? post.link().health().roundTripMicros() : -1,
                last.atNanos() < before ? "it is still waiting to be sent" : last.trouble());
    }

    private static boolean isAwaited(Post post) {
        return post.lane().last().trouble().isEmpty() && post.link().arrival() == Arrival.AWAITED;
    }

    // ---- lamps

    public List<Lamp> lamps() {
        return posts.values().stream().map(this::lamp).toList();
    }

    /** What is known of what was sent last to a machine of the open show. */
    public Optional<Arrival> arrival(int deviceId) {
        return Optional.ofNullable(posts.get(deviceId)).map(p -> p.link().arrival());
    }

    private Lamp lamp(Post post) {
        Health health = post.link().health();
        Lane.Last last = post.lane().last();
        long now = clock.nanos();
        String trip = health.roundTripMicros() < 0 ? "" : "%.1f ms".formatted(health.roundTripMicros() / 1000.0);
        String loss = health.lossPerCent() <= 0 ? "" : ", " + health.lossPerCent() + " % lost";
        String heard = health.lastHeardNanos() == 0 ? "" : ago(now - health.lastHeardNanos());
        String sent = last.atNanos() == 0 ? "" : "sent " + ago(now - last.atNanos()) + late(last.lateMicros());
        return new Lamp(post.device(), health.reached(), trip, loss, heard, sent, health.words());
    }

    private void lampsChanged() {
        live.changed("lamps");
        live.changed("machines");
    }

    private static String late(long micros) {
        return micros < 5000 ? "" : ", " + micros / 1000 + " ms late";
    }

    private static String ago(long nanos) {
        long seconds = TimeUnit.NANOSECONDS.toSeconds(nanos);
        if (seconds < 1) {
            return "just now";
        }
        return seconds < 60 ? seconds + " s ago" : seconds / 60 + " min ago";
    }

    private void keepLampsFresh() {
        LockSupport.parkNanos(this, LAMP_PAUSE_NANOS);
        lampsChanged();
    }

    @PreDestroy
    void end() {
        lampsLoop.close();
    }
}
