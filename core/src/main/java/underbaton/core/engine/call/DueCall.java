package underbaton.core.engine.call;

import underbaton.core.engine.out.Cause;
import underbaton.core.plan.PlannedCall;

/**
 * A call to be made, and what for.
 *
 * @param due when, by the clock of the events
 * @param wanted when it should have been made
 */
public record DueCall(PlannedCall call, long due, long wanted, Cause cause) {

    /** In time. */
    public static DueCall at(long due, PlannedCall call, Cause cause) {
        return new DueCall(call, due, due, cause);
    }
}
