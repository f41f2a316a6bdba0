package underbaton.core.perform;

import java.util.ArrayList;
import java.util.List;
import underbaton.core.engine.out.ScheduledMessage;

/** An outbox whose messages leave when a clock that a test turns says so; until then they can be taken back. */
public final class HandOutbox implements Outbox {

    private final HandClock clock;
    private final List<ScheduledMessage> messages = new ArrayList<>();

    public HandOutbox(HandClock clock) {
        this.clock = clock;
    }

    @Override
    public void send(ScheduledMessage message) {
        messages.add(message);
    }

    @Override
    public Withdrawn withdraw(long afterNanos) {
        List<ScheduledMessage> back = messages.stream()
                .filter(m -> m.bornNanos() > afterNanos && m.dueNanos() > clock.nanos())
                .toList();
        long left = messages.stream()
                .filter(m -> m.dueNanos() <= clock.nanos())
                .mapToLong(ScheduledMessage::bornNanos)
                .max()
                .orElse(Long.MIN_VALUE);
        messages.removeAll(back);
        return new Withdrawn(back, left);
    }

    /** All that was handed over and not taken back, in the order in which it leaves. */
    public List<ScheduledMessage> messages() {
        return messages.stream()
                .sorted((a, b) -> Long.compare(a.dueNanos(), b.dueNanos()))
                .toList();
    }

    /** Forgets what has left. */
    public void clearLeft() {
        messages.removeIf(m -> m.dueNanos() <= clock.nanos());
    }

    public void clear() {
        messages.clear();
    }
}
