package underbaton.core.perform;

import java.util.List;
import underbaton.core.engine.out.ScheduledMessage;

/** Where a performer's messages go. Called on the performer's thread alone; must return at once. */
public interface Outbox {

    /** Takes a message that leaves when it is due, and those due before it first. */
    void send(ScheduledMessage message);

    /** Takes a message that is due now and sends it on the caller's own thread where nobody has to be waited for. */
    default void sendAtOnce(ScheduledMessage message) {
        send(message);
    }

    /**
     * Takes back what was brought forth behind a moment and has not left.
     *
     * @param afterNanos a moment of the playing: {@link ScheduledMessage#bornNanos} of what is taken back lies behind it
     */
    Withdrawn withdraw(long afterNanos);

    /**
     * What was taken back.
     *
     * @param leftNanos the latest moment that brought forth something which has left already; {@code Long.MIN_VALUE} for none
     */
    record Withdrawn(List<ScheduledMessage> messages, long leftNanos) {

        public static final Withdrawn NOTHING = new Withdrawn(List.of(), Long.MIN_VALUE);
    }
}
