package underbaton.core.perform;

import underbaton.core.midi.Message;

/**
 * One message on its way to one device.
 *
 * @param dueNanos when it should leave, by the performer's clock
 * @param cause what made us send it, in words: {@code cue 32}
 */
public record Sending(int deviceId, Message message, long dueNanos, String cause) {}
