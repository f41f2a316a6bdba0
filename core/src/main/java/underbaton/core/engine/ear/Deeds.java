package underbaton.core.engine.ear;

import underbaton.core.signal.Deed;

/** What a signal can bring about that is not the ears' own. */
public interface Deeds {

    /** An order of the Desk that needs to know nothing else. */
    void give(Deed deed);

    /** A cue stands by. */
    void standBy(int cueId);

    /** An item plays. @param fromNanos since it begins */
    void play(int itemId, long fromNanos);
}
