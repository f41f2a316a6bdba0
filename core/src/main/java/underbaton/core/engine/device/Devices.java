package underbaton.core.engine.device;

import java.util.List;
import java.util.function.IntPredicate;
import org.pcollections.PMap;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Control;
import underbaton.core.rig.StepList;

/**
 * What the devices have been told, and what those that are away have missed, while a step is taken.
 *
 * <p>Holds at all times: what a device is told counts as told also while it is away; its {@link Absence} keeps how it really is.
 * Not thread-safe, used once.
 */
public final class Devices {

    private final DeviceStates before;
    private PMap<Integer, DeviceState> states;
    private final LevelsNow levels;
    private PMap<Integer, Absence> absent;

    /** @param absent by device id, those that could not be reached for a while or are out tonight */
    public Devices(DeviceStates told, PMap<Integer, Absence> absent) {
        before = told;
        states = told.devices();
        levels = new LevelsNow(told.levels());
        this.absent = absent;
    }

    /** All that has been told by now; the very record from before where nothing was. */
    public DeviceStates told() {
        PMap<Control, Level> all = levels.frozen();
        return states == before.devices() && all == before.levels() ? before : new DeviceStates(states, all);
    }

    /** Machines that cannot be told, by their ids, with what they miss. */
    public PMap<Integer, Absence> absent() {
        return absent;
    }

    /** By device id, what each has been told. */
    public PMap<Integer, DeviceState> states() {
        return states;
    }

    /** What this machine was told, with what this step tells it. */
    public DeviceState of(int deviceId) {
        return states.getOrDefault(deviceId, DeviceState.UNKNOWN);
    }

    /** Where controls stand, or where their moves will end. */
    public LevelsNow levels() {
        return levels;
    }

    /** Whether what is sent to it is heard. */
    public boolean hears(int deviceId) {
        Absence absence = absent.get(deviceId);
        return absence == null || absence.back();
    }

    // ---- what they are told

    /** Writes down what this machine was told; the message itself goes through {@code Outgoing}. */
    public void tell(int deviceId, DeviceState state) {
        if (state != states.get(deviceId)) {
            states = states.plus(deviceId, state);
        }
    }

    /**
     * A call is made.
     *
     * @param nanos when, by the clock of the events
     * @param lists those that the device steps through
     */
    public void called(PlannedCall call, long nanos, List<StepList> lists) {
        int id = call.deviceId();
        levels.after(call);
        Absence absence = absent.get(id);
        if (absence != null && absence.back()) {
            absent = absent.plus(id, absence.after(call, nanos, lists));
        }
        tell(id, of(id).after(call, nanos, lists));
    }

    /** A control that is under way is told a place of its way. */
    public void moved(Control control, Level level) {
        Absence absence = absent.get(control.deviceId());
        if (absence != null && absence.back()) {
            absent = absent.plus(control.deviceId(), absence.with(control, level));
        }
    }

    /** Somebody has looked where it stands. */
    public void standsAt(int deviceId, Pointer pointer) {
        tell(deviceId, of(deviceId).with(pointer));
        Absence absence = absent.get(deviceId);
        absent = absence == null ? absent : absent.plus(deviceId, absence.with(pointer));
    }

    /** What a device was told by halves, nobody knows of it. */
    public void forget(int deviceId, Message cut) {
        tell(deviceId, of(deviceId).without(cut));
        levels.remove(Control.of(deviceId, cut));
    }

    /** A message of something that it was told before is said; where it is away it has heard the beginning at most. */
    public void said(int deviceId, Message rest, long dueNanos) {
        Absence absence = absent.get(deviceId);
        if (absence != null && !absence.back()) {
            absent = absent.plus(deviceId, absence.without(rest, dueNanos, Control.of(deviceId, rest)));
        }
    }

    /** A program that is known as a phrase was chosen on it by hand. */
    public void chosen(PlannedCall call, long nanos, List<StepList> lists) {
        tell(call.deviceId(), of(call.deviceId()).after(call, nanos, lists));
    }

    // ---- those that are away

    /** From now on it misses what it is told. @param levels where its controls stand as far as they were told */
    public void lose(int deviceId, PMap<Control, Level> levels) {
        absent = absent.plus(deviceId, absence(deviceId, levels).reached(false));
    }

    /** It is sent nothing until it is armed again. @param levels where its controls stand as far as they were told */
    public void disarm(int deviceId, PMap<Control, Level> levels) {
        absent = absent.plus(deviceId, absence(deviceId, levels).armed(false));
    }

    private Absence absence(int deviceId, PMap<Control, Level> levels) {
        Absence before = absent.get(deviceId);
        return before != null ? before : new Absence(of(deviceId), levels, true, true);
    }

    /** It can be reached again. */
    public void find(int deviceId) {
        Absence absence = absent.get(deviceId);
        absent = absence == null ? absent : absent.plus(deviceId, absence.reached(true));
    }

    /** It takes part again. */
    public void arm(int deviceId) {
        Absence absence = absent.get(deviceId);
        absent = absence == null ? absent : absent.plus(deviceId, absence.armed(true));
    }

    /** It has heard all that it missed. */
    public void forgive(int deviceId) {
        absent = absent.minus(deviceId);
    }

    /** It has heard some of what it missed. */
    public void standsNow(int deviceId, Absence absence) {
        absent = absent.plus(deviceId, absence);
    }

    /**
     * What was meant for it while it was away is forgotten, so that only what it is told from here on counts: one that is back is known to
     * be as it was before; one that is still away goes on missing what it is told.
     *
     * @return whether it was away
     */
    public boolean takeAsItIs(int deviceId) {
        Absence absence = absent.get(deviceId);
        if (absence == null) {
            return false;
        }
        absent = absence.back() ? absent.minus(deviceId) : absent;
        states = states.plus(deviceId, absence.state());
        levels.take(deviceId, absence.levels());
        return true;
    }

    /** After an edit nothing is known of devices that are gone. @param isThere by device id */
    public void keepOnly(IntPredicate isThere) {
        for (Integer deviceId : states.keySet()) {
            states = isThere.test(deviceId) ? states : states.minus(deviceId);
        }
    }
}
