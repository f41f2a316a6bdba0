package underbaton.core.engine.catchup;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import underbaton.core.engine.device.Absence;
import underbaton.core.engine.patch.LocalControl;
import underbaton.core.rig.Device;

/**
 * The way from what the devices were told to what the book says they should have been told: the fewest messages that make
 * each of them right.
 */
public final class CatchUp {

    private CatchUp() {}

    /**
     * What is to be made right, device by device in the order of the rig, and for each device in the order in which it must
     * be told.
     *
     * @param book as the book has the machines
     * @param told as they were told at the same moment
     */
    public static List<Correction> between(MachineStates book, MachineStates told) {
        List<Correction> corrections = new ArrayList<>();
        for (Device device : told.plan().devices()) {
            DeviceSnapshot wants = DeviceSnapshot.of(book, device, book.levels(device.id()));
            DeviceSnapshot has = has(told, device);
            corrections.addAll(new Difference(told.plan(), device, wants, has).corrections());
        }
        boolean setComes = corrections.stream()
                .anyMatch(c -> c.key().deviceId() == told.plan().patchBay() && c.isPossible());
        if (setComes) {
            corrections.removeIf(c -> isLocalControl(told, c));
        }
        return corrections;
    }

    /**
     * What would not come right by itself: a move of the book is joined where it is, all else made as it will be.
     *
     * @param now the difference as it is
     * @param rested the difference with all made in both that has been called
     * @param sameSteps whether what has been called steps a list on in both alike: then that is still to come, and is not made twice
     */
    public static List<Correction> atRest(
            List<Correction> now, List<Correction> rested, Predicate<Correction.Key> sameSteps) {
        Map<Correction.Key, Correction> joined = new HashMap<>();
        now.stream()
                .filter(c ->
                        c.goesOn().isPresent() || c.key().kind() == Correction.Kind.PLACE && sameSteps.test(c.key()))
                .forEach(c -> joined.put(c.key(), c));
        return rested.stream().map(c -> joined.getOrDefault(c.key(), c)).toList();
    }

    /** It comes with the patch set. */
    private static boolean isLocalControl(MachineStates told, Correction correction) {
        return told.plan()
                .device(correction.key().deviceId())
                .filter(d ->
                        LocalControl.of(d).address().equals(correction.key().name()))
                .isPresent();
    }

    /** What a device that was away has missed. */
    public static List<Correction> behind(MachineStates told, int deviceId) {
        Device device = told.plan().device(deviceId).orElse(null);
        if (device == null || !told.absent().containsKey(deviceId)) {
            return List.of();
        }
        DeviceSnapshot wants = DeviceSnapshot.of(told, device, told.levels(deviceId));
        return new Difference(told.plan(), device, wants, has(told, device)).corrections();
    }

    /** A device that was away is as it was then. */
    private static DeviceSnapshot has(MachineStates told, Device device) {
        Absence absence = told.absent().get(device.id());
        return absence == null
                ? DeviceSnapshot.of(told, device, told.toldLevels(device.id()))
                : new DeviceSnapshot(absence.state(), device.stepLists(), absence.levels(), Map.of(), told.nanos());
    }

    /** Those of the corrections that are made when all but some are chosen: guarded ones wait for their own key. */
    public static List<Correction> without(List<Correction> corrections, Set<Correction.Key> left) {
        Set<Correction.Key> out = new HashSet<>(left);
        return corrections.stream()
                .filter(c -> c.isPossible() && !out.contains(c.key()))
                .toList();
    }
}
