package underbaton.core.engine;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.ToLongFunction;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;

/**
 * A show played by an operator who has the book before him and presses GO in its order: when all rests, though before what the book puts
 * behind that cue comes by itself. Cues that he is not to give he passes over.
 */
final class StraightWorld extends WalkedWorld {

    /** Farther than a few nudges go. */
    private static final long NUDGED = SECOND;

    private final Set<String> fired = new HashSet<>();
    /** When the item that plays began, by the clock. */
    private long began;
    /** The item that set the film going. */
    private int filmItem;

    /** Machines with a lead that were given something by hand so shortly before a timed cue that they had been told of that first. */
    final Set<String> crossed = new HashSet<>();

    private final Map<Integer, Long> byHand = new HashMap<>();

    private long stoodAt = -1;
    private long stoodNanos;

    /** Controls that were in a wave without an end. */
    final Set<Control> waved = new HashSet<>();

    /** Whether a patch set has been loaded. */
    boolean patched;

    private final Plan told;

    /** Whether a cue by hand had to be given though what the book puts before it was still to come or to rest: when, is his own affair. */
    private boolean hurried;

    /** @param told the same book, with the leads by which the operator knows what comes first */
    StraightWorld(Plan plan, Plan told) {
        super(plan, 1, 0);
        this.told = told;
    }

    @Override
    void take(Step step) {
        long filmBefore = machines.filmBegan();
        Playing left = state.playing()
                .filter(p -> step.next().progress().itemId() != p.item().item().id())
                .orElse(null);
        hurried |= left != null && isToldBehind(left, left.position(step.next().nowNanos()));
        super.take(step);
        step.messages().forEach(this::cross);
        patched |= step.messages().stream()
                .anyMatch(m -> m.deviceId() == step.next().plan().patchBay());
        filmItem =
                machines.filmBegan() == filmBefore ? filmItem : state.progress().itemId();
        for (Move move : state.moves().values()) {
            if (move.isEndless()) {
                waved.add(move.motion().control());
            }
        }
    }

    private void cross(ScheduledMessage m) {
        int index = told.indexOf(m.cause().cueId());
        boolean timed = index >= 0 && told.cues().get(index).atNanos().isPresent();
        Device device = told.device(m.deviceId()).orElseThrow();
        if (!timed) {
            byHand.put(device.id(), m.dueNanos());
        } else if (m.dueNanos() - byHand.getOrDefault(device.id(), Long.MIN_VALUE / 2)
                <= device.leadMs() * 1_000_000L) {
            crossed.add(device.name().toLowerCase(Locale.ROOT));
        }
    }

    /** Whether machines with a lead have been told what comes only when the item is left already: there their lead decides what is heard. */
    private boolean isToldBehind(Playing p, long left) {
        return told.item(p.item().item().id()).orElseThrow().timed().stream()
                .anyMatch(t -> t.nanos() <= left
                        && t.momentNanos() > left
                        && !t.calls().isEmpty());
    }

    /** When the next of a timed cue's calls is told, ns since its item began. */
    private long nextTold(Playing p, TimedCalls cue) {
        long here = p.position(state.nowNanos());
        return told.item(p.item().item().id()).orElseThrow().timed().stream()
                .filter(t -> t.cue().label().equals(cue.cue().label()) && t.nanos() > here)
                .mapToLong(TimedCalls::nanos)
                .min()
                .orElse(cue.nanos());
    }

    @Override
    void happened(Happening happening) {
        if (happening instanceof Happening.Fired f) {
            fired.add(f.cue().label());
        }
        if (happening instanceof Happening.Began b) {
            began = b.atNanos();
        }
    }

    /** Whether the film was set going by an earlier item: how long that lasted is the operator's own affair. */
    boolean filmIsOld() {
        return filmItem != state.progress().itemId();
    }

