package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.cue.Start;
import underbaton.core.rig.Device;

/**
 * Leaves a device alone while it is busy with a program: what the same instant brings it besides, from whichever cue, waits
 * until it has settled.
 */
final class Settling {

    private final Map<Integer, Device> devices;
    /** For each instant and device, when its programs come and when it is free again, ns since the instant. */
    private final Map<Long, Map<Integer, Busy>> instants = new HashMap<>();
    /** The same up to the call that is looked at, for devices that get what stands first in a cell first. */
    private final Map<Long, Map<Integer, Busy>> soFar = new HashMap<>();

    private record Busy(long from, long until) {

        Busy with(Busy other) {
            return new Busy(Math.min(from, other.from), Math.max(until, other.until));
        }
    }

    private Settling(Map<Integer, Device> devices) {
        this.devices = devices;
    }

    static List<PlannedCue> among(List<PlannedCue> cues, Map<Integer, Device> devices) {
        return devices.values().stream().anyMatch(d -> d.settleMs() > 0) ? new Settling(devices).settled(cues) : cues;
    }

    private List<PlannedCue> settled(List<PlannedCue> cues) {
        long[] keys = keys(cues);
        for (int i = 0; i < keys.length; i++) {
            for (PlannedCall call : cues.get(i).calls()) {
                occupies(call, devices.get(call.deviceId()), keys[i], instants);
            }
        }
        List<PlannedCue> settled = new ArrayList<>(cues.size());
        for (int i = 0; i < keys.length; i++) {
            settled.add(instants.containsKey(keys[i]) ? settled(cues.get(i), keys[i]) : cues.get(i));
        }
        return settled;
    }

    private PlannedCue settled(PlannedCue cue, long key) {
        List<PlannedCall> calls = new ArrayList<>(cue.calls().size());
        for (PlannedCall call : cue.calls()) {
            Device device = devices.get(call.deviceId());
            boolean typed = device.care().asTyped();
            Busy busy = (typed ? soFar : instants).getOrDefault(key, Map.of()).get(device.id());
            boolean waits = busy != null
                    && !call.isProgram()
                    && call.afterNanos() >= busy.from
                    && call.afterNanos() < busy.until;
            calls.add(waits ? call.after(busy.until, call.phrase()) : call);
            if (typed) {
                occupies(call, device, key, soFar);
            }
        }
        return cue.withCalls(calls);
    }

    private static void occupies(PlannedCall call, Device device, long key, Map<Long, Map<Integer, Busy>> by) {
        if (call.isProgram() && device.settleMs() > 0) {
            long until = call.afterNanos() + device.settleMs() * 1_000_000L;
            by.computeIfAbsent(key, k -> new HashMap<>())
                    .merge(device.id(), new Busy(call.afterNanos(), until), Busy::with);
        }
    }

    /** One number for all cues of an instant: its time for those that land, the first cue's place for those on a GO. */
    private static long[] keys(List<PlannedCue> cues) {
        long[] keys = new long[cues.size()];
        long go = 0;
        for (int i = 0; i < keys.length; i++) {
            PlannedCue cue = cues.get(i);
            if (cue.atNanos().isPresent()) {
                keys[i] = cue.atNanos().getAsLong();
                continue;
            }
            go = cue.start() instanceof Start.WithPrevious ? go : i;
            keys[i] = -1 - go;
        }
        return keys;
    }
}
