package underbaton.core.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import org.pcollections.TreePMap;
import underbaton.core.engine.PlaybackState.FollowOn;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/**
 * One step being taken: what each order does. The parts of the state change while it is taken; what it reads and what it leaves
 * behind never changes. Used once, by one thread, and thrown away.
 */
final class Turn extends Listening {

    Turn(PlaybackState s) {
        super(s);
    }

    @Override
    void carryOut(Order order) {
        if (order instanceof Order.Go) {
            go();
        } else if (order instanceof Order.Back) {
            moveTo(plan.waitingBefore(standby));
        } else if (order instanceof Order.Next) {
            moveTo(plan.waitingFrom(standby + 1));
        } else if (order instanceof Order.StandBy to) {
            moveTo(plan.indexOf(to.cueId()));
        } else if (order instanceof Order.Play play) {
            plan.item(play.itemId()).ifPresent(item -> playFrom(item, play.fromNanos()));
        } else if (order instanceof Order.Behave behave) {
            hand = hand.with(behave.manner());
        } else if (order instanceof Order.Hold) {
            hold();
        } else if (order instanceof Order.Pause) {
            playing = playing.map(p -> p.pause(now));
        } else if (order instanceof Order.Resume) {
            playing = playing.map(p -> p.resume(now));
            begun = begun.held(false);
        } else if (order instanceof Order.Locate locate) {
            playing = playing.map(p -> p.locate(Math.max(0, locate.toNanos()), now));
        } else if (order instanceof Order.Nudge nudge) {
            playing = playing.map(p -> p.nudge(nudge.nanos(), now));
        } else if (order instanceof Order.Pace pace) {
            playing = playing.map(p -> p.pace(pace.permille(), now));
        } else if (order instanceof Order.Tap) {
            tap();
        } else if (order instanceof Order.Release) {
            playing = playing.map(p -> p.release(now));
        } else if (order instanceof Order.Fire fire) {
            fire(fire);
        } else if (order instanceof Order.StopAll) {
            stopAll();
        } else if (order instanceof Order.Adopt adopt) {
            adopt(adopt.plan());
        } else if (order instanceof Order.Heard heard) {
            hear(heard);
        } else if (order instanceof Order.Touch touch) {
            touch(touch.keyId(), touch.how(), touch.by(), false);
        } else if (order instanceof Order.Hush) {
            hush();
        } else if (order instanceof Order.TryPatch tries) {
            tryOut(tries.setId(), tries.wiring());
        } else if (order instanceof Order.Listen listen) {
            hearing = hearing.switched(listen.on());
        } else if (order instanceof Order.Arm arm) {
            for (int id : arm.listenerIds()) {
                hearing = hearing.arming(id, arm.listens());
            }
        } else if (order instanceof Order.Leave leave) {
            leave(leave.cueId());
        } else if (order instanceof Order.CatchUp catchUp) {
            List<Correction> all = CatchUp.between(catchUp.book(), done().next());
            hand = hand.movedTo(false);
            // One that is back, and right as it was before it was away, hears nothing more of what began meanwhile.
            Set<Integer> wrong = all.stream().map(c -> c.key().deviceId()).collect(Collectors.toSet());
            away.keySet().stream().filter(id -> !wrong.contains(id)).forEach(this::takeAsItIs);
            correct(CatchUp.without(all, catchUp.leftOut()).stream()
                    .filter(c -> isThere(c.key().deviceId()))
                    .toList());
        } else if (order instanceof Order.BringUp up) {
            bringUp(up.deviceId());
        } else if (order instanceof Order.Lost lost) {
            lose(lost.deviceId());
        } else if (order instanceof Order.Found found) {
            find(found.deviceId());
        } else if (order instanceof Order.StandsAt at) {
            Pointer pointer = new Pointer(Slot.key(at.list()), OptionalInt.of(at.place()), Optional.empty(), now);
            tell(at.deviceId(), told(at.deviceId()).with(pointer));
            Away a = away.get(at.deviceId());
            away = a == null ? away : away.plus(at.deviceId(), a.with(pointer));
        }
        if (order instanceof Order.Lost || order instanceof Order.Adopt || order instanceof Order.Found) {
            letGoOfLost();
        }
        if (!heldUp.isEmpty()) {
            letDownLost();
        }
        if (!(order instanceof Order.Pass)) {
            // What an order has made due comes in the same step.
            pass(now);
        }
    }

    private void tap() {
        hand = hand.tapped(now);
        hand.tappedBeat().ifPresent(beat -> playing = playing.map(p -> p.tapped(beat, now)));
    }

