package underbaton.core.engine;

import java.util.List;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;

/**
 * What an event comes to.
 *
 * @param messages in the order of their moments; they are due at the event or were due before it
 * @param happenings in the order of their moments
 * @param wakeNanos when something comes by itself next, by the clock of the events; {@code Long.MAX_VALUE} for never
 */
public record Step(PlaybackState next, List<ScheduledMessage> messages, List<Happening> happenings, long wakeNanos) {}
