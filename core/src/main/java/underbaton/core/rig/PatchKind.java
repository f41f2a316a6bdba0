package underbaton.core.rig;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.Message;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.SongPosition;
import underbaton.core.midi.SystemCommon.SongSelect;

/** What a line of a patch set lets pass or keeps back as one. */
public enum PatchKind {
    NOTES("notes"),
    /** Controls 0 to 119, but for the two halves of a bank, which belong to programs. */
    CONTROLS("controls"),
    PROGRAMS("programs"),
    BEND("bend"),
    PRESSURE("pressure"),
    /** Clock, start, stop and where in the song (MIDI 1.0, system real-time and song position). */
    CLOCK("clock"),
    EXCLUSIVE("exclusive messages");

    /** What hands and feet do; the rest passes where it is asked for. */
    public static final Set<PatchKind> PLAYED =
            Collections.unmodifiableSet(EnumSet.of(NOTES, CONTROLS, PROGRAMS, BEND, PRESSURE));

    /** MIDI 1.0: bank select, its high and its low seven bits. */
    private static final int BANK_HIGH = 0;

    private static final int BANK_LOW = 32;

    private final String words;

    PatchKind(String words) {
        this.words = words;
    }

    /** As the form offers it. */
    public String words() {
        return words;
    }

    /** Empty for what no line passes: mode messages, resets, what a line says to show that it is there, and time code. */
    public static Optional<PatchKind> of(Message message) {
        if (message instanceof NoteOn || message instanceof NoteOff) {
            return Optional.of(NOTES);
        }
        if (message instanceof ControlChange control) {
            return Controllers.isMode(control.controller())
                    ? Optional.empty()
                    : Optional.of(isBank(control.controller()) ? PROGRAMS : CONTROLS);
        }
        if (message instanceof ProgramChange || message instanceof BankProgram) {
            return Optional.of(PROGRAMS);
        }
        if (message instanceof PitchBend) {
            return Optional.of(BEND);
        }
        if (message instanceof ChannelPressure || message instanceof PolyPressure) {
            return Optional.of(PRESSURE);
        }
        if (message instanceof Exclusive) {
            return Optional.of(EXCLUSIVE);
        }
        boolean clock = message instanceof RealTime time && time != RealTime.ACTIVE_SENSING && time != RealTime.RESET
                || message instanceof SongPosition
                || message instanceof SongSelect;
        return clock ? Optional.of(CLOCK) : Optional.empty();
    }

    static boolean isBank(int controller) {
        return controller == BANK_HIGH || controller == BANK_LOW;
    }
}
