package underbaton.core.plan;

import java.util.Optional;
import java.util.OptionalDouble;
import underbaton.core.cue.Motion;
import underbaton.core.midi.Message;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Levels;

/**
 * A motion with everything that is needed to make it, but for where the control will stand when it begins.
 *
 * @param open the message whose blank is filled on the way, on the device's own channel
 * @param target in the unit of the argument
 * @param lastsNanos 0 for a wave without an end
 * @param periodNanos of a wave, else 0
 * @param then what is called at the end
 */
public record PlannedMotion(
        Control control,
        Motion motion,
        Argument argument,
        Levels levels,
        Message open,
        double target,
        long lastsNanos,
        long periodNanos,
        Optional<PlannedCall> then) {

    /** A move that lasts no time comes to its end at once; only waves have none. */
    public PlannedMotion {
        lastsNanos = motion instanceof Motion.Move ? Math.max(1, lastsNanos) : lastsNanos;
    }

    /**
     * @param exact where the control stands, 0–127; a move from nobody knows where is at its amount at once, since a guess
     *     could be a jump the other way first
     */
    public FadeCurve from(OptionalDouble exact) {
        return new FadeCurve(this, exact.orElseGet(() -> argument.exact(target, levels)));
    }

    /** Where the control stands at a moment of it, and how it is told so. @param exact 0–127 */
    public Level level(double exact) {
        return new Level(exact, open, Optional.of(argument), levels, false);
    }
}
