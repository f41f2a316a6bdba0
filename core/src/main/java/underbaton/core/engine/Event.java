package underbaton.core.engine;

/**
 * Something that happens to a playing show.
 *
 * @param atNanos when, by the clock of the events
 * @param by who gave the order, in words; empty for nobody
 */
public record Event(long atNanos, String by, Order order) {

    /** Time has passed until a moment. */
    public static Event pass(long atNanos) {
        return new Event(atNanos, "", new Order.Pass());
    }

    /** Nobody's own order, at a moment of the steady clock. */
    public static Event of(long atNanos, Order order) {
        return new Event(atNanos, "", order);
    }
}
