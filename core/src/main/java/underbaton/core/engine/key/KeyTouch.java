package underbaton.core.engine.key;

/** What is done with a hand cue's key. */
public enum KeyTouch {
    PRESS,
    LET_GO,
    /** On, however it is. */
    ON,
    /** Off, however it is. */
    OFF
}
