package underbaton.core.engine.call;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.pcollections.HashTreePMap;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.catchup.MachineStates;
import underbaton.core.engine.device.Absence;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Sounds;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;

/**
 * Devices that are not as they should be are made right, and those that go away or come back are seen to. Not thread-safe,
 * used once.
 */
public final class Corrections {

    private final StepContext step;
    private final Devices devices;
    private final Outgoing out;
    private final Moves moves;
    private final Sounds sounds;
    private final Agenda agenda;
    private final Calls calls;

    /** Made anew for each step, of the parts that it asks. */
    public Corrections(
            StepContext step, Devices devices, Outgoing out, Moves moves, Sounds sounds, Agenda agenda, Calls calls) {
        this.step = step;
        this.devices = devices;
        this.out = out;
        this.moves = moves;
        this.sounds = sounds;
        this.agenda = agenda;
        this.calls = calls;
    }

    /** All machines as they are told to be at the moment of the step. */
    public MachineStates machines() {
        return new MachineStates(step.plan(), devices.told(), moves.state(), devices.absent(), step.now());
    }

    // ---- who goes away and comes back

    /** From now on it misses what it is told. */
    public void lose(int deviceId) {
        devices.lose(deviceId, machines().toldLevels(deviceId));
    }

    /** It can be reached again; one that has missed nothing is as it was. */
    public void find(int deviceId) {
        devices.find(deviceId);
        boolean right = devices.absent().containsKey(deviceId)
                && devices.hears(deviceId)
                && CatchUp.behind(machines(), deviceId).isEmpty();
        if (right) {
            devices.forgive(deviceId);
        }
        sounds.pay(deviceId);
    }

    /** It is sent nothing until it is armed again. */
    public void disarm(int deviceId) {
        devices.disarm(deviceId, machines().toldLevels(deviceId));
    }

    /** It takes part again, and is told what it has missed, as soon as it can be reached. */
    public void arm(int deviceId) {
        devices.arm(deviceId);
        if (devices.absent().containsKey(deviceId) && devices.hears(deviceId)) {
            bringUp(deviceId);
        }
        sounds.pay(deviceId);
    }

    /**
     * What the device has missed is said again; what it was meant to be told stays as it is. Guarded phrases wait until they are
     * all that is missing, and somebody asks once more.
     */
    public void bringUp(int deviceId) {
        List<Correction> behind = CatchUp.behind(machines(), deviceId);
        List<Correction> waiting = behind.stream().filter(Correction::guarded).toList();
        Absence absence = devices.absent().get(deviceId);
        boolean again = absence != null && isAllThatIsMissing(waiting, behind, absence);
        calls.takeBackMends(id -> id == deviceId);
        if (absence == null) {
            return;
        }
        if (waiting.isEmpty()) {
            takeAsItIs(deviceId);
            correct(behind);
            return;
        }
        long free = step.now();
        for (Correction correction : behind) {
            if (again || !correction.guarded()) {
                free = say(correction, absence, free);
                absence = after(absence, correction);
            }
        }
        if (again) {
            devices.forgive(deviceId);
        } else {
            devices.standsNow(deviceId, absence);
        }
    }

    /** What would be said besides has been heard already: it is only to be said once more behind the guarded ones. */
    private boolean isAllThatIsMissing(List<Correction> guarded, List<Correction> behind, Absence absence) {
        Absence told = absence;
        for (Correction correction : behind) {
            told = guarded.contains(correction) ? told : after(told, correction);
        }
        return told.isAlso(absence);
    }

    /** It has heard what makes one thing of it right. */
    private Absence after(Absence before, Correction correction) {
        Absence right = before;
        for (PlannedCall call : correction.calls()) {
            right = right.after(
                    call, step.now(), step.plan().stepLists(correction.key().deviceId()));
        }
        return correction.goesOn().isEmpty()
                ? right
                : right.with(
                        correction.goesOn().get().motion().control(),
                        correction.goesOn().get().at(step.now()));
    }

