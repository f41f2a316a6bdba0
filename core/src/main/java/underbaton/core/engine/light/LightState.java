package underbaton.core.engine.light;

import org.pcollections.HashTreePMap;
import org.pcollections.PMap;

/**
 * What the pads were told of what their signals stand for. Immutable.
 *
 * @param lit by listener, what was told last
 * @param dark whether the show has left the desk, and nothing more is told
 */
public record LightState(PMap<Integer, Lit> lit, boolean dark) {

    public static final LightState FIRST = new LightState(HashTreePMap.empty(), false);
}
