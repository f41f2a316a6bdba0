package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.HandKey;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.signal.Source;

/** Hand cues: what the keys outside of the running order do when they are touched, by whatever. */
abstract class Touching extends Patching {

    /** In the place of a machine, where a key's second touch is waited for. */
    static final int A_KEY = -2;

    static final String ONCE_MORE = ": once more within three seconds";

    Touching(PlaybackState s) {
        super(s);
    }

    /**
     * @param by for the log
     * @param atOnce whether a guarded key needs no second touch
     * @return what was done, in a few words
     */
    String touch(int keyId, Order.Touch.How how, String by, boolean atOnce) {
        Optional<PlannedKey> found = plan.key(keyId);
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
        if (!letsGo && !atOnce && plan.isGuarded(key) && !hand.guardWaitsAt(A_KEY, keyId, now)) {
            hand = hand.guardAsked(A_KEY, keyId, now);
            return name + ONCE_MORE;
        }
        hand = hand.guardDone().keyed(keyId, on);
        Cause cause = Cause.outside(by + name + words(key, on), now);
        List<Made> calls = new ArrayList<>();
        for (PlannedCall call : on ? key.on() : key.off()) {
            long at = now + Math.max(0, call.afterNanos());
            calls.add(new Made(call, at, at, cause));
        }
        makeAll(calls);
        return name + words(key, on);
    }

    /** A key that a pad holds is let go when the pad is away: nobody will hear that it is. */
    @Override
    void letGoOfLost() {
        super.letGoOfLost();
        hand.holders().forEach((keyId, deviceId) -> {
            if (deviceId != Source.OTHERS && !isThere(deviceId)) {
                touch(keyId, Order.Touch.How.LET_GO, "its pad is away: ", true);
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
    private Optional<Boolean> wanted(PlannedKey key, Order.Touch.How how) {
        boolean held = hand.keys().getOrDefault(key.id(), false);
        return switch (key.key().way()) {
            case PRESS ->
                how == Order.Touch.How.PRESS || how == Order.Touch.How.ON ? Optional.of(true) : Optional.empty();
            case HELD ->
                switch (how) {
                    case PRESS, ON -> Optional.of(true);
                    case LET_GO -> held ? Optional.of(false) : Optional.empty();
                    case OFF -> Optional.of(false);
                };
            case ON_OFF ->
                switch (how) {
                    case PRESS -> Optional.of(KeyLight.of(done().next(), key) != KeyLight.ON);
                    case ON -> Optional.of(true);
                    case OFF -> Optional.of(false);
                    case LET_GO -> Optional.empty();
                };
        };
    }
}
