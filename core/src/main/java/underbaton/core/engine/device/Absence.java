package underbaton.core.engine.device;

import java.util.List;
import org.pcollections.PMap;
import underbaton.core.midi.Message;
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
public record Absence(DeviceState state, PMap<Control, Level> levels, boolean reached, boolean armed) {

    /** Whether it hears again, and only needs to be brought up. */
    public boolean back() {
        return reached && armed;
    }

    /** The same, reached or not by now. */
    public Absence reached(boolean now) {
        return now == reached ? this : new Absence(state, levels, now, armed);
    }

    /** The same, in or out tonight by now. */
    public Absence armed(boolean now) {
        return now == armed ? this : new Absence(state, levels, reached, now);
    }

    /** It hears a call, being back. */
    public Absence after(PlannedCall call, long nanos, List<StepList> lists) {
        LevelsNow now = new LevelsNow(levels);
        now.after(call);
        return new Absence(state.after(call, nanos, lists), now.frozen(), reached, armed);
    }

    /** It hears where a control is to be, being back. */
    public Absence with(Control control, Level level) {
        return new Absence(state, levels.plus(control, level), reached, armed);
    }

    /** It does not hear the rest of something that it has heard the beginning of. */
    Absence without(Message cut, long dueNanos, Control control) {
        return new Absence(state.without(cut, dueNanos), levels.minus(control), reached, armed);
    }

    /** With a pointer that somebody has seen on the machine. */
    public Absence with(Pointer pointer) {
        return new Absence(state.with(pointer), levels, reached, armed);
    }

    /** Whether it has heard the same, whenever it was. */
    public boolean isAlso(Absence other) {
        return levels.equals(other.levels) && state.isAlso(other.state);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Absence shifted(long nanos) {
        return new Absence(state.shifted(nanos), levels, reached, armed);
    }
}
