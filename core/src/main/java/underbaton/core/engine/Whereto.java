package underbaton.core.engine;

import underbaton.core.cue.CueNumber;

/** A place of the show to which the machines can be brought, and perhaps the music with them. */
public sealed interface Whereto {

    /** Just before the standby cue; what plays is left. */
    record Standby() implements Whereto {}

    /** The cue before the standby that waits for GO, and what comes behind it. */
    record CueBefore() implements Whereto {}

    /** Where the show stands, as the book is by now; what plays goes on. */
    record Present() implements Whereto {}

    /** Shortly before the next cue that does not come with the one before it. @param leadNanos how long before, where the music comes to it */
    record Next(long leadNanos) implements Whereto {}

    /** A cue itself, and what comes behind it. */
    record AtCue(CueNumber number) implements Whereto {}

    /** Where the music stands. */
    record Here() implements Whereto {}

    /** The beginning of the section in which the music stands. */
    record ThisSection() implements Whereto {}

    /** @param letter of a section of the song that plays, or stands by */
    record Letter(String letter) implements Whereto {}

    /** @param bar of the song that plays, or stands by; 0 for its pick-up */
    record Bar(int bar) implements Whereto {}

    /**
     * Where the machine is that leads an item.
     *
     * @param fromNanos since the item began
     * @param asOfNanos when it was there, by the clock of the events
     */
    record InItem(int itemId, long fromNanos, long asOfNanos) implements Whereto {}

    /** Where the music would be had it not stood still. @param sinceNanos when it began to stand, by the clock of the events */
    record AsIfSince(long sinceNanos) implements Whereto {}
}
