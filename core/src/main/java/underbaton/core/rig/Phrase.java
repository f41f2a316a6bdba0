package underbaton.core.rig;

import java.util.List;
import underbaton.core.midi.Message;

/**
 * One named thing a device understands.
 *
 * @param id unique in the show
 * @param says what is sent, in order; the channels of MIDI messages count from the device's own channel
 * @param guarded so disruptive that it needs a second, deliberate act outside its own cue
 * @param listed whether it is an entry of the machine's own list, so that its place gives its number
 */
public record Phrase(int id, String name, List<Message> says, Effect effect, boolean guarded, boolean listed) {

    private static final int MOST_MESSAGES = 32;

    public Phrase {
        name = Refusal.requireName("name", name, 60);
        if (name.contains(" + ")) {
            throw new Refusal("name", "“ + ” parts two phrases in a cell; write the name without it.");
        }
        says = List.copyOf(says);
        if (says.isEmpty()) {
            throw new Refusal("says", "A phrase sends at least one message, such as: note 28");
        }
        if (says.size() > MOST_MESSAGES) {
            throw new Refusal("says", "A phrase sends at most " + MOST_MESSAGES + " messages; split it into two.");
        }
    }

    /** A phrase outside any list. */
    public Phrase(int id, String name, List<Message> says, Effect effect, boolean guarded) {
        this(id, name, says, effect, guarded, false);
    }

    public Phrase withId(int newId) {
        return new Phrase(newId, name, says, effect, guarded, listed);
    }

    Phrase listedAs(Message message) {
        return new Phrase(id, name, List.of(message), effect, guarded, true);
    }

    Phrase leftOut() {
        return new Phrase(id, name, says, effect, guarded, false);
    }
}
