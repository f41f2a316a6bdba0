package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import underbaton.core.engine.PlaybackState.FollowOn;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;

/**
 * What time brings: the cues that follow or land by themselves, vamps that turn, moves that end.
 *
 * <p>What is due at the same moment happens in this order: moves come to their ends, then what was called before leaves, then
 * the cue that follows, then what the playing item brings, then steps of moves under way. Calls of one instant reach each
 * device programs first, then controls, then notes, from whichever cue they come.
 */
abstract class Passing extends Telling {

    /** What was told already of the cue that is being given. */
    private List<PlannedCall> early = List.of();

    Passing(PlaybackState s) {
        super(s);
    }

    /** Does all that is due until a moment, that moment included. */
    void pass(long until) {
        while (true) {
            long end = nextEnd();
            long later = nextLater();
            long follow = nextFollow();
            long plays = nextOfPlaying();
            long step = nextStep();
            long asks = nextAsk();
            long first = Math.min(asks, Math.min(Math.min(end, later), Math.min(follow, Math.min(plays, step))));
            if (first > until || first == NEVER) {
                break;
            }
            now = Math.max(now, first);
            if (first == asks) {
                hand = hand.movedTo(hand.moved());
                happenings.add(new Happening.Turned(first));
            } else if (first == end) {
                endMove(first);
            } else if (first == later) {
                makeLater();
            } else if (first == follow) {
                fireFollowOn(first);
            } else if (first == plays) {
                play(first);
            } else {
                stepMoves(first);
            }
        }
        now = Math.max(now, until);
    }

    @Override
    long nextNanos() {
        return Math.min(
                Math.min(nextAsk(), Math.min(nextEnd(), nextLater())),
                Math.min(nextFollow(), Math.min(nextOfPlaying(), nextStep())));
    }

    /** When a GO that waits for its second press has waited long enough. */
    long nextAsk() {
        return hand.askedNanos().isPresent() ? hand.askedNanos().getAsLong() + Manner.PATIENCE_NANOS + 1 : NEVER;
    }

    /** A dry run plays one item; with what comes by itself behind it, the next one begins. */
    long nextFollow() {
        if (followOn.isEmpty()) {
            return NEVER;
        }
        FollowOn f = followOn.get();
        boolean leaves = straightUntil.isPresent()
                && begun.itemId() != 0
                && begun.itemId() != f.cue().item().id();
        return leaves ? NEVER : f.dueNanos();
    }

    long nextOfPlaying() {
        return playing.isEmpty() ? NEVER : playing.get().nextNanos(straightUntil.isPresent());
    }

    long nextLater() {
        return agenda.isEmpty() ? NEVER : agenda.firstKey().dueNanos();
    }

    long nextEnd() {
        long end = NEVER;
        if (moves.isEmpty()) {
            return end;
        }
        for (Move move : moves.values()) {
            end = Math.min(end, move.endNanos());
        }
        return end;
    }

    long nextStep() {
        long step = NEVER;
        if (moves.isEmpty()) {
            return step;
        }
        for (Move move : moves.values()) {
            step = Math.min(step, move.nextNanos());
        }
        return step;
    }

    void makeLater() {
        Map.Entry<Later.Key, Later> first = agenda.firstEntry();
        agenda = agenda.minus(first.getKey());
        long due = first.getKey().dueNanos();
        if (first.getValue() instanceof Later.ALaterCall later) {
            make(later.call(), due, due, later.cause(), false);
        } else if (first.getValue() instanceof Later.ALaterMessage later) {
            emit(later.deviceId(), later.message(), due, due, later.cause(), false);
            owe(later.deviceId(), later.message());
        } else if (first.getValue() instanceof Later.AMove later) {
            goOn(later.move(), due, later.cause());
        }
    }

    void play(long due) {
        Playing p = playing.orElseThrow();
        List<TimedCalls> coming = p.comingAt(due, straightUntil.isPresent());
        if (!coming.isEmpty()) {
            playing = Optional.of(p.without(coming));
            land(coming, due);
            return;
        }
        if (p.overAt(due)) {
            playing = Optional.empty();
            happenings.add(new Happening.Ended(p.item(), due));
            return;
        }
        playing = Optional.of(p.turned(due, straightUntil.isPresent()));
        happenings.add(new Happening.Turned(due));
    }

    /** A message has left that ends something, perhaps while its machine was away. */
    abstract void owe(int deviceId, Message end);

    /** Lands what comes in one instant. */
    void land(List<TimedCalls> together, long due) {
        stopped = false;
        long began = playing.map(p -> p.dueAt(0)).orElse(due);
        if (together.size() == 1 && together.get(0).calls().size() <= 1) {
            TimedCalls alone = together.get(0);
            if (!alone.calls().isEmpty()) {
                make(alone.calls().get(0), due, due - alone.lateNanos(), cause(alone, began), alone.lateNanos() > 0);
            }
        } else {
            List<Made> made = new ArrayList<>();
            for (TimedCalls timed : together) {
                Cause cause = cause(timed, began);
                for (PlannedCall call : timed.calls()) {
                    made.add(new Made(call, due, due - timed.lateNanos(), cause));
                }
            }
            makeAll(made);
        }
        for (TimedCalls timed : together) {
            if (timed.strikes()) {
                fired(timed.cue(), due);
            }
        }
    }

