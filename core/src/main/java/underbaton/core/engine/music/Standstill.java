package underbaton.core.engine.music;

/**
 * The music stands, and the show does not: cues may be given, and what they call late comes. Immutable.
 *
 * @param atNanos where in the item, ns since it began
 * @param sinceNanos since when, by the clock of the events
 */
public record Standstill(long atNanos, long sinceNanos) {

    Standstill movedTo(long nanos) {
        return new Standstill(nanos, sinceNanos);
    }

    Standstill shifted(long by) {
        return new Standstill(atNanos, sinceNanos + by);
    }
}
