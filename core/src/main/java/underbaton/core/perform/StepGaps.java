package underbaton.core.perform;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/**
 * Which messages step a machine through its lists, and how long it takes for each before it takes the next one. Immutable.
 *
 * @param steps by the message that a step begins with
 */
record StepGaps(Map<Message, Step> steps) {

    /** @param list which one, in small letters @param gapNanos above 0 */
    record Step(String list, long gapNanos) {}

    static StepGaps of(Device device) {
        Map<Message, Step> steps = new HashMap<>();
        for (Phrase phrase : device.phrases()) {
            int gapMs = device.gapMs(phrase.effect());
            if (gapMs > 0) {
                Step step = new Step(phrase.effect().of().toLowerCase(Locale.ROOT), gapMs * 1_000_000L);
                device.messagesFor(phrase, Optional.empty()).stream()
                        .findFirst()
                        .ifPresent(first -> steps.put(first.message(), step));
            }
        }
        return new StepGaps(Map.copyOf(steps));
    }

    /** @return null for a message that steps nothing on */
    Step of(Message message) {
        return steps.isEmpty() ? null : steps.get(message);
    }
}
