package underbaton.core.follow;

/** How an item that goes by a machine's time gets on. */
public enum Doing {
    /** Nothing plays or stands by that follows. */
    NOTHING("goes by its own time", false),
    /** Nothing of use was heard yet. */
    WAITS("waits for %s", false),
    FOLLOWS("follows %s", true),
    /** Nothing is heard for a moment; it goes on at the last pace. */
    ALONE("goes on by itself: nothing is heard of %s", true),
    /** The machine has said that it stopped. */
    STANDS("stands, as %s does", true),
    /** Nothing has been heard for too long. */
    SILENT("stands: nothing is heard of %s", true),
    /** The machine has jumped, and all others are brought there. */
    JUMPS("goes to where %s is", true),
    BY_HAND("taken by hand, not led by %s", false),
    /** The machine is at a place that is not of this item. */
    ELSEWHERE("goes on by itself: %s is at no place of it", false),
    /** The machine sends code at another rate. */
    OTHER_RATE("goes on by itself: not at the rate that is expected comes the time code of %s", false);

    private final String words;
    private final boolean led;

    Doing(String words, boolean led) {
        this.words = words;
        this.led = led;
    }

    /** {@code follows the Film player}. @param machine the name of the one by whose time the item goes */
    public String words(String machine) {
        return words.formatted(machine);
    }

    /** Whether the machine leads the music, or has led it until a moment ago. */
    public boolean isLed() {
        return led;
    }
}
