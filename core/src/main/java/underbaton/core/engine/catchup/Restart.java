package underbaton.core.engine.catchup;

import java.util.Optional;
import underbaton.core.engine.device.Slot;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/** How something that runs by itself is set going so that it is where it would be. */
public final class Restart {

    /** So far off its time something that runs is still taken to be in time. */
    public static final long TOLERANCE_NANOS = 500_000_000;

    private Restart() {}

    /** Whether it matters where it is: it has a length, or can be begun at a second of it. */
    public static boolean isTimed(Device device, Slot slot) {
        return slot.call().effect().amount() > 0 || secondsOf(device, slot).isPresent();
    }

    /**
     * @param elapsed how long it is to have run, ns
     * @return empty where it would have to be begun in its middle, and its machine cannot be told so
     */
    public static Optional<PlannedCall> of(Device device, Slot slot, long elapsed) {
        return isTimed(device, slot) && elapsed > TOLERANCE_NANOS
                ? secondsOf(device, slot).map(p -> fromTheMiddle(device, p, elapsed))
                : Optional.of(slot.call());
    }

    /** The phrase of something that runs, where a call can say from which second on. */
    private static Optional<Phrase> secondsOf(Device device, Slot slot) {
        return device.phrase(slot.call().phraseId()).filter(p -> p.argument()
                .filter(a -> a.unit() == Argument.Unit.SECONDS)
                .isPresent());
    }

    private static PlannedCall fromTheMiddle(Device device, Phrase phrase, long elapsed) {
        Argument argument = phrase.argument().orElseThrow();
        double seconds = Math.max(argument.least(), Math.min(argument.most(), elapsed / 1e9));
        if (!(device.connection() instanceof Connection.Osc)) {
            // Seven bits say only so many places; what the machine is told is what is remembered of it.
            seconds = argument.amountAt(Math.rint(argument.exact(seconds, device.levels())), device.levels());
        }
        return PlannedCall.of(device, phrase, Optional.of(new Amount.Measure(seconds)));
    }
}
