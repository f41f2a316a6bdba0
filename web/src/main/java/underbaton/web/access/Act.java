package underbaton.web.access;

/** What somebody does, in kinds that are allowed or not as a whole. */
public enum Act {
    /** Asking to be let in, and what every page is dressed with. */
    COME_IN,
    /** Looking at what one department gets, and at the timings. */
    VIEW,
    /** Reading books, rigs, scores, the log. */
    READ,
    /** Working hand cues. */
    TOUCH,
    /** GO, standby, hold, stop, what the music does, notes. */
    CALL,
    /** Changing books, rigs, scores, listeners, patch sets, hand cues. */
    WRITE,
    /** All else: what is on the desk, what is sent by hand, who may come in. */
    RUN
}
