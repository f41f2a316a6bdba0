package underbaton.web.stage;

/** What becomes of an edit that is made while the show runs; the operator's choice. */
public enum Edits {
    /** It waits until the operator says so. */
    WAIT,
    /** It waits, unless it lies ahead of all that plays. */
    AHEAD,
    /** It is taken over at once. */
    AT_ONCE
}
