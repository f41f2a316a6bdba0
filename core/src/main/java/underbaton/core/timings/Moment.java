package underbaton.core.timings;

/**
 * Something of a run, as it came.
 *
 * @param epochMicros when, µs since 1970
 * @param itemId the item it belongs to; 0 for none
 * @param cueId the cue it is; 0 for none
 * @param positionNanos where in the item's music, ns since it began; below 0 when none played
 * @param words what was ordered, noted, or how the cue or item is called
 */
public record Moment(long epochMicros, Kind kind, int itemId, int cueId, long positionNanos, String words) {

    public enum Kind {
        ORDER,
        ITEM,
        ITEM_ENDED,
        CUE,
        NOTE
    }

    /** Of no item, no cue and no place. */
    public static Moment of(long epochMicros, Kind kind, String words) {
        return new Moment(epochMicros, kind, 0, 0, -1, words);
    }
}
