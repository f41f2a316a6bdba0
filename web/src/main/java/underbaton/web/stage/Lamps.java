package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.answer.Reply;
import underbaton.core.engine.device.Absence;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.perform.Lane;
import underbaton.core.rig.Device;
import underbaton.web.live.Live;
import underbaton.wire.Health;

/** How the machines of the show on the desk are doing. */
@Component
public class Lamps {

    private static final long PAUSE_NANOS = TimeUnit.SECONDS.toNanos(1);

    private final Stage stage;
    private final DeviceLines lines;
    private final Arrivals arrivals;
    private final Clock clock;
    private final Live live;
    private final Loop loop;

    Lamps(Stage stage, DeviceLines lines, Arrivals arrivals, Clock clock, Live live, Loops loops) {
        this.stage = stage;
        this.lines = lines;
        this.arrivals = arrivals;
        this.clock = clock;
        this.live = live;
        loop = loops.start("lamps", this::keepFresh);
    }

    /** One for each machine, in the order of the rig. */
    public List<Lamp> all() {
        Optional<PlaybackState> state = stage.onDesk().map(d -> d.performer.state());
        return lines.all().stream().map(l -> lamp(l, state)).toList();
    }

    /** What is measured of each machine, in words, by its id. */
    public Map<Integer, String> lines() {
        return all().stream().collect(Collectors.toMap(l -> l.device().id(), Lamp::line));
    }

    private Lamp lamp(DeviceLine line, Optional<PlaybackState> state) {
        Health health = line.link().health();
        Lane.Last last = line.lane().last();
        long now = clock.nanos();
        String trip = health.roundTripMicros() < 0 ? "" : "%.1f ms".formatted(health.roundTripMicros() / 1000.0);
        String loss = health.lossPerCent() <= 0 ? "" : ", " + health.lossPerCent() + " % lost";
        OptionalLong said = arrivals.lastHeard(line.device().id());
        String heard = said.isEmpty() ? "" : "heard " + ago(now - said.getAsLong());
        String sent = last.atNanos() == 0 ? "" : "sent " + ago(now - last.atNanos()) + late(last.lateMicros());
        int id = line.device().id();
        int behind = state.filter(s -> Optional.ofNullable(s.absent().get(id))
                        .filter(Absence::back)
                        .isPresent())
                .map(s -> s.behind(id).size())
                .orElse(0);
        String places = state.map(s -> places(s, line.device())).orElse("");
        boolean armed = state.filter(s -> s.plan().out().devices().contains(id)).isEmpty();
        return new Lamp(
                line.device(),
                health.reached(),
                trip,
                loss,
                heard,
                sent,
                health.words(),
                behind,
                places,
                state.map(s -> unanswered(s, id)).orElse(""),
                armed);
    }

    /** Where a machine stands in the lists that it steps through: {@code song 3}, or that nobody knows. */
    private static String places(PlaybackState state, Device device) {
        return device.stepLists().stream()
                .map(l -> (l.of().isEmpty() ? "place" : l.of()) + " "
                        + state.place(device.id(), l.of()).stream()
                                .mapToObj(Integer::toString)
                                .findFirst()
                                .orElse("not known"))
                .collect(Collectors.joining(", "));
    }

    /** The first thing that it does not confirm, and how many more there are. */
    private static String unanswered(PlaybackState state, int deviceId) {
        List<Reply> wrong = state.unanswered().getOrDefault(deviceId, List.of());
        if (wrong.isEmpty()) {
            return "";
        }
        return wrong.get(0).words() + (wrong.size() == 1 ? "" : " and " + (wrong.size() - 1) + " more");
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

    private void keepFresh() {
        LockSupport.parkNanos(this, PAUSE_NANOS);
        live.changed("lamps");
        live.changed("lamp-lines");
        live.changed("machines");
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
