package underbaton.core.engine.catchup;

import java.util.List;
import java.util.Optional;
import underbaton.core.engine.device.Slot;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;

/** Which call stops something that runs, and what cannot be stopped from here. */
public final class Stops {

    private Stops() {}

    /** Its own stop, or else the one that ends everything on its device; empty when the phrasebook has neither. */
    public static Optional<PlannedCall> of(Plan plan, int deviceId, Slot running) {
        return named(plan, deviceId, running.name())
                .or(() -> running.name().isEmpty() ? Optional.empty() : named(plan, deviceId, ""));
    }

    /** A phrase of the book that sets something going which no phrase of its machine stops. */
    public record Unstoppable(Device device, String phrase) {}

    /** What the cues of a book set going and nothing can stop from here, in the order of the book, each once. */
    public static List<Unstoppable> missing(Plan plan) {
        return plan.cues().stream()
                .flatMap(c -> c.calls().stream())
                .filter(c -> c.effect().kind() == Effect.Kind.STARTS)
                .filter(c -> of(plan, c.deviceId(), Slot.of(c, 0)).isEmpty())
                .flatMap(c -> plan.device(c.deviceId()).map(d -> new Unstoppable(d, c.phrase())).stream())
                .distinct()
                .toList();
    }

    private static Optional<PlannedCall> named(Plan plan, int deviceId, String name) {
        return plan.stops(deviceId).stream()
                .filter(c -> Slot.key(c.effect()).equals(name))
                .findFirst();
    }
}
