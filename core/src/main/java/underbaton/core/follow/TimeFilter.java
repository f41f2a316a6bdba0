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

    /**
     * Who sends.
     *
     * @param stamp deviation of a stamp, s
     * @param wander how far the pace wanders, squared, in a second
     * @param atFirst deviation of the pace while nothing is known of it
     */
    public record Sender(double stamp, double wander, double atFirst) {

        /** What networks and busy machines add to a steady clock. */
        public static final Sender MACHINE = new Sender(0.004, 2e-5, 0.1);

        /** Somebody who taps along with a band that breathes. */
        public static final Sender HAND = new Sender(0.018, 1e-3, 0.06);

        private double variance() {
            return stamp * stamp;
        }
    }

    private static final double FAR = 3;
    private static final int MOST_ASTRAY = 4;
    private static final double SECOND = 1e9;

    /** From the first stamp. @param pace what is known of it, 1 being as written */
    public static TimeFilter from(long atNanos, long place, double pace, Sender sender) {
        return new TimeFilter(atNanos, place, pace, sender.variance(), 0, sender.atFirst * sender.atFirst, 0);
    }

    /** Where the music is at a moment. */
    public long placeAt(long nanos) {
        return Math.round(place + pace * (nanos - atNanos));
    }

    /** The same with another stamp: the music is at a place, as its sender says. */
    public TimeFilter heard(long nanos, long there, Sender sender) {
        TimeFilter expected = at(nanos, sender);
        double off = expected.secondsTo(there);
        double most = FAR * Math.sqrt(expected.placeDoubt + sender.variance());
        int side = off > most ? 1 : off < -most ? -1 : 0;
        int row = side == 0 ? 0 : side * astray > 0 ? astray + side : side;
        if (Math.abs(row) >= MOST_ASTRAY) {
            return new TimeFilter(nanos, there, pace, sender.variance(), 0, Math.pow(FAR * sender.atFirst, 2), 0);
        }
        return side == 0 ? expected.taking(there, sender) : expected.astray(row);
    }

    /** What is expected at a moment, with nothing heard since. */
    public TimeFilter at(long nanos, Sender sender) {
        double dt = Math.max(0, nanos - atNanos) / SECOND;
        return new TimeFilter(
                nanos,
                place + pace * (nanos - atNanos),
                pace,
                placeDoubt + 2 * dt * bothDoubt + dt * dt * paceDoubt + sender.wander * dt * dt * dt / 3,
                bothDoubt + dt * paceDoubt + sender.wander * dt * dt / 2,
                paceDoubt + sender.wander * dt,
                astray);
    }

    /** How likely a stamp at this very moment is: the logarithm of its density, in nats a second. */
    public double likelihood(long there, Sender sender) {
        double variance = placeDoubt + sender.variance();
        double off = secondsTo(there);
        return -(off * off / variance + Math.log(2 * Math.PI * variance)) / 2;
    }

    /** With a stamp at this very moment, however far off it is. */
    public TimeFilter taking(long there, Sender sender) {
        double off = secondsTo(there);
        double gain = 1 / (placeDoubt + sender.variance());
        double k1 = placeDoubt * gain;
        double k2 = bothDoubt * gain;
        return new TimeFilter(
                atNanos,
                place + k1 * off * SECOND,
                pace + k2 * off,
                (1 - k1) * placeDoubt,
                (1 - k1) * bothDoubt,
                paceDoubt - k2 * bothDoubt,
                0);
    }

    private double secondsTo(long there) {
        return (there - place) / SECOND;
    }

    private TimeFilter astray(int row) {
        return new TimeFilter(atNanos, place, pace, placeDoubt, bothDoubt, paceDoubt, row);
    }

    /** The same, which goes at most so fast, and at least so. */
    public TimeFilter within(double slowest, double fastest) {
        return new TimeFilter(
                atNanos, place, Math.max(slowest, Math.min(fastest, pace)), placeDoubt, bothDoubt, paceDoubt, astray);
    }

    /** The same with all its moments so many ns later. */
    public TimeFilter shifted(long nanos) {
        return new TimeFilter(atNanos + nanos, place, pace, placeDoubt, bothDoubt, paceDoubt, astray);
    }
}
