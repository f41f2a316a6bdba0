package underbaton.core.signal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.pcollections.PVector;
import org.pcollections.TreePVector;
import underbaton.core.midi.Message;

/**
 * Finds out whether what a relay says comes back to it, by trying it. That something comes often, or regularly, proves
 * nothing: a fader does that, and a machine that plays in time. So when signals have come a few times at the same distance
 * behind what was said, the relay is made to wait: what depends on it waits too, what does not comes all the same.
 *
 * <p>Where signals are dense and a round would be short, all is kept back for a round: silence, twice, and the signal again after that, is a loop. Where they
 * are not, each is kept back by a few hundredths of a second, another time each time: a loop comes so much later, three times,
 * and nobody else does. What was kept back is said in any case unless it is a loop. Immutable; times are ns by the clock of the
 * events.
 *
 * @param said when the relay has said something, the newest last
 * @param laps distances at which signals came behind what was said
 * @param trial what is being tried
 * @param quietUntil nothing is suspected before that
 * @param cleared how often in a row it was no loop
 * @param lately how much was said, for storms that no trial could follow
 */
public record Rounds(
        PVector<PassedOn> said, List<Lap> laps, Optional<Trial> trial, long quietUntil, int cleared, Repeats lately) {

    public static final Rounds NONE =
            new Rounds(TreePVector.empty(), List.of(), Optional.empty(), Long.MIN_VALUE, 0, Repeats.NONE);

    private static final long MS = 1_000_000;
    private static final long SECOND = 1_000 * MS;

    /** A round that takes longer is not looked for. */
    private static final long LONGEST = 5 * SECOND;

    private static final int MOST_SAID = 8;
    private static final int MOST_LAPS = 16;
    private static final int SUSPICIOUS = 12;
    /** Signals nearer to each other than this cannot be told apart by how late they come. */
    private static final long DENSE = 60 * MS;

    private static final int SILENCES = 2;
    private static final int LATENESSES = 3;
    /** In per cent of the least: so that what comes regularly cannot come late by chance. */
    private static final int[] VARIED = {100, 170, 130};

    private static final long FIRST_PAUSE = 5 * SECOND;
    private static final long LONGEST_PAUSE = 300 * SECOND;
    /** So much a second neither a hand nor a machine has to say through one relay; where each answer brings two, it is soon said. */
    private static final int MOST_IN_A_SECOND = 1_000;

    private static final int MOST_OF_THE_SAME = 60;

    /** Something was said. @param late whether it had been kept back by a little */
    public record PassedOn(long nanos, boolean late) {}

    /** @param count how often a signal came so long behind something that was said */
    record Lap(long nanos, int count) {

        /** How far off it may be: what goes over networks does not come to the millisecond. */
        long tolerance() {
            return Math.max(6 * MS, Math.min(20 * MS, nanos / 50));
        }
    }

    /**
     * @param lap the round that is supposed
     * @param silent whether all is kept back; or else each by a little
     * @param proofs that it is a loop, so far
     * @param since when the keeping back began; only of a silent one that keeps back
     */
    public record Trial(long lap, boolean silent, int proofs, Optional<Long> since) {

        private long tolerance() {
            return new Lap(lap, 0).tolerance();
        }

        private long leastLateness() {
            return Math.max(25 * MS, Math.min(60 * MS, lap / 25));
        }

        private long lateness() {
            return leastLateness() * VARIED[proofs % VARIED.length] / 100;
        }
    }

    /** What is to be done with a signal. */
    public enum Verdict {
        /** It is passed on, after what was kept back. */
        PASS,
        /** It is kept back, until {@link #dueNanos}. */
        KEEP,
        /** It has come round: it is not passed on, nor what was kept back. */
        STOP
    }

    /** @param next what is known afterwards */
    public record Judged(Verdict verdict, Rounds next) {}

    /** A signal has come that the relay would pass on. */
    public Judged hears(long now) {
        if (trial.isPresent()) {
            return trial.get().silent ? inSilence(trial.get(), now) : lately(trial.get(), now);
        }
        if (now < quietUntil) {
            return pass();
        }
        Rounds next = measured(now);
        boolean dense = isDense(now);
        return next.laps.stream()
                .filter(l -> l.count >= SUSPICIOUS && (!dense || l.nanos <= DENSE))
                .min(Comparator.comparingLong(Lap::nanos))
                .map(lap -> next.tries(lap.nanos, dense, now))
                .orElseGet(() -> new Judged(Verdict.PASS, next));
    }

    private Judged pass() {
        return new Judged(Verdict.PASS, this);
    }

    private boolean isDense(long now) {
        return !said.isEmpty() && now - said.get(0).nanos < said.size() * DENSE;
    }

    private Judged tries(long lap, boolean dense, long now) {
        return new Judged(Verdict.KEEP, trying(new Trial(lap, dense, 0, dense ? Optional.of(now) : Optional.empty())));
    }

    private Rounds trying(Trial next) {
        return new Rounds(said, laps, Optional.of(next), quietUntil, cleared, lately);
    }

    /** While all is kept back, nothing may come but what was said before. */
    private Judged inSilence(Trial t, long now) {
        if (t.since.isPresent()) {
            boolean mayBeOurs = now <= t.since.get() + t.lap + t.tolerance();
            return mayBeOurs ? new Judged(Verdict.KEEP, this) : noLoop(now);
        }
        return follows(now, t.lap, t.tolerance(), true)
                ? new Judged(Verdict.KEEP, trying(new Trial(t.lap, true, t.proofs, Optional.of(now))))
                : noLoop(now);
    }

    /** While each is kept back a little, each must come so much later. */
    private Judged lately(Trial t, long now) {
        long tolerance = t.leastLateness() / 3;
        if (follows(now, t.lap, tolerance, true)) {
            int proofs = t.proofs + 1;
            return proofs == LATENESSES
                    ? new Judged(Verdict.STOP, NONE)
                    : new Judged(Verdict.KEEP, trying(new Trial(t.lap, false, proofs, Optional.empty())));
        }
        return follows(now, t.lap, t.tolerance(), false) ? new Judged(Verdict.KEEP, this) : noLoop(now);
    }

    /** Whether something comes so long behind what was said. */
    private boolean follows(long now, long lap, long tolerance, boolean late) {
        return said.stream().anyMatch(s -> s.late == late && Math.abs(now - s.nanos - lap) <= tolerance);
    }

    private Judged noLoop(long now) {
        long pause = Math.min(LONGEST_PAUSE, FIRST_PAUSE << Math.min(cleared, 6));
        return new Judged(
                Verdict.PASS,
                new Rounds(TreePVector.empty(), List.of(), Optional.empty(), now + pause, cleared + 1, lately));
    }

    private Rounds measured(long now) {
        List<Lap> next = new ArrayList<>();
        for (Lap lap : laps) {
            Optional<Long> seen = said.stream()
                    .map(s -> now - s.nanos)
                    .filter(d -> Math.abs(d - lap.nanos) <= lap.tolerance())
                    .findFirst();
            if (seen.isPresent()) {
                next.add(new Lap((lap.nanos * lap.count + seen.get()) / (lap.count + 1), lap.count + 1));
            } else if (lap.count > 2) {
                next.add(new Lap(lap.nanos, lap.count - 2));
            }
        }
        for (int i = said.size() - 1; i >= 0 && next.size() < MOST_LAPS; i--) {
            long lap = now - said.get(i).nanos;
            if (lap <= LONGEST && next.stream().noneMatch(l -> Math.abs(l.nanos - lap) <= l.tolerance())) {
                next.add(new Lap(lap, 1));
            }
        }
        return new Rounds(said, List.copyOf(next), trial, quietUntil, cleared, lately);
    }

    /** The relay has said something. @param message the first of it */
    public Rounds says(Message message, long now) {
        boolean idle = !said.isEmpty() && now - said.get(said.size() - 1).nanos > 2 * LONGEST;
        boolean atOnce = !said.isEmpty() && now - said.get(said.size() - 1).nanos < MS;
        PVector<PassedOn> times = idle ? TreePVector.empty() : said;
        times = times.size() < MOST_SAID || atOnce ? times : times.minus(0);
        return new Rounds(
                atOnce ? times : times.plus(new PassedOn(now, trial.isPresent())),
                idle ? List.of() : laps,
                trial,
                quietUntil,
                idle ? 0 : cleared,
                lately.with(message, now));
    }

    /** Whether something was said at a moment or after it. */
    public boolean saidSince(long nanos) {
        return !said.isEmpty() && said.get(said.size() - 1).nanos >= nanos;
    }

    /** Whether more was said in the last second than anybody has to say. */
    public boolean floods() {
        return lately.all() > MOST_IN_A_SECOND || lately.exceed(MOST_OF_THE_SAME);
    }

    /**
     * When what is kept back is to be said.
     *
     * @param keptSince when the first of it was kept back
     */
    public long dueNanos(long keptSince) {
        if (trial.isEmpty()) {
            return keptSince;
        }
        Trial t = trial.get();
        return t.silent ? t.since.orElse(keptSince) + 2 * (t.lap + t.tolerance()) : keptSince + t.lateness();
    }

    /** That moment has come: it is said, or it was silent a second time, and all that is left to prove is that it comes again. */
    public Judged due() {
        if (trial.isEmpty() || !trial.get().silent) {
            return pass();
        }
        Trial t = trial.get();
        int proofs = t.proofs + 1;
        return proofs == SILENCES
                ? new Judged(Verdict.STOP, NONE)
                : new Judged(Verdict.PASS, trying(new Trial(t.lap, true, proofs, Optional.empty())));
    }
}
