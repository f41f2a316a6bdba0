package underbaton.core.perform;

import java.util.HashSet;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import underbaton.core.cue.Start;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;

/**
 * Plays a plan: keeps the standby, fires cues on GO and those that follow by themselves.
 *
 * <p>An agent: orders come in from any thread and are carried out by whoever calls {@link #work()}, one thread alone (a
 * {@link PerformerThread} in the application, the test itself in a test). It waits for nobody: messages go to an outbox
 * that must take them at once, and the state goes out as an immutable {@link Standing}.
 *
 * <p>A GO while a follow-on is still to come brings the follow-on forward first, so that the book is always played in
 * its own order and no device misses a state.
 */
public final class Performer {

    /** Where messages go. Called on the performer's thread; must return at once. */
    public interface Outbox {
        void send(Sending sending);

        /** Forget everything that has not left yet, but end the notes that are sounding. */
        void clear();
    }

    private static final long NO_DEADLINE = Long.MAX_VALUE;

    private final Clock clock;
    private final Outbox outbox;
    private final Consumer<Standing> watcher;
    private final Queue<Runnable> orders = new ConcurrentLinkedQueue<>();
    private volatile Runnable wake = () -> {};
    private volatile Standing standing;

    private Plan plan;
    private int standby;
    private Optional<Standing.Fired> last = Optional.empty();
    private Optional<Standing.Pending> pending = Optional.empty();
    private boolean stopped;
    private int begunItem;
    private long began;
    private final Set<Integer> going = new HashSet<>();

    /** @param watcher gets every new standing, on the performer's thread; must return at once */
    public Performer(Clock clock, Plan plan, Outbox outbox, Consumer<Standing> watcher) {
        this.clock = clock;
        this.plan = plan;
        this.outbox = outbox;
        this.watcher = watcher;
        this.standby = plan.byHandFrom(0);
        this.standing = snapshot();
    }

    // ---- orders, from any thread

    /** Fires the standby cue and what comes with it; the next cue that waits for GO becomes the standby. */
    public void go() {
        order(this::doGo);
    }

    /** The standby goes back to the cue before; nothing is sent. */
    public void back() {
        order(() -> standby = plan.byHandBefore(standby));
    }

    /** The standby goes on to the next cue that waits for GO; nothing is sent. */
    public void next() {
        order(() -> standby = plan.byHandFrom(standby + 1));
    }

    /** Makes any cue the standby, also one that would follow by itself; nothing is sent. Unknown ids are ignored. */
    public void jump(int cueId) {
        order(() -> {
            int index = plan.indexOf(cueId);
            standby = index < 0 ? standby : index;
        });
    }

    /** Drops what is still to come and sends the resting phrase to every device that has something going. */
    public void stopAll() {
        order(this::doStopAll);
    }

    /** Sends one call outside the running order. */
    public void fire(PlannedCall call, String cause) {
        long due = clock.nanos();
        order(() -> make(call, due, cause));
    }

    /** Takes over a changed book; the standby stays on its cue, or on the one that took its place. */
    public void adopt(Plan changed) {
        order(() -> doAdopt(changed));
    }

    /** The newest standing; may be read from any thread. */
    public Standing standing() {
        return standing;
    }

    void wakeWith(Runnable newWake) {
        wake = newWake;
    }

    private void order(Runnable order) {
        orders.add(order);
        wake.run();
    }

    // ---- the work, on one thread

    /** Carries out what has been ordered and what is due. */
    public void work() {
        boolean changed = false;
        for (Runnable order = orders.poll(); order != null; order = orders.poll()) {
            order.run();
            changed = true;
        }
        while (pending.isPresent() && pending.get().dueNanos() - clock.nanos() <= 0) {
            firePending(pending.get().dueNanos());
            changed = true;
        }
        if (changed) {
            standing = snapshot();
            watcher.accept(standing);
        }
    }

