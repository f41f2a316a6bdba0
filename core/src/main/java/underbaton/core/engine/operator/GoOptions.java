package underbaton.core.engine.operator;

/**
 * How GO behaves; the operator's choice.
 *
 * @param asks whether a GO that leaves timed cues of the song unplayed wants a second press
 * @param sendsSkipped whether those cues are all sent, one after the other, or only what they leave behind
 * @param againNanos within this time of the last GO another one wants a second press; 0 for never
 * @param keepsPace whether a tempo of the day holds for the next items too, or for its own alone
 */
public record GoOptions(boolean asks, boolean sendsSkipped, long againNanos, boolean keepsPace) {

    /** Every GO is carried out, and everything is sent. */
    public static final GoOptions PLAIN = new GoOptions(false, true, 0, false);

    /** As a show begins: two keys in a hurry do no harm, and nobody sees five cues flash by. */
    public static final GoOptions CAREFUL = new GoOptions(true, false, 300_000_000L, false);

    /** How long the second press is waited for. */
    public static final long PATIENCE_NANOS = 2_000_000_000L;
}
