package underbaton.core.score;

/**
 * A place of the music and when it was there, from which every other place follows by its pace alone; so nothing is summed
 * up, and nothing drifts. Immutable.
 *
 * @param atNanos a moment, by the clock of the events
 * @param fromNanos where the music was then, ns since the item began
 * @param permille how fast it goes, 1,000 being as written
 */
public record Anchor(long atNanos, long fromNanos, int permille) {

    public static final int AS_WRITTEN = 1000;
    public static final int SLOWEST = 500;
    public static final int FASTEST = 2000;

    public Anchor {
        permille = Math.max(SLOWEST, Math.min(FASTEST, permille));
    }

    /** Where the music is at a moment, ns since the item began. */
    public long position(long nanos) {
        return fromNanos + Math.floorDiv((nanos - atNanos) * permille, AS_WRITTEN);
    }

    /** When a position comes: at the first nanosecond at which the music is there. */
    public long dueAt(long position) {
        return atNanos + -Math.floorDiv(-(position - fromNanos) * AS_WRITTEN, permille);
    }

    /** The music is elsewhere at the same moments: on, or, below 0, back by so much. */
    public Anchor moved(long by) {
        return new Anchor(atNanos, fromNanos + by, permille);
    }

    /** The same music, so much later by the clock. */
    public Anchor shifted(long by) {
        return new Anchor(atNanos + by, fromNanos, permille);
    }

    /** At another place, ns from the beginning, at this moment of the steady clock. */
    public Anchor placed(long position, long now) {
        return new Anchor(now, position, permille);
    }

    /** At another pace from this moment on, thousandths of the written one. */
    public Anchor paced(int newPermille, long now) {
        return new Anchor(now, position(now), newPermille);
    }
}
