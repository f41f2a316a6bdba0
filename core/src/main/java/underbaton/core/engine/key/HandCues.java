package underbaton.core.engine.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.HandKey;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.call.DueCall;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.signal.Source;

/**
 * Hand cues, while a step is taken: what the keys outside of the running order do when they are touched, by whatever. Not
 * thread-safe, used once.
 */
public final class HandCues {

    private final StepContext step;
    private final Operator operator;
    private final Devices devices;
    private final Calls calls;
    private HandKeys keys;

    /** Made anew for each step, of the parts that it asks. */
    public HandCues(StepContext step, Operator operator, Devices devices, Calls calls, HandKeys before) {
        this.step = step;
        this.operator = operator;
        this.devices = devices;
        this.calls = calls;
        this.keys = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public HandKeys state() {
        return keys;
    }

    /** Whether a key that works while it is held is held. */
    public boolean isHeld(int keyId) {
        return keys.isOn(keyId)
                && step.plan()
                        .key(keyId)
                        .filter(k -> k.key().way() == HandKey.Way.HELD)
                        .isPresent();
    }

    /**
     * @param by for the log, with a blank behind it; may be empty
     * @param atOnce whether a guarded key needs no second touch
     * @return what was done, in a few words
     */
    public String touch(int keyId, KeyTouch how, String by, boolean atOnce) {
        Optional<PlannedKey> found = step.plan().key(keyId);
        if (found.isEmpty()) {
            return "its key is gone";
        }
        PlannedKey key = found.get();
        Optional<Boolean> wanted = wanted(key, how);
        if (wanted.isEmpty()) {
            return "";
        }
        boolean on = wanted.get();
        String name = key.key().name();
        boolean letsGo = key.key().way() == HandKey.Way.HELD && !on;
        if (!operator.mayDo(
                new Guarded.AHandCue(keyId), !letsGo && !atOnce && step.plan().isGuarded(key))) {
            return name + Operator.ONCE_MORE;
        }
        keys = keys.touched(keyId, on);
        Cause cause = Cause.outside(by + name + words(key, on), step.now());
        List<DueCall> made = new ArrayList<>();
        for (PlannedCall call : on ? key.on() : key.off()) {
            made.add(DueCall.at(step.now() + Math.max(0, call.afterNanos()), call, cause));
        }
        calls.makeAll(made);
        return name + words(key, on);
    }

    /** By a signal of a machine, which holds it from then on if it works while it is held. */
    public String touch(int keyId, KeyTouch how, String by, boolean atOnce, int deviceId) {
        String did = touch(keyId, how, by, atOnce);
        keys = how != KeyTouch.LET_GO && isHeld(keyId) ? keys.heldBy(keyId, deviceId) : keys;
        return did;
    }

    /** A key that a pad holds is let go when the pad is away: nobody will hear that it is. */
    public void letGoOfLost() {
        keys.holders().forEach((keyId, deviceId) -> {
            if (deviceId != Source.OTHERS && !devices.hears(deviceId)) {
                touch(keyId, KeyTouch.LET_GO, "its pad is away: ", true);
            }
        });
    }

    /** Every key that works while it is held is let go: the show leaves the desk, and its hands with it. */
    public void letGoAll() {
        keys.touched().forEach((keyId, on) -> {
            if (on
                    && step.plan()
                            .key(keyId)
                            .filter(k -> k.key().way() == HandKey.Way.HELD)
                            .isPresent()) {
                touch(keyId, KeyTouch.LET_GO, "put away: ", true);
            }
        });
    }

    private static String words(PlannedKey key, boolean on) {
        return switch (key.key().way()) {
            case PRESS -> "";
            case ON_OFF -> on ? " on" : " off";
            case HELD -> on ? " held" : " let go";
        };
    }

    /** Whether it is to go on, or off; nothing for a touch that means nothing to such a key. */
    private Optional<Boolean> wanted(PlannedKey key, KeyTouch how) {
        return switch (key.key().way()) {
            case PRESS -> how == KeyTouch.PRESS || how == KeyTouch.ON ? Optional.of(true) : Optional.empty();
            case HELD ->
                switch (how) {
                    case PRESS, ON -> Optional.of(true);
                    case LET_GO -> keys.isOn(key.id()) ? Optional.of(false) : Optional.empty();
                    case OFF -> Optional.of(false);
                };
            case ON_OFF ->
                switch (how) {
                    case PRESS -> Optional.of(light(key) != KeyLight.ON);
                    case ON -> Optional.of(true);
                    case OFF -> Optional.of(false);
                    case LET_GO -> Optional.empty();
                };
        };
    }

    /** How a key is lit. */
    public KeyLight light(PlannedKey key) {
        return KeyLight.of(key, devices.told(), keys.touched(), step.now());
    }
}
