package underbaton.core.engine.catchup;

import java.util.Map;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.engine.device.Absence;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.move.Move;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.rig.Control;

/**
 * All machines at a moment, with nothing else of the show. Immutable.
 *
 * @param moves the controls under way
 * @param absent by device id, those that are away
 * @param nanos the moment, by the clock of the events
 */
public record MachineStates(
        Plan plan, DeviceStates told, PMap<Control, Move> moves, PMap<Integer, Absence> absent, long nanos) {

    /** Where a device's controls stand as far as they were told, those under way too. */
    public PMap<Control, Level> toldLevels(int deviceId) {
        PMap<Control, Level> levels = HashTreePMap.empty();
        for (Map.Entry<Control, Level> each : told.levels().entrySet()) {
            Control control = each.getKey();
            if (control.deviceId() == deviceId) {
                Level now = Move.told(moves.get(control), each.getValue(), nanos);
                levels = now == null ? levels : levels.plus(control, now);
            }
        }
        return levels;
    }

    /** Where a device's controls should be, those under way as they are at the moment. */
    PMap<Control, Level> levels(int deviceId) {
        PMap<Control, Level> levels = HashTreePMap.empty();
        for (Map.Entry<Control, Level> each : told.levels().entrySet()) {
            if (each.getKey().deviceId() == deviceId) {
                Move move = moves.get(each.getKey());
                levels = levels.plus(each.getKey(), move == null ? each.getValue() : move.at(nanos));
            }
        }
        return levels;
    }
}
