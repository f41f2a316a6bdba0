package underbaton.core.engine;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.pcollections.PMap;
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
record Picture(
        DeviceState state, List<StepList> lists, PMap<Control, Level> levels, Map<Control, Move> moves, long nanos) {

    static Picture of(PlaybackState state, Device device, PMap<Control, Level> levels) {
        Map<Control, Move> moves = new HashMap<>();
        state.moves().forEach((control, move) -> {
            if (control.deviceId() == device.id()) {
                moves.put(control, move);
            }
        });
        return new Picture(state.told().device(device.id()), device.stepLists(), levels, moves, state.nowNanos());
    }

    /** After a call that sets no control in motion. */
    Picture after(PlannedCall call) {
        Map<Control, Move> left = new HashMap<>(call.effect().takesAlong(Along.LEVELS) ? Map.of() : moves);
        left.keySet().removeAll(call.levels().keySet());
        LevelsNow now = new LevelsNow(levels);
        now.after(call);
        return new Picture(state.after(call, nanos, lists), lists, now.frozen(), left, nanos);
    }

    /** After a control was brought into a move. */
    Picture after(Control control, Move move) {
        Map<Control, Move> with = new HashMap<>(moves);
        with.put(control, move);
        return new Picture(state, lists, levels.plus(control, move.at(nanos)), with, nanos);
    }

    Picture after(Correction correction) {
        Picture picture = this;
        for (PlannedCall call : correction.calls()) {
            picture = picture.after(call);
        }
        if (correction.goesOn().isPresent()) {
            Move move = correction.goesOn().get();
            picture = picture.after(move.motion().control(), move);
        }
        return picture;
    }
}
