package underbaton.core.plan;

import java.util.List;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/**
 * A call with everything that is needed to make it.
 *
 * @param messages on the device's own channels, in the order to send them
 */
public record PlannedCall(int deviceId, int phraseId, String phrase, Effect effect, List<Message> messages) {

    public static PlannedCall of(Device device, Phrase phrase) {
        return new PlannedCall(device.id(), phrase.id(), phrase.name(), phrase.effect(), device.messagesFor(phrase));
    }
}
