package underbaton.core.engine;

import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Control;

/**
 * Plays one item as the book has it, event by event: what comes by itself comes in time, vamps are played once, and GO is
 * pressed when all that moves has come to rest, though before whatever the book puts behind that cue comes by itself. The
 * item begins at 0 by the clock.
 */
final class StraightPlay {

    /** How much of a wave without an end is shown. */
    private static final long WAVE_SHOWN_NANOS = 60_000_000_000L;

    private final PlannedItem item;
    private final int first;
    private final int end;
    /** It is played up to here. */
    private final long limit;
    /** GO is not pressed on this cue, nor on any behind it. */
    private final int lastGo;

    /** By the places of its cues, where GO is pressed. */
    private final GivenCues given;

    /** By the places of its cues, when the first that was given by hand from there on was; null until it is asked for. */
    private long[] soonestFrom;

    private final Consumer<Step> watcher;

    private PlaybackState state;
    private long wake = 0;
    private boolean begun;
    /** Where the music has stood last, and for how long. */
    private long stoodAt = StepContext.NEVER;

    private long stoodNanos;
    /** When the last thing of the item came that is no wave. */
    private long restedNanos;

    StraightPlay(Plan plan, PlannedItem item, Carried before) {
        this(
                plan,
                item,
                before,
                StepContext.NEVER,
                StepContext.NEVER,
                Integer.MAX_VALUE,
                order -> ItemProgress.BEFORE,
                s -> {});
    }

    /** @param cut what is heard from there on is left out, however early it would be told */
    private StraightPlay(
            Plan plan,
            PlannedItem item,
            Carried before,
            long cut,
            long limit,
            int lastGo,
            GivenCues given,
            Consumer<Step> watcher) {
        this.watcher = watcher;
        this.given = given;
        this.item = item;
        this.limit = limit;
        this.lastGo = lastGo;
        first = plan.firstOf(item.item().id());
        end = first + item.cues().size();
        // Its first cue may come by itself, behind the last one of the item before; then GO is pressed on the next.
        boolean byItself =
                before.followOn().filter(f -> isHere(f.cue().item().id())).isPresent();
        state = before.into(plan, byItself ? plan.waitingFrom(first + 1) : first, cut);
    }

    /**
     * The item just before a moment: without all that is to be heard then or later, however early it is told. Of its cues by hand those
     * are given that stand before one that has come.
     *
     * @param watcher sees every step on the way
     */
    static PlaybackState before(Plan plan, PlannedItem item, Carried carried, long nanos, Consumer<Step> watcher) {
        int behind = Math.max(1, item.behind(nanos));
        return before(
                plan,
                item,
                carried,
                nanos,
                order -> order < behind ? ItemProgress.BEFORE : ItemProgress.NOT_GIVEN,
                watcher);
    }

    /** The same, with those of its cues by hand given that are said to be. */
    static PlaybackState before(
            Plan plan, PlannedItem item, Carried carried, long nanos, GivenCues given, Consumer<Step> watcher) {
        StraightPlay play = new StraightPlay(
                plan, item, carried, Math.max(0, nanos), Math.max(0, nanos), Integer.MAX_VALUE, given, watcher);
        play.run();
        return play.at(Math.max(0, nanos));
    }

    /** The item at a moment, with all that has been told by then, had some of its cues been given. */
    static PlaybackState at(Plan plan, PlannedItem item, Carried carried, long nanos, GivenCues given) {
        long moment = Math.max(0, nanos);
        StraightPlay play =
                new StraightPlay(plan, item, carried, StepContext.NEVER, moment + 1, Integer.MAX_VALUE, given, s -> {});
        play.run();
        return play.at(moment + 1);
    }

    /** The item just before one of its cues is fired in the order of the book. */
    static PlaybackState before(
            Plan plan, PlannedItem item, Carried carried, int order, GivenCues given, Consumer<Step> watcher) {
        PlannedCue cue = item.cues().get(order);
        if (cue.atNanos().isPresent()) {
            long at = order == 0 ? 0L : cue.atNanos().getAsLong();
            return before(plan, item, carried, at, o -> o < order ? given.where(o) : ItemProgress.NOT_GIVEN, watcher);
        }
        int from = order;
        while (from > 0 && item.cues().get(from).comesWith()) {
            from--;
        }
        int first = plan.firstOf(item.item().id());
        StraightPlay play = new StraightPlay(
                plan, item, carried, StepContext.NEVER, StepContext.NEVER, first + from, given, watcher);
        PlannedCue leader = item.cues().get(from);
        while (!play.awaits(leader) && play.next().isPresent()) {
            continue;
        }
        if (play.awaits(leader)) {
            return play.at(
                    Math.max(play.state.nowNanos(), play.state.followOn().get().dueNanos() - 1));
        }
        return play.state.standby() == first + from ? play.at(play.goNanos() + 1) : play.state;
    }

