package underbaton.core.engine;

import java.util.List;
import org.pcollections.PMap;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Control;
import underbaton.core.rig.StepList;

/**
 * What a device had been told when it could no longer be reached, or was taken out for tonight; what it was to be told since has not been
 * heard.
 *
 * @param levels where its controls were then
 * @param reached whether it can be reached again
 * @param armed whether it takes part; one that does not is sent nothing
 */
public record Away(DeviceState state, PMap<Control, Level> levels, boolean reached, boolean armed) {

    /** Whether it hears again, and only needs to be brought up. */
    public boolean back() {
        return reached && armed;
    }

    Away reached(boolean now) {
        return now == reached ? this : new Away(state, levels, now, armed);
    }

    Away armed(boolean now) {
        return now == armed ? this : new Away(state, levels, reached, now);
    }

    /** It hears a call, being back. */
    Away after(PlannedCall call, long nanos, List<StepList> lists) {
        LevelsNow now = new LevelsNow(levels);
        now.after(call);
        return new Away(state.after(call, nanos, lists), now.frozen(), reached, armed);
    }

    /** It hears what makes one thing of it right. */
    Away after(Correction correction, long nanos, List<StepList> lists) {
        Away right = this;
        for (PlannedCall call : correction.calls()) {
            right = right.after(call, nanos, lists);
        }
        return correction.goesOn().isEmpty()
                ? right
                : right.with(
                        correction.goesOn().get().motion().control(),
                        correction.goesOn().get().at(nanos));
    }

    /** It hears where a control is to be, being back. */
    Away with(Control control, Level level) {
        return new Away(state, levels.plus(control, level), reached, armed);
    }

    Away with(Pointer pointer) {
        return new Away(state.with(pointer), levels, reached, armed);
    }

    Away shifted(long nanos) {
        return new Away(state.shifted(nanos), levels, reached, armed);
    }
}
