package underbaton.core.engine;

/**
 * The item that began last.
 *
 * @param itemId 0 for none
 * @param nanos when it began, by the clock of the events
 * @param held whether the band has stopped in the middle of it
 */
public record Begun(int itemId, long nanos, boolean held) {

    static final Begun NONE = new Begun(0, Long.MIN_VALUE, false);

    Begun held(boolean now) {
        return new Begun(itemId, nanos, now);
    }

    Begun shifted(long by) {
        return itemId == 0 ? this : new Begun(itemId, nanos + by, held);
    }
}
