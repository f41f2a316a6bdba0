package underbaton.core.rig;

/**
 * What is done with a machine when nobody knows how it stands, when all must stop, or when it is told several things in one instant.
 *
 * @param safePhrase the name of the phrase that is called after everything on it was stopped; empty for none
 * @param asTyped whether it gets what stands first in a cell first; otherwise its programs, then controls, then notes, from whichever cue
 *     they come
 */
public record Precautions(String safePhrase, UntoldFade untoldFade, boolean asTyped) {

    public static final Precautions NONE = new Precautions("", UntoldFade.AT_ONCE, false);

    /** The same with another phrase that is safe to send at the line check; empty for none. */
    public Precautions withSafePhrase(String name) {
        return new Precautions(name, untoldFade, asTyped);
    }

    /** Where a fade begins on a control of which neither the machine's told state nor the book knows where it stands. */
    public enum UntoldFade {
        /** Nowhere: it is at its amount at once, since any guess could be a jump the other way first. */
        AT_ONCE("is at its amount at once"),
        FROM_LOWEST("begins at the lowest"),
        FROM_HIGHEST("begins at the highest");

        private final String words;

        UntoldFade(String words) {
            this.words = words;
        }

        /** {@code begins at the lowest}. */
        public String words() {
            return words;
        }
    }
}
