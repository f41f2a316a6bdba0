package underbaton.wire.session;

/**
 * Which of the last 64 packets have come, so that none is taken twice. Sequence numbers are 16 bits and wrap (RFC 3550).
 * Not thread-safe.
 */
final class SequenceWindow {

    private static final int SIZE = 64;

    private boolean started;
    private int highest;
    private long seen;
    private long expected;
    private long got;

    /** @return whether the packet is new and recent enough to be taken */
    boolean take(int sequence) {
        if (!started) {
            started = true;
            highest = sequence;
            seen = 1;
            expected = 1;
            got = 1;
            return true;
        }
        int ahead = (short) (sequence - highest);
        if (ahead > 0) {
            seen = ahead >= SIZE ? 1 : seen << ahead | 1;
            highest = sequence;
            expected += ahead;
            got++;
            return true;
        }
        int behind = -ahead;
        if (behind >= SIZE || (seen >> behind & 1) != 0) {
            return false;
        }
        seen |= 1L << behind;
        got++;
        return true;
    }

    /** Packets that should have come and have not, so far. */
    long lost() {
        return Math.max(0, expected - got);
    }

    int highest() {
        return highest;
    }

    void restart() {
        started = false;
    }
}
