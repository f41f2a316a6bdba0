package underbaton.web.stage;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Order;
import underbaton.core.engine.answer.Reply;
import underbaton.core.loop.Clock;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Performer;
import underbaton.core.plan.PlannedCall;
import underbaton.wire.Arrival;

/** Calls that are sent to see what becomes of them, for the line check and for learning. */
@Component
public class LineTrials {

    private static final long TRY_NANOS = TimeUnit.MILLISECONDS.toNanos(2500);
    private static final long STEP_NANOS = TimeUnit.MILLISECONDS.toNanos(2);

    private final Stage stage;
    private final DeviceLines lines;
    private final Clock clock;

    LineTrials(Stage stage, DeviceLines lines, Clock clock) {
        this.stage = stage;
        this.lines = lines;
        this.clock = clock;
    }

    /**
     * Sends one call and waits, for a moment at most, for what becomes of it. For a line check, not for a running show.
     *
     * @throws NotOnDesk when the show is not the open one
     */
    public Tried send(int showId, PlannedCall call) {
        Performer performer = stage.performer(showId);
        Optional<DeviceLine> there = lines.of(call.deviceId());
        if (there.isEmpty()) {
            return new Tried(
                    false,
                    false,
                    -1,
                    "this machine is not on the desk yet: the edit that made it waits to be taken over",
                    Optional.empty());
        }
        DeviceLine line = there.get();
        long before = clock.nanos();
        performer.order(new Order.Fire(call, "line check"));
        long deadline = before + TRY_NANOS;
        while (clock.nanos() < deadline && (line.lane().last().atNanos() < before || isAwaited(line))) {
            LockSupport.parkNanos(this, STEP_NANOS);
        }
        Lane.Last last = line.lane().last();
        boolean sent = last.atNanos() >= before && last.trouble().isEmpty();
        Tried tried = new Tried(
                sent,
                sent && line.link().arrival() == Arrival.ARRIVED,
                sent ? line.link().health().roundTripMicros() : -1,
                last.atNanos() < before ? "it is still waiting to be sent" : last.trouble(),
                Optional.empty());
        return call.answer()
                .filter(a -> sent)
                .flatMap(a -> reply(performer, call, before + a.withinNanos() + TRY_NANOS))
                .map(tried::saying)
                .orElse(tried);
    }

    /** What a machine has said of a call when its time is over at the latest. */
    private Optional<Reply> reply(Performer performer, PlannedCall call, long deadline) {
        Optional<Reply> reply;
        do {
            LockSupport.parkNanos(this, STEP_NANOS);
            reply = performer.state().replies().entrySet().stream()
                    .filter(e -> e.getKey().deviceId() == call.deviceId()
                            && e.getValue().phraseId() == call.phraseId())
                    .map(Map.Entry::getValue)
                    .findFirst();
        } while (clock.nanos() < deadline
                && reply.filter(r -> r.kind() == Reply.Kind.AWAITED).isPresent());
        return reply.filter(r -> r.kind() != Reply.Kind.AWAITED);
    }

    private static boolean isAwaited(DeviceLine line) {
        return line.lane().last().trouble().isEmpty() && line.link().arrival() == Arrival.AWAITED;
    }

    /** What is known of what was sent last to a machine of the open show. */
    public Optional<Arrival> arrival(int deviceId) {
        return lines.of(deviceId).map(l -> l.link().arrival());
    }
}
