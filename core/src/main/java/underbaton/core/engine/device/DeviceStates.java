package underbaton.core.engine.device;

import java.util.Map;
import org.pcollections.HashTreePMap;
import org.pcollections.IntTreePMap;
import org.pcollections.PMap;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;

/**
 * What all devices have been told, or what the book says they have been told, at a moment. Nothing is known until it has been
 * told: what is not here, nobody knows. Immutable.
 *
 * @param devices by their ids, what each holds and where it stands in its lists
 * @param levels where each control stands, or where its move will end; the moves themselves are in the
 *     the engine's own part
 */
public record DeviceStates(PMap<Integer, DeviceState> devices, PMap<Control, Level> levels) {

    public static final DeviceStates NOTHING = new DeviceStates(IntTreePMap.empty(), HashTreePMap.empty());

    /** As the book has it before the show begins: each list that is stepped through stands at its first place. */
    public static DeviceStates first(Plan plan) {
        PMap<Integer, DeviceState> devices = IntTreePMap.empty();
        for (Device device : plan.devices()) {
            DeviceState first = DeviceState.first(device.stepLists());
            devices = first == DeviceState.UNKNOWN ? devices : devices.plus(device.id(), first);
        }
        return new DeviceStates(devices, HashTreePMap.empty());
    }

    /** What this machine was told; {@link DeviceState#UNKNOWN} for one that was told nothing. */
    public DeviceState device(int deviceId) {
        return devices.getOrDefault(deviceId, DeviceState.UNKNOWN);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public DeviceStates shifted(long nanos) {
        PMap<Integer, DeviceState> later = devices;
        for (Map.Entry<Integer, DeviceState> each : devices.entrySet()) {
            DeviceState shifted = each.getValue().shifted(nanos);
            later = shifted == each.getValue() ? later : later.plus(each.getKey(), shifted);
        }
        return later == devices ? this : new DeviceStates(later, levels);
    }
}
