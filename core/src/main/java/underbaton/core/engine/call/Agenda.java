package underbaton.core.engine.call;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.pcollections.TreePMap;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.out.StepContext;
import underbaton.core.rig.Effect;

/**
 * What was called and leaves later, in the order of the times, while a step is taken.
 *
 * <p>Holds at all times: of what is due at one moment, what came in first leaves first, and nothing takes another's place. Not
 * thread-safe, used once.
 */
public final class Agenda {

    private TreePMap<Pending.Key, Pending> pending;
    /** Above that of all that is on it; below 0 before it was asked for. */
    private long count = -1;

    /** What waited before this step, by its moments. */
    public Agenda(TreePMap<Pending.Key, Pending> before) {
        pending = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public TreePMap<Pending.Key, Pending> state() {
        return pending;
    }

    /** Whether nothing waits. */
    public boolean isEmpty() {
        return pending.isEmpty();
    }

    /** When the first of it is due; far away for none. */
    public long nextNanos() {
        return pending.isEmpty() ? StepContext.NEVER : pending.firstKey().dueNanos();
    }

    /** @param due when it is to leave, by the clock of the events */
    public void add(long due, Pending what) {
        if (count < 0) {
            // What is due last need not have come last: with its count, one of the same moment would take another's
            // place.
            count = pending.keySet().stream()
                            .mapToLong(Pending.Key::count)
                            .max()
                            .orElse(-1)
                    + 1;
        }
        pending = pending.plus(new Pending.Key(due, count++), what);
    }

    /** What is due first is no longer on it. @throws java.util.NoSuchElementException when nothing is */
    public Due takeFirst() {
        Map.Entry<Pending.Key, Pending> first = pending.firstEntry();
        pending = pending.minus(first.getKey());
        return new Due(first.getKey().dueNanos(), first.getValue());
    }

    /** @param dueNanos when it leaves, by the clock of the events */
    public record Due(long dueNanos, Pending what) {}

    /** Some of it is taken back. @return that, in the order of the times */
    public List<Due> takeBack(Predicate<Pending> which) {
        List<Due> taken = new ArrayList<>();
        for (Map.Entry<Pending.Key, Pending> each : pending.entrySet()) {
            if (which.test(each.getValue())) {
                pending = pending.minus(each.getKey());
                taken.add(new Due(each.getKey().dueNanos(), each.getValue()));
            }
        }
        return taken;
    }

    /** All of it is taken back. @return that, in the order of the times */
    public List<Pending> takeAll() {
        List<Pending> all = List.copyOf(pending.values());
        pending = TreePMap.empty();
        return all;
    }

    /** What steps a list of a device on, in the order of the times. @param name of the list, in small letters */
    public static List<Effect> steps(TreePMap<Pending.Key, Pending> pending, int deviceId, String name) {
        return pending.values().stream()
                .filter(p -> p instanceof Pending.ToCall c && c.deviceId() == deviceId)
                .map(p -> ((Pending.ToCall) p).call().effect())
                .filter(e -> Slot.key(e).equals(name))
                .filter(e -> e.kind() == Effect.Kind.STEPS || e.kind() == Effect.Kind.SETS)
                .toList();
    }

    /** The same so much later. */
    public static TreePMap<Pending.Key, Pending> shifted(TreePMap<Pending.Key, Pending> pending, long nanos) {
        TreePMap<Pending.Key, Pending> later = TreePMap.empty();
        for (Map.Entry<Pending.Key, Pending> each : pending.entrySet()) {
            Pending.Key key = each.getKey();
            later = later.plus(
                    new Pending.Key(key.dueNanos() + nanos, key.count()),
                    each.getValue().shifted(nanos));
        }
        return later;
    }
}