    private boolean awaits(PlannedCue cue) {
        return state.followOn().filter(f -> f.cue().equals(cue)).isPresent();
    }

    private void run() {
        while (next().isPresent()) {
            continue;
        }
    }

    private PlaybackState at(long nanos) {
        if (nanos > state.nowNanos()) {
            step(Event.pass(nanos - 1));
        }
        bringUntil(StepContext.NEVER);
        return nanos <= state.nowNanos() ? state : state.justBefore(nanos);
    }

    PlaybackState state() {
        return state;
    }

    /**
     * When the item is over: when the next one begins by itself, or else by its own length, or when the last thing of it has come, whichever
     * is later.
     */
    long endNanos() {
        long planned = Math.max(item.scoreNanos(), item.item().plannedSeconds() * 1_000_000_000L);
        return goesStraightOn() ? leavesNanos() : Math.max(planned, restedNanos);
    }

    /** Whether the next item begins by itself. */
    boolean goesStraightOn() {
        return leavesNanos() < StepContext.NEVER;
    }

    private boolean isHere(int itemId) {
        return item.item().id() == itemId;
    }

    /** The next event carried out; empty when the item is over, or has come to where it is to be looked at. */
    Optional<Step> next() {
        if (!begun) {
            return begin();
        }
        quietWaves();
        passOver();
        standForFollowOn();
        hurryFollowOn();
        boolean waits = state.standby() < Math.min(end, lastGo);
        boolean looksAhead = waits || state.standby() == lastGo;
        // What has been given was given by the last moment that is asked for.
        long rests = looksAhead ? goNanos() : restNanos();
        long until = looksAhead ? Math.min(rests, latestNanos()) : rests;
        long at = wake <= until ? wake : Math.max(until, state.nowNanos());
        bringUntil(Math.min(at, limit));
        if (at >= limit || at >= leavesNanos()) {
            return Optional.empty();
        }
        if (wake <= until) {
            return Optional.of(step(
                    Event.pass(Math.max(wake, Math.min(sure(rests), looksAhead ? mayRestAt() : StepContext.NEVER)))));
        }
        if (!waits) {
            return Optional.empty();
        }
        int order = state.standby() - first;
        boolean before = given.where(order) == ItemProgress.BEFORE;
        boolean hurried = before && at >= latestNanos();
        boolean behind = !before && order > 0 && given.where(order - 1) == ItemProgress.BEFORE;
        if (hurried || behind) {
            rest();
        }
        if (given.stood(order) > 0) {
            step(Event.pass(Math.max(at, state.nowNanos())));
            stand(given.where(order), given.stood(order));
        }
        Step go = step(Event.of(at, new Order.Go()));
        if (hurried) {
            rest();
        }
        return Optional.of(go);
    }

    /** What was given long before has called all that it calls late, and its moves have come to their ends. */
    private void rest() {
        comeToRest();
        for (int order = following(); order >= 0 && given.where(order) == ItemProgress.BEFORE; order = following()) {
            followAt(state.nowNanos());
            step(Event.pass(state.nowNanos()));
            comeToRest();
        }
    }

    private void comeToRest() {
        Step rests = state.comingToRest();
        watcher.accept(rests);
        state = rests.next();
        wake = Engine.step(state, Event.pass(state.nowNanos())).wakeNanos();
    }

    /** By then all must have been given that the book has before: it is looked at, or a cue behind was given then. */
    private long latestNanos() {
        long latest = limit == StepContext.NEVER ? StepContext.NEVER : limit - 1;
        int order = state.standby() - first;
        return given.where(order) >= 0 ? latest : Math.min(latest, givenBehind(order));
    }

    /** When the first of the cues by hand behind one was given; far away for none. */
    private long givenBehind(int order) {
        if (soonestFrom == null) {
            soonestFrom = new long[item.cues().size() + 1];
            soonestFrom[item.cues().size()] = StepContext.NEVER;
            for (int i = item.cues().size() - 1; i >= 0; i--) {
                long where = given.where(i);
                boolean byHand = item.cues().get(i).atNanos().isEmpty() && where >= 0;
                soonestFrom[i] = byHand ? Math.min(where, soonestFrom[i + 1]) : soonestFrom[i + 1];
            }
        }
        return soonestFrom[order + 1];
    }

