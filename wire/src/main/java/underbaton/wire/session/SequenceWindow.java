package underbaton.wire.session;

/**
 * Which of the last 64 packets have come, so that none is taken twice, and which number each has when numbers are
 * counted on without wrapping. Sequence numbers are 16 bits and wrap (RFC 3550).
 * Not thread-safe.
 */
final class SequenceWindow {

    private static final int SIZE = 64;

    /** What a packet is, measured by those before it. */
    enum Place {
        /** The next one expected, or the first of all. */
        NEXT,
        /** Some between it and the last one have not come. */
        AFTER_A_GAP,
        /** One of those, after all. */
        LATE,
        /** Come before, or too old to know. */
        SEEN
    }

    private boolean started;
    private long highest;
    private long seen;
    private long expected;
    private long got;

    /** @param sequence 0–65,535 */
    Place take(int sequence) {
        if (!started) {
            started = true;
            highest = sequence;
            seen = 1;
            expected = 1;
            got = 1;
            return Place.NEXT;
        }
        int ahead = (short) (sequence - (int) highest);
        if (ahead > 0) {
            seen = ahead >= SIZE ? 1 : seen << ahead | 1;
            highest += ahead;
            expected += ahead;
            got++;
            return ahead == 1 ? Place.NEXT : Place.AFTER_A_GAP;
        }
        int behind = -ahead;
        if (behind >= SIZE || (seen >> behind & 1) != 0) {
            return Place.SEEN;
        }
        seen |= 1L << behind;
        got++;
        return Place.LATE;
    }

    /** The number of a packet near the newest one, counted without wrapping. */
    long number(int sequence) {
        return highest + (short) (sequence - (int) highest);
    }

    /** Packets that should have come and have not, so far. */
    long lost() {
        return Math.max(0, expected - got);
    }

    /** The same of the last 64, 0–100. */
    int lossPerCent() {
        long counted = Math.min(SIZE, expected);
        return counted == 0 ? 0 : (int) (100 * Math.max(0, counted - Long.bitCount(seen)) / counted);
    }

    /** The highest number so far, as on the wire: 0–65,535. */
    int highest() {
        return (int) (highest & 0xFFFF);
    }

    void restart() {
        started = false;
    }
}
