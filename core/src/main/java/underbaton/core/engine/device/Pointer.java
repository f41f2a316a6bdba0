package underbaton.core.engine.device;

import java.util.Optional;
import java.util.OptionalInt;
import underbaton.core.plan.PlannedCall;

/**
 * Where a device stands in a list of its own.
 *
 * @param name of the list, in small letters; empty where the device has but one
 * @param place as the device counts; empty when nobody knows
 * @param call the one that moved it last; empty where it stands as the show began
 * @param sinceNanos when it was told so, by the clock of the events
 */
public record Pointer(String name, OptionalInt place, Optional<PlannedCall> call, long sinceNanos) {

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Pointer shifted(long nanos) {
        return new Pointer(name, place, call, sinceNanos + nanos);
    }
}
