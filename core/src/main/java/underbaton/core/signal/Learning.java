package underbaton.core.signal;

import java.util.List;
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
import underbaton.core.rig.Refusal;

/** Makes a pattern of something that was touched. */
public final class Learning {

    /** Any program of any bank. */
    public static final Pattern ANY_PROGRAM = new Pattern.Program(-1, 0, 127);

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
}
