package underbaton.core.plan;

import java.util.HashSet;
import java.util.Set;

/**
 * What does not take part tonight, though the book has it.
 *
 * @param cues ids
 * @param items ids
 * @param devices ids
 */
public record OutTonight(Set<Integer> cues, Set<Integer> items, Set<Integer> devices) {

    public static final OutTonight NONE = new OutTonight(Set.of(), Set.of(), Set.of());

    /** Of what there can be one that takes part or does not. */
    public enum Kind {
        CUE,
        ITEM,
        MACHINE
    }

    public OutTonight {
        cues = Set.copyOf(cues);
        items = Set.copyOf(items);
        devices = Set.copyOf(devices);
    }

    /** Whether all take part. */
    public boolean isNone() {
        return count() == 0;
    }

    /** How many cues, items and machines do not take part. */
    public int count() {
        return cues.size() + items.size() + devices.size();
    }

    /** One more taken out, or put back. */
    public OutTonight with(Kind kind, int id, boolean armed) {
        return switch (kind) {
            case CUE -> new OutTonight(changed(cues, id, armed), items, devices);
            case ITEM -> new OutTonight(cues, changed(items, id, armed), devices);
            case MACHINE -> new OutTonight(cues, items, changed(devices, id, armed));
        };
    }

    private static Set<Integer> changed(Set<Integer> before, int id, boolean armed) {
        Set<Integer> after = new HashSet<>(before);
        if (armed) {
            after.remove(id);
        } else {
            after.add(id);
        }
        return after;
    }
}
