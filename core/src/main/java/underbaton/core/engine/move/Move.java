package underbaton.core.engine.move;

import java.util.Optional;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.FadeCurve;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedMotion;

/**
 * A control under way.
 *
 * @param began by the clock of the events, ns
 * @param next the step that comes, counted from where the move began; empty when no further one comes
 * @param said the place that the control was told last, as {@link FadeCurve#placeOf} counts; below 0 when nothing is known to have been told
 * @param cause of its steps
 */
public record Move(
        PlannedMotion motion, FadeCurve curve, long began, Optional<FadeCurve.Step> next, int said, Cause cause) {

    /** What a control was told last. @param move null where it is not under way @param rest where it stands or will end @return null for nothing */
    public static Level told(Move move, Level rest, long nanos) {
        return move == null ? rest : move.toldAt(nanos).orElse(null);
    }

    /** Where the control is in the end. */
    public Level restsAt() {
        return motion.level(curve.restsAt());
    }

    /** When the next step leaves; far away when none does. */
    public long nextNanos() {
        return next.map(s -> began + s.atNanos()).orElse(StepContext.NEVER);
    }

    /** When it is over; far away for a wave without an end. */
    public long endNanos() {
        return motion.lastsNanos() > 0 ? began + motion.lastsNanos() : StepContext.NEVER;
    }

    /** Whether it goes on until something else takes its control. */
    public boolean isEndless() {
        return motion.lastsNanos() == 0;
    }

    /** Where the control is at a moment. */
    public Level at(long nanos) {
        return motion.level(curve.exactAt(Math.max(0, nanos - began)));
    }

    /** Where the control is as far as it was told; empty when it was told nothing. */
    public Optional<Level> toldAt(long nanos) {
        if (said < 0) {
            return Optional.empty();
        }
        Level exact = at(nanos);
        return Optional.of(curve.placeOf(exact.exact()) == said ? exact : exact.at(curve.exactOf(said)));
    }

    /** What the control was told last, as another curve of it counts. */
    public int saidOn(FadeCurve other) {
        return said < 0 ? said : other.placeOf(curve.exactOf(said));
    }

    /** With its next step taken, and a look at the control each so many ns from then on. */
    public Move stepped(long gapNanos) {
        FadeCurve.Step step = next.orElseThrow();
        return new Move(motion, curve, began, curve.next(step.atNanos(), step.place(), gapNanos), step.place(), cause);
    }

    /** It goes on from a moment of it at which a value has been sent, 0–127 on the wire's scale. */
    public Move from(long sinceNanos, double exact, long gapNanos, Cause newCause) {
        int place = curve.placeOf(exact);
        return new Move(motion, curve, began, curve.next(sinceNanos, place, gapNanos), place, newCause);
    }

    /** It goes on, and nothing is sent of it. */
    public Move silent() {
        return new Move(motion, curve, began, Optional.empty(), said, cause);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Move shifted(long nanos) {
        return new Move(motion, curve, began + nanos, next, said, cause.shifted(nanos));
    }
}