    /** All items before one. */
    void playBefore(int itemId) {
        for (PlannedItem item : state.plan().items()) {
            if (item.item().id() == itemId) {
                return;
            }
            playThrough(item);
        }
    }

    private void playThrough(PlannedItem item) {
        if (!begin(item)) {
            return;
        }
        int end = state.plan().firstOf(item.item().id()) + item.cues().size();
        while (state.standby() < end) {
            pressInTime();
        }
        rest(item);
    }

    /** @return whether there is anything to play */
    private boolean begin(PlannedItem item) {
        int first = state.plan().firstOf(item.item().id());
        if (item.cues().isEmpty()) {
            return false;
        }
        boolean comesByItself = state.followOn()
                .filter(f -> f.cue().item().id() == item.item().id())
                .isPresent();
        if (comesByItself) {
            passTo(state.followOn().orElseThrow().dueNanos());
        } else if (state.standby() == first) {
            order(new Order.Go());
        } else {
            return state.progress().itemId() == item.item().id();
        }
        return true;
    }

    private void rest(PlannedItem item) {
        long scoreEnd = began + item.scoreNanos();
        for (int i = 0;
                i < 10_000
                        && !(isAtRest()
                                && state.playing().map(p -> p.ahead().isEmpty()).orElse(true));
                i++) {
            long leaves = state.followOn()
                    .filter(f -> f.cue().item().id() != item.item().id())
                    .map(FollowOn::dueNanos)
                    .orElse(Long.MAX_VALUE);
            if (leaves < Long.MAX_VALUE && (isQuiet() || leaves - 1 <= state.nowNanos())) {
                return;
            }
            long next = Math.min(leaves - 1, Math.min(state.nowNanos() + SECOND, wake));
            playOn(Math.max(1, next - state.nowNanos()));
        }
        if (state.followOn().isEmpty()) {
            playOn(Math.max(0, scoreEnd - state.nowNanos()));
        }
    }

    private boolean isQuiet() {
        return state.agenda().isEmpty() && state.moves().values().stream().allMatch(Move::isEndless);
    }

    private boolean isAtRest() {
        return isQuiet() && state.followOn().isEmpty();
    }

    /** GO on the standby, when its time has come. */
    private void pressInTime() {
        int index = state.standby();
        waitFor(index, Long.MAX_VALUE);
        int itemId = state.plan().cues().get(index).item().id();
        // The next item has begun by itself before there was a moment for this cue.
        hurried |= state.progress().itemId() != itemId && index != state.plan().firstOf(itemId);
        order(new Order.Go());
    }

    /** Until all that the book puts before a cue has come and rests, and no later than what it puts behind it, or than a moment. */
    private void waitFor(int index, long latest) {
        int order = index
                - state.plan().firstOf(state.plan().cues().get(index).item().id());
        for (int i = 0; i < 100_000 && state.nowNanos() < latest; i++) {
            Playing p = state.playing().orElse(null);
            long behind = Long.MAX_VALUE;
            boolean before = false;
            if (p != null) {
                for (TimedCalls t : p.ahead()) {
                    before |= t.order() < order;
                    behind = t.order() > order ? Math.min(behind, p.dueAt(nextTold(p, t)) - 1) : behind;
                }
            }
            if (!before && (isAtRest() || state.nowNanos() >= behind)) {
                return;
            }
            long next = Math.min(latest, Math.max(state.nowNanos() + 1, wake));
            playOn((before ? next : Math.min(next, Math.max(behind, state.nowNanos()))) - state.nowNanos());
        }
    }

    private boolean awaitsBefore(int index) {
        int order = index
                - state.plan().firstOf(state.plan().cues().get(index).item().id());
        return state.playing().stream().flatMap(p -> p.ahead().stream()).anyMatch(t -> t.order() < order);
    }

    /** An item was left while something of it was still to come: what comes first then is his own affair. */
    void isHurried() {
        hurried = true;
    }

    /** Whether the operator was free in what decides the judgement, or the book never comes there. */
    boolean wasFree() {
        return hurried;
    }

