package underbaton.core.engine.follow;

/** How an item that goes by a machine's time gets on. */
public enum Doing {
    /** Nothing plays or stands by that follows. */
    NOTHING("", false),
    /** Nothing of use was heard yet. */
    WAITS("waits for", false),
    FOLLOWS("follows", true),
    /** Nothing is heard for a moment; it goes on at the last pace. */
    ALONE("goes on by itself without", true),
    /** The machine has said that it stopped. */
    STANDS("stands with", true),
    /** Nothing has been heard for too long. */
    SILENT("stands, for nothing is heard of", true),
    /** The machine has jumped, and all others are brought there. */
    JUMPS("jumps with", true),
    BY_HAND("taken by hand from", false),
    /** The machine is at a place that is not of this item. */
    ELSEWHERE("goes on by itself: another item is the place of", false),
    /** The machine sends code at another rate. */
    OTHER_RATE("goes on by itself: not at its rate is", false);

    private final String words;
    private final boolean led;

    Doing(String words, boolean led) {
        this.words = words;
        this.led = led;
    }

    /** Before the name of the machine: {@code follows}. */
    public String words() {
        return words;
    }

    /** Whether the machine leads the music, or has led it until a moment ago. */
    public boolean isLed() {
        return led;
    }
}
