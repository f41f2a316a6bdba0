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
                int settle = devices.get(call.deviceId()).settleMs();
                if (call.isProgram() && settle > 0) {
                    long until = call.afterNanos() + settle * 1_000_000L;
                    instants.computeIfAbsent(keys[i], k -> new HashMap<>())
                            .merge(call.deviceId(), new Busy(call.afterNanos(), until), Busy::with);
                }
            }
        }
        List<PlannedCue> settled = new ArrayList<>(cues.size());
        for (int i = 0; i < keys.length; i++) {
            Map<Integer, Busy> busy = instants.getOrDefault(keys[i], Map.of());
            settled.add(busy.isEmpty() ? cues.get(i) : settled(cues.get(i), busy));
        }
        return settled;
    }

    private static PlannedCue settled(PlannedCue cue, Map<Integer, Busy> busy) {
        return cue.withCalls(cue.calls().stream()
                .map(call -> {
                    Busy device = busy.get(call.deviceId());
                    boolean waits = device != null
                            && !call.isProgram()
                            && call.afterNanos() >= device.from
                            && call.afterNanos() < device.until;
                    return waits ? call.after(device.until, call.phrase()) : call;
                })
                .toList());
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
