package underbaton.web.stage;

/**
 * What became of a message sent for a line check.
 *
 * @param acknowledged whether the machine showed that it has it: by the session's feedback, or an answer by OSC
 * @param roundTripMicros newest measured round trip in µs; −1 when there is none
 * @param trouble why it was not sent; empty when it was
 */
public record Tried(boolean sent, boolean acknowledged, long roundTripMicros, String trouble) {

    /** How early the machine must be told for the way alone, in ms: half the round trip, rounded up; −1 if unknown. */
    public int suggestedLeadMs() {
        return roundTripMicros < 0 ? -1 : (int) ((roundTripMicros + 1999) / 2000);
    }
}