    /** From the beginning of an item, with the cue that opens it, at a pace of the day. */
    void playFromTheTop(int itemId, int permille) {
        playBefore(itemId);
        begin(state.plan().item(itemId).orElseThrow());
        order(new Order.Pace(permille));
    }

    /** Just before a cue that waits for GO. */
    void playToCue(PlannedCue cue) {
        int index = index(cue);
        playBefore(cue.item().id());
        PlannedItem item = state.plan().item(cue.item().id()).orElseThrow();
        int first = state.plan().firstOf(item.item().id());
        if (index == first) {
            return;
        }
        begin(item);
        while (state.standby() < index) {
            pressInTime();
        }
        waitFor(index, Long.MAX_VALUE);
    }

    /**
     * To a place of an item, of which only some cues by hand are given.
     *
     * @param given where each is given, as {@link ItemProgress#whereGiven} says
     * @param position ns since the item began, played as written; from there on it goes at the pace of the day
     */
    void playTo(int itemId, long position, int permille, ToLongFunction<PlannedCue> given) {
        playTo(itemId, position, permille, given, cue -> 0);
    }

    /** @param stood how long the music stands, in all, where each is given, ns */
    void playTo(
            int itemId,
            long position,
            int permille,
            ToLongFunction<PlannedCue> given,
            ToLongFunction<PlannedCue> stood) {
        playBefore(itemId);
        PlannedItem item = state.plan().item(itemId).orElseThrow();
        if (position <= 0 || !begin(item)) {
            return;
        }
        int end = state.plan().firstOf(itemId) + item.cues().size();
        boolean before = given.applyAsLong(item.cues().get(0)) == ItemProgress.BEFORE;
        while (state.standby() < end && stillBefore(position)) {
            PlannedCue cue = state.plan().cues().get(state.standby());
            long where = given.applyAsLong(cue);
            if (isStillToCome(where, position)) {
                order(new Order.Next());
                continue;
            }
            if (where >= 0) {
                hurried |= before && !isAtRest();
                playOn(Math.max(0, Math.min(dueAt(where), dueAt(position) - 1) - state.nowNanos()));
            } else {
                waitFor(state.standby(), dueAt(position) - 1);
                hurried |= !isAtRest() || awaitsBefore(state.standby());
            }
            before = where == ItemProgress.BEFORE;
            give(where, stood.applyAsLong(cue));
        }
        while (state.standby() < end) {
            PlannedCue cue = state.plan().cues().get(state.standby());
            long where = given.applyAsLong(cue);
            if (isStillToCome(where, position)) {
                order(new Order.Next());
            } else {
                give(where, stood.applyAsLong(cue));
            }
        }
        while (stillBefore(position)) {
            playOn(Math.min(SECOND, dueAt(position) - 1 - state.nowNanos()));
        }
        hurried |= state.progress().itemId() != itemId;
        order(new Order.Pace(permille));
    }

    /** @param stood how long the music stands there before it is given, ns, with what was given there before */
    private void give(long where, long stood) {
        long stands = stood - (where == stoodAt ? stoodNanos : 0);
        if (where < 0 || stands <= 0) {
            order(new Order.Go());
            return;
        }
        stoodAt = where;
        stoodNanos = stood;
        order(new Order.Pause());
        pass(stands);
        order(new Order.Go());
        order(new Order.Resume());
    }

    /** What was given farther on, before the music was put back, is still to be given; a nudge takes nothing back. */
    private static boolean isStillToCome(long where, long position) {
        return where == ItemProgress.NOT_GIVEN || where > position + NUDGED;
    }

    private long dueAt(long position) {
        return state.playing().map(p -> p.dueAt(position)).orElse(state.nowNanos());
    }

    private boolean stillBefore(long position) {
        return state.playing().isPresent() && dueAt(position) - 1 > state.nowNanos();
    }
}