    /** @return when the device is free again */
    private long say(Correction correction, Absence absence, long from) {
        int deviceId = correction.key().deviceId();
        Cause cause = Cause.catchUp(step.now());
        long free = from;
        for (PlannedCall call : correction.calls()) {
            for (Timed timed : call.messages()) {
                send(free + timed.atMs() * 1_000_000L, deviceId, timed.message(), cause);
            }
            free += Calls.pause(step.plan().device(deviceId).orElseThrow(), call);
        }
        if (correction.goesOn().isPresent()) {
            Level level = correction.goesOn().get().at(step.now());
            Control control = correction.goesOn().get().motion().control();
            Level known = absence.levels().get(control);
            if (known == null || !known.isAlso(level)) {
                send(free, deviceId, level.message(), cause);
            }
        }
        return free;
    }

    private void send(long at, int deviceId, Message message, Cause cause) {
        if (at > step.now()) {
            calls.sendAt(at, deviceId, message, cause);
        } else {
            out.emit(deviceId, message, cause);
        }
    }

    // ---- what makes them right

    /** All machines are made right: also one that is right as it was before it was away hears nothing more of what began meanwhile. */
    public void correctAll(List<Correction> corrections) {
        devices.absent().keySet().forEach(this::takeAsItIs);
        correct(corrections);
    }

    /**
     * What machines were told in vain is taken back: they are told again what they had been told before, unless they have been told
     * otherwise since.
     *
     * @param before what they had been told before that
     */
    public void takeBack(DeviceStates before, List<PlannedCall> inVain) {
        Set<Correction.Key> keys = inVain.stream()
                .filter(this::isAsTold)
                .flatMap(call -> Correction.Key.of(call).stream())
                .collect(Collectors.toSet());
        // Of machines that are away too what they were told is taken back, and not what they have heard.
        MachineStates then = new MachineStates(step.plan(), before, moves.state(), HashTreePMap.empty(), step.now());
        MachineStates told =
                new MachineStates(step.plan(), devices.told(), moves.state(), HashTreePMap.empty(), step.now());
        correct(CatchUp.between(then, told).stream()
                .filter(c -> keys.contains(c.key()) && c.isPossible() && !c.guarded())
                .toList());
    }

    private boolean isAsTold(PlannedCall call) {
        return call.effect().takesASlot()
                ? devices.of(call.deviceId()).slots().stream()
                        .anyMatch(s -> s.call().equals(call))
                : call.levels().entrySet().stream().allMatch(e -> e.getValue()
                        .equals(devices.told().levels().get(e.getKey())));
    }

    private void takeAsItIs(int deviceId) {
        if (devices.takeAsItIs(deviceId)) {
            moves.drop(id -> id == deviceId);
        }
    }

    /** Each device gets what makes it right: what waits for a program or for a step is made that much later. */
    private void correct(List<Correction> corrections) {
        Map<Integer, Long> free = new HashMap<>();
        Cause cause = Cause.catchUp(step.now());
        for (Correction correction : corrections) {
            Device device = step.plan().device(correction.key().deviceId()).orElseThrow();
            long at = free.getOrDefault(device.id(), step.now());
            for (PlannedCall call : correction.calls()) {
                calls.makeAll(List.of(DueCall.at(at, call, cause)));
                at += Calls.pause(device, call);
            }
            if (correction.goesOn().isPresent()) {
                agenda.add(at, new Pending.ToMove(correction.goesOn().get(), cause));
            }
            free.put(device.id(), at);
        }
    }

    /** What runs by a catch-up belongs to the item by which it runs in the book. */
    public void setGoingAsIn(DeviceStates book) {
        book.devices().forEach((id, state) -> state.slots().stream()
                .filter(s -> s.call().effect().kind() == Effect.Kind.STARTS)
                .forEach(s -> devices.tell(id, devices.of(id).setGoingBy(s.itemId(), s.name()))));
    }
}
