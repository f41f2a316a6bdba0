package underbaton.core.engine;

/**
 * Why something is sent.
 *
 * @param words {@code cue 12}, {@code cue 12 in C}, {@code stop all}
 * @param cueId the cue that causes it; 0 for none
 * @param sinceCueId the cue whose GO its times count from; 0 for where the item began
 * @param sinceNanos the moment of that
 * @param mends whether it makes a machine right: what is still to come of it is taken back by whatever makes it right anew
 */
public record Cause(String words, int cueId, int sinceCueId, long sinceNanos, boolean mends) {

    Cause(String words, int cueId, int sinceCueId, long sinceNanos) {
        this(words, cueId, sinceCueId, sinceNanos, false);
    }

    static Cause catchUp(long atNanos) {
        return new Cause("catch-up", 0, 0, atNanos, true);
    }

    /** The label of the cue, {@code 12 in C}; empty for none. */
    String cue() {
        return cueId == 0 ? "" : words.substring(4);
    }

    /** Of something that stands outside the running order. */
    public static Cause outside(String words, long atNanos) {
        return new Cause(words, 0, 0, atNanos);
    }

    Cause then(String phrase) {
        return new Cause(words + ", then " + phrase, cueId, sinceCueId, sinceNanos, mends);
    }

    Cause shifted(long nanos) {
        return new Cause(words, cueId, sinceCueId, sinceNanos + nanos, mends);
    }
}
