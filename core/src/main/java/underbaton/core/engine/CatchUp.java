package underbaton.core.engine;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.plan.Level;
import underbaton.core.rig.Control;
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
     * @param book the book's state at the moment
     * @param told the state of the show that plays, at whatever time by its clock; its moment is taken for the book's
     */
    public static List<Correction> between(PlaybackState book, PlaybackState told) {
        PlaybackState target = book.shifted(told.nowNanos() - book.nowNanos());
        List<Correction> corrections = new ArrayList<>();
        for (Device device : told.plan().devices()) {
            Picture wants = Picture.of(target, device, levels(target, device.id()));
            Picture has = has(told, device);
            corrections.addAll(new Difference(told.plan(), device, wants, has).corrections());
        }
        boolean setComes = corrections.stream()
                .anyMatch(c -> c.key().deviceId() == told.plan().patchBay() && c.isPossible());
        if (setComes) {
            corrections.removeIf(c -> isLocalControl(told, c));
        }
        return corrections;
    }

    /** It comes with the patch set. */
    private static boolean isLocalControl(PlaybackState told, Correction correction) {
        return told.plan()
                .device(correction.key().deviceId())
                .filter(d -> Patching.localControl(d)
                        .address()
                        .equals(correction.key().name()))
                .isPresent();
    }

    /** What a device that was away has missed. */
    public static List<Correction> behind(PlaybackState told, int deviceId) {
        Device device = told.plan().device(deviceId).orElse(null);
        if (device == null || !told.away().containsKey(deviceId)) {
            return List.of();
        }
        Picture wants = Picture.of(told, device, levels(told, deviceId));
        return new Difference(told.plan(), device, wants, has(told, device)).corrections();
    }

    /** A device that was away is as it was then. */
    private static Picture has(PlaybackState told, Device device) {
        Away away = told.away().get(device.id());
        return away == null
                ? Picture.of(told, device, toldLevels(told, device.id()))
                : new Picture(away.state(), device.stepLists(), away.levels(), Map.of(), told.nowNanos());
    }

    /** Where a device's controls stand as far as they were told, those under way too. */
    static PMap<Control, Level> toldLevels(PlaybackState state, int deviceId) {
        PMap<Control, Level> levels = HashTreePMap.empty();
        for (Map.Entry<Control, Level> each : state.told().levels().entrySet()) {
            Control control = each.getKey();
            if (control.deviceId() == deviceId) {
                Level now = told(state.moves().get(control), each.getValue(), state.nowNanos());
                levels = now == null ? levels : levels.plus(control, now);
            }
        }
        return levels;
    }

    /** @return null when it was told nothing */
    static Level told(Move move, Level rest, long nanos) {
        return move == null ? rest : move.toldAt(nanos).orElse(null);
    }

    /** Where a device's controls should be, those under way as they are at the state's moment. */
    private static PMap<Control, Level> levels(PlaybackState state, int deviceId) {
        PMap<Control, Level> levels = HashTreePMap.empty();
        for (Map.Entry<Control, Level> each : state.told().levels().entrySet()) {
            if (each.getKey().deviceId() == deviceId) {
                Move move = state.moves().get(each.getKey());
                levels = levels.plus(each.getKey(), move == null ? each.getValue() : move.at(state.nowNanos()));
            }
        }
        return levels;
    }

    /** Those of the corrections that are made when all but some are chosen: guarded ones wait for their own key. */
    public static List<Correction> without(List<Correction> corrections, Set<Correction.Key> left) {
        Set<Correction.Key> out = new HashSet<>(left);
        return corrections.stream()
                .filter(c -> c.isPossible() && !out.contains(c.key()))
                .toList();
    }
}
