package underbaton.core.engine.out;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;
import underbaton.core.plan.Plan;

/**
 * The step that is being taken: its moment, the plan it plays from, and what it has brought forth so far. All parts share it, and
 * nothing else. Not thread-safe, used once.
 */
public final class StepContext {

    /** The moment of what does not come by itself. */
    public static final long NEVER = Long.MAX_VALUE;

    private final OptionalLong straightUntil;
    private final List<ScheduledMessage> messages = new ArrayList<>();
    private final List<Happening> happenings = new ArrayList<>();
    private Plan plan;
    private long now;

    /**
     * @param now ns by the clock of the events
     * @param straightUntil only in a dry run, where vamps are played once: what is to be heard at this place of an item or behind it
     *     is left out, ns since the item began
     */
    public StepContext(Plan plan, long now, OptionalLong straightUntil) {
        this.plan = plan;
        this.now = now;
        this.straightUntil = straightUntil;
    }

    /** What is played, as of this step. */
    public Plan plan() {
        return plan;
    }

    /** From here on it plays from a changed book. */
    public void adopt(Plan changed) {
        plan = changed;
    }

    /** ns by the clock of the events. */
    public long now() {
        return now;
    }

    /** Time goes on, never back. */
    public void advance(long nanos) {
        now = Math.max(now, nanos);
    }

    /** Whether the book is played on paper: vamps once, nothing heard, nobody there. */
    public boolean isDryRun() {
        return straightUntil.isPresent();
    }

    /** In a dry run, from which place of the item on nothing is heard; far away elsewhere. */
    public long straightUntil() {
        return straightUntil.orElse(NEVER);
    }

    void leaves(ScheduledMessage message) {
        messages.add(message);
    }

    /** Tells what is happening; for the record, the log and the pages. */
    public void happens(Happening happening) {
        happenings.add(happening);
    }

    /** What leaves by this step, in the order in which it was brought forth. */
    public List<ScheduledMessage> messages() {
        return messages;
    }

    /** What has happened in this step so far. */
    public List<Happening> happenings() {
        return happenings;
    }
}
