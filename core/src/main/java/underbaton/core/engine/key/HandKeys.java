package underbaton.core.engine.key;

import org.pcollections.HashTreePMap;
import org.pcollections.PMap;

/**
 * What was done with the keys of the hand cues. Immutable.
 *
 * @param touched by hand cue, whether it was touched on or off last
 * @param holders by hand cue that works while it is held, the machine whose signal holds it
 */
public record HandKeys(PMap<Integer, Boolean> touched, PMap<Integer, Integer> holders) {

    public static final HandKeys UNTOUCHED = new HandKeys(HashTreePMap.empty(), HashTreePMap.empty());

    /** Whether a key was touched on last. */
    public boolean isOn(int keyId) {
        return touched.getOrDefault(keyId, false);
    }

    HandKeys touched(int keyId, boolean on) {
        return new HandKeys(touched.plus(keyId, on), holders.minus(keyId));
    }

    /** A key is held by somebody who plays a machine. */
    HandKeys heldBy(int keyId, int deviceId) {
        return new HandKeys(touched, holders.plus(keyId, deviceId));
    }
}
