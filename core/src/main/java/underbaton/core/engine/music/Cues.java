package underbaton.core.engine.music;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.call.DueCall;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;

/**
 * Cues are given, while a step is taken: those that land by themselves, those that follow, those that are fired. Calls of one
 * instant reach each device programs first, then controls, then notes, from whichever cue they come. Not thread-safe, used
 * once.
 */
public final class Cues {

    private final StepContext step;
    private final Music music;
    private final Devices devices;
    private final Calls calls;

    /** Made anew for each step, of the parts that it asks. */
    public Cues(StepContext step, Music music, Devices devices, Calls calls) {
        this.step = step;
        this.music = music;
        this.devices = devices;
        this.calls = calls;
    }

    private Plan plan() {
        return step.plan();
    }

    // ---- what comes by itself

    /** What the item that plays brings at a moment; what an order has jumped over comes with the order, not before it. */
    public void landDue(long due) {
        List<TimedCalls> coming = music.take(due, devices::told);
        if (!coming.isEmpty()) {
            land(coming, Math.max(due, step.now()));
        }
    }

    /** What comes in one instant is given. */
    public void land(List<TimedCalls> together, long due) {
        music.goesOn();
        long began = music.playing().map(p -> p.dueAt(0)).orElse(due);
        if (together.size() == 1 && together.get(0).calls().size() <= 1) {
            TimedCalls alone = together.get(0);
            alone.calls().forEach(call -> calls.make(due(alone, call, due, began), alone.lateNanos() > 0));
        } else {
            List<DueCall> made = new ArrayList<>();
            for (TimedCalls timed : together) {
                timed.calls().forEach(call -> made.add(due(timed, call, due, began)));
            }
            calls.makeAll(made);
        }
        for (TimedCalls timed : together) {
            if (timed.strikes()) {
                fired(timed.cue(), due);
            }
        }
    }

    private static DueCall due(TimedCalls timed, PlannedCall call, long due, long began) {
        Cause cause = Cause.cue(timed.cue().label(), timed.cue().cueId(), 0, began);
        return new DueCall(call, due, due - timed.lateNanos(), cause);
    }

    private void fired(PlannedCue cue, long at) {
        music.fired(cue, at);
        if (cue.armed()) {
            step.happens(new Happening.Fired(cue, at, devices.states()));
        }
        if (cue.atNanos().isPresent()) {
            followOver(plan().indexOf(cue), at);
        }
    }

    /** What follows the last cue of an item and stands first in the next one comes by itself also behind a timed cue. */
    private void followOver(int index, long at) {
        int next = index + 1;
        if (index >= 0 && next < plan().cues().size() && plan().isFirst(next)) {
            await(next, at, 0, at);
        }
    }

    private void await(int index, long at, int sinceCueId, long since) {
        PlannedCue cue = plan().cues().get(index);
        if (cue.follows()) {
            music.await(new FollowOn(cue, at + cue.delayNanos(), sinceCueId, since));
        }
    }

    /** The cue that follows by itself is fired. */
    public void fireFollowOn(long due) {
        FollowOn f = music.followOn().orElseThrow();
        music.follow(Optional.empty());
        int index = plan().indexOf(f.cue());
        if (index >= 0) {
            keepLateCalls(f.cue().item().id());
            fireFrom(index, due, f.sinceCueId(), f.sinceNanos());
        }
    }

    /** An item that is left by itself has given its last cue: what that one calls late still comes. */
    public void keepLateCalls(int nextItemId) {
        Playing left = music.playing()
                .filter(p -> !p.paused() && p.item().item().id() != nextItemId)
                .orElse(null);
        if (left == null) {
            return;
        }
        for (TimedCalls late : left.ahead()) {
            if (hasCome(late.cue(), left)) {
                long due = left.dueAt(late.nanos());
                late.calls().forEach(call -> calls.makeAll(List.of(due(late, call, due, left.dueAt(0)))));
            }
        }
    }

