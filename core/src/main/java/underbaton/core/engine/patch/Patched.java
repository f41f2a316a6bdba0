package underbaton.core.engine.patch;

import java.util.Set;
import org.pcollections.HashTreePMap;
import org.pcollections.HashTreePSet;
import org.pcollections.PMap;
import org.pcollections.PSet;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Repeats;

/**
 * The patch set in use. Immutable.
 *
 * @param setId the phrase that loaded it; 0 for none
 * @param wiring its lines as they are in use, kept or not
 * @param counts by input, how often it said the same lately
 * @param silenced inputs of which what they say comes round to them; nothing of theirs passes until a set is loaded
 */
public record Patched(int setId, Wiring wiring, PMap<Integer, Repeats> counts, PSet<Integer> silenced) {

    public static final Patched NOTHING = new Patched(0, Wiring.NONE, HashTreePMap.empty(), HashTreePSet.empty());

    /** The set in use, and what it connects. */
    public Patched using(int newSetId, Wiring newWiring) {
        return new Patched(newSetId, newWiring, counts, HashTreePSet.empty());
    }

    /** How often this machine's keys came again. */
    public Patched counting(int deviceId, Repeats repeats) {
        return new Patched(setId, wiring, counts.plus(deviceId, repeats), silenced);
    }

    /** A keyboard that was told to sound by itself no longer, or again. */
    public Patched silencing(int deviceId) {
        return new Patched(setId, wiring, counts.minus(deviceId), silenced.plus(deviceId));
    }

    /** The machines whose lines were stopped since what they say comes round to them. */
    public Set<Integer> stopped() {
        return silenced;
    }
}
