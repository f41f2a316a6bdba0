package underbaton.core.engine.out;

import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import org.pcollections.PMap;
import underbaton.core.engine.device.LevelsNow;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Level;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.signal.SignalNumber;

/**
 * The only way by which a message leaves a step. A machine that is out tonight gets nothing; what shares a line of one byte after the
 * other leaves when the line is free; a control that a relay holds up gets no less than that. Not thread-safe, used once.
 */
public final class Outgoing {

    /** A byte on a line of the MIDI 1.0 electrical specification: 31,250 baud, ten bits. */
    private static final long DIN_BYTE_NANOS = 320_000;

    private final StepContext step;
    private final LevelsNow levels;
    private final Echoes echoes;
    private final long broughtBefore;
    private PMap<Connection, Long> lines;
    private HeldUp heldUp;

    /** Who wants to know what was said, since it may come back. */
    public interface Echoes {
        /** @param atNanos when it leaves, by the clock of the events */
        void said(int deviceId, Message message, long atNanos);
    }

    /** @param levels where the book has the controls */
    public Outgoing(StepContext step, WayOut before, LevelsNow levels, Echoes echoes) {
        this.step = step;
        this.levels = levels;
        this.echoes = echoes;
        this.lines = before.lines();
        this.heldUp = before.heldUp();
        this.broughtBefore = before.brought();
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public WayOut state() {
        return new WayOut(lines, heldUp, broughtBefore + step.messages().size());
    }

    /** Controls that a relay holds above what the book says, by now. */
    public HeldUp heldUp() {
        return heldUp;
    }

    /** What relays hold up from now on; nothing is sent. */
    public void holdUp(HeldUp what) {
        heldUp = what;
    }

    /**
     * @param due when it is to leave, ns by the clock of the events
     * @param wanted when it should have left
     * @param beforeStart whether that was before its item began
     */
    public void emit(int deviceId, Message message, long due, long wanted, Cause cause, boolean beforeStart) {
        if (isOut(deviceId)) {
            return;
        }
        long at = due;
        Optional<Connection> line = step.plan().slowLine(deviceId);
        if (line.isPresent() && message instanceof MidiMessage midi) {
            at = Math.max(due, lines.getOrDefault(line.get(), due));
            lines = lines.plus(line.get(), at + midi.encode().length() * DIN_BYTE_NANOS);
        }
        Message said = heldUp.isEmpty() ? message : atLeastHeldUp(deviceId, message);
        step.leaves(new ScheduledMessage(deviceId, said, at, wanted, step.now(), cause, beforeStart));
        echoes.said(deviceId, said, at);
    }

    /** At a moment, in time. */
    public void emitAt(long due, int deviceId, Message message, Cause cause) {
        emit(deviceId, message, due, due, cause, false);
    }

    /** At the moment of the step. */
    public void emit(int deviceId, Message message, Cause cause) {
        emitAt(step.now(), deviceId, message, cause);
    }

    /** Something that is played goes on at once; it is not remembered as ours, for hands play the same again. */
    public void play(int deviceId, Message message, Cause cause) {
        if (!isOut(deviceId)) {
            step.leaves(ScheduledMessage.at(step.now(), deviceId, message, cause));
        }
    }

    private boolean isOut(int deviceId) {
        return step.plan().out().devices().contains(deviceId);
    }

    private Message atLeastHeldUp(int deviceId, Message message) {
        Control control = Control.of(deviceId, message);
        Optional<Level> floor = heldUp.of(control);
        Level known = levels.get(control);
        if (floor.isEmpty() || known == null) {
            return message;
        }
        Message atFloor = known.at(floor.get().exact()).message();
        OptionalDouble least = SignalNumber.last(atFloor);
        OptionalDouble says = SignalNumber.last(message);
        return least.isPresent() && says.isPresent() && says.getAsDouble() < least.getAsDouble() ? atFloor : message;
    }

    /**
     * Relays hold up other controls from now on, or hold them otherwise; where that changes what the machine is at, it is told.
     *
     * @param book where the book has a control now; null when nobody knows
     */
    public void letDown(HeldUp left, Function<Control, Level> book, Cause cause) {
        HeldUp before = heldUp;
        heldUp = left;
        for (Control control : before.controls().keySet()) {
            Level has = book.apply(control);
            if (has == null) {
                // Nobody knows where the book would have it: it stays where it was held.
                levels.put(control, before.of(control).orElseThrow());
            } else if (left.upTo(control, has) != before.upTo(control, has)) {
                emit(control.deviceId(), has.at(left.upTo(control, has)).message(), cause);
            }
        }
    }
}
