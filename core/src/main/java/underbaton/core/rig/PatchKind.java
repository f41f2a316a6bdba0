package underbaton.core.rig;

import java.util.Optional;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;

/** What a line of a patch set lets pass or keeps back as one. */
public enum PatchKind {
    NOTES("notes"),
    /** Controls 0 to 119, but for the two halves of a bank, which belong to programs. */
    CONTROLS("controls"),
    PROGRAMS("programs"),
    BEND("bend"),
    PRESSURE("pressure");

    /** MIDI 1.0: bank select, its high and its low seven bits. */
    private static final int BANK_HIGH = 0;

    private static final int BANK_LOW = 32;

    private final String words;

    PatchKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Empty for what no line passes: mode messages, exclusive ones, clocks. */
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
        return message instanceof ChannelPressure || message instanceof PolyPressure
                ? Optional.of(PRESSURE)
                : Optional.empty();
    }

    static boolean isBank(int controller) {
        return controller == BANK_HIGH || controller == BANK_LOW;
    }
}
