package underbaton.core.perform;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import java.util.stream.Stream;
import underbaton.core.plan.Landing;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.PlannedItem.VampSpan;
import underbaton.core.score.Score;

/**
 * One item being played: where it is, and what of it comes next.
 *
 * <p>The position is the time since an anchor, worked out anew for every question and never summed up, so it cannot drift
 * however long the item plays; what moves the music (a pause, a locate, a vamp's next pass) moves the anchor by an exact
 * amount.
 */
final class Transport {

    private PlannedItem item;
    private long anchor;
    private OptionalLong pausedAt = OptionalLong.empty();
    private List<Landing> ahead = List.of();
    private Optional<VampSpan> vamp = Optional.empty();
    private int pass = 1;
    /** Where a released vamp is left; the position from which the music goes on behind it. */
    private OptionalLong leavesAt = OptionalLong.empty();

    /** @param began when the item's time zero was or is, by the clock */
    Transport(PlannedItem item, long began) {
        this.item = item;
        this.anchor = began;
    }

    PlannedItem item() {
        return item;
    }

    /** Since the item began, ns; below 0 before it. */
    long position(long now) {
        return pausedAt.orElse(now - anchor);
    }

    boolean paused() {
        return pausedAt.isPresent();
    }

    Optional<VampSpan> vamp() {
        return vamp;
    }

    /** Whether the music is in a vamp that waits to be released. */
    boolean vamping(long now) {
        return vamp.isPresent()
                && leavesAt.isEmpty()
                && position(now) >= vamp.get().fromNanos();
    }

    int pass() {
        return pass;
    }

    boolean released() {
        return leavesAt.isPresent();
    }

    /** What comes next: everything whose cue strikes at the position or later. */
    private void aheadFrom(long position) {
        ahead = new ArrayList<>(
                item.landings().stream().filter(l -> l.cueNanos() >= position).toList());
    }

    /** After a cue was fired by hand: what comes behind it, also in the same instant. */
    void aheadOf(PlannedCue fired) {
        long at = fired.atNanos().orElse(0);
        int order = item.cues().indexOf(fired);
        ahead = new ArrayList<>(item.landings().stream()
                .filter(l -> l.cueNanos() > at || l.cueNanos() == at && l.order() > order)
                .toList());
        enterVamp(at);
    }

    private void enterVamp(long position) {
        Optional<VampSpan> next =
                item.vamps().stream().filter(v -> v.toNanos() > position).findFirst();
        boolean same = next.isPresent()
                && vamp.isPresent()
                && next.get().vamp().bar() == vamp.get().vamp().bar();
        vamp = next;
        if (!same) {
            pass = 1;
            leavesAt = OptionalLong.empty();
        }
    }

    void pause(long now) {
        pausedAt = OptionalLong.of(position(now));
    }

    void resume(long now) {
        pausedAt.ifPresent(p -> anchor = now - p);
        pausedAt = OptionalLong.empty();
    }

    void locate(long position, long now) {
        place(position, now);
        vamp = Optional.empty();
        aheadFrom(position);
        enterVamp(position);
    }

    private void place(long position, long now) {
        if (paused()) {
            pausedAt = OptionalLong.of(position);
        } else {
            anchor = now - position;
        }
    }

    /** Earlier or later by so much: cues that are jumped over come at once, those behind do not come again. */
    void nudge(long nanos, long now) {
        place(position(now) + nanos, now);
    }

    /** Lets the vamp go on as it was told to. @return whether there was one to release */
    boolean release(long now) {
        long position = position(now);
        if (!vamping(now)) {
            return false;
        }
        VampSpan v = vamp.orElseThrow();
        leavesAt = OptionalLong.of(
                switch (v.vamp().leave()) {
                    case END -> v.toNanos();
                    case BAR -> Math.min(v.toNanos(), nextBarline(position));
                    case AT_ONCE -> position;
                });
        return true;
    }

    private long nextBarline(long position) {
        Score.Times times = item.times().orElseThrow();
        int bar = times.bars().position(times.tempi().tick(position)).bar();
        return times.nanosOfBar(bar + 1);
    }

