package underbaton.core.perform;

import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;

/** A way out to one device. */
public interface Outlet {

    /**
     * Gives a message to the wire, now. Called from one thread at a time; never throws.
     *
     * @return what was given to the wire, or why nothing was
     */
    Outcome send(Message message);

    /** Whether {@link #send} never waits for anybody, so that whoever has a message may send it himself. */
    default boolean isPrompt() {
        return false;
    }

    /** How sending went. */
    sealed interface Outcome {}

    /** @param bytes as they stand on the wire, without the packet around them */
    record Sent(Bytes bytes) implements Outcome {}

    /** @param reason in words a technician can act on */
    record NotSent(String reason) implements Outcome {}
}