    /** Nanoseconds until there is work by itself: 0 when it is due, {@code Long.MAX_VALUE} when nothing waits. */
    public long nanosToNext() {
        return pending.map(p -> Math.max(0, p.dueNanos() - clock.nanos())).orElse(NO_DEADLINE);
    }

    private void doGo() {
        long now = clock.nanos();
        while (pending.isPresent()) {
            firePending(now);
        }
        if (standby < plan.cues().size()) {
            fireFrom(standby, now);
            standby = plan.byHandFrom(standby + 1);
        }
    }

    private void firePending(long due) {
        int index = plan.indexOf(pending.orElseThrow().cue().cueId());
        pending = Optional.empty();
        fireFrom(index, due);
    }

    /** Fires a cue and all that come with it, and sets the alarm for the one that comes after. */
    private void fireFrom(int index, long due) {
        int i = index;
        begin(plan.cues().get(i), due);
        fire(plan.cues().get(i), due);
        i++;
        while (i < plan.cues().size() && plan.cues().get(i).start() instanceof Start.WithPrevious) {
            fire(plan.cues().get(i), due);
            i++;
        }
        if (i < plan.cues().size() && plan.cues().get(i).start() instanceof Start.AfterPrevious after) {
            await(plan.cues().get(i), due + after.delayMs() * 1_000_000L);
        } else if (i < plan.cues().size() && lands(plan.cues().get(i))) {
            await(plan.cues().get(i), began + plan.cues().get(i).atNanos().getAsLong());
        }
    }

    /** The first cue of an item that is fired says when the item began; one at a beat, by where it stands. */
    private void begin(PlannedCue cue, long due) {
        if (cue.item().id() != begunItem || cue.atNanos().isPresent()) {
            begunItem = cue.item().id();
            began = due - cue.atNanos().orElse(0);
        }
    }

    private boolean lands(PlannedCue cue) {
        return cue.item().id() == begunItem && cue.atNanos().isPresent();
    }

    private void await(PlannedCue cue, long due) {
        long untilDueMicros = (due - clock.nanos()) / 1000;
        pending = Optional.of(new Standing.Pending(cue, due, clock.epochMicros() + untilDueMicros));
    }

    private void fire(PlannedCue cue, long due) {
        stopped = false;
        String cause = "cue " + cue.number();
        cue.calls().forEach(call -> make(call, due, cause));
        last = Optional.of(new Standing.Fired(cue, clock.epochMicros()));
    }

    private void make(PlannedCall call, long due, String cause) {
        if (call.effect().kind() == Effect.Kind.STARTS) {
            going.add(call.deviceId());
        } else if (call.effect().kind() == Effect.Kind.STOPS) {
            going.remove(call.deviceId());
        }
        for (Timed timed : call.messages()) {
            long at = due + timed.atMs() * 1_000_000L;
            outbox.send(new Sending(call.deviceId(), timed.message(), at, cause));
        }
    }

    private void doStopAll() {
        long now = clock.nanos();
        pending = Optional.empty();
        outbox.clear();
        for (int deviceId : Set.copyOf(going)) {
            Optional.ofNullable(plan.resting().get(deviceId)).ifPresent(call -> make(call, now, "stop all"));
        }
        stopped = true;
    }

    private void doAdopt(Plan changed) {
        int standbyId = standby < plan.cues().size() ? plan.cues().get(standby).cueId() : 0;
        int place = changed.indexOf(standbyId);
        boolean wasEmpty = plan.cues().isEmpty();
        plan = changed;
        if (place >= 0) {
            standby = place;
        } else {
            standby = plan.byHandFrom(
                    wasEmpty ? 0 : Math.min(standby, changed.cues().size()));
        }
        pending = pending.flatMap(p -> {
            int index = changed.indexOf(p.cue().cueId());
            return index < 0
                    ? Optional.empty()
                    : Optional.of(new Standing.Pending(changed.cues().get(index), p.dueNanos(), p.dueEpochMicros()));
        });
    }

    private Standing snapshot() {
        return new Standing(plan, standby, last, pending, stopped);
    }
}