    /** A dry run keeps no account of what was given: there all has come that is not still to strike. */
    private boolean hasCome(PlannedCue cue, Playing playing) {
        return step.isDryRun()
                ? playing.ahead().stream().noneMatch(t -> t.strikes() && t.cue().equals(cue))
                : music.progress().whereGiven(cue) != ItemProgress.NOT_GIVEN;
    }

    // ---- what is fired

    /** A cue and all that come with it are fired by GO, and the one that comes after is awaited. @param index of it in the plan */
    public void fireFrom(int index, long due) {
        fireFrom(index, due, plan().cues().get(index).cueId(), due);
    }

    private void fireFrom(int index, long due, int sinceCueId, long since) {
        PlannedCue first = plan().cues().get(index);
        List<PlannedCall> early = toldEarlyOf(first);
        beginWith(index, due);
        int i = index + 1;
        while (first.atNanos().isEmpty()
                && i < plan().cues().size()
                && !plan().isFirst(i)
                && plan().cues().get(i).comesWith()) {
            i++;
        }
        fire(plan().cues().subList(index, i), due, sinceCueId, since, early);
        if (first.atNanos().isEmpty() && i < plan().cues().size()) {
            await(i, due, sinceCueId, since);
        }
    }

    /** What machines with a lead have been told of a cue that is given before its time. */
    private List<PlannedCall> toldEarlyOf(PlannedCue cue) {
        PlannedItem item = plan().item(cue.item().id()).orElseThrow();
        Set<TimedCalls.Key> keys = cue.atNanos().isEmpty() ? Set.of() : toldEarly(item, cue);
        return keys.isEmpty()
                ? List.of()
                : item.timed().stream()
                        .filter(t -> t.cue().equals(cue) && keys.contains(t.key()))
                        .flatMap(t -> t.calls().stream())
                        .toList();
    }

    /** @param early calls that have been made already, if the cue that is given has a time */
    private void fire(List<PlannedCue> together, long due, int sinceCueId, long since, List<PlannedCall> early) {
        music.goesOn();
        List<DueCall> made = new ArrayList<>();
        for (PlannedCue cue : together) {
            boolean first = plan().isFirst(plan().indexOf(cue));
            Cause cause = Cause.cue(cue.label(), cue.cueId(), first ? 0 : sinceCueId, first ? due : since);
            for (PlannedCall call : cue.calls()) {
                boolean told = cue.atNanos().isPresent() && early.contains(call);
                if (!told) {
                    made.add(DueCall.at(due + Math.max(0, call.afterNanos()), call, cause));
                }
            }
        }
        calls.makeAll(made);
        together.forEach(cue -> fired(cue, due));
    }

    /**
     * An item begins with its first cue; with another one the music begins where the book has that cue, unless it plays
     * already and the cue waits for GO, or the item has been played.
     */
    private void beginWith(int index, long due) {
        PlannedCue cue = plan().cues().get(index);
        int itemId = cue.item().id();
        boolean goesOn = music.progress().itemId() == itemId
                && !plan().isFirst(index)
                && cue.atNanos().isEmpty();
        if (goesOn) {
            return;
        }
        PlannedItem item = plan().item(itemId).orElseThrow();
        int order = index - plan().firstOf(itemId);
        music.begin(Playing.after(item, cue, order, due).withoutTold(toldEarly(item, cue)), due);
        music.gaveAllBefore(item, order);
    }

    /** Of what comes behind a cue what machines with a lead have been told already; nothing where the music goes back. */
    private Set<TimedCalls.Key> toldEarly(PlannedItem item, PlannedCue cue) {
        return music.playing()
                .filter(p -> p.item() == item && cue.atNanos().orElse(-1) >= p.position(step.now()))
                .map(p -> p.toldEarly(p.position(step.now())))
                .orElse(Set.of());
    }

    /** An item's music begins; its cues are not fired. @param from ns since it begins */
    public void begin(int itemId, long from) {
        PlannedItem item = plan().item(itemId).orElseThrow();
        music.goesOn();
        music.begin(Playing.from(item, from, step.now()), step.now());
    }
}
