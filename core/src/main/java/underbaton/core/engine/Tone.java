package underbaton.core.engine;

import org.pcollections.HashTreePMap;
import org.pcollections.PMap;

/**
 * Something at an output that does not end by itself, and whose hands it is in. Immutable.
 *
 * @param holders by what is held down, how: the velocity of a note, the value of a pedal, the place of a wheel
 * @param begun how often it was begun: a note is to be ended as often
 * @param said the value that the output was told last
 */
public record Tone(PMap<Tone.Key, Integer> holders, int begun, int said) {

    static final Tone NONE = new Tone(HashTreePMap.empty(), 0, -1);

    /** What does not end by itself. */
    public enum Kind {
        NOTE,
        PEDAL,
        BEND,
        PRESSURE
    }

    /**
     * A key, a pedal or a wheel of an input, or the same of an output.
     *
     * @param channel 0–15
     * @param number of the note or of the pedal's controller, 0–127; 0 for a wheel
     * @param relayId of an input, the relay that passes it on; 0 for the patch, and of an output
     */
    public record Key(int deviceId, int channel, Kind kind, int number, int relayId) {

        /** At an output, or played through the patch. */
        public Key(int deviceId, int channel, Kind kind, int number) {
            this(deviceId, channel, kind, number, 0);
        }
    }

    Tone heldBy(Key hand, int value) {
        return new Tone(holders.plus(hand, value), begun, said);
    }

    Tone letGoBy(Key hand) {
        return new Tone(holders.minus(hand), begun, said);
    }

    Tone begunAgain() {
        return new Tone(holders, begun + 1, said);
    }

    Tone told(int value) {
        return new Tone(holders, begun, value);
    }

    /** How far it is down: as far as the lowest of all hands. */
    int most() {
        return holders.values().stream().mapToInt(v -> v).max().orElse(0);
    }

    boolean isFree() {
        return holders.isEmpty();
    }
}
