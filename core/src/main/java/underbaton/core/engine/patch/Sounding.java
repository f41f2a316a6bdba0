package underbaton.core.engine.patch;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.pcollections.HashTreePMap;
import org.pcollections.HashTreePSet;
import org.pcollections.PMap;
import org.pcollections.PSet;
import underbaton.core.engine.patch.Tone.Key;

/**
 * What sounds, or is held down, at any output by what is played through the patch or passed on by relays, and which ends are
 * owed to machines that could not hear them. What phrases strike for a while is owed its end by the agenda. Immutable.
 *
 * @param tones what sounds, or is held, at each output
 * @param places by key of an input, the outputs at which it sounds
 * @param owed ends that an output did not hear since it was away
 */
public record Sounding(PMap<Key, Tone> tones, PMap<Key, List<Key>> places, PSet<Key> owed) {

    public static final Sounding NOTHING =
            new Sounding(HashTreePMap.empty(), HashTreePMap.empty(), HashTreePSet.empty());

    /** Whether anything sounds, or is held down, at any output. */
    public boolean sounds() {
        return !tones.isEmpty();
    }

    /** What sounds at this place, or has none. */
    public Tone at(Key place) {
        return tones.getOrDefault(place, Tone.NONE);
    }

    /** Where the notes go that this key began. */
    public List<Key> placesOf(Key hand) {
        return places.getOrDefault(hand, List.of());
    }

    /** With what sounds at this place by now. */
    public Sounding with(Key place, Tone tone) {
        return new Sounding(tone.isFree() ? tones.minus(place) : tones.plus(place, tone), places, owed);
    }

    /** Something is begun at a place by a hand. @param value that the output is told */
    public Sounding begun(Key hand, int handValue, Key place, int value) {
        List<Key> all = new ArrayList<>(placesOf(hand));
        if (!all.contains(place)) {
            all.add(place);
        }
        Tone tone = at(place).heldBy(hand, handValue).begunAgain().told(value);
        return new Sounding(tones.plus(place, tone), places.plus(hand, List.copyOf(all)), owed);
    }

    /** One hand less holds what sounds at a place. */
    public Sounding letGo(Key hand, Key place) {
        List<Key> left = new ArrayList<>(placesOf(hand));
        left.remove(place);
        PMap<Key, List<Key>> without = left.isEmpty() ? places.minus(hand) : places.plus(hand, List.copyOf(left));
        return new Sounding(tones, without, owed).with(place, at(place).letGoBy(hand));
    }

    /** Nothing sounds any more; what is owed stays so. */
    public Sounding silent() {
        return new Sounding(HashTreePMap.empty(), HashTreePMap.empty(), owed);
    }

    /** With ends that are owed and could not be told. */
    public Sounding owing(Collection<Key> ends) {
        return new Sounding(tones, places, owed.plusAll(ends));
    }

    /** This end has been told. */
    public Sounding paid(Key end) {
        return new Sounding(tones, places, owed.minus(end));
    }

    /** All that wants an end, at whatever output. */
    public Set<Key> all() {
        Set<Key> all = new LinkedHashSet<>(owed);
        all.addAll(tones.keySet());
        return all;
    }
}
