package underbaton.core.engine.music;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.PlannedItem.VampSpan;
import underbaton.core.plan.TimedCalls;
import underbaton.core.score.Anchor;
import underbaton.core.score.Score;

/**
 * One item being played: where it is, and what of it comes next. Immutable.
 *
 * <p>The position is the time since an anchor, worked out anew for every question and never summed up, so it cannot drift
 * however long the item plays; what moves the music (a pause, a locate, a vamp's next pass) moves the anchor by an exact
 * amount.
 *
 * @param anchor from which its position is worked out
 * @param pause where the music stands still, and since when; empty while it goes on
 * @param ahead what is still to come, in the order of the times
 * @param vampRun the vamp that the music is in, or comes to next
 */
public record Playing(
        PlannedItem item, Anchor anchor, Optional<Standstill> pause, List<TimedCalls> ahead, VampRun vampRun) {

    /** A tapped tempo is taken for the one of its octaves that is nearest to what is written: from 1/√2 of it on. */
    private static final double LEAST_TAPPED = Math.sqrt(0.5);

    /** More than a vamp of a bar goes round in a night. */
    private static final int MOST_TURNS = 100_000;

    /** From a place of it on: everything that is to be heard there or later is still to come. */
    public static Playing from(PlannedItem item, long position, long now) {
        Playing at = new Playing(
                item, new Anchor(now, position, Anchor.AS_WRITTEN), Optional.empty(), List.of(), VampRun.NONE);
        return at.aheadFrom(position).nearVamp(position);
    }

    /** After one of its timed cues was fired by hand: what comes behind it, also in the same instant. */
    public static Playing after(PlannedItem item, PlannedCue fired, int order, long now) {
        long at = fired.atNanos().orElse(item.placeOf(order));
        Playing from = from(item, at, now);
        return from.withAhead(item.timed().stream()
                .filter(t -> t.momentNanos() > at || t.momentNanos() == at && t.order() > order)
                .filter(t -> t.order() != order)
                .toList());
    }

    // ---- where it is

    /** Since the item began, ns; below 0 before it. */
    public long position(long now) {
        return pause.isPresent() ? pause.get().atNanos() : anchor.position(now);
    }

    /** Whether its clock stands. */
    public boolean paused() {
        return pause.isPresent();
    }

    /** How long the music has stood at a moment, ns; 0 while it goes on. */
    long stood(long now) {
        return pause.map(p -> now - p.sinceNanos()).orElse(0L);
    }

    /** Whether the music is in a vamp that waits to be released. */
    public boolean vamping() {
        return vampRun.waits();
    }

    /** Whether the vamp is left at the end of this pass. */
    public boolean released() {
        return vampRun.leavesAt().isPresent();
    }

    /** The vamp that the music is in, or comes to next. */
    public Optional<VampSpan> vamp() {
        return vampRun.span();
    }

    /** Which time the vamp is played, from 1. */
    public int pass() {
        return vampRun.pass();
    }

    /** When a position comes, by the clock. */
    public long dueAt(long position) {
        return anchor.dueAt(position);
    }

    /** The next cue that comes by itself, as things stand. */
    public Optional<TimedCalls> nextStrike() {
        return ahead.stream().filter(TimedCalls::strikes).filter(vampRun::comes).findFirst();
    }

    // ---- what moves it

    /** Its clock stands from this moment, ns. */
    public Playing pause(long now) {
        return placed(anchor, Optional.of(new Standstill(position(now), now)));
    }

    /** Its clock goes on from this moment, ns. */
    public Playing resume(long now) {
        return paused() ? placed(position(now), now) : this;
    }

    /** It stands at another place, ns from its beginning, at this moment. */
    public Playing locate(long position, long now) {
        return place(position, now).withoutVamp().aheadFrom(position).nearVamp(position);
    }

    /** Earlier or later by so much: cues that are jumped over come at once, those behind do not come again. */
    public Playing nudge(long nanos, long now) {
        return place(position(now) + nanos, now);
    }

    /** Somebody else leads it: it is at a place now and goes so fast; what is jumped over comes at once. */
    Playing led(long position, int permille, long now) {
        return placed(new Anchor(now, position, permille), Optional.empty());
    }

    /** The same, which was at a position at another moment. */
    public Playing placed(long position, long asOf) {
        return placed(anchor.placed(position, asOf), Optional.empty());
    }

    /** Where it would be had it not stood still since a moment, vamps gone round as often as they may. */
    public long positionAsIf(long since, long now) {
        Playing goes = placed(position(since), since);
        for (int turns = 0; turns < MOST_TURNS && goes.turnsNanos() <= now; turns++) {
            goes = goes.turned(goes.turnsNanos(), false);
        }
        return goes.position(now);
    }

    /** When the vamp that comes next is entered, goes round or is left; far away for none. */
    private long turnsNanos() {
        return vamp().map(v -> dueAt(vampRun.entered() ? vampRun.turnAt() : v.fromNanos()))
                .orElse(StepContext.NEVER);
    }

    private Playing place(long position, long now) {
        return paused() ? placed(anchor, pause.map(p -> p.movedTo(position))) : placed(position, now);
    }

    /**
     * At the pace at which its beat is tapped, as near as a pace may be; who taps every second beat, or twice a beat, is understood.
     *
     * @param beatNanos how long a beat lasts as it is heard, above 0
     */
    public Playing tapped(long beatNanos, long now) {
        return item.times()
                .map(t -> {
                    long tick = t.tempi().tick(Math.max(0, position(now)));
                    double ratio = (double) t.tempi().beatNanos(tick) / beatNanos;
                    while (ratio < LEAST_TAPPED) {
                        ratio *= 2;
                    }
                    while (ratio > 2 * LEAST_TAPPED) {
                        ratio /= 2;
                    }
                    return pace((int) Math.round(ratio * Anchor.AS_WRITTEN), now);
                })
                .orElse(this);
    }

    /** From now on it goes so fast, 1,000 being as written; what is played on is the same. */
    public Playing pace(int permille, long now) {
        return placed(anchor.paced(permille, now), pause);
    }

    /** Lets the vamp go on as it was told to; nothing where there is none to release. */
    public Playing release(long now) {
        if (!vamping()) {
            return this;
        }
        long position = position(now);
        VampSpan v = vamp().orElseThrow();
        return vamping(vampRun.leaving(
                switch (v.vamp().leave()) {
                    case END -> v.toNanos();
                    case BAR -> Math.min(v.toNanos(), nextBarline(position));
                    case AT_ONCE -> position;
                }));
    }

    private long nextBarline(long position) {
        Score.Times times = item.times().orElseThrow();
        int bar = times.bars().position(times.tempi().tick(position)).bar();
        return times.nanosOfBar(bar + 1);
    }

    /** The same item after an edit; the music goes on at the same bar and beat. */
    public Playing adopt(PlannedItem changed, long now) {
        long position = position(now);
        Optional<Score.Times> before = item.times();
        Playing next = new Playing(changed, anchor, pause, ahead, vampRun);
        if (before.isPresent() && changed.times().isPresent() && position > 0) {
            long tick = before.get().tempi().tick(position);
            long within = position - before.get().tempi().nanos(tick);
            position = changed.times().get().tempi().nanos(tick) + within;
            next = next.place(position, now);
        }
        long from = position;
        Set<TimedCalls.Key> told = toldEarly(position(now));
        Set<TimedCalls.Key> waiting = ahead.stream().map(TimedCalls::key).collect(Collectors.toSet());
        return next.withAhead(changed.timed().stream()
                        .filter(t -> waiting.contains(t.key()) || t.momentNanos() > from && !told.contains(t.key()))
                        .toList())
                .nearVamp(from);
    }

    /** What has been told already and is yet to be heard, so that an edit does not tell it twice. */
    public Set<TimedCalls.Key> toldEarly(long position) {
        Set<TimedCalls.Key> told = item.timed().stream()
                .filter(t -> t.momentNanos() > position)
                .map(TimedCalls::key)
                .collect(Collectors.toSet());
        ahead.forEach(t -> told.remove(t.key()));
        return told;
    }

    /** Without what has been told already. */
    public Playing withoutTold(Collection<TimedCalls.Key> told) {
        return withAhead(ahead.stream().filter(t -> !told.contains(t.key())).toList());
    }

    // ---- what comes

    /** Whether something of it lies behind a vamp that nobody has released: when it comes, nobody knows. */
    public boolean waitsForRelease(TimedCalls calls) {
        return !released() && !vampRun.comes(calls);
    }

    private boolean comes(TimedCalls calls, boolean once) {
        return once && !released() || vampRun.comes(calls);
    }

    /**
     * When something comes of it next, by the clock: calls, a turn of the vamp, the end; far away when nothing does.
     *
     * @param once whether vamps are played once
     */
    public long nextNanos(boolean once) {
        if (paused()) {
            return StepContext.NEVER;
        }
        long next = StepContext.NEVER;
        for (TimedCalls calls : ahead) {
            if (comes(calls, once)) {
                next = calls.nanos();
                break;
            }
        }
        next = Math.min(next, vampRun.nextNanos(once));
        if (ahead.isEmpty() && vamp().isEmpty() && item.times().isPresent()) {
            next = Math.min(next, item.scoreNanos());
        }
        return next == StepContext.NEVER ? StepContext.NEVER : dueAt(next);
    }

    /** What comes at an instant, in the order of the book. */
    public List<TimedCalls> comingAt(long nanos, boolean once) {
        long instant = anchor.position(nanos);
        List<TimedCalls> coming = new ArrayList<>();
        for (TimedCalls calls : ahead) {
            if (calls.nanos() > instant) {
                break;
            }
            if (comes(calls, once)) {
                coming.add(calls);
            }
        }
        List<TimedCalls> early = vampRun.earlyUntil(instant, once);
        if (!early.isEmpty()) {
            coming.addAll(early);
            coming.sort(null);
        }
        return coming;
    }

    /** Of the cues before a place of the item what is still to come, in the order of time. */
    public List<TimedCalls> before(int order) {
        return ahead.stream().filter(t -> t.order() < order).toList();
    }

    /** Without what was taken out of what comes. */
    public Playing without(List<TimedCalls> taken) {
        return withAhead(
                isForemost(taken)
                        ? ahead.subList(taken.size(), ahead.size())
                        : ahead.stream().filter(t -> !taken.contains(t)).toList());
    }

    /** The same, which are told now. @param states as the machines were told to be before that */
    Playing telling(List<TimedCalls> taken, Supplier<DeviceStates> states) {
        return without(taken).vamping(vampRun.telling(taken, states));
    }

    private boolean isForemost(List<TimedCalls> taken) {
        for (int i = 0; i < taken.size(); i++) {
            if (i >= ahead.size() || ahead.get(i) != taken.get(i)) {
                return false;
            }
        }
        return true;
    }

    /** Into the vamp, round it, or on behind it, whichever comes at an instant; itself where nothing does. */
    public Playing turned(long nanos, boolean once) {
        long position = anchor.position(nanos);
        if (vamp().isEmpty()) {
            return this;
        }
        VampSpan v = vamp().get();
        if (!vampRun.entered()) {
            return position < v.fromNanos() ? this : vamping(vampRun.entering(item));
        }
        long turn = vampRun.turnAt();
        if (position < turn) {
            return this;
        }
        if (vampRun.goesRound(once)) {
            Playing again =
                    placed(anchor.moved(v.fromNanos() - v.toNanos()), pause).aheadFrom(v.fromNanos());
            return again.withAhead(vampRun.withoutTold(again.ahead)).vamping(vampRun.again(item));
        }
        boolean jumps = turn < v.toNanos();
        Playing behind = jumps ? placed(anchor.moved(v.toNanos() - turn), pause).aheadFrom(v.toNanos()) : this;
        return behind.nearVamp(v.toNanos());
    }

    /** Whether its score has been played to the end. */
    public boolean overAt(long nanos) {
        return !paused()
                && ahead.isEmpty()
                && vamp().isEmpty()
                && item.times().isPresent()
                && anchor.position(nanos) >= item.scoreNanos();
    }

    // ---- copies

    /** What should have been told before the position, and is yet to be heard, is told there. */
    private Playing aheadFrom(long position) {
        return withAhead(
                position <= 0
                        ? item.timed()
                        : item.timed().stream()
                                .filter(t -> t.momentNanos() >= position)
                                .map(t -> t.notBefore(position))
                                // What is told at once is told in the order in which it would have been.
                                .toList());
    }

    /** Without what is to be heard at a place or behind it. */
    public Playing below(long position) {
        return position == StepContext.NEVER
                ? this
                : withAhead(
                        ahead.stream().filter(t -> t.momentNanos() < position).toList());
    }

    /** With other calls to come, in the order of their moments. */
    public Playing withAhead(List<TimedCalls> newAhead) {
        return new Playing(item, anchor, pause, newAhead, vampRun);
    }

    private Playing placed(Anchor newAnchor, Optional<Standstill> newPause) {
        return new Playing(item, newAnchor, newPause, ahead, vampRun);
    }

    private Playing vamping(VampRun newVamp) {
        return newVamp == vampRun ? this : new Playing(item, anchor, pause, ahead, newVamp);
    }

    private Playing withoutVamp() {
        return vamping(VampRun.NONE);
    }

    private Playing nearVamp(long position) {
        return vamping(vampRun.near(item, position));
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Playing shifted(long nanos) {
        return placed(anchor.shifted(nanos), pause.map(p -> p.shifted(nanos))).vamping(vampRun.shifted(nanos));
    }
}
