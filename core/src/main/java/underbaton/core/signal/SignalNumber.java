package underbaton.core.signal;

import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SystemCommon.SongSelect;
import underbaton.core.rig.Numbering;

/** The number that comes with a signal. */
public final class SignalNumber {

    /** MIDI 1.0: the controller so much above one of the first 32 says its lower seven bits. */
    public static final int LOWER_HALF = 32;

    private SignalNumber() {}

    /**
     * The number by which something is called, as its machine prints it: a program, a song, show control's cue, the first
     * argument of an OSC message.
     *
     * @return empty where none came with it
     */
    public static Optional<String> name(Message message, Numbering numbering) {
        OptionalInt program = program(message);
        if (program.isPresent()) {
            return Optional.of(Integer.toString(numbering.counted(program.getAsInt())));
        }
        if (message instanceof SongSelect song) {
            return Optional.of(Integer.toString(song.song()));
        }
        if (message instanceof ShowControl said) {
            return said.cue().isEmpty() ? Optional.empty() : Optional.of(said.cue());
        }
        return message instanceof OscMessage osc && !osc.arguments().isEmpty()
                ? Optional.of(OscMessage.plain(osc.arguments().get(0)))
                : Optional.empty();
    }

    /**
     * How much was said: a velocity, a value, a pressure (0–127 as on the wire), a bend (−8,192 to 8,191), an argument of an OSC
     * message; where a signal has no such thing, the number of {@link #name}.
     *
     * @param place of the OSC argument, from 0
     */
    public static OptionalDouble amount(Message message, Numbering numbering, int place) {
        if (message instanceof NoteOn note) {
            return OptionalDouble.of(note.velocity());
        } else if (message instanceof NoteOff) {
            return OptionalDouble.of(0);
        } else if (message instanceof ControlChange change) {
            return OptionalDouble.of(change.value());
        } else if (message instanceof ChannelPressure pressure) {
            return OptionalDouble.of(pressure.pressure());
        } else if (message instanceof PolyPressure pressure) {
            return OptionalDouble.of(pressure.pressure());
        } else if (message instanceof PitchBend bend) {
            return OptionalDouble.of(bend.bend() - PitchBend.CENTRE);
        } else if (message instanceof OscMessage osc) {
            return place < osc.arguments().size()
                    ? Condition.number(osc.arguments().get(place))
                    : OptionalDouble.empty();
        }
        return name(message, numbering).map(Condition::number).orElse(OptionalDouble.empty());
    }

    /** The value of a message that levels something: of OSC its last argument. */
    public static OptionalDouble last(Message message) {
        int place =
                message instanceof OscMessage osc ? Math.max(0, osc.arguments().size() - 1) : 0;
        return amount(message, Numbering.WIRE, place);
    }

    /** A number as text, as far as it is one. */
    public static OptionalDouble read(String name) {
        return Condition.number(name);
    }

    private static OptionalInt program(Message message) {
        if (message instanceof ProgramChange change) {
            return OptionalInt.of(change.program());
        }
        return message instanceof BankProgram banked ? OptionalInt.of(banked.program()) : OptionalInt.empty();
    }
}
