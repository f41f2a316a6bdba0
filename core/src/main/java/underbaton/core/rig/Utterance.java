package underbaton.core.rig;

import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;

/**
 * One message of what a phrase says.
 *
 * @param message its channel, if it has one, counts from the device's
 * @param afterMs the gap before it, since the message before, 0–60,000 ms
 * @param forMs after how long a note is ended by itself, 0–600,000 ms; 0 for never
 * @param open whether the call's amount goes in the place of its value, or of its last OSC argument
 */
public record Utterance(Message message, int afterMs, int forMs, boolean open) {

    private static final int LONGEST_GAP_MS = 60_000;
    private static final int LONGEST_NOTE_MS = 600_000;

    public Utterance {
        if (afterMs < 0 || afterMs > LONGEST_GAP_MS) {
            throw new Refusal("says", "A gap is 0 to 60,000 ms, not " + afterMs + ".");
        }
        if (forMs < 0 || forMs > LONGEST_NOTE_MS) {
            throw new Refusal("says", "A note lasts 1 to 600,000 ms, not " + forMs + ".");
        }
        if (open && !takesAmount(message)) {
            throw new Refusal("says", "This message has no value that an amount could take the place of.");
        }
        if (forMs > 0 && !(message instanceof NoteOn)) {
            throw new Refusal("says", "Only a note is ended by itself; take “for " + forMs + " ms” away.");
        }
    }

    private static boolean takesAmount(Message message) {
        return message instanceof ChannelMessage && !(message instanceof NoteOff)
                || message instanceof OscMessage osc && !osc.arguments().isEmpty();
    }

    /** This message at once. */
    public static Utterance of(Message message) {
        return new Utterance(message, 0, 0, false);
    }
}
