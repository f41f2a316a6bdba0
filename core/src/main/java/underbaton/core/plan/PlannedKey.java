package underbaton.core.plan;

import java.util.List;
import java.util.stream.Stream;
import underbaton.core.cue.HandKey;

/**
 * A hand cue with everything that is needed to fire it.
 *
 * @param on in the order in which they are made
 * @param off likewise
 */
public record PlannedKey(HandKey key, List<PlannedCall> on, List<PlannedCall> off) {

    /** Of the key in the show. */
    public int id() {
        return key.id();
    }

    /** What it calls when it is pressed, and when it is let go. */
    public Stream<PlannedCall> all() {
        return Stream.concat(on.stream(), off.stream());
    }
}
