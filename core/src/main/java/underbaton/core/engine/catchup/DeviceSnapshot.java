package underbaton.core.engine.catchup;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.pcollections.PMap;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.engine.device.LevelsNow;
import underbaton.core.engine.move.Move;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Along;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.StepList;

/**
 * One device at a moment, with nothing else of the show.
 *
 * @param lists those that it steps through
 * @param levels where its controls are at that moment
 * @param moves those of its controls that are under way
 */
record DeviceSnapshot(
        DeviceState state, List<StepList> lists, PMap<Control, Level> levels, Map<Control, Move> moves, long nanos) {

    static DeviceSnapshot of(MachineStates state, Device device, PMap<Control, Level> levels) {
        Map<Control, Move> moves = new HashMap<>();
        state.moves().forEach((control, move) -> {
            if (control.deviceId() == device.id()) {
                moves.put(control, move);
            }
        });
        return new DeviceSnapshot(state.told().device(device.id()), device.stepLists(), levels, moves, state.nanos());
    }

    /** After a call that sets no control in motion. */
    DeviceSnapshot after(PlannedCall call) {
        Map<Control, Move> left = new HashMap<>(call.effect().takesAlong(Along.LEVELS) ? Map.of() : moves);
        left.keySet().removeAll(call.levels().keySet());
        LevelsNow now = new LevelsNow(levels);
        now.after(call);
        return new DeviceSnapshot(state.after(call, nanos, lists), lists, now.frozen(), left, nanos);
    }

    /** After a control was brought into a move. */
    DeviceSnapshot after(Control control, Move move) {
        Map<Control, Move> with = new HashMap<>(moves);
        with.put(control, move);
        return new DeviceSnapshot(state, lists, levels.plus(control, move.at(nanos)), with, nanos);
    }

    DeviceSnapshot after(Correction correction) {
        DeviceSnapshot snapshot = this;
        for (PlannedCall call : correction.calls()) {
            snapshot = snapshot.after(call);
        }
        if (correction.goesOn().isPresent()) {
            Move move = correction.goesOn().get();
            snapshot = snapshot.after(move.motion().control(), move);
        }
        return snapshot;
    }
}
