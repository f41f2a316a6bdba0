package underbaton.core.rig;

import java.util.List;
import java.util.Optional;
import underbaton.core.midi.Message;
import underbaton.core.rig.Argument.Unit;

/**
 * One named thing a device understands.
 *
 * @param id unique in the show
 * @param says what is sent; the channels of MIDI messages count from the device's own channel
 * @param argument what a call of it has to say besides; there is one just when its speech has a blank or two states
 * @param guarded so disruptive that it needs a second, deliberate act outside its own cue
 * @param listed whether it is an entry of the machine's own list, so that its place gives its number
 * @param patch what it loads, where the machine is our own patch bay
 * @param leaves where it leaves controls of the machine, of a scene that takes the levels along; of others nobody knows then
 * @param answer what the machine says when it has done it; empty for one that says nothing
 */
public record Phrase(
        int id,
        String name,
        Speech says,
        Optional<Argument> argument,
        Effect effect,
        boolean guarded,
        boolean listed,
        Remarks remarks,
        Optional<PatchSet> patch,
        List<Standing> leaves,
        Optional<Answer> answer) {

    private static final int MOST_LEFT = 200;

    public Phrase {
        name = requireName(name);
        argument = fitting(says, argument);
        leaves = List.copyOf(leaves);
        requireAnswerable(answer, argument);
        if (leaves.size() > MOST_LEFT) {
            throw new Refusal("leaves", "A scene can say where it leaves " + MOST_LEFT + " controls at most.");
        }
    }

    /** The name of a phrase: 1 to 60 characters, and not the signs that part phrases in a cell. */
    public static String requireName(String typed) {
        String name = Refusal.requireName("name", typed, 60);
        if (name.contains(" + ") || name.contains("→")) {
            throw new Refusal("name", "“ + ” and “→” part phrases and amounts in a cell; write the name without them.");
        }
        return name;
    }

    /** A phrase of a machine of the rig. */
    public Phrase(
            int id,
            String name,
            Speech says,
            Optional<Argument> argument,
            Effect effect,
            boolean guarded,
            boolean listed,
            Remarks remarks) {
        this(id, name, says, argument, effect, guarded, listed, remarks, Optional.empty(), List.of(), Optional.empty());
    }

    /** A phrase with no blank, outside any list. */
    public Phrase(int id, String name, List<? extends Message> says, Effect effect, boolean guarded) {
        this(id, name, Speech.of(says), Optional.empty(), effect, guarded, false, Remarks.NONE);
    }

    private static Optional<Argument> fitting(Speech says, Optional<Argument> argument) {
        if (says.hasTwoStates()) {
            return Optional.of(Argument.in(Unit.SWITCH));
        }
        if (says.isOpen()) {
            return argument.or(() -> Optional.of(Argument.in(Unit.VALUE)));
        }
        if (argument.isPresent()) {
            throw new Refusal("says", "Write a question mark where the amount goes, such as: control 7 to ?");
        }
        return argument;
    }

    private static void requireAnswerable(Optional<Answer> answer, Optional<Argument> argument) {
        boolean amount = argument.filter(a -> a.unit() != Unit.TEXT).isPresent();
        if (answer.filter(a -> a.says().open()).isPresent() && !amount) {
            throw new Refusal(
                    "answer",
                    "A question mark in an answer stands for the amount of a call, and this phrase has none.");
        }
    }

    /** The same with another answer. */
    public Phrase withAnswer(Optional<Answer> says) {
        return new Phrase(id, name, this.says, argument, effect, guarded, listed, remarks, patch, leaves, says);
    }

    /** The same under another id; 0 for one that is to be given its id. */
    public Phrase withId(int newId) {
        return new Phrase(newId, name, says, argument, effect, guarded, listed, remarks, patch, leaves, answer);
    }

    /** The same with another name. */
    public Phrase withName(String newName) {
        return new Phrase(id, newName, says, argument, effect, guarded, listed, remarks, patch, leaves, answer);
    }

    /** The same with another guarded. */
    public Phrase withGuarded(boolean nowGuarded) {
        return new Phrase(id, name, says, argument, effect, nowGuarded, listed, remarks, patch, leaves, answer);
    }

    /** The same with another effect. */
    public Phrase withEffect(Effect newEffect) {
        return new Phrase(id, name, says, argument, newEffect, guarded, listed, remarks, patch, leaves, answer);
    }

    /** The same saying this one message. */
    public Phrase withSays(Message message) {
        return new Phrase(
                id, name, Speech.of(message), argument, effect, guarded, listed, remarks, patch, leaves, answer);
    }

    Phrase withSpeech(Speech speech) {
        return new Phrase(id, name, speech, argument, effect, guarded, listed, remarks, patch, leaves, answer);
    }

    /** The same loading this patch set. */
    public Phrase withPatch(PatchSet loads) {
        return new Phrase(
                id, name, says, argument, effect, guarded, listed, remarks, Optional.of(loads), leaves, answer);
    }

    /** The same with other remarks. */
    public Phrase withRemarks(Remarks newRemarks) {
        return new Phrase(id, name, says, argument, effect, guarded, listed, newRemarks, patch, leaves, answer);
    }

    /** The same leaving the levels of its machine there. */
    public Phrase withLeaves(List<Standing> newLeaves) {
        return new Phrase(id, name, says, argument, effect, guarded, listed, remarks, patch, newLeaves, answer);
    }

    /** The phrase as an entry of the list, or no longer one. */
    Phrase inList(boolean nowListed) {
        return new Phrase(id, name, says, argument, effect, guarded, nowListed, remarks, patch, leaves, answer);
    }

    Phrase listedAs(Message message) {
        return new Phrase(
                id, name, Speech.of(message), Optional.empty(), effect, guarded, true, remarks, patch, leaves, answer);
    }
}
