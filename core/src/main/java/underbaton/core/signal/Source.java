package underbaton.core.signal;

import java.util.List;
import java.util.Optional;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;

/**
 * Who said something.
 *
 * @param deviceId the machine of the rig on whose line it came; {@link #OTHERS} for somebody who reached us
 * @param name as people know it
 * @param numbering how it prints its numbers
 */
public record Source(int deviceId, String name, Numbering numbering) {

    /** Those who are no machine of the rig. */
    public static final int OTHERS = 0;

    /** A machine of the rig, by its id, its name and its numbers. */
    public static Source of(Device device) {
        return new Source(device.id(), device.name(), device.numbering());
    }

    /** Of several machines on one line the one on whose channel a message came, else the first. */
    public static Optional<Device> speaker(List<Device> onLine, Message message) {
        if (onLine.size() > 1 && message instanceof ChannelMessage said) {
            for (Device device : onLine) {
                if (device.channel() == said.channel()) {
                    return Optional.of(device);
                }
            }
        }
        return onLine.isEmpty() ? Optional.empty() : Optional.of(onLine.get(0));
    }
}
