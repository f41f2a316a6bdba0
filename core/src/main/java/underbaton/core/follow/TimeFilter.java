package underbaton.core.follow;

/**
 * Where the music of a sender is, and how fast it goes, from stamps that come too late by turns: a Kalman filter with two states, place
 * and pace, the pace wandering at random. It is the second-order loop whose bandwidth follows from what is known: wide while little
 * was heard, so that the pace is found within some tenths of a second, and narrow later on. A stamp that is off by more than three
 * deviations (of a packet that hung, or was told again) is left out; several of them one behind the other mean that the sender changed,
 * and the loop is opened wide again. Immutable; times in ns by the clock of the events, places in ns of the music.
 *
 * @param atNanos when the last stamp came
 * @param place where the music was then
 * @param pace how fast it goes, 1 being as written
 * @param placeDoubt variance of the place, s²
 * @param bothDoubt covariance of place and pace, s
 * @param paceDoubt variance of the pace
 * @param astray how many stamps in a row were far off to one side, below 0 for those that came late
 */
public record TimeFilter(
        long atNanos, double place, double pace, double placeDoubt, double bothDoubt, double paceDoubt, int astray) {

    /** Deviation of a stamp: what networks and busy machines add, s. */
    private static final double STAMP_S = 0.004;

    /** How far the pace wanders, squared, in a second. */
    private static final double WANDER = 2e-5;

    private static final double FAR = 3;
    private static final int MOST_ASTRAY = 4;
    private static final double PACE_AT_FIRST = 0.1;
    private static final double SECOND = 1e9;

    /** From the first stamp. @param pace what is known of it, 1 being as written */
    public static TimeFilter from(long atNanos, long place, double pace) {
        return new TimeFilter(atNanos, place, pace, STAMP_S * STAMP_S, 0, PACE_AT_FIRST * PACE_AT_FIRST, 0);
    }

    /** Where the music is at a moment. */
    public long placeAt(long nanos) {
        return Math.round(place + pace * (nanos - atNanos));
    }

    /** The same with another stamp: the music is at a place, as its sender says. */
    public TimeFilter heard(long nanos, long there) {
        double dt = Math.max(0, nanos - atNanos) / SECOND;
        double p11 = placeDoubt + 2 * dt * bothDoubt + dt * dt * paceDoubt + WANDER * dt * dt * dt / 3;
        double p12 = bothDoubt + dt * paceDoubt + WANDER * dt * dt / 2;
        double p22 = paceDoubt + WANDER * dt;
        double expected = place + pace * (nanos - atNanos);
        double off = (there - expected) / SECOND;
        double most = FAR * Math.sqrt(p11 + STAMP_S * STAMP_S);
        int side = off > most ? 1 : off < -most ? -1 : 0;
        int row = side == 0 ? 0 : side * astray > 0 ? astray + side : side;
        if (Math.abs(row) >= MOST_ASTRAY) {
            return new TimeFilter(
                    nanos, there, pace, STAMP_S * STAMP_S, 0, FAR * FAR * PACE_AT_FIRST * PACE_AT_FIRST, 0);
        }
        if (side != 0) {
            return new TimeFilter(nanos, expected, pace, p11, p12, p22, row);
        }
        double gain = 1 / (p11 + STAMP_S * STAMP_S);
        double k1 = p11 * gain;
        double k2 = p12 * gain;
        return new TimeFilter(
                nanos,
                expected + k1 * off * SECOND,
                pace + k2 * off,
                (1 - k1) * p11,
                (1 - k1) * p12,
                p22 - k2 * p12,
                0);
    }

    /** The same with all its moments so many ns later. */
    public TimeFilter shifted(long nanos) {
        return new TimeFilter(atNanos + nanos, place, pace, placeDoubt, bothDoubt, paceDoubt, astray);
    }
}
