package underbaton.wire.session;

import java.util.concurrent.TimeUnit;

/**
 * How much was lost of what was expected, over the last minute, second by second. Not thread-safe but for {@link
 * #perCent}, which may be a second behind.
 */
final class LossOfTheMinute {

    private static final int SECONDS = 60;

    private final int[] expected = new int[SECONDS];
    private final int[] lost = new int[SECONDS];
    private long second = Long.MIN_VALUE / 2;

    /** @param nanos by the clock of all other calls */
    void count(long nanos, int newlyExpected, int newlyLost) {
        turnTo(nanos);
        int place = (int) Math.floorMod(second, (long) SECONDS);
        expected[place] += newlyExpected;
        // What comes late takes back what was counted as lost, perhaps in an earlier second.
        lost[place] += newlyLost;
    }

    private void turnTo(long nanos) {
        long now = TimeUnit.NANOSECONDS.toSeconds(nanos);
        long from = Math.max(second + 1, now - SECONDS + 1);
        for (long s = from; s <= now; s++) {
            int place = (int) Math.floorMod(s, (long) SECONDS);
            expected[place] = 0;
            lost[place] = 0;
        }
        second = Math.max(second, now);
    }

    /** @return 0–100; −1 when nothing was expected */
    int perCent(long nanos) {
        long now = TimeUnit.NANOSECONDS.toSeconds(nanos);
        int of = 0;
        int gone = 0;
        for (int back = 0; back < SECONDS; back++) {
            long s = second - back;
            if (s > now - SECONDS) {
                of += expected[(int) Math.floorMod(s, (long) SECONDS)];
                gone += lost[(int) Math.floorMod(s, (long) SECONDS)];
            }
        }
        return of == 0 ? -1 : Math.max(0, Math.min(100, 100 * gone / of));
    }
}
