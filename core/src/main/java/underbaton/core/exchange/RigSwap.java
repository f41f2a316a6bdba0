package underbaton.core.exchange;

import java.util.List;
import java.util.Optional;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;

/**
 * Points the machines of a show at those of another rig that have the same names: how they are reached and their channels
 * come from there, all else stays. For a show that comes from another house.
 */
public final class RigSwap {

    private final Show rig;

    /** @param rig a show whose machines stand in this house */
    public RigSwap(Show rig) {
        this.rig = rig;
    }

    /** The machine of the rig that stands for one of the show; only one that speaks the same language can. */
    public Optional<Device> machineFor(Device device) {
        return rig.devices().stream()
                .filter(d -> d.name().equalsIgnoreCase(device.name()))
                .filter(d -> d.connection().carriesMidi() == device.connection().carriesMidi()
                        && PatchBay.is(d) == PatchBay.is(device))
                .findFirst();
    }

    /** The machines of the show that find none. */
    public List<Device> left(Show show) {
        return show.devices().stream().filter(d -> machineFor(d).isEmpty()).toList();
    }

    /** The show of the file with the machines of this house in place of its own. */
    public Show applied(Show show) {
        Show pointed = show;
        for (Device device : show.devices()) {
            Optional<Device> there = machineFor(device);
            if (there.isPresent()) {
                pointed = pointed.withDevice(device.withConnection(there.get().connection())
                        .withChannel(there.get().channel()));
            }
        }
        return pointed;
    }
}
