package underbaton.core.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;

/** How devices are made right that are not as they should be, and what becomes of those that are away. */
abstract class Mending extends Passing {

    Mending(PlaybackState s) {
        super(s);
    }

    /** Whether what is sent to it is heard. */
    boolean isThere(int deviceId) {
        Away a = away.get(deviceId);
        return a == null || a.back();
    }

    /** From now on it misses what it is told. */
    void lose(int deviceId) {
        away = away.plus(deviceId, missing(deviceId).reached(false));
    }

    /** It can be reached again; one that has missed nothing is as it was. */
    void find(int deviceId) {
        Away a = away.get(deviceId);
        away = a == null ? away : away.plus(deviceId, a.reached(true));
        forgiveIfRight(deviceId);
    }

    /** It is sent nothing until it is armed again. */
    void disarm(int deviceId) {
        away = away.plus(deviceId, missing(deviceId).armed(false));
    }

    /** It takes part again, and is told what it has missed, as soon as it can be reached. */
    void arm(int deviceId) {
        Away a = away.get(deviceId);
        if (a == null) {
            return;
        }
        away = away.plus(deviceId, a.armed(true));
        if (a.reached()) {
            bringUp(deviceId);
        }
    }

    private Away missing(int deviceId) {
        Away before = away.get(deviceId);
        return before != null
                ? before
                : new Away(told(deviceId), CatchUp.toldLevels(done().next(), deviceId), true, true);
    }

    private void forgiveIfRight(int deviceId) {
        Away a = away.get(deviceId);
        if (a != null && a.back() && CatchUp.behind(done().next(), deviceId).isEmpty()) {
            away = away.minus(deviceId);
        }
    }

    /**
     * What the device has missed is said again; what it was meant to be told stays as it is. Guarded phrases wait until they are
     * all that is missing, and somebody asks once more.
     */
    void bringUp(int deviceId) {
        List<Correction> behind = CatchUp.behind(done().next(), deviceId);
        List<Correction> waiting = behind.stream().filter(Correction::guarded).toList();
        boolean again = waiting.size() == behind.size();
        Away a = away.get(deviceId);
        takeBackMends(id -> id == deviceId);
        if (a != null && waiting.isEmpty()) {
            takeAsItIs(deviceId);
            correct(behind);
            return;
        }
        long free = now;
        for (Correction correction : behind) {
            if (again || !correction.guarded()) {
                free = say(correction, a, free);
                a = a.after(correction, now, plan.stepLists(deviceId));
            }
        }
        away = again || waiting.isEmpty() ? away.minus(deviceId) : away.plus(deviceId, a);
    }

    /** @return when the device is free again */
    private long say(Correction correction, Away a, long from) {
        int deviceId = correction.key().deviceId();
        Cause cause = Cause.catchUp(now);
        long free = from;
        for (PlannedCall call : correction.calls()) {
            for (Timed timed : call.messages()) {
                send(free + timed.atMs() * 1_000_000L, deviceId, timed.message(), cause);
            }
            free += pause(plan.device(deviceId).orElseThrow(), call);
        }
        if (correction.goesOn().isPresent()) {
            Level level = correction.goesOn().get().at(now);
            Level known = a.levels().get(correction.goesOn().get().motion().control());
            if (known == null || !known.isAlso(level)) {
                send(free, deviceId, level.message(), cause);
            }
        }
        return free;
    }

    void send(long at, int deviceId, Message message, Cause cause) {
        if (at > now) {
            later(at, new Later.ALaterMessage(deviceId, message, cause));
        } else {
            emit(deviceId, message, now, now, cause, false);
        }
    }

    /**
     * What was meant for it while it was away is forgotten, so that only what it is told from here on counts: one that is back is known to
     * be as it was before; one that is still away goes on missing what it is told.
     */
    void takeAsItIs(int deviceId) {
        Away a = away.get(deviceId);
        if (a == null) {
            return;
        }
        away = a.back() ? away.minus(deviceId) : away;
        devices = devices.plus(deviceId, a.state());
        levels.take(deviceId, a.levels());
        haltAll(deviceId);
    }

    /** What runs by a catch-up belongs to the item by which it runs in the book. */
    void setGoingAsIn(PlaybackState book) {
        book.told().devices().forEach((id, state) -> state.slots().stream()
                .filter(s -> s.call().effect().kind() == Effect.Kind.STARTS)
                .forEach(s -> tell(id, told(id).setGoingBy(s.itemId(), s.name()))));
    }

    /** What an earlier catch-up was still to call is not called; so what was told so far is all that was told. */
    void takeBackMends(IntPredicate machines) {
        for (Map.Entry<Later.Key, Later> later : agenda.entrySet()) {
            boolean mends = later.getValue() instanceof Later.ALaterCall call
                            && call.cause().mends()
                            && machines.test(call.call().deviceId())
                    || later.getValue() instanceof Later.AMove move
                            && move.cause().mends()
                            && machines.test(move.move().motion().control().deviceId());
            agenda = mends ? agenda.minus(later.getKey()) : agenda;
        }
    }

    /** All machines are made right: also one that is right as it was before it was away hears nothing more of what began meanwhile. */
    void correctAll(List<Correction> corrections) {
        away.keySet().forEach(this::takeAsItIs);
        correct(corrections);
    }

    /** Each device gets what makes it right: what waits for a program or for a step is made that much later. */
    void correct(List<Correction> corrections) {
        Map<Integer, Long> free = new HashMap<>();
        for (Correction correction : corrections) {
            Device device = plan.device(correction.key().deviceId()).orElseThrow();
            long at = free.getOrDefault(device.id(), now);
            Cause cause = Cause.catchUp(now);
            for (PlannedCall call : correction.calls()) {
                makeAll(new ArrayList<>(List.of(new Made(call, at, at, cause))));
                at += pause(device, call);
            }
            if (correction.goesOn().isPresent()) {
                later(at, new Later.AMove(correction.goesOn().get(), cause));
            }
            free.put(device.id(), at);
        }
    }
}