    /** While a vamp goes round, GO lets the music go on; else it fires the standby, behind all that the book puts before it. */
    private void go() {
        boolean meant = hand.waitsAt(now);
        if (!meant && hand.isSoon(now)) {
            hand = hand.asked(now);
            return;
        }
        if (straightUntil.isEmpty() && playing.isPresent() && playing.get().vamping()) {
            playing = playing.map(p -> p.release(now));
            hand = hand.gone(now);
            return;
        }
        List<TimedCalls> skipped = skippedBefore(standby);
        if (!meant && hand.manner().asks() && skipped.stream().anyMatch(TimedCalls::strikes)) {
            hand = hand.asked(now);
            return;
        }
        hand = hand.gone(now);
        begun = begun.held(false);
        while (followOn.isPresent()) {
            fireFollowOn(now);
        }
        if (standby >= plan.cues().size()) {
            return;
        }
        bringForward(skipped);
        int fired = standby;
        if (plan.beginsItem(fired)) {
            begin(plan.cues().get(fired).item().id(), 0);
        } else {
            fireFrom(fired, now, plan.cues().get(fired).cueId(), now);
        }
        standby = plan.waitingFrom(fired + 1);
    }

    /** What of the playing item is still to come, though the book puts it before a cue. */
    List<TimedCalls> skippedBefore(int index) {
        if (playing.isEmpty()) {
            return List.of();
        }
        Playing p = playing.get();
        int first = plan.firstOf(p.item().item().id());
        return p.before(
                index < first ? 0 : Math.min(index - first, p.item().cues().size()));
    }

    /** What the book puts before a cue comes before it: call by call, or only what is left of all of it at its end. */
    private void bringForward(List<TimedCalls> skipped) {
        if (skipped.isEmpty()) {
            return;
        }
        playing = playing.map(p -> p.without(skipped));
        if (hand.manner().sendsSkipped()) {
            skipped.forEach(t -> land(List.of(t), now));
            return;
        }
        Turn onPaper = new Turn(done().next());
        skipped.forEach(t -> onPaper.land(List.of(t), now));
        onPaper.comeToRest();
        correct(CatchUp.without(CatchUp.between(onPaper.done().next(), done().next()), Set.of()));
    }

    /** What has been called is made at once, and every move is where it ends. */
    private void comeToRest() {
        while (!agenda.isEmpty()) {
            makeLater();
        }
        for (Move move : moves.values()) {
            if (!move.isEndless()) {
                moves = moves.minus(move.motion().control());
                move.motion().then().ifPresent(then -> make(then, now, now, move.cause(), false));
            }
        }
    }

    private void begin(int itemId, long fromNanos) {
        PlannedItem item = plan.item(itemId).orElseThrow();
        stopped = false;
        playing = Optional.of(limited(Playing.from(item, fromNanos, now)));
        began(item, now);
    }

    private void playFrom(PlannedItem item, long from) {
        int itemId = item.item().id();
        int first = plan.firstOf(itemId);
        int next = first;
        followOn = Optional.empty();
        hand = hand.movedTo(false);
        begin(itemId, Math.max(0, from));
        if (!item.cues().isEmpty()) {
            if (from <= 0 && item.cues().get(0).atNanos().isEmpty()) {
                fireFrom(first, now, item.cues().get(0).cueId(), now);
                next = first + 1;
            } else {
                next = first + behind(item, from);
            }
        }
        standby =
                plan.waitingFrom(next == first && !item.cues().isEmpty() && plan.beginsItem(first) ? first + 1 : next);
    }

    /** The place in an item of the first cue that the book puts at a position or behind it. */
    private static int behind(PlannedItem item, long position) {
        int order = 0;
        for (int i = 0; i < item.cues().size(); i++) {
            if (item.cues().get(i).atNanos().orElse(NEVER) < position) {
                order = i + 1;
            }
        }
        return order;
    }

    /** The music and the moves stand where they are, and what the item set going is stopped; looks stay. */
    private void hold() {
        if (playing.isEmpty()) {
            return;
        }
        playing = playing.map(p -> p.paused() ? p : p.pause(now));
        followOn = Optional.empty();
        halt();
        endNotes();
        for (Device device : plan.devices()) {
            stop(device.id(), begun.nanos(), "hold");
        }
        begun = begun.held(true);
    }

    private void stopAll() {
        followOn = Optional.empty();
        playing = Optional.empty();
        halt();
        endNotes();
        silenceAll(Cause.outside("stop all", now));
        letDownAll();
        for (Device device : plan.devices()) {
            stop(device.id(), Long.MIN_VALUE, "stop all");
            device.safePhrase()
                    .ifPresent(safe -> make(
                            PlannedCall.of(device, safe), now, now, Cause.outside("stop all, made safe", now), false));
        }
        stopped = true;
    }

