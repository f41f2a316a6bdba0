package underbaton.core.score;

import underbaton.core.rig.Refusal;

/**
 * A tempo from a place on.
 *
 * @param tick where it begins, 0 for the start of the item
 * @param overTicks over how long the tempo before goes over into this one, linear in position; 0 for at once
 */
public record TempoMark(long tick, Tempo tempo, long overTicks) {

    public TempoMark {
        if (tick < 0 || overTicks < 0) {
            throw new Refusal("tempo", "A tempo mark stands at or after the start, and a span is not negative.");
        }
    }

    /** At once, from this tick on. */
    public static TempoMark at(long tick, Tempo tempo) {
        return new TempoMark(tick, tempo, 0);
    }
}
