package underbaton.core.engine.out;

import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.plan.Level;
import underbaton.core.rig.Control;

/**
 * Controls that relays hold up while the book has them lower, and which relay holds each: a hold ends with the relay that has made
 * it. Immutable.
 *
 * @param controls by control and relay id
 */
public record HeldUp(PMap<Control, PMap<Integer, Hold>> controls) {

    public static final HeldUp NOTHING = new HeldUp(HashTreePMap.empty());

    /** @param sourceId the machine whose signal it is @param level no less than this is sent */
    public record Hold(int sourceId, Level level) {}

    /** Whether no relay holds anything up. */
    public boolean isEmpty() {
        return controls.isEmpty();
    }

    /** The highest of all that hold a control. */
    public Optional<Level> of(Control control) {
        return controls.getOrDefault(control, HashTreePMap.empty()).values().stream()
                .map(Hold::level)
                .max(Comparator.comparingDouble(Level::exact));
    }

    /** With what this relay holds up. */
    public HeldUp with(Control control, int relayId, Hold hold) {
        PMap<Integer, Hold> by = controls.getOrDefault(control, HashTreePMap.empty());
        return hold.level().exact() > 0
                ? new HeldUp(controls.plus(control, by.plus(relayId, hold)))
                : without(control, by.minus(relayId));
    }

    private HeldUp without(Control control, PMap<Integer, Hold> left) {
        return new HeldUp(left.isEmpty() ? controls.minus(control) : controls.plus(control, left));
    }

    /** Where a control is, held up, while the book has it somewhere; 0–127. */
    public double upTo(Control control, Level book) {
        return Math.max(of(control).map(Level::exact).orElse(0.0), book.exact());
    }

    /** Without the holds of some relays. @param gone of a relay's id and its hold */
    public HeldUp without(BiPredicate<Integer, Hold> gone) {
        HeldUp left = this;
        for (Map.Entry<Control, PMap<Integer, Hold>> each : controls.entrySet()) {
            PMap<Integer, Hold> by = each.getValue();
            for (Map.Entry<Integer, Hold> hold : each.getValue().entrySet()) {
                by = gone.test(hold.getKey(), hold.getValue()) ? by.minus(hold.getKey()) : by;
            }
            left = by == each.getValue() ? left : left.without(each.getKey(), by);
        }
        return left;
    }
}
