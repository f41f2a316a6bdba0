package underbaton.core.engine.music;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Supplier;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.PlannedItem.VampSpan;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Along;
import underbaton.core.rig.Effect;

/**
 * The vamp that an item is in, or comes to next. Machines with a lead are told of the beginning of its next pass before this one ends,
 * as long as nobody has released it; what cannot be taken back, should somebody then do so, is told at its place instead. Immutable.
 *
 * @param span empty where none comes any more
 * @param entered whether the music is in it
 * @param pass which time it is played, from 1
 * @param leavesAt where a released vamp is left, ns since the item began
 * @param early what is still to be told in this pass of the next one, by places of this one
 * @param told what of that was told
 * @param before what the machines had been told before that; empty where nothing was
 */
record VampRun(
        Optional<VampSpan> span,
        boolean entered,
        int pass,
        OptionalLong leavesAt,
        List<TimedCalls> early,
        List<TimedCalls> told,
        Optional<DeviceStates> before) {

    static final VampRun NONE =
            new VampRun(Optional.empty(), false, 1, OptionalLong.empty(), List.of(), List.of(), Optional.empty());

    /** The one that a position lies in or before; what is known of its passes is kept where it is the same one. */
    VampRun near(PlannedItem item, long position) {
        Optional<VampSpan> next =
                item.vamps().stream().filter(v -> v.toNanos() > position).findFirst();
        boolean same = next.isPresent()
                && span.isPresent()
                && next.get().vamp().bar() == span.get().vamp().bar();
        boolean within = next.isPresent() && position >= next.get().fromNanos();
        VampRun kept = same ? this : NONE;
        VampRun there = new VampRun(next, within, kept.pass, kept.leavesAt, List.of(), kept.told, kept.before);
        return within ? there.withEarly(item, position, kept.early) : there;
    }

    VampRun entering(PlannedItem item) {
        return new VampRun(span, true, pass, leavesAt, List.of(), List.of(), Optional.empty())
                .withEarly(item, span.orElseThrow().fromNanos(), List.of());
    }

    VampRun again(PlannedItem item) {
        return new VampRun(span, true, pass + 1, OptionalLong.empty(), List.of(), List.of(), Optional.empty())
                .withEarly(item, span.orElseThrow().fromNanos(), List.of());
    }

    /** Nothing more is told of a pass that does not come. */
    VampRun leaving(long position) {
        return new VampRun(span, entered, pass, OptionalLong.of(position), List.of(), List.of(), Optional.empty());
    }

    // ---- what is asked of it

    /** Whether the music is in it, and it waits to be released. */
    boolean waits() {
        return entered && span.isPresent() && leavesAt.isEmpty();
    }

    /** Goes round once more at its end, unless it is released or has been played as often as it may. @param once whether vamps are played once */
    boolean goesRound(boolean once) {
        return !once
                && span.isPresent()
                && leavesAt.isEmpty()
                && pass < span.get().vamp().most();
    }

    /** The position at which the music jumps, or leaves the vamp; far away when there is none. */
    long turnAt() {
        return span.map(v -> leavesAt.orElse(v.toNanos())).orElse(StepContext.NEVER);
    }

    /** Where something of it happens next, ns since the item began; far away when nothing does. */
    long nextNanos(boolean once) {
        long next = span.map(v -> entered ? turnAt() : v.fromNanos()).orElse(StepContext.NEVER);
        return tellsEarly(once) ? Math.min(next, early.get(0).nanos()) : next;
    }

    /** While it goes round, or is to be left before its end, what lies behind the turn is not yet to come. */
    boolean comes(TimedCalls calls) {
        if (span.isEmpty()) {
            return true;
        }
        long turn = turnAt();
        boolean jumps = goesRound(false) || turn < span.get().toNanos();
        return !jumps || calls.momentNanos() < turn;
    }

    // ---- what is told of the next pass

    private boolean tellsEarly(boolean once) {
        return entered && !early.isEmpty() && goesRound(once);
    }

    /** What of the next pass is told up to a position of this one. */
    List<TimedCalls> earlyUntil(long position, boolean once) {
        return tellsEarly(once)
                ? early.stream().filter(t -> t.nanos() <= position).toList()
                : List.of();
    }

    /** @param states as the machines were told to be before that */
    VampRun telling(List<TimedCalls> taken, Supplier<DeviceStates> states) {
        List<TimedCalls> now =
                early.isEmpty() ? early : early.stream().filter(taken::contains).toList();
        if (now.isEmpty()) {
            return this;
        }
        List<TimedCalls> all = new ArrayList<>(told);
        all.addAll(now);
        return new VampRun(
                span,
                entered,
                pass,
                leavesAt,
                early.stream().filter(t -> !now.contains(t)).toList(),
                List.copyOf(all),
                before.or(() -> Optional.of(states.get())));
    }

    /** What comes in the next pass, without what has been told of it. */
    List<TimedCalls> withoutTold(List<TimedCalls> coming) {
        return told.isEmpty()
                ? coming
                : coming.stream()
                        .map(this::withoutTold)
                        .filter(t -> t.strikes() || !t.calls().isEmpty())
                        .toList();
    }

    private TimedCalls withoutTold(TimedCalls t) {
        long length = span.orElseThrow().toNanos() - span.orElseThrow().fromNanos();
        List<PlannedCall> left = t.calls();
        for (TimedCalls e : told) {
            if (e.order() == t.order() && e.momentNanos() == t.momentNanos() + length) {
                left = left.stream().filter(c -> !e.calls().contains(c)).toList();
            }
        }
        return t.calling(left);
    }

    /** @param waiting what waited to be told before an edit, though its place lies behind the position */
    private VampRun withEarly(PlannedItem item, long position, List<TimedCalls> waiting) {
        VampSpan v = span.orElseThrow();
        long length = v.toNanos() - v.fromNanos();
        List<TimedCalls> next = new ArrayList<>();
        for (TimedCalls t : item.timed()) {
            long leaves = t.nanos() - t.lateNanos();
            boolean begins = t.momentNanos() >= v.fromNanos() && t.momentNanos() < v.toNanos();
            List<PlannedCall> calls = withoutTold(t).calls().stream()
                    .filter(VampRun::canBeTakenBack)
                    .toList();
            if (begins && leaves < v.fromNanos() && leaves + length > v.fromNanos() && !calls.isEmpty()) {
                TimedCalls early = t.calling(calls).later(length);
                boolean stillWaits = early.nanos() >= position
                        || waiting.stream().anyMatch(w -> w.key().equals(early.key()));
                if (stillWaits) {
                    next.add(early.notBefore(position));
                }
            }
        }
        next.sort(null);
        return new VampRun(span, entered, pass, leavesAt, List.copyOf(next), told, before);
    }

    /** A step, a flash or the beginning of a move cannot, nor what ends what runs or puts lists back to their beginning. */
    private static boolean canBeTakenBack(PlannedCall call) {
        Effect effect = call.effect();
        boolean stays = effect.takesASlot() || effect.kind() == Effect.Kind.LEVELS;
        boolean ends =
                effect.kind() == Effect.Kind.STOPS || effect.takesAlong(Along.RUNS) || effect.takesAlong(Along.LISTS);
        return stays && !ends && call.motion().isEmpty();
    }

    VampRun shifted(long nanos) {
        return new VampRun(span, entered, pass, leavesAt, early, told, before.map(b -> b.shifted(nanos)));
    }
}
