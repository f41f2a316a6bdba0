package underbaton.web.kernel;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import underbaton.core.rig.Refusal;

/** Reads a form part by part and keeps what is refused, so that a person is told of all of it at once. */
public final class Faults {

    private final List<Refusal> found = new ArrayList<>();

    /** The part, or {@code otherwise} when it is refused; then something can still be made of the others. */
    public <T> T or(T otherwise, Supplier<T> part) {
        try {
            return part.get();
        } catch (Refusal refusal) {
            found.add(refusal);
            return otherwise;
        }
    }

    /** The whole, when none of its parts was refused. */
    public <T> T all(Supplier<T> whole) {
        if (!found.isEmpty()) {
            throw Refusal.ofAll(found);
        }
        return whole.get();
    }
}
