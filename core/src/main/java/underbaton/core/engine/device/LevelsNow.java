package underbaton.core.engine.device;

import java.util.HashMap;
import java.util.Map;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Along;
import underbaton.core.rig.Control;

/** Where controls stand, while calls are being made: what changes is gathered and put to the rest at the end, all at once. */
public final class LevelsNow {

    private PMap<Control, Level> base;
    private final Map<Control, Level> changed = new HashMap<>();

    /** The levels as they were before the step. */
    public LevelsNow(PMap<Control, Level> base) {
        this.base = base;
    }

    /** @return null when nobody knows */
    public Level get(Control control) {
        Level level = changed.get(control);
        return level != null ? level : base.get(control);
    }

    /** Where a control stands from now on. */
    public void put(Control control, Level level) {
        changed.put(control, level);
    }

    /** Nobody knows where a control stands. */
    public void remove(Control control) {
        changed.remove(control);
        base = base.minus(control);
    }

    /** A call is made; what takes the levels along makes all others of its device unknown. */
    public void after(PlannedCall call) {
        if (call.effect().takesAlong(Along.LEVELS)) {
            take(call.deviceId(), HashTreePMap.empty());
        }
        changed.putAll(call.levels());
    }

    /** A device's controls stand as they are said to, and of others nobody knows. */
    public void take(int deviceId, PMap<Control, Level> levels) {
        for (Control control : base.keySet()) {
            base = control.deviceId() == deviceId ? base.minus(control) : base;
        }
        changed.keySet().removeIf(c -> c.deviceId() == deviceId);
        base = base.plusAll(levels);
    }

    /** All levels with what this step has put, for the next state. */
    public PMap<Control, Level> frozen() {
        if (!changed.isEmpty()) {
            base = base.plusAll(changed);
            changed.clear();
        }
        return base;
    }
}
