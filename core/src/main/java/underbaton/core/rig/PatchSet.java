package underbaton.core.rig;

import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * What a phrase of the patch bay loads. Its name is the phrase's, its number the program that the phrase says.
 *
 * @param kept what is loaded when it is called
 * @param draft what somebody is trying and has not kept
 */
public record PatchSet(Wiring kept, Optional<Wiring> draft) {

    public static final PatchSet EMPTY = new PatchSet(Wiring.NONE, Optional.empty());

    public PatchSet {
        Wiring as = kept;
        draft = draft.filter(d -> !d.equals(as));
    }

    /** As it is being edited. */
    public Wiring shown() {
        return draft.orElse(kept);
    }

    /** With what is tried by ear and not kept. */
    public PatchSet trying(Wiring changed) {
        return new PatchSet(kept, Optional.of(changed));
    }

    /** What is tried is kept from now on. */
    public PatchSet keeping() {
        return new PatchSet(shown(), Optional.empty());
    }

    /** What was tried is forgotten. */
    public PatchSet asKept() {
        return new PatchSet(kept, Optional.empty());
    }

    PatchSet with(UnaryOperator<Wiring> change) {
        return new PatchSet(change.apply(kept), draft.map(change));
    }
}
