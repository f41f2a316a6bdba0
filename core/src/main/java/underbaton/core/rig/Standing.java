package underbaton.core.rig;

import underbaton.core.midi.Message;

/**
 * Where a control of a machine stands after a scene was recalled.
 *
 * @param open a message of the control, as a phrase says it (channels count from the machine's own), with any value
 * @param exact 0–127 on the wire's scale, not rounded
 */
public record Standing(Message open, double exact) {

    private static final int HIGHEST = 127;

    public Standing {
        if (!(exact >= 0 && exact <= HIGHEST)) {
            throw new Refusal("leaves", "A level lies between 0 and " + HIGHEST + " on the wire.");
        }
    }
}
