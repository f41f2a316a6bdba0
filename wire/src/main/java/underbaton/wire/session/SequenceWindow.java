package underbaton.wire.session;

/**
 * Which of the last 64 packets have come, so that none is taken twice, and which number each has when numbers are
 * counted on without wrapping. Sequence numbers are 16 bits and wrap (RFC 3550). One that is far from all others is not
 * believed; when the next one follows it, the sender has begun anew, and so do we (RFC 3550, appendix A.1).
 * Not thread-safe.
 */
final class SequenceWindow {

    private static final int SIZE = 64;
    /** So many packets are not lost at once by a sender that is still the same. */
    private static final int FARTHEST = 3000;

    /** What a packet is, measured by those before it. */
    enum Place {
        /** The first of all, or of a sender that has begun anew: it may have lost predecessors. */
        FIRST,
        /** The next one expected. */
        NEXT,
        /** Some between it and the last one have not come. */
        AFTER_A_GAP,
        /** One of those, after all. */
        LATE,
        /** Come before, or too far away to be believed. */
        SEEN
    }

    private boolean started;
    private long highest;
    private long seen;
    private long expected;
    private long got;
    /** The number that would confirm a new beginning; −1 for none. */
    private int confirming = -1;

    /** @param sequence 0–65,535 */
    Place take(int sequence) {
        if (!started) {
            return begin(sequence);
        }
        int ahead = (short) (sequence - (int) highest);
        if (ahead > FARTHEST || ahead <= -SIZE) {
            if (sequence == confirming) {
                return begin(sequence);
            }
            confirming = sequence + 1 & 0xFFFF;
            return Place.SEEN;
        }
        if (ahead > 0) {
            confirming = -1;
            seen = ahead >= SIZE ? 1 : seen << ahead | 1;
            highest += ahead;
            expected += ahead;
            got++;
            return ahead == 1 ? Place.NEXT : Place.AFTER_A_GAP;
        }
        int behind = -ahead;
        if ((seen >> behind & 1) != 0) {
            return Place.SEEN;
        }
        seen |= 1L << behind;
        got++;
        return Place.LATE;
    }

    private Place begin(int sequence) {
        started = true;
        highest = sequence;
        seen = 1;
        expected++;
        got++;
        confirming = -1;
        return Place.FIRST;
    }

    /** The number of a packet near the newest one, counted without wrapping. */
    long number(int sequence) {
        return highest + (short) (sequence - (int) highest);
    }

    /** Packets that should have come so far. */
    long expected() {
        return expected;
    }

    /** Packets that should have come and have not, so far. */
    long lost() {
        return Math.max(0, expected - got);
    }

    /** The highest number so far, as on the wire: 0–65,535. */
    int highest() {
        return (int) (highest & 0xFFFF);
    }

    void restart() {
        started = false;
        confirming = -1;
    }
}
