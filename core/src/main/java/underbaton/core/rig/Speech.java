package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;

/**
 * What a phrase says: its messages in order, and, where one phrase has two states, what it says to switch off.
 *
 * @param on what it says; for a phrase with one state all there is
 * @param off empty for a phrase with one state
 */
public record Speech(List<Utterance> on, List<Utterance> off) {

    private static final int MOST = 32;

    public Speech {
        on = List.copyOf(on);
        off = List.copyOf(off);
        if (on.isEmpty()) {
            throw new Refusal("says", "A phrase sends at least one message, such as: note 28");
        }
        if (on.size() > MOST || off.size() > MOST) {
            throw new Refusal("says", "A phrase sends at most " + MOST + " messages; split it into two.");
        }
    }

    /** Plain messages, one right after the other. */
    public static Speech of(List<? extends Message> messages) {
        return new Speech(messages.stream().map(m -> Utterance.of(m)).toList(), List.of());
    }

    /** One message, without another state. */
    public static Speech of(Message message) {
        return of(List.of(message));
    }

    /** Whether it says one thing for on and another for off. */
    public boolean hasTwoStates() {
        return !off.isEmpty();
    }

    /** Whether a call has to fill a blank in it. */
    public boolean isOpen() {
        return all().anyMatch(Utterance::open);
    }

    /** What it says for on, then what it says for off. */
    public Stream<Utterance> all() {
        return Stream.concat(on.stream(), off.stream());
    }

    /** All messages as they stand here, blanks with any value. */
    public List<Message> messages() {
        return all().map(Utterance::message).toList();
    }

    /**
     * A message and its time.
     *
     * @param atMs since the call, ms
     */
    public record Timed(int atMs, Message message) {}

    /**
     * The messages with their times, and the ends of notes that end by themselves; in the order of their times.
     *
     * @param filled puts the amount into an open message
     */
    public List<Timed> timed(boolean wantsOff, UnaryOperator<Message> filled) {
        List<Timed> timed = new ArrayList<>();
        int at = 0;
        for (Utterance u : wantsOff ? off : on) {
            at += u.afterMs();
            Message message = u.open() ? filled.apply(u.message()) : u.message();
            timed.add(new Timed(at, message));
            if (u.forMs() > 0 && message instanceof NoteOn note) {
                timed.add(new Timed(at + u.forMs(), new NoteOff(note.channel(), note.note(), 0)));
            }
        }
        timed.sort((a, b) -> Integer.compare(a.atMs, b.atMs));
        return timed;
    }
}