    static Cause cause(TimedCalls timed, long began) {
        return new Cause("cue " + timed.cue().label(), timed.cue().cueId(), 0, began);
    }

    void fired(PlannedCue cue, long at) {
        if (straightUntil.isEmpty()) {
            begun = begun.gave(cue, playing.map(p -> p.position(at)).orElse(at - begun.nanos()));
        }
        if (cue.armed()) {
            last = Optional.of(new PlaybackState.Fired(cue, at));
            happenings.add(new Happening.Fired(cue, at, devices));
        }
        if (cue.atNanos().isPresent()) {
            followOver(plan.indexOf(cue), at);
        }
    }

    /** What follows the last cue of an item and stands first in the next one comes by itself also behind a timed cue. */
    void followOver(int index, long at) {
        int next = index + 1;
        if (index >= 0 && next < plan.cues().size() && plan.isFirst(next)) {
            await(next, at, 0, at);
        }
    }

    void await(int index, long at, int sinceCueId, long since) {
        PlannedCue cue = plan.cues().get(index);
        if (cue.follows()) {
            followOn = Optional.of(new FollowOn(cue, at + cue.delayNanos(), sinceCueId, since));
        }
    }

    void fireFollowOn(long due) {
        FollowOn f = followOn.orElseThrow();
        followOn = Optional.empty();
        int index = plan.indexOf(f.cue());
        if (index >= 0) {
            fireFrom(index, due, f.sinceCueId(), f.sinceNanos());
        }
    }

    /** Fires a cue and all that come with it, and awaits the one that comes after. */
    void fireFrom(int index, long due, int sinceCueId, long since) {
        PlannedCue first = plan.cues().get(index);
        early = toldEarlyOf(first);
        beginWith(index, due);
        int i = index + 1;
        while (first.atNanos().isEmpty()
                && i < plan.cues().size()
                && !plan.isFirst(i)
                && plan.cues().get(i).comesWith()) {
            i++;
        }
        fire(plan.cues().subList(index, i), due, sinceCueId, since);
        if (first.atNanos().isEmpty() && i < plan.cues().size()) {
            await(i, due, sinceCueId, since);
        }
    }

    /** What machines with a lead have been told of a cue that is given before its time. */
    private List<PlannedCall> toldEarlyOf(PlannedCue cue) {
        PlannedItem item = plan.item(cue.item().id()).orElseThrow();
        Set<TimedCalls.Key> keys = cue.atNanos().isEmpty() ? Set.of() : toldEarly(item, cue);
        return keys.isEmpty()
                ? List.of()
                : item.timed().stream()
                        .filter(t -> t.cue().equals(cue) && keys.contains(t.key()))
                        .flatMap(t -> t.calls().stream())
                        .toList();
    }

    private List<PlannedCall> toldBefore(PlannedCue cue) {
        return cue.atNanos().isPresent() ? early : List.of();
    }

    void fire(List<PlannedCue> together, long due, int sinceCueId, long since) {
        stopped = false;
        List<Made> made = new ArrayList<>();
        for (PlannedCue cue : together) {
            boolean first = plan.isFirst(plan.indexOf(cue));
            Cause cause = new Cause("cue " + cue.label(), cue.cueId(), first ? 0 : sinceCueId, first ? due : since);
            List<PlannedCall> told = toldBefore(cue);
            for (PlannedCall call : cue.calls()) {
                if (told.contains(call)) {
                    continue;
                }
                long at = due + Math.max(0, call.afterNanos());
                made.add(new Made(call, at, at, cause));
            }
        }
        makeAll(made);
        together.forEach(cue -> fired(cue, due));
    }

    /**
     * An item begins with its first cue; with another one the music begins where the book has that cue, unless it plays
     * already and the cue waits for GO, or the item has been played.
     */
    void beginWith(int index, long due) {
        PlannedCue cue = plan.cues().get(index);
        int itemId = cue.item().id();
        boolean goesOn = begun.itemId() == itemId
                && !plan.isFirst(index)
                && cue.atNanos().isEmpty();
        if (goesOn) {
            return;
        }
        PlannedItem item = plan.item(itemId).orElseThrow();
        int order = index - plan.firstOf(itemId);
        Set<TimedCalls.Key> early = toldEarly(item, cue);
        playing = Optional.of(
                limited(Playing.after(item, cue, order, due).withoutTold(early)).pace(hand.paceOf(itemId), due));
        began(item, due);
        begun = begun.gaveAllBefore(item, order);
    }

    /** Of what comes behind a cue what machines with a lead have been told already; nothing where the music goes back. */
    private Set<TimedCalls.Key> toldEarly(PlannedItem item, PlannedCue cue) {
        return playing.filter(p -> p.item() == item && cue.atNanos().orElse(-1) >= p.position(now))
                .map(p -> p.toldEarly(p.position(now)))
                .orElse(Set.of());
    }

    Playing limited(Playing p) {
        return straightUntil.isPresent() ? p.below(straightUntil.getAsLong()) : p;
    }

    void began(PlannedItem item, long at) {
        begun = Begun.of(item.item().id(), at);
        happenings.add(new Happening.Began(item, at));
    }
}
