package underbaton.core.perform;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import java.util.stream.Stream;
import underbaton.core.cue.Start;
import underbaton.core.plan.Landing;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;

/**
 * Plays a plan: keeps the standby, fires cues on GO and those that follow by themselves.
 *
 * <p>An agent: orders come in from any thread and are carried out by whoever calls {@link #work()}, one thread alone (a
 * {@link PerformerThread} in the application, the test itself in a test). It waits for nobody: messages go to an outbox
 * that must take them at once, and the state goes out as an immutable {@link Standing}.
 *
 * <p>What comes by itself is handed to the outbox a few milliseconds before its time, with that time on it, so that the
 * wait to the very moment lies with the queue of each device and neither this agent's work nor another device's comes in
 * between. What is fired by hand in those milliseconds leaves behind what was handed over.
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
    /** How long before its time a message is handed over, ns. */
    static final long AHEAD_NANOS = 5_000_000;

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
    private Optional<Transport> playing = Optional.empty();
    private final Motions motions;
    /** Which time the vamp is played, 0 outside one: who watches is told when it changes. */
    private int vampTurn;

    /** The latest moment for which something was handed over that came by itself. */
    private long handedUntil = Long.MIN_VALUE;

    private final Set<Integer> going = new HashSet<>();

    /** @param watcher gets every new standing, on the performer's thread; must return at once */
    public Performer(Clock clock, Plan plan, Outbox outbox, Consumer<Standing> watcher) {
        this.clock = clock;
        this.plan = plan;
        this.outbox = outbox;
        this.watcher = watcher;
        this.motions = new Motions(step -> {
            handedUntil = Math.max(handedUntil, step.dueNanos());
            outbox.send(step);
        });
        this.standby = plan.byHandFrom(0);
        this.standing = snapshot();
    }

    // ---- orders, from any thread

    /**
     * Fires the standby cue and what comes with it; the next cue that waits for GO becomes the standby. While a vamp goes
     * round, GO releases it instead.
     */
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

    /**
     * Plays an item from a place of it on; cues before that place are not sent.
     *
     * @param nanos since the item began
     */
    public void play(int itemId, long nanos) {
        order(() -> doPlay(itemId, nanos));
    }

    /** The music stands still where it is; moves that have begun go on. */
    public void pause() {
        order(() -> playing.ifPresent(t -> t.pause(clock.nanos())));
    }

    /** The music goes on from where it stands. */
    public void resume() {
        order(() -> playing.ifPresent(t -> t.resume(clock.nanos())));
    }

    /** Goes to another place of the item that plays. @param nanos since the item began */
    public void locate(long nanos) {
        order(() -> playing.ifPresent(t -> t.locate(Math.max(0, nanos), clock.nanos())));
    }

    /** Shifts the music against the performers. @param ms forward, below 0 back */
    public void nudge(int ms) {
        order(() -> playing.ifPresent(t -> t.nudge(ms * 1_000_000L, clock.nanos())));
    }

    /** Lets the vamp that goes round be left as it was told to. */
    public void release() {
        order(() -> playing.ifPresent(t -> t.release(clock.nanos())));
    }

    /** Sends one call outside the running order. */
    public void fire(PlannedCall call, String cause) {
        long asked = clock.nanos();
        order(() -> make(call, behindHanded(asked), cause));
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
        long now = clock.nanos();
        while (pending.isPresent() && pending.get().dueNanos() - now <= AHEAD_NANOS) {
            long due = pending.get().dueNanos();
            handedUntil = Math.max(handedUntil, due);
            firePending(due);
            changed = true;
        }
        changed |= land(now);
        motions.work(now + AHEAD_NANOS, this::end);
        if (changed) {
            standing = snapshot();
            watcher.accept(standing);
        }
    }

    private boolean land(long now) {
        boolean landed = false;
        for (List<Landing> due = due(now); !due.isEmpty(); due = due(now)) {
            land(due, playing.orElseThrow().dueAt(due.get(0).nanos()));
            landed |= due.stream().anyMatch(Landing::strikes);
        }
        int turn = playing.map(t -> t.vamping(now) ? t.pass() : 0).orElse(0);
        boolean turned = turn != vampTurn;
        vampTurn = turn;
        return landed || turned;
    }

    private List<Landing> due(long now) {
        return playing.map(t -> t.takeDue(now, AHEAD_NANOS)).orElse(List.of());
    }

    /** Lands what comes in one instant. */
    private void land(List<Landing> together, long due) {
        stopped = false;
        handedUntil = Math.max(handedUntil, due);
        makeAll(together.stream().flatMap(l -> l.calls().stream()
                .map(c -> new Made(c, due, "cue " + l.cue().label()))));
        together.stream()
                .filter(Landing::strikes)
                .forEach(l -> last = Optional.of(new Standing.Fired(l.cue(), epochMicros(due))));
    }

    /** A call to be made, and what for. */
    private record Made(PlannedCall call, long due, String cause) {}

    /** Calls of one instant: each device gets its programs first, whichever cue they come from. */
    private void makeAll(Stream<Made> calls) {
        calls.sorted(Comparator.comparingInt(m -> m.call.rank())).forEach(m -> make(m.call, m.due, m.cause));
    }

    private void end(Motions.Ending ending) {
        make(ending.call(), ending.due(), ending.cause());
    }

    /** Nanoseconds until there is work by itself: 0 when it is due, {@code Long.MAX_VALUE} when nothing waits. */
    public long nanosToNext() {
        long now = clock.nanos();
        long chained =
                pending.map(p -> Math.max(0, p.dueNanos() - AHEAD_NANOS - now)).orElse(NO_DEADLINE);
        long played = playing.map(t -> t.nanosToNext(now, AHEAD_NANOS)).orElse(NO_DEADLINE);
        long step = motions.nextDue();
        long moved = step == NO_DEADLINE ? NO_DEADLINE : Math.max(0, step - AHEAD_NANOS - now);
        return Math.min(chained, Math.min(played, moved));
    }

    /** A moment, or the one just behind what was handed over for later. */
    private long behindHanded(long due) {
        return handedUntil > due && handedUntil - due <= AHEAD_NANOS ? handedUntil : due;
    }

    private void doGo() {
        long now = behindHanded(clock.nanos());
        if (playing.isPresent() && playing.get().release(clock.nanos())) {
            return;
        }
        while (pending.isPresent()) {
            firePending(now);
        }
        if (standby < plan.cues().size()) {
            bringForward(plan.cues().get(standby), now);
            fireFrom(standby, now);
            standby = plan.byHandFrom(standby + 1);
        }
    }

    /** What the book puts before a cue comes before it. */
    private void bringForward(PlannedCue cue, long now) {
        playing.ifPresent(t -> {
            int place = t.item().cues().indexOf(cue);
            int standbyPlace = place >= 0 ? place : comesLater(cue, t) ? Integer.MAX_VALUE : 0;
            t.takeBefore(standbyPlace).forEach(l -> land(List.of(l), now));
        });
    }

    private boolean comesLater(PlannedCue cue, Transport transport) {
        return plan.cues().indexOf(cue)
                > plan.cues().indexOf(last(transport.item().cues()));
    }

    private static PlannedCue last(List<PlannedCue> cues) {
        return cues.get(cues.size() - 1);
    }

    private void firePending(long due) {
        int index = plan.indexOf(pending.orElseThrow().cue().cueId());
        pending = Optional.empty();
        fireFrom(index, due);
    }

    /** Fires a cue and all that come with it, and sets the alarm for the one that comes after. */
    private void fireFrom(int index, long due) {
        PlannedCue first = plan.cues().get(index);
        begin(first, due);
        int i = index + 1;
        while (first.atNanos().isEmpty()
                && i < plan.cues().size()
                && plan.cues().get(i).start() instanceof Start.WithPrevious) {
            i++;
        }
        fire(plan.cues().subList(index, i), due);
        if (first.atNanos().isPresent()) {
            return;
        }
        if (i < plan.cues().size() && plan.cues().get(i).start() instanceof Start.AfterPrevious after) {
            await(plan.cues().get(i), due + after.delayMs() * 1_000_000L);
        }
    }

    /**
     * The first cue of an item that is fired says when the item began; one at a beat, by where it stands. An item that
     * plays already goes on when one of its cues is fired by hand.
     */
    private void begin(PlannedCue cue, long due) {
        boolean plays =
                playing.map(t -> t.item().item().id() == cue.item().id()).orElse(false);
        if (plays && cue.atNanos().isEmpty()) {
            return;
        }
        playing = plan.item(cue.item().id()).map(item -> {
            Transport transport = new Transport(item, due - cue.atNanos().orElse(0));
            if (cue.atNanos().isPresent()) {
                transport.aheadOf(cue);
            } else {
                transport.locate(0, due);
            }
            return transport;
        });
    }

    private void doPlay(int itemId, long nanos) {
        long now = clock.nanos();
        Optional<PlannedItem> item = plan.item(itemId);
        if (item.isEmpty()) {
            return;
        }
        pending = Optional.empty();
        stopped = false;
        Transport transport = new Transport(item.get(), now - nanos);
        transport.locate(nanos, now);
        playing = Optional.of(transport);
        List<PlannedCue> cues = item.get().cues();
        int first = cues.isEmpty() ? -1 : plan.indexOf(cues.get(0).cueId());
        if (nanos == 0 && first >= 0 && cues.get(0).byHand()) {
            fireFrom(first, now);
        }
        int after = cues.isEmpty() ? standby : plan.byHandFrom(first + 1);
        standby = after;
    }

    private void await(PlannedCue cue, long due) {
        pending = Optional.of(new Standing.Pending(cue, due, epochMicros(due)));
    }

    private long epochMicros(long nanos) {
        return clock.epochMicros() + (nanos - clock.nanos()) / 1000;
    }

    private void fire(List<PlannedCue> together, long due) {
        stopped = false;
        makeAll(together.stream().flatMap(cue -> cue.calls().stream()
                .map(call -> new Made(call, due + Math.max(0, call.afterNanos()), "cue " + cue.label()))));
        last = Optional.of(new Standing.Fired(together.get(together.size() - 1), epochMicros(due)));
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
        motions.set(call);
        call.motion().ifPresent(m -> motions.begin(m, due, cause));
    }

    private void doStopAll() {
        long now = clock.nanos();
        pending = Optional.empty();
        playing = Optional.empty();
        motions.halt(now);
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
        playing = playing.flatMap(t -> changed.item(t.item().item().id()).map(item -> {
            t.adopt(item, clock.nanos(), AHEAD_NANOS);
            return t;
        }));
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
        Optional<Standing.Pending> coming = pending;
        Optional<Landing> strike = playing.filter(t -> !t.paused()).flatMap(Transport::nextStrike);
        if (strike.isPresent()) {
            long due = playing.orElseThrow().dueAt(strike.get().nanos());
            if (pending.isEmpty() || due < pending.get().dueNanos()) {
                coming = Optional.of(new Standing.Pending(strike.get().cue(), due, epochMicros(due)));
            }
        }
        return new Standing(plan, standby, last, coming, playing.map(this::played), stopped);
    }

    private Standing.Playing played(Transport t) {
        long now = clock.nanos();
        return new Standing.Playing(
                t.item(),
                t.position(now),
                clock.epochMicros(),
                t.paused(),
                t.vamp(),
                t.pass(),
                t.released(),
                t.vamping(now));
    }
}
