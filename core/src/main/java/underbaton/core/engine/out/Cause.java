package underbaton.core.engine.out;

/**
 * Why something is sent, and whose it is.
 *
 * @param words {@code cue 12}, {@code cue 12 in C}, {@code stop all}
 * @param cueId the cue that causes it; 0 for none
 * @param sinceCueId the cue whose GO its times count from; 0 for where the item began
 * @param sinceNanos the moment of that
 * @param owner who may take back what is still to come of it
 */
public record Cause(String words, int cueId, int sinceCueId, long sinceNanos, Owner owner) {

    /** Whose something is that has been called and has not yet left. */
    public enum Owner {
        /** A cue of the book: a hold keeps it, and going on takes it up again. */
        CUE,
        /** What makes a machine right: whatever makes it right anew takes it back. */
        CATCH_UP,
        /** Somebody's hand, or a relay: nobody takes it back but stop all. */
        HAND
    }

    private static final String CUE_WORD = "cue ";

    /** @param label of the cue, with the letter of its copy: {@code 12 in C} */
    public static Cause cue(String label, int cueId, int sinceCueId, long sinceNanos) {
        return new Cause(CUE_WORD + label, cueId, sinceCueId, sinceNanos, Owner.CUE);
    }

    /** What makes machines right, from an order at this moment, ns. */
    public static Cause catchUp(long atNanos) {
        return new Cause("catch-up", 0, 0, atNanos, Owner.CATCH_UP);
    }

    /** Of something that stands outside the running order. */
    public static Cause outside(String words, long atNanos) {
        return new Cause(words, 0, 0, atNanos, Owner.HAND);
    }

    /** Whether it brings about what the book has said already. */
    public boolean mends() {
        return owner == Owner.CATCH_UP;
    }

    /** The label of the cue, {@code 12 in C}; empty for none. */
    public String cue() {
        return cueId == 0 ? "" : words.substring(CUE_WORD.length());
    }

    /** Of the phrase that follows it by itself. */
    public Cause then(String phrase) {
        return new Cause(words + ", then " + phrase, cueId, sinceCueId, sinceNanos, owner);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Cause shifted(long nanos) {
        return new Cause(words, cueId, sinceCueId, sinceNanos + nanos, owner);
    }
}