    /**
     * The same item after an edit; the music goes on at the same bar and beat.
     *
     * @param early as for {@link #takeDue}: what has been given out already is not taken for something new
     */
    void adopt(PlannedItem changed, long now, long early) {
        long position = position(now);
        Optional<Score.Times> before = item.times();
        item = changed;
        if (before.isPresent() && changed.times().isPresent() && position > 0) {
            long tick = before.get().tempi().tick(position);
            long within = position - before.get().tempi().nanos(tick);
            position = changed.times().get().tempi().nanos(tick) + within;
            place(position, now);
        }
        long from = position;
        long given = paused() ? 0 : early;
        // What has struck is behind us, but what was told early and has not struck must not be told twice.
        List<Landing> waiting = ahead;
        ahead = new ArrayList<>(item.landings().stream()
                .filter(l -> l.cueNanos() > from + given || waits(waiting, l))
                .filter(l -> l.nanos() > from + given || waits(waiting, l))
                .toList());
        leavesAt = leavesAt.isPresent() && vamp.isPresent() ? leavesAt : OptionalLong.empty();
        enterVamp(from);
    }

    private static boolean waits(List<Landing> waiting, Landing landing) {
        return waiting.stream()
                .anyMatch(w -> w.cue().cueId() == landing.cue().cueId()
                        && w.cue().copy().equals(landing.cue().copy())
                        && w.strikes() == landing.strikes());
    }

    // ---- what comes

    private boolean goesRound() {
        return vamp.isPresent()
                && leavesAt.isEmpty()
                && pass < vamp.get().vamp().most();
    }

    /** The position at which the music jumps, or leaves the vamp; far away when there is none. */
    private long turnAt() {
        return vamp.map(v -> leavesAt.orElse(v.toNanos())).orElse(Long.MAX_VALUE);
    }

    /** While the vamp goes round, or is to be left before its end, what lies behind the turn is not yet to come. */
    private Stream<Landing> coming() {
        return ahead.stream().filter(comes());
    }

    private Predicate<Landing> comes() {
        long turn = turnAt();
        boolean jumps = vamp.isPresent() && (goesRound() || turn < vamp.get().toNanos());
        return l -> !jumps || l.cueNanos() < turn;
    }

    /** Looks at the first few alone, however much lies behind them. */
    private List<Landing> takeAll(long instant) {
        Predicate<Landing> comes = comes();
        List<Landing> taken = new ArrayList<>();
        Iterator<Landing> each = ahead.iterator();
        while (each.hasNext()) {
            Landing landing = each.next();
            if (landing.nanos() > instant) {
                break;
            }
            if (landing.nanos() == instant && comes.test(landing)) {
                taken.add(landing);
                each.remove();
            }
        }
        return taken;
    }

    private Optional<Landing> next() {
        return coming().findFirst();
    }

    /**
     * Takes the next landings that are due, all of one instant, and makes the turns of the vamp on the way.
     *
     * @param early how long before its time a landing is given out, ns; never over a turn that is still to come, since the
     *     vamp may yet be released
     */
    List<Landing> takeDue(long now, long early) {
        while (!paused()) {
            Optional<Landing> next = next();
            long position = position(now);
            if (next.isPresent() && next.get().nanos() <= Math.min(position + early, turnAt())) {
                long instant = next.get().nanos();
                return takeAll(instant);
            }
            if (turnAt() > position) {
                return List.of();
            }
            turn();
        }
        return List.of();
    }

    private void turn() {
        VampSpan v = vamp.orElseThrow();
        if (goesRound()) {
            anchor += v.toNanos() - v.fromNanos();
            pass++;
            aheadFrom(v.fromNanos());
            return;
        }
        long from = turnAt();
        if (from < v.toNanos()) {
            anchor -= v.toNanos() - from;
            aheadFrom(v.toNanos());
        }
        enterVamp(v.toNanos());
    }

    /** ns until there is work; {@code Long.MAX_VALUE} when nothing comes. @param early as for {@link #takeDue} */
    long nanosToNext(long now, long early) {
        if (paused()) {
            return Long.MAX_VALUE;
        }
        long position = position(now);
        long enters = vamp.map(VampSpan::fromNanos).filter(f -> f > position).orElse(Long.MAX_VALUE);
        long turns = Math.min(turnAt(), enters);
        long at = Math.min(turns, next().map(l -> l.nanos() - early).orElse(Long.MAX_VALUE));
        return at == Long.MAX_VALUE ? at : Math.max(0, at - position);
    }

    /** The next cue that comes by itself, as things stand. */
    Optional<Landing> nextStrike() {
        return coming().filter(Landing::strikes).findFirst();
    }

    /** Takes all that would still come of the cues before a place of the item, in the order of time. */
    List<Landing> takeBefore(int order) {
        List<Landing> taken = ahead.stream().filter(l -> l.order() < order).toList();
        ahead.removeAll(taken);
        return taken;
    }

    /** When a position comes, by the clock. */
    long dueAt(long position) {
        return anchor + position;
    }
}