    /** The standby goes on behind cues that nobody gives. */
    private void passOver() {
        while (state.standby() < Math.min(end, lastGo)
                && given.where(state.standby() - first) == ItemProgress.NOT_GIVEN) {
            step(Event.of(state.nowNanos(), new Order.Next()));
        }
    }

    /** The music stood when it came by itself: what was called meanwhile has come before. */
    private void standForFollowOn() {
        int order = following();
        if (order >= 0 && given.where(order) >= 0 && given.where(order) <= state.nowNanos()) {
            stand(given.where(order), given.stood(order));
        }
    }

    /** The music stands at a place until it has stood there for so long; what is under way goes on. */
    private void stand(long place, long nanos) {
        long left = nanos - (stoodAt == place ? stoodNanos : 0);
        if (left <= 0) {
            return;
        }
        stoodAt = place;
        stoodNanos = nanos;
        // Behind what comes to its end nothing is left that would change.
        for (long ends = mayRest() - state.nowNanos(); left > 0 && ends > 0; ends = mayRest() - state.nowNanos()) {
            Step stood = state.standing(Math.min(left, ends));
            left -= ends;
            watcher.accept(stood);
            state = stood.next();
        }
        wake = Engine.step(state, Event.pass(state.nowNanos())).wakeNanos();
    }

    /** What came before its time with a cue that is no longer there comes as it came then. @param until only what came before this */
    private void bringUntil(long until) {
        Set<Integer> waits = state.playing().stream()
                .flatMap(p -> given.ahead().isEmpty() ? Stream.of() : p.ahead().stream())
                .map(TimedCalls::order)
                .filter(order -> given.ahead().contains(order) && given.where(order) < until)
                .collect(Collectors.toSet());
        if (!waits.isEmpty()) {
            Step brought = state.bringing(waits);
            watcher.accept(brought);
            state = brought.next();
            wake = brought.wakeNanos();
        }
    }

    /** What follows by itself comes where it was given, if somebody did not wait for it. */
    private void hurryFollowOn() {
        int order = following();
        long where = order < 0 ? ItemProgress.NOT_GIVEN : given.where(order);
        // Where the music has been put back it has come all the same.
        long at = Math.max(Math.min(where, limit - 1), state.nowNanos());
        if (where >= 0 && at < state.followOn().orElseThrow().dueNanos()) {
            followAt(at);
        } else if (where == ItemProgress.BEFORE
                && state.followOn().orElseThrow().dueNanos() >= limit) {
            rest();
        }
    }

    /** Which of its cues follows by itself now; below 0 for none. */
    private int following() {
        return state.followOn()
                .filter(f -> isHere(f.cue().item().id()))
                .map(f -> item.cues().indexOf(f.cue()))
                .orElse(-1);
    }

    private void followAt(long nanos) {
        FollowOn f = state.followOn().orElseThrow();
        state = state.withFollowOn(new FollowOn(f.cue(), nanos, f.sinceCueId(), f.sinceNanos()));
        wake = Math.min(wake, nanos);
    }

    private Optional<Step> begin() {
        begun = true;
        if (limit == 0 || item.cues().isEmpty() || !item.armed() || first >= lastGo) {
            return Optional.empty();
        }
        boolean byItself =
                state.followOn().filter(f -> isHere(f.cue().item().id())).isPresent();
        return Optional.of(step(byItself ? Event.pass(0) : Event.of(0, new Order.Go())));
    }

    private Step step(Event event) {
        Step step = Engine.step(state, event);
        boolean rested = isOver();
        state = step.next();
        wake = step.wakeNanos();
        // That waves are shown for a while makes the item no longer.
        restedNanos = rested && isOver() ? restedNanos : state.nowNanos();
        watcher.accept(step);
        return step;
    }

    /** How far on the playing can go in one step: nothing is decided before. */
    private long sure(long until) {
        long decided = until;
        if (until == StepContext.NEVER) {
            decided = state.playing()
                    .filter(p -> !p.ahead().isEmpty() && p.vamp().isEmpty() && state.standby() >= end)
                    .map(this::sureOf)
                    .orElse(wake);
        }
        long last = Math.min(limit, leavesNanos());
        return Math.min(last == StepContext.NEVER ? StepContext.NEVER : last - 1, Math.min(decided, firstQuiet()));
    }

