package underbaton.web.stage;

import java.util.Optional;
import underbaton.core.engine.answer.Reply;

/**
 * What became of a message sent for a line check.
 *
 * @param acknowledged whether the machine showed that it has it: by the session's feedback, or an answer by OSC
 * @param roundTripMicros newest measured round trip in µs; −1 when there is none
 * @param trouble why it was not sent, or what the machine says instead of having done it; empty when all is well
 * @param said whether the machine says itself that it did it; empty for one that does not answer
 */
public record Tried(boolean sent, boolean acknowledged, long roundTripMicros, String trouble, Optional<Boolean> said) {

    Tried saying(Reply reply) {
        boolean did = reply.kind() == Reply.Kind.CONFIRMED;
        return new Tried(sent, acknowledged || did, roundTripMicros, did ? trouble : reply.words(), Optional.of(did));
    }

    /** How early the machine must be told for the way alone, in ms: half the round trip, rounded up; −1 if unknown. */
    public int suggestedLeadMs() {
        return roundTripMicros < 0 ? -1 : (int) ((roundTripMicros + 1999) / 2000);
    }
}
