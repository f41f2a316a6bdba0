package underbaton.core.engine;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.pcollections.HashTreePMap;
import org.pcollections.HashTreePSet;
import org.pcollections.PMap;
import org.pcollections.PSet;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Passed;

/**
 * The patch set in use, and what sounds through it. Immutable.
 *
 * @param setId the phrase that loaded it; 0 for none
 * @param wiring its lines as they are in use, kept or not
 * @param tones what sounds, or is held, at each output
 * @param places by key of an input, the outputs at which it sounds
 * @param owed ends that an output did not hear since it was away
 * @param counts by input, how often it said the same lately
 * @param silenced inputs of which what they say comes round to them; nothing of theirs passes until a set is loaded
 */
public record Patched(
        int setId,
        Wiring wiring,
        PMap<Tone.Key, Tone> tones,
        PMap<Tone.Key, List<Tone.Key>> places,
        PSet<Tone.Key> owed,
        PMap<Integer, Passed> counts,
        PSet<Integer> silenced) {

    public static final Patched NOTHING = new Patched(
            0,
            Wiring.NONE,
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePSet.empty(),
            HashTreePMap.empty(),
            HashTreePSet.empty());

    Patched using(int newSetId, Wiring newWiring) {
        return new Patched(newSetId, newWiring, tones, places, owed, counts, HashTreePSet.empty());
    }

    Patched with(PMap<Tone.Key, Tone> newTones, PMap<Tone.Key, List<Tone.Key>> newPlaces, PSet<Tone.Key> newOwed) {
        return new Patched(setId, wiring, newTones, newPlaces, newOwed, counts, silenced);
    }

    Patched counting(int deviceId, Passed passed) {
        return new Patched(setId, wiring, tones, places, owed, counts.plus(deviceId, passed), silenced);
    }

    Patched silencing(int deviceId) {
        return new Patched(setId, wiring, tones, places, owed, counts.minus(deviceId), silenced.plus(deviceId));
    }

    Patched owing(Collection<Tone.Key> ends) {
        return new Patched(setId, wiring, tones, places, owed.plusAll(ends), counts, silenced);
    }

    /** Whether anything sounds, or is held down, at any output. */
    public boolean sounds() {
        return !tones.isEmpty();
    }

    /** The machines whose lines were stopped since what they say comes round to them. */
    public Set<Integer> stopped() {
        return silenced;
    }
}
