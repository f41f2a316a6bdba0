package underbaton.core.engine;

import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Message;

/**
 * One message of the dry run.
 *
 * @param itemId the item in which it is sent
 * @param since id of the cue whose GO is time zero; 0 for where the item began
 * @param atNanos when it leaves, since then
 * @param cause {@code cue 12}, {@code cue 12 in C}
 * @param cueId the cue that causes it
 * @param lateNanos how long after the moment at which it should have left, because the line was busy or because that
 *     moment lay before the start; 0 for in time
 * @param beforeStart whether it should have left before the start
 */
public record PlannedMessage(
        int itemId,
        int since,
        long atNanos,
        int deviceId,
        Message message,
        String cause,
        int cueId,
        long lateNanos,
        boolean beforeStart) {

    /** @param own whether its times count from something within the item, which begins at 0 by the clock */
    static PlannedMessage of(int itemId, ScheduledMessage m, boolean own) {
        Cause cause = m.cause();
        return new PlannedMessage(
                itemId,
                own ? cause.sinceCueId() : 0,
                own ? m.dueNanos() - cause.sinceNanos() : m.dueNanos(),
                m.deviceId(),
                m.message(),
                cause.words(),
                cause.cueId(),
                m.dueNanos() - m.wantedNanos(),
                m.beforeStart());
    }
}
