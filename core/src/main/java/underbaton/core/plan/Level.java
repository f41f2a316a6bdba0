package underbaton.core.plan;

import java.util.Optional;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Levels;

/**
 * Where a control stands, and how it is told so.
 *
 * @param exact 0–127 on the wire's scale, not rounded
 * @param open a message of it with any value, on the device's own channel
 * @param argument what fills the blank, where a call of it has one
 * @param levels the device's scale
 * @param partOfSlot whether it was set along with something that is held or goes on, and belongs to that
 */
public record Level(double exact, Message open, Optional<Argument> argument, Levels levels, boolean partOfSlot) {

    /** The value on the wire, 0–127. */
    public int value() {
        return (int) Math.round(exact);
    }

    /** The same control at another level, exact, 0–127. */
    public Level at(double newExact) {
        return new Level(newExact, open, argument, levels, partOfSlot);
    }

    /** The message that sets it. */
    public Message message() {
        if (open instanceof OscMessage && argument.isPresent()) {
            double amount = argument.get().amountAt(exact, levels);
            return argument.get().fill(open, new Amount.Measure(amount), levels);
        }
        return Argument.withValue(open, value());
    }

    /** Whether a machine that was told the one stands where the other says. */
    public boolean isAlso(Level other) {
        return message().equals(other.message());
    }
}
