package underbaton.core.rig;

import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;

/**
 * One thing on a machine that can be levelled, so that two phrases that move the same one are seen to do so.
 *
 * @param address the message without its value, such as {@code ControlChange 4 7} or {@code /ch/1/fader}
 */
public record Control(int deviceId, String address) {

    /** @param message on the device's own channel, with any value */
    public static Control of(int deviceId, Message message) {
        return new Control(deviceId, address(message));
    }

    // Asked for at every message: those that a record makes for itself are slow until they are compiled well.
    @Override
    public boolean equals(Object other) {
        return this == other || other instanceof Control c && deviceId == c.deviceId && address.equals(c.address);
    }

    @Override
    public int hashCode() {
        return 31 * deviceId + address.hashCode();
    }

    private static String address(Message message) {
        if (message instanceof OscMessage osc) {
            return osc.address();
        }
        int number = message instanceof ControlChange c
                ? c.controller()
                : message instanceof NoteOn n ? n.note() : message instanceof PolyPressure p ? p.note() : 0;
        int channel = message instanceof ChannelMessage c ? c.channel() : 0;
        return message.getClass().getSimpleName() + " " + channel + " " + number;
    }
}
