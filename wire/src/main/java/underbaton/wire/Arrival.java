package underbaton.wire;

/** What is known of the arrival of what was sent. */
public enum Arrival {
    /** The other side has shown that it has everything. */
    ARRIVED,
    /** It has not yet, and still may. */
    AWAITED,
    /** It does not say, and nothing else tells. */
    NO_WORD
}
