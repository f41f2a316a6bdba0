package underbaton.core.engine.operator;

import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.engine.operator.OperatorInput.FirstAct;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;

/**
 * The operator's hand while a step is taken: whether a GO is meant, whether something guarded has had its two acts, how fast the music
 * is to go. Not thread-safe, used once.
 */
public final class Operator {

    /** What is said of something guarded that waits for its second act. */
    public static final String ONCE_MORE = ": once more within three seconds";

    private final StepContext step;
    private OperatorInput input;

    /** What the operator had said before this step. */
    public Operator(StepContext step, OperatorInput before) {
        this.step = step;
        this.input = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public OperatorInput state() {
        return input;
    }

    // ---- GO

    /** From now on GO behaves so. */
    public void behave(GoOptions options) {
        input = input.with(options);
    }

    /** The standby was chosen, or has come by playing on; no GO waits any more. */
    public void movedTo(boolean moved) {
        input = input.movedTo(moved);
    }

    /** When a GO that waits for its second press has waited long enough; far away when none does. */
    public long nextAsk() {
        OptionalLong asked = input.askedNanos();
        return asked.isPresent() ? asked.getAsLong() + GoOptions.PATIENCE_NANOS + 1 : StepContext.NEVER;
    }

    /** It has waited long enough. */
    public void stopAsking(long due) {
        input = input.movedTo(input.moved());
        step.happens(new Happening.Turned(due));
    }

    /** Whether a GO now is the second press that one has waited for. */
    public boolean isSecondPress() {
        return input.waitsAt(step.now());
    }

    /** Whether a GO now comes too soon behind the last one to be meant. */
    public boolean isTooSoon() {
        return input.isSoon(step.now());
    }

    /** A GO waits for its second press. */
    public void ask() {
        input = input.asked(step.now());
    }

    /** A GO is carried out. */
    public void gone() {
        input = input.gone(step.now());
    }

    /** Who goes elsewhere means it: a GO there is not the last one's second half. */
    public void goesElsewhere() {
        input = input.withoutGo();
    }

    // ---- what is guarded

    /**
     * The one place that knows the rule: what is guarded is done by the second of two acts within three seconds; the first one is
     * kept in mind. What is not guarded takes nothing away from what waits.
     *
     * @return whether it is to be done
     */
    public boolean mayDo(Guarded what, boolean isGuarded) {
        if (!isGuarded) {
            return true;
        }
        boolean second = input.waitsAt(what, step.now());
        input = input.with(second ? Optional.empty() : Optional.of(new FirstAct(what, step.now())));
        return second;
    }

    // ---- the tempo of the day

    /** One beat of the tempo, as it is heard. @return how long a beat lasts, ns; empty before the second tap */
    public OptionalLong tap() {
        input = input.tapped(step.now());
        return input.tappedBeat();
    }

    /** The music of an item goes so fast from now on, 1,000 being as written. */
    public void pace(int itemId, int permille) {
        input = input.paced(itemId, permille);
    }

    /** How fast an item's music goes when it begins. */
    public int paceOf(int itemId) {
        return input.paceOf(itemId);
    }
}
