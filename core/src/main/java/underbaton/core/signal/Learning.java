package underbaton.core.signal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SystemCommon.SongSelect;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Refusal;

/** Makes a pattern of something that was touched, and the other way round. */
public final class Learning {

    /** Any program of any bank. */
    public static final Pattern ANY_PROGRAM = new Pattern.Program(-1, 0, 127);

    /** The device id of show control and machine control that all obey. */
    private static final int EVERYONE = 0x7F;

    private static final TimeCode START = new TimeCode(TimeCode.Rate.PAL_25, 0, 0, 0, 0);

    private Learning() {}

    /**
     * The pattern of a whole gesture: a pad however hard it is struck, a pedal pressed.
     *
     * @param whole whether all amounts of a control are meant, and all programs, as a relay passes them on
     * @throws Refusal when no listener listens for such a message
     */
    public static Pattern pattern(Message touched, boolean whole) {
        if (touched instanceof NoteOn note) {
            return Pattern.Note.struck(note.note());
        } else if (touched instanceof NoteOff note) {
            return Pattern.Note.struck(note.note());
        } else if (touched instanceof ControlChange c) {
            return whole
                    ? new Pattern.Controller(c.controller(), Pattern.Way.WITHIN, 0, 127)
                    : Pattern.Controller.pressed(c.controller());
        } else if (touched instanceof ProgramChange p) {
            return whole ? ANY_PROGRAM : new Pattern.Program(-1, p.program(), p.program());
        } else if (touched instanceof BankProgram p) {
            return whole ? ANY_PROGRAM : new Pattern.Program(p.bank(), p.program(), p.program());
        } else if (touched instanceof PitchBend) {
            return new Pattern.Bend(whole ? -PitchBend.CENTRE : 1, PitchBend.CENTRE - 1);
        } else if (touched instanceof ShowControl c) {
            return new Pattern.Show(c.command(), c.list(), c.cue());
        } else if (touched instanceof MachineControl c) {
            return new Pattern.Machine(c.command());
        } else if (touched instanceof SongSelect s) {
            return whole ? new Pattern.Song(0, 127) : new Pattern.Song(s.song(), s.song());
        } else if (touched instanceof OscMessage o) {
            return new Pattern.Osc(o.address(), List.of());
        } else if (touched == RealTime.START || touched == RealTime.CONTINUE || touched == RealTime.STOP) {
            return new Pattern.Transport(Pattern.Move.valueOf(((RealTime) touched).name()));
        }
        throw new Refusal("kind", "No listener can listen for that kind of message.");
    }

    /**
     * Messages that a pattern takes: each of its numbers, with a few values.
     *
     * @param channel 0–15, of those that have one
     */
    public static List<Message> examples(Pattern pattern, int channel) {
        List<Message> all = new ArrayList<>();
        if (pattern instanceof Pattern.Note note) {
            for (int n = note.from(); n <= note.to(); n++) {
                all.add(note.struck() ? new NoteOn(channel, n, note.hardest()) : new NoteOff(channel, n, 0));
            }
            all.add(new NoteOn(channel, note.from(), note.softest()));
        } else if (pattern instanceof Pattern.Controller control) {
            for (int value : new int[] {0, control.from(), (control.from() + control.to()) / 2, control.to()}) {
                all.add(new ControlChange(channel, control.controller(), value));
            }
        } else if (pattern instanceof Pattern.Program program) {
            for (int n = program.from(); n <= program.to(); n++) {
                all.add(new ProgramChange(channel, n));
            }
        } else if (pattern instanceof Pattern.Bend bend) {
            all.add(new PitchBend(channel, bend.from() + PitchBend.CENTRE));
            all.add(new PitchBend(channel, bend.to() + PitchBend.CENTRE));
        } else if (pattern instanceof Pattern.Song song) {
            IntStream.rangeClosed(song.from(), song.to()).forEach(n -> all.add(new SongSelect(n)));
        } else if (pattern instanceof Pattern.Osc osc) {
            for (Object argument : new Object[] {0f, 0.5f, 1f, 127f}) {
                all.add(new OscMessage(osc.address(), List.of(argument)));
            }
        } else {
            all.addAll(commands(pattern));
        }
        return all;
    }

    private static List<Message> commands(Pattern pattern) {
        if (pattern instanceof Pattern.Transport transport) {
            return List.of(RealTime.valueOf(transport.move().name()));
        }
        if (pattern instanceof Pattern.Show show) {
            String cue = show.cue().isEmpty() ? "1" : show.cue();
            Optional<ShowControl.Time> time = show.command() == ShowControl.Command.TIMED_GO
                    ? Optional.of(new ShowControl.Time(START, 0))
                    : Optional.empty();
            return List.of(
                    new ShowControl(EVERYONE, ShowControl.ALL_TYPES, show.command(), cue, show.list(), "", time));
        }
        Pattern.Machine machine = (Pattern.Machine) pattern;
        Optional<TimeCode> start =
                machine.command() == MachineControl.Command.LOCATE ? Optional.of(START) : Optional.empty();
        return List.of(new MachineControl(EVERYONE, machine.command(), start));
    }
}