    /** What was still to leave is dropped, but nothing goes on sounding. */
    private void endNotes() {
        for (Later later : agenda.values()) {
            if (later instanceof Later.ALaterMessage end && ChannelMessage.endsNote(end.message())) {
                emit(end.deviceId(), end.message(), now, now, end.cause(), false);
                owe(end.deviceId(), end.message());
            } else if (later instanceof Later.ALaterMessage cut) {
                forget(cut.deviceId(), cut.message());
            }
        }
        agenda = TreePMap.empty();
    }

    /** What a device was told by halves, nobody knows of it. */
    private void forget(int deviceId, Message cut) {
        tell(deviceId, told(deviceId).without(cut));
        levels.remove(Control.of(deviceId, cut));
    }

    /** Each thing that runs by its own stop; one stop may end several. */
    private void stop(int deviceId, long sinceNanos, String words) {
        for (Slot slot : told(deviceId).slots()) {
            boolean stillRuns =
                    told(deviceId).slots().contains(slot) && slot.sinceNanos() >= sinceNanos && slot.runsAt(now);
            if (stillRuns) {
                Stops.of(plan, deviceId, slot)
                        .ifPresent(call -> make(call, now, now, Cause.outside(words, now), false));
            }
        }
    }

    /** A guarded phrase is fired by the second of two acts. */
    private void fire(Order.Fire fire) {
        if (plan.isGuarded(fire.call())
                && !hand.guardWaitsAt(fire.call().deviceId(), fire.call().phraseId(), now)) {
            hand = hand.guardAsked(fire.call().deviceId(), fire.call().phraseId(), now);
            return;
        }
        hand = hand.guardDone();
        make(fire.call(), now, now, Cause.outside(fire.words(), now), false);
    }

    private void moveTo(int index) {
        standby = index < 0 ? standby : index;
        hand = hand.movedTo(true);
    }

    private void leave(int cueId) {
        moveTo(plan.indexOf(cueId));
        begun = begun.held(false);
        followOn = Optional.empty();
        playing = Optional.empty();
        halt();
        dropLaterCalls();
    }

    /** Nothing new comes: what has been called is told to its end, and what is under way goes on. */
    void leaveAlone() {
        followOn = Optional.empty();
        playing = Optional.empty();
        dropLaterCalls();
    }

    private void dropLaterCalls() {
        for (Map.Entry<Later.Key, Later> later : agenda.entrySet()) {
            agenda = later.getValue() instanceof Later.ALaterCall ? agenda.minus(later.getKey()) : agenda;
        }
    }

    /** A standby that is taken out gives way to the next cue; one that is put back and was not yet reached stands by again. */
    private int standbyAfter(OutTonight before) {
        int from = last.map(l -> plan.indexOf(l.cue()) + 1).orElse(0);
        for (int i = plan.waitingFrom(from); i < standby; i = plan.waitingFrom(i + 1)) {
            PlannedCue cue = plan.cues().get(i);
            if (before.cues().contains(cue.cueId())
                    || before.items().contains(cue.item().id())) {
                return i;
            }
        }
        return plan.waitingFrom(standby);
    }

    private void adopt(Plan changed) {
        Optional<PlannedCue> stood =
                standby < plan.cues().size() ? Optional.of(plan.cues().get(standby)) : Optional.empty();
        boolean wasEmpty = plan.cues().isEmpty();
        OutTonight outBefore = plan.out();
        List<Phrase> setsBefore = plan.patchPhrases();
        for (Device device : plan.devices()) {
            if (!outBefore.devices().contains(device.id())
                    && changed.out().devices().contains(device.id())) {
                quiet(device.id());
            }
        }
        plan = changed;
        followEdit(setsBefore);
        playing = playing.flatMap(
                p -> changed.item(p.item().item().id()).map(item -> item == p.item() ? p : p.adopt(item, now)));
        int place = stood.map(changed::indexOf).orElse(-1);
        standby = place >= 0
                ? place
                : changed.waitingFrom(
                        wasEmpty ? 0 : Math.min(standby, changed.cues().size()));
        if (!outBefore.equals(changed.out())) {
            standby = standbyAfter(outBefore);
        }
        followOn = followOn.flatMap(f -> {
            int index = changed.indexOf(f.cue());
            return index < 0
                    ? Optional.empty()
                    : Optional.of(
                            new FollowOn(changed.cues().get(index), f.dueNanos(), f.sinceCueId(), f.sinceNanos()));
        });
        for (Integer deviceId : devices.keySet()) {
            devices = changed.device(deviceId).isPresent() ? devices : devices.minus(deviceId);
        }
        for (Control control : moves.keySet()) {
            moves = changed.device(control.deviceId()).isPresent() ? moves : moves.minus(control);
        }
        for (Device device : changed.devices()) {
            boolean wasOut = outBefore.devices().contains(device.id());
            boolean isOut = changed.out().devices().contains(device.id());
            if (isOut && !wasOut) {
                disarm(device.id());
            } else if (wasOut && !isOut) {
                arm(device.id());
            }
        }
    }
}
