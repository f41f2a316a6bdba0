package underbaton.core.plan;

import java.util.List;
import java.util.Optional;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;

/**
 * A call with everything that is needed to make it.
 *
 * @param phrase its name, with the amount of the call
 * @param messages on the device's own channels, with the time of each since the call, in that order
 */
public record PlannedCall(int deviceId, int phraseId, String phrase, Effect effect, List<Timed> messages) {

    public static PlannedCall of(Device device, Phrase phrase, Optional<Amount> amount) {
        return new PlannedCall(
                device.id(),
                phrase.id(),
                device.tell(phrase, amount),
                phrase.effect(),
                device.messagesFor(phrase, amount));
    }

    /** A phrase with no blank, or with the smallest amount in it. */
    public static PlannedCall of(Device device, Phrase phrase) {
        return of(device, phrase, Optional.empty());
    }
}
