package underbaton.core.engine.answer;

import java.util.Map;
import java.util.Optional;
import org.pcollections.PMap;
import underbaton.core.plan.AnswerBook;
import underbaton.core.plan.PlannedAnswer;

/**
 * What a machine has said of what it was told last.
 *
 * @param phraseId what it was told
 * @param told the same in words
 * @param answer what it is to say; empty of a level
 * @param exact where a control is to stand, 0–127; NaN of all that is no level
 * @param untilNanos when it is to have said so, by the clock of the events
 * @param says what it says of itself instead, while it may still say better
 */
public record Reply(
        int phraseId,
        String told,
        Optional<PlannedAnswer> answer,
        double exact,
        long untilNanos,
        Kind kind,
        Optional<AnswerBook.Said> says,
        String words) {

    /** One thing of a machine that is told: a slot, a control, a phrase that leaves nothing behind. @param name with its kind before it */
    public record Of(int deviceId, String name) {}

    /** How it stands with it. */
    public enum Kind {
        AWAITED,
        CONFIRMED,
        /** Its time is over, and nothing came. */
        MISSING,
        /** It says something else. */
        OTHER;

        /** Whether the machine has not done what it was told, as far as it says. */
        public boolean isWrong() {
            return this == MISSING || this == OTHER;
        }
    }

    Reply as(Kind newKind, String newWords) {
        return new Reply(phraseId, told, answer, exact, untilNanos, newKind, Optional.empty(), newWords);
    }

    Reply saying(AnswerBook.Said other) {
        return new Reply(phraseId, told, answer, exact, untilNanos, kind, Optional.of(other), words);
    }

    /** All of them with their moments so much later. */
    public static PMap<Of, Reply> shifted(PMap<Of, Reply> replies, long nanos) {
        PMap<Of, Reply> later = replies;
        for (Map.Entry<Of, Reply> each : replies.entrySet()) {
            Reply r = each.getValue();
            later = later.plus(
                    each.getKey(),
                    new Reply(r.phraseId, r.told, r.answer, r.exact, r.untilNanos + nanos, r.kind, r.says, r.words));
        }
        return later;
    }
}
