package underbaton.core.engine.music;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.call.Pending;
import underbaton.core.engine.catchup.Restart;
import underbaton.core.engine.catchup.Stops;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;

/**
 * The band stops, and goes on, while a step is taken. A hold keeps all that it stops ({@link Suspended}); going on takes it up as if
 * the band had not stopped, unless somebody has set it otherwise meanwhile. Not thread-safe, used once.
 */
public final class Holds {

    private final StepContext step;
    private final Devices devices;
    private final Moves moves;
    private final Agenda agenda;
    private final Calls calls;
    private final Music music;

    /** Made anew for each step, of the parts that it asks. */
    public Holds(StepContext step, Devices devices, Moves moves, Agenda agenda, Calls calls, Music music) {
        this.step = step;
        this.devices = devices;
        this.moves = moves;
        this.agenda = agenda;
        this.calls = calls;
        this.music = music;
    }

    /** The music and the moves stand where they are, and what the item set going is stopped; looks stay. */
    public void hold() {
        if (music.progress().held() || music.playing().isEmpty() && !goesOn()) {
            return;
        }
        music.pause();
        List<Suspended.LaterCall> later = calls.suspend().stream()
                .map(d -> new Suspended.LaterCall(d.dueNanos(), (Pending.ToCall) d.what()))
                .toList();
        Optional<FollowOn> follows = music.followOn();
        List<Move> moving = List.copyOf(moves.state().values());
        music.follow(Optional.empty());
        moves.halt();
        calls.endStruck(id -> true);
        List<Suspended.Stopped> stopped = new ArrayList<>();
        for (Device device : step.plan().devices()) {
            stopped.addAll(stop(device.id(), this::isOfThisItem, "hold"));
        }
        music.hold(new Suspended(step.now(), later, follows, moving, stopped));
    }

    /** The music goes on from where it stands; after a hold all that waited goes on with it. */
    public void goOn() {
        Optional<Suspended> waits = music.progress().suspended();
        music.resume();
        music.endHold();
        waits.ifPresent(w -> {
            Suspended s = w.shifted(step.now() - w.sinceNanos());
            s.later().forEach(l -> agenda.add(l.dueNanos(), l.call()));
            music.follow(s.followOn().flatMap(f -> f.in(step.plan())).or(music::followOn));
            s.moves().forEach(moves::goOnIfAsLeft);
            w.stopped().forEach(stopped -> setGoing(stopped, w.sinceNanos()));
        });
    }

    /** What the hold has stopped runs again where it would be, if its machine can be told. */
    private void setGoing(Suspended.Stopped stopped, long heldNanos) {
        Device device = step.plan().device(stopped.deviceId()).orElse(null);
        if (device == null || !devices.of(device.id()).slots().contains(stopped.stop())) {
            return;
        }
        Restart.of(device, stopped.ran(), heldNanos - stopped.ran().sinceNanos())
                .ifPresentOrElse(
                        call -> calls.make(call, Cause.outside("goes on after the hold", step.now())),
                        () -> step.happens(new Happening.StaysOff(
                                device.id(), stopped.ran().call().phrase())));
    }

    /** Whether something of the item goes on, though its music has ended or an edit has taken it away. */
    private boolean goesOn() {
        return music.progress().itemId() != 0
                && step.plan().devices().stream()
                        .flatMap(d -> devices.of(d.id()).slots().stream())
                        .anyMatch(slot -> slot.runsAt(step.now()) && isOfThisItem(slot));
    }

    /** Whether the item that plays has set something going, or somebody has while it played. */
    private boolean isOfThisItem(Slot slot) {
        ItemProgress item = music.progress();
        return slot.itemId() == 0 ? slot.sinceNanos() >= item.nanos() : slot.itemId() == item.itemId();
    }

    /**
     * Each thing that runs on a device is stopped by its own stop; one stop may end several.
     *
     * @param which of those that run
     * @param words why, for the log
     * @return what was stopped
     */
    public List<Suspended.Stopped> stop(int deviceId, Predicate<Slot> which, String words) {
        List<Slot> ran = devices.of(deviceId).slots().stream()
                .filter(slot -> slot.runsAt(step.now()) && which.test(slot))
                .toList();
        List<Suspended.Stopped> stopped = new ArrayList<>();
        for (Slot slot : ran) {
            Optional<PlannedCall> stop = Stops.of(step.plan(), deviceId, slot);
            if (stop.isPresent() && devices.of(deviceId).slots().contains(slot)) {
                calls.make(stop.get(), Cause.outside(words, step.now()));
            }
            if (stop.isPresent()) {
                List<Slot> left = devices.of(deviceId).slots();
                stopped.add(new Suspended.Stopped(deviceId, slot, left.get(left.size() - 1)));
            }
        }
        return stopped;
    }
}
