package underbaton.core.engine.out;

import java.util.HashMap;
import java.util.Map;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.rig.Connection;

/**
 * What bears on the next message that leaves. Immutable.
 *
 * @param lines when each line that carries one byte after the other is free again, by the clock of the events
 * @param heldUp the controls that relays hold up
 * @param brought how many messages all steps that led here have brought forth
 */
public record WayOut(PMap<Connection, Long> lines, HeldUp heldUp, long brought) {

    public static final WayOut FREE = of(HashTreePMap.empty());

    /** With some lines still busy. */
    public static WayOut of(PMap<Connection, Long> lines) {
        return new WayOut(lines, HeldUp.NOTHING, 0);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public WayOut shifted(long nanos) {
        Map<Connection, Long> later = new HashMap<>();
        lines.forEach((line, free) -> later.put(line, free + nanos));
        return new WayOut(HashTreePMap.from(later), heldUp, brought);
    }
}
