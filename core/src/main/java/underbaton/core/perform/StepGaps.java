package underbaton.core.perform;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/**
 * Which messages step a machine through its lists, and how long it takes for each before it takes the next one. Immutable.
 *
 * @param steps by the message that a step begins with
 */
record StepGaps(Map<Message, Step> steps) {

    /** @param list which one, by its name @param gapNanos above 0 */
    record Step(String list, long gapNanos) {}

    static StepGaps of(Device device) {
        Map<Message, Step> steps = new HashMap<>();
        for (Phrase phrase : device.phrases()) {
            Effect.Kind kind = phrase.effect().kind();
            boolean moves = kind == Effect.Kind.STEPS || kind == Effect.Kind.SETS;
            device.stepList(phrase.effect().of())
                    .filter(list -> moves && list.gapMs() > 0)
                    .ifPresent(list -> device.messagesFor(phrase, Optional.empty()).stream()
                            .findFirst()
                            .ifPresent(first ->
                                    steps.put(first.message(), new Step(list.of(), list.gapMs() * 1_000_000L))));
        }
        return new StepGaps(Map.copyOf(steps));
    }

    /** @return null for a message that steps nothing on */
    Step of(Message message) {
        return steps.isEmpty() ? null : steps.get(message);
    }
}