    /** All that the music still brings; but with the item's last cue the next item may begin. */
    private long sureOf(Playing p) {
        int last = item.cues().size() - 1;
        long until = p.ahead().stream()
                .filter(t -> t.strikes() && t.order() == last)
                .mapToLong(TimedCalls::nanos)
                .findFirst()
                .orElse(p.ahead().get(p.ahead().size() - 1).nanos());
        return p.dueAt(until);
    }

    /** When the next item begins by itself; far away when it does not. */
    private long leavesNanos() {
        return state.followOn()
                .filter(f -> !isHere(f.cue().item().id()))
                .map(FollowOn::dueNanos)
                .orElse(StepContext.NEVER);
    }

    /** Before this moment it cannot come to rest while the music plays: what comes with it may end a move before its time. */
    private long mayRestAt() {
        long comes = state.playing()
                .filter(p -> !p.ahead().isEmpty())
                .map(p -> p.dueAt(p.ahead().get(0).nanos()))
                .orElse(StepContext.NEVER);
        return Math.min(mayRest(), comes);
    }

    /** Before this moment it cannot come to rest though the music stands: what is still to be called may end moves, and then they must end. */
    private long mayRest() {
        long last = state.agenda().isEmpty()
                ? state.nowNanos()
                : state.agenda().lastKey().dueNanos();
        for (Move move : state.moves().values()) {
            boolean ends = state.agenda().isEmpty() && !move.isEndless();
            last = ends ? Math.max(last, move.endNanos()) : last;
        }
        return Math.max(last, state.followOn().map(FollowOn::dueNanos).orElse(last));
    }

    /** When the first of the waves that have no end is no longer shown. */
    private long firstQuiet() {
        return state.moves().values().stream()
                .filter(m -> m.isEndless() && m.nextNanos() < StepContext.NEVER)
                .mapToLong(m -> m.began() + WAVE_SHOWN_NANOS)
                .min()
                .orElse(StepContext.NEVER);
    }

    /** The moment up to which things come before GO is pressed. */
    private long goNanos() {
        int order = state.standby() - first;
        long where = given.where(order);
        if (where >= 0) {
            return Math.max(where, state.nowNanos());
        }
        OptionalLong before = OptionalLong.empty();
        long behind = StepContext.NEVER;
        if (state.playing().isPresent()) {
            Playing p = state.playing().get();
            before = p.ahead().stream()
                    .filter(t -> t.order() < order)
                    .mapToLong(TimedCalls::nanos)
                    .map(p::dueAt)
                    .max();
            behind = p.ahead().stream()
                    .filter(t -> t.order() >= order)
                    .mapToLong(t -> p.dueAt(t.nanos()) - 1)
                    .findFirst()
                    .orElse(StepContext.NEVER);
        }
        long rested = isAtRest() ? state.nowNanos() : StepContext.NEVER;
        return Math.max(before.orElse(state.nowNanos()), Math.min(behind, rested));
    }

    /** The moment up to which things come before the item is over. */
    private long restNanos() {
        boolean comes = state.playing().filter(p -> !p.ahead().isEmpty()).isPresent();
        boolean waves = state.moves().values().stream().anyMatch(m -> m.nextNanos() < StepContext.NEVER);
        return comes || waves || !isAtRest() ? StepContext.NEVER : state.nowNanos();
    }

    /** All of it has come, and rests. */
    private boolean isOver() {
        return state.standby() >= end
                && state.playing().filter(p -> !p.ahead().isEmpty()).isEmpty()
                && isAtRest();
    }

    /** Nothing moves that will come to an end, and nothing is still to leave. */
    private boolean isAtRest() {
        return state.agenda().isEmpty()
                && state.followOn()
                        .map(FollowOn::cue)
                        .filter(c -> isHere(c.item().id()))
                        .isEmpty()
                && state.moves().values().stream().allMatch(Move::isEndless);
    }

    private void quietWaves() {
        for (var each : state.moves().entrySet()) {
            Control control = each.getKey();
            Move move = each.getValue();
            if (move.isEndless()
                    && move.nextNanos() < StepContext.NEVER
                    && move.nextNanos() - move.began() > WAVE_SHOWN_NANOS) {
                state = state.withMoves(state.moves().plus(control, move.silent()));
                wake = Engine.step(state, Event.pass(state.nowNanos())).wakeNanos();
            }
        }
    }
}
