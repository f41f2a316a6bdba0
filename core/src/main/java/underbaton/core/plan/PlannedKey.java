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

    public int id() {
        return key.id();
    }

    public Stream<PlannedCall> all() {
        return Stream.concat(on.stream(), off.stream());
    }
}
