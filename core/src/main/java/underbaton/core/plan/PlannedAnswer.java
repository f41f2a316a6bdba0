package underbaton.core.plan;

import java.util.Optional;
import underbaton.core.midi.Message;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/**
 * What a machine says when it has done a call.
 *
 * @param key as {@link Answer#key} tells answers apart
 * @param withinNanos how long it may take
 */
public record PlannedAnswer(Object key, long withinNanos) {

    /** Of a control's levels the last one that left is answered, by whatever way: they are looked up in {@link AnswerBook}. */
    static Optional<PlannedAnswer> of(Device device, Phrase phrase, Optional<Amount> amount) {
        return phrase.answer()
                .filter(a -> !AnswerBook.isOfLevel(phrase))
                .map(a -> new PlannedAnswer(
                        Answer.key((a.says().open()
                                        ? fill(device, phrase, a, amount)
                                        : a.says().message())
                                .shiftedTo(device.channel())),
                        a.withinMs() * 1_000_000L));
    }

    private static Message fill(Device device, Phrase phrase, Answer answer, Optional<Amount> amount) {
        Argument argument = phrase.argument().orElseThrow();
        return argument.fill(
                answer.says().message(), amount.orElse(new Amount.Measure(argument.least())), device.levels());
    }
}
