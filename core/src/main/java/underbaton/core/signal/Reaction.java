package underbaton.core.signal;

import underbaton.core.rig.Refusal;

/** What we do when a signal comes that a listener listens for. */
public sealed interface Reaction {

    /** An order of the Desk. */
    record Give(Deed deed) implements Reaction {}

    /** The orders that need to know nothing else. */
    enum Deed {
        GO("GO"),
        BACK("standby back"),
        NEXT("standby on"),
        PAUSE("pause, or go on"),
        HOLD("hold"),
        RESUME("go on"),
        STOP_ALL("stop all"),
        RELEASE("leave the vamp");

        private final String words;

        Deed(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A cue of the book.
     *
     * @param cueId 0 for the cue whose number comes with the signal: a program as its machine prints it, a song, the first argument
     *     of an OSC message, the cue of show control
     * @param offset added to a number that comes with it
     * @param fires whether it is fired, or stands by
     */
    record ToCue(int cueId, int offset, boolean fires) implements Reaction {}

    /**
     * An item.
     *
     * @param itemId 0 for the n-th of the running order, n coming with the signal
     * @param offset added to a number that comes with it
     */
    record Play(int itemId, int offset) implements Reaction {}

    /** A phrase of a machine, with the amount that it has when nobody says another. */
    record Fire(int deviceId, int phraseId) implements Reaction {}

    /** Another listener listens, or does so no longer. */
    record Arm(int listenerId, boolean listens) implements Reaction {

        public Arm {
            if (listenerId == 0) {
                throw new Refusal("listener", "Choose the listener that is armed or disarmed.");
            }
        }
    }

    /** It is passed on, translated: such a listener is a relay. */
    record PassOn(Passage passage) implements Reaction {}
}
