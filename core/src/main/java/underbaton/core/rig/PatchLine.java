package underbaton.core.rig;

import java.util.Collections;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;

/**
 * One line of a patch set, from an input to an output, and what passes on it.
 *
 * @param from the machine that is played
 * @param fromChannel 0–15; empty for whatever channel it plays on
 * @param to the machine that is reached
 * @param toChannel 0–15; empty for the channel on which it came
 * @param kinds what passes, at least one
 * @param notes which notes pass, before they are transposed
 * @param velocities which velocities of struck notes pass; softest 1
 * @param controls which controllers pass
 * @param programs which programs pass
 * @param transpose semitones, −60 to 60; what would leave MIDI's range does not pass
 */
public record PatchLine(
        int from,
        OptionalInt fromChannel,
        int to,
        OptionalInt toChannel,
        Set<PatchKind> kinds,
        PatchRange notes,
        PatchRange velocities,
        PatchRange controls,
        PatchRange programs,
        int transpose) {

    private static final int FURTHEST = 60;

    public static final PatchRange ALL_VELOCITIES = new PatchRange(1, 127);

    public PatchLine {
        if (from <= 0 || to <= 0) {
            throw new Refusal("line", "A line goes from one machine of the rig to another, or to the same.");
        }
        requireChannel("from channel", fromChannel);
        requireChannel("to channel", toChannel);
        // In one order, so that equal lines are equal files.
        kinds = Collections.unmodifiableSet(new TreeSet<>(kinds));
        if (kinds.isEmpty()) {
            throw new Refusal("kinds", "Choose at least one kind of message that passes.");
        }
        if (velocities.from() < 1) {
            throw new Refusal("velocity", "The softest velocity is 1; 0 is a note let go.");
        }
        if (Math.abs(transpose) > FURTHEST) {
            throw new Refusal("transpose", "A line is transposed by at most 60 semitones, up or down.");
        }
    }

    /** A line on which all that is played passes as it comes. */
    public static PatchLine open(int from, int to) {
        return new PatchLine(
                from,
                OptionalInt.empty(),
                to,
                OptionalInt.empty(),
                PatchKind.PLAYED,
                PatchRange.ALL,
                ALL_VELOCITIES,
                PatchRange.ALL,
                PatchRange.ALL,
                0);
    }

    private static void requireChannel(String field, OptionalInt channel) {
        if (channel.isPresent() && (channel.getAsInt() < 0 || channel.getAsInt() > 15)) {
            throw new Refusal(field, "A MIDI channel is 1 to 16; choose one of these, or any.");
        }
    }

    /** The same line between other machines. */
    public PatchLine between(int newFrom, int newTo) {
        return new PatchLine(
                newFrom, fromChannel, newTo, toChannel, kinds, notes, velocities, controls, programs, transpose);
    }

    /** Whether all that is played passes as it comes, on whatever channel. */
    public boolean isOpen() {
        return equals(open(from, to));
    }

    /**
     * What comes out of the line when something is played into it; empty where it does not pass.
     *
     * @param machine that played it
     */
    public Optional<ChannelMessage> carried(int machine, Message message) {
        if (machine != from
                || !(message instanceof ChannelMessage played)
                || fromChannel.isPresent() && fromChannel.getAsInt() != played.channel()
                || PatchKind.of(message).filter(kinds::contains).isEmpty()) {
            return Optional.empty();
        }
        return filtered(played, toChannel.orElse(played.channel()));
    }

    /** Whether a message that belongs to no channel passes, as it is; never to the machine that said it, which would hear itself. */
    public boolean passes(int machine, Message message) {
        return machine == from
                && to != from
                && !(message instanceof ChannelMessage)
                && PatchKind.of(message).filter(kinds::contains).isPresent();
    }

    private Optional<ChannelMessage> filtered(ChannelMessage played, int channel) {
        if (played instanceof NoteOn on && on.velocity() > 0) {
            return velocities.has(on.velocity())
                    ? moved(on.note()).map(n -> new NoteOn(channel, n, on.velocity()))
                    : Optional.empty();
        }
        if (played instanceof NoteOn off) {
            return moved(off.note()).map(n -> new NoteOn(channel, n, 0));
        }
        if (played instanceof NoteOff off) {
            return moved(off.note()).map(n -> new NoteOff(channel, n, off.velocity()));
        }
        if (played instanceof PolyPressure pressure) {
            return moved(pressure.note()).map(n -> new PolyPressure(channel, n, pressure.pressure()));
        }
        boolean passes = true;
        if (played instanceof ControlChange control) {
            passes = PatchKind.isBank(control.controller()) || controls.has(control.controller());
        } else if (played instanceof ProgramChange program) {
            passes = programs.has(program.program());
        } else if (played instanceof BankProgram program) {
            passes = programs.has(program.program());
        }
        return passes ? Optional.of(onChannel(played, channel)) : Optional.empty();
    }

    private static ChannelMessage onChannel(ChannelMessage played, int channel) {
        return played.channel() == channel ? played : played.onChannel(channel);
    }

    private Optional<Integer> moved(int note) {
        int to = note + transpose;
        return notes.has(note) && PatchRange.ALL.has(to) ? Optional.of(to) : Optional.empty();
    }
}
