package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import org.pcollections.TreePMap;
import underbaton.core.engine.PlaybackState.FollowOn;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
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
            plan.item(play.itemId()).ifPresent(item -> playFrom(item, play.fromNanos(), play.cueId()));
        } else if (order instanceof Order.Behave behave) {
            hand = hand.with(behave.manner());
        } else if (order instanceof Order.Hold) {
            hold();
        } else if (order instanceof Order.Pause) {
            playing = playing.map(p -> p.pause(now));
        } else if (order instanceof Order.Resume) {
            goOn();
        } else if (order instanceof Order.Locate locate) {
            playing.ifPresent(p -> locate(p, Math.max(0, locate.toNanos())));
        } else if (order instanceof Order.PlayOn on) {
            playing.ifPresent(
                    p -> playOn(p, Math.max(0, on.fromNanos()), on.asOfNanos().orElse(now)));
        } else if (order instanceof Order.Nudge nudge) {
            playing = playing.map(p -> p.nudge(nudge.nanos(), now));
        } else if (order instanceof Order.Pace pace) {
            pace(pace.permille());
        } else if (order instanceof Order.PaceBy by) {
            playing.ifPresent(p -> pace(p.anchor().permille() + by.permille()));
        } else if (order instanceof Order.PauseOrGoOn) {
            carryOut(playing.filter(Playing::paused).isPresent() ? new Order.Resume() : new Order.Pause());
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
        } else if (order instanceof Order.TakeUp up) {
            takeUp(up.book().shifted(now - up.book().nowNanos()));
        } else if (order instanceof Order.BreakOff) {
            breakOff();
        } else if (order instanceof Order.Leave leave) {
            leave(leave.cueId());
        } else if (order instanceof Order.CatchUp catchUp) {
            takeBackMends(id -> true);
            List<Correction> all = CatchUp.between(catchUp.book(), done().next());
            hand = hand.movedTo(false);
            correctAll(CatchUp.without(all, catchUp.leftOut()));
            setGoingAsIn(catchUp.book());
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
        if (playing.isPresent() && hand.tappedBeat().isPresent()) {
            playing = playing.map(p -> p.tapped(hand.tappedBeat().getAsLong(), now));
            keepPace();
        }
    }

    private void pace(int permille) {
        if (playing.isPresent()) {
            playing = playing.map(p -> p.pace(permille, now));
            keepPace();
        }
    }

    private void keepPace() {
        Playing p = playing.orElseThrow();
        hand = hand.paced(p.item().item().id(), p.anchor().permille());
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
        if (begun.held()) {
            goOn();
        }
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
        correctAll(CatchUp.without(CatchUp.between(onPaper.done().next(), done().next()), Set.of()));
    }

    /** What has been called is made at once, and every move is where it ends. */
    void comeToRest() {
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
        playing = Optional.of(limited(Playing.from(item, fromNanos, now)).pace(hand.paceOf(itemId), now));
        began(item, now);
    }

    private void playFrom(PlannedItem item, long from, int cueId) {
        int first = plan.firstOf(item.item().id());
        followOn = Optional.empty();
        hand = hand.movedTo(false);
        begin(item.item().id(), Math.max(0, from));
        if (item.cues().isEmpty()) {
            standby = plan.waitingFrom(first);
            return;
        }
        int given = from > 0 ? givenAt(item, from) : 0;
        int landing = cueId == 0 ? -1 : plan.indexOf(cueId) - first;
        given = Math.max(given, Math.min(landing, item.cues().size()));
        begun = begun.gaveAllBefore(item, given);
        if (from <= 0 && item.cues().get(0).atNanos().isEmpty()) {
            fireFrom(first, now, item.cues().get(0).cueId(), now);
            given = Math.max(1, given);
        }
        standby = plan.waitingFrom(given == 0 && plan.beginsItem(first) ? first + 1 : first + given);
    }

    /** How many of its cues, in the order of the book, have been given at a place behind its beginning: the opening one at least. */
    private static int givenAt(PlannedItem item, long from) {
        return Math.max(item.behind(from), Math.min(1, item.cues().size()));
    }

    /** The music and the moves stand where they are, and what the item set going is stopped; looks stay. */
    private void hold() {
        if (playing.isEmpty() || begun.held()) {
            return;
        }
        playing = playing.map(p -> p.paused() ? p : p.pause(now));
        List<Suspended.LaterCall> later = suspendCalls();
        Optional<FollowOn> follows = followOn;
        List<Move> moving = List.copyOf(moves.values());
        followOn = Optional.empty();
        halt();
        endStruck(id -> true);
        List<Suspended.Stopped> stopped = new ArrayList<>();
        for (Device device : plan.devices()) {
            stopped.addAll(stop(device.id(), this::isOfThisItem, "hold"));
        }
        begun = begun.holding(new Suspended(now, later, follows, moving, stopped));
    }

    /** What cues still have to call; what has been called is told to its end. */
    private List<Suspended.LaterCall> suspendCalls() {
        List<Suspended.LaterCall> later = new ArrayList<>();
        for (Map.Entry<Later.Key, Later> each : agenda.entrySet()) {
            if (each.getValue() instanceof Later.ALaterCall call && call.cause().cueId() != 0) {
                later.add(new Suspended.LaterCall(each.getKey().dueNanos(), call));
                agenda = agenda.minus(each.getKey());
            }
        }
        return later;
    }

    /** The music goes on from where it stands; after a hold all that waited goes on with it, as if the band had not stopped. */
    private void goOn() {
        Optional<Suspended> waits = begun.suspended();
        playing = playing.map(p -> p.resume(now));
        begun = begun.goingOn();
        waits.ifPresent(w -> {
            Suspended s = w.shifted(now - w.sinceNanos());
            s.later().forEach(l -> later(l.dueNanos(), l.call()));
            followOn = s.followOn().flatMap(this::stillThere).or(() -> followOn);
            s.moves().forEach(this::moveOn);
            w.stopped().forEach(stopped -> setGoing(stopped, w.sinceNanos()));
        });
    }

    private Optional<FollowOn> stillThere(FollowOn f) {
        return plan.indexOf(f.cue()) < 0 ? Optional.empty() : Optional.of(f);
    }

    /** A move that stood still goes on, unless somebody has put the control elsewhere meanwhile. */
    private void moveOn(Move move) {
        Control control = move.motion().control();
        Level stood = move.toldAt(now).orElse(null);
        Level stands = levels.get(control);
        boolean asLeft = stood == null ? stands == null : stands != null && stands.isAlso(stood);
        if (plan.device(control.deviceId()).isPresent() && !moves.containsKey(control) && asLeft) {
            goOn(move, now, move.cause());
        }
    }

    /** What the hold has stopped runs again where it would be, if its machine can be told; unless somebody has set it otherwise. */
    private void setGoing(Suspended.Stopped stopped, long heldNanos) {
        boolean asLeft = told(stopped.deviceId()).slots().contains(stopped.stop());
        long elapsed = heldNanos - stopped.ran().sinceNanos();
        plan.device(stopped.deviceId())
                .filter(d -> asLeft)
                .flatMap(d -> Restart.of(d, stopped.ran(), elapsed))
                .ifPresent(call -> make(call, now, now, Cause.outside("goes on after the hold", now), false));
    }

    private void playOn(Playing p, long from, long asOf) {
        locate(p, from);
        playing = playing.map(there -> there.resume(now).placed(from, asOf));
        begun = begun.goingOn();
    }

    /** Elsewhere in the item: what waited in a hold belongs to the place that is left. */
    private void locate(Playing p, long to) {
        boolean back = to < p.position(now);
        playing = Optional.of(p.locate(to, now));
        int order = p.item().behind(to);
        begun = begun.held() ? begun.holding(Suspended.nothing(now)) : begun;
        begun = back ? begun.withoutFrom(p.item(), order) : begun;
        begun = to > 0 ? begun.gaveAllBefore(p.item(), givenAt(p.item(), to)) : begun;
    }

    private void stopAll() {
        followOn = Optional.empty();
        playing = Optional.empty();
        halt();
        endNotes();
        silenceAll(Cause.outside("stop all", now));
        letDownAll();
        for (Device device : plan.devices()) {
            stop(device.id(), slot -> true, "stop all");
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

    /**
     * Each thing that runs by its own stop; one stop may end several.
     *
     * @param which of those that run
     * @return what was stopped
     */
    private List<Suspended.Stopped> stop(int deviceId, Predicate<Slot> which, String words) {
        List<Slot> ran = told(deviceId).slots().stream()
                .filter(slot -> slot.runsAt(now) && which.test(slot))
                .toList();
        List<Suspended.Stopped> stopped = new ArrayList<>();
        for (Slot slot : ran) {
            Optional<PlannedCall> stop = Stops.of(plan, deviceId, slot);
            if (stop.isPresent() && told(deviceId).slots().contains(slot)) {
                make(stop.get(), now, now, Cause.outside(words, now), false);
            }
            if (stop.isPresent()) {
                List<Slot> left = told(deviceId).slots();
                stopped.add(new Suspended.Stopped(deviceId, slot, left.get(left.size() - 1)));
            }
        }
        return stopped;
    }

    /** Whether the item that plays has set something going, or somebody has while it played. */
    private boolean isOfThisItem(Slot slot) {
        return slot.itemId() == 0 ? slot.sinceNanos() >= begun.nanos() : slot.itemId() == begun.itemId();
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
        breakOff();
        begun = begun.goingOn();
        playing = Optional.empty();
    }

    private void takeUp(PlaybackState book) {
        book.agenda().forEach((key, later) -> {
            if (later instanceof Later.ALaterCall) {
                later(key.dueNanos(), later);
            }
        });
        followOn = book.followOn().flatMap(this::stillThere).or(() -> followOn);
    }

    private void breakOff() {
        playing = playing.map(p -> p.paused() ? p : p.pause(now));
        begun = begun.held() ? begun.holding(Suspended.nothing(now)) : begun;
        followOn = Optional.empty();
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
