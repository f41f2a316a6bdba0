package underbaton.core.signal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import underbaton.core.midi.Message;

/**
 * What a relay has passed on so far, and what it keeps back. Immutable; times are ns by the clock of the events.
 *
 * @param number that came last
 * @param exact what was made of it, 0–127 of the wire's scale
 * @param leads whether the control is where this relay has put it
 * @param rounds whether what it says comes back to it
 * @param kept back for a moment, in the order in which it came
 * @param half of a number of 14 bits, whose lower half may follow
 * @param stop of a relay whose signals came round
 */
public record Passed(
        OptionalDouble number,
        OptionalDouble exact,
        boolean leads,
        Rounds rounds,
        List<Came> kept,
        Optional<Came> half,
        Optional<Stop> stop) {

    public static final Passed NOTHING = new Passed(
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            false,
            Rounds.NONE,
            List.of(),
            Optional.empty(),
            Optional.empty());

    private static final long SECOND = 1_000_000_000L;
    /** What both halves of a number leave a machine in comes in one packet, or the next; and it is read in pieces by a loaded core. */
    private static final long HALF_NANOS = 20_000_000L;

    private static final long NEVER = Long.MAX_VALUE;

    /** A signal that waits. @param bySecond whether it is the relay's second signal */
    public record Came(Source source, Message message, boolean bySecond, long nanos) {}

    /**
     * Its signals came round, so it was disarmed until all is quiet.
     *
     * @param times how often in a row
     * @param sinceNanos when something came for it last, or when it was armed again
     * @param over whether it is armed again
     */
    public record Stop(int times, long sinceNanos, boolean over) {

        private static final long FIRST_QUIET = 5 * SECOND;
        private static final int MOST_DOUBLED = 4;

        /** How long nothing may come for it. */
        public long quietNanos() {
            return FIRST_QUIET << Math.min(times - 1, MOST_DOUBLED);
        }
    }

    /** With what came in last, as a number. */
    public Passed heard(double newNumber) {
        return new Passed(OptionalDouble.of(newNumber), exact, leads, rounds, kept, half, stop);
    }

    /** With what was passed on last, exact, and whether it leads the control by now. */
    public Passed put(double newExact, boolean nowLeads) {
        return new Passed(number, OptionalDouble.of(newExact), nowLeads, rounds, kept, half, stop);
    }

    /** With other rounds under way. */
    public Passed with(Rounds next) {
        return new Passed(number, exact, leads, next, kept, half, stop);
    }

    /** One more waits. */
    public Passed keeping(Came came) {
        List<Came> more = new ArrayList<>(kept);
        more.add(came);
        return new Passed(number, exact, leads, rounds, List.copyOf(more), half, stop);
    }

    /** What was kept for its other half is forgotten. */
    public Passed keepingNothing() {
        return new Passed(number, exact, leads, rounds, List.of(), half, stop);
    }

    /** Half of a number that has two has come. */
    public Passed waitingFor(Optional<Came> higherHalf) {
        return new Passed(number, exact, leads, rounds, kept, higherHalf, stop);
    }

    /** Its signals have come round. */
    public Passed stopped(long nanos) {
        boolean again = stop.filter(s -> nanos - s.sinceNanos < 60 * SECOND).isPresent();
        int times = again ? stop.get().times + 1 : 1;
        return NOTHING.withStop(Optional.of(new Stop(times, nanos, false)));
    }

    /** Something came for it while it was stopped, or it is armed again. */
    public Passed still(long nanos, boolean over) {
        return withStop(stop.map(s -> new Stop(s.times, nanos, over)));
    }

    /** Somebody else has decided whether it listens. */
    public Passed withStop(Optional<Stop> now) {
        return new Passed(number, exact, leads, rounds, kept, half, now);
    }

    /** Whether it was stopped and is not armed again. */
    public boolean isStopped() {
        return stop.filter(s -> !s.over).isPresent();
    }

    /** When what is kept back is due, or the half of a number, or it is to be armed again; far away for never. */
    public long nextNanos() {
        long next = kept.isEmpty() ? NEVER : rounds.dueNanos(kept.get(0).nanos);
        if (half.isPresent()) {
            next = Math.min(next, half.get().nanos + HALF_NANOS);
        }
        return isStopped() ? Math.min(next, stop.get().sinceNanos + stop.get().quietNanos()) : next;
    }
}
