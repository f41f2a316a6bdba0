package underbaton.core.cue;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Listener;

/** What a show may hold: so many parts of each kind, each of them once. */
final class ShowLimits {

    private ShowLimits() {}

    private static final int MOST_MACHINES = 200;
    private static final int MOST_PHRASES = 20_000;
    private static final int MOST_ITEMS = 2_000;
    private static final int MOST_CUES = 20_000;
    private static final int MOST_LISTENERS = 500;

    /** @throws Refusal with the number that is too large, or the part that is there twice */
    static void require(List<Device> devices, List<Item> items, List<Listener> listeners) {
        requireMeasure(devices, items);
        requireAtMost(MOST_LISTENERS, listeners.size(), "listeners");
        requireDistinct(devices, items, listeners);
    }

    private static void requireMeasure(List<Device> devices, List<Item> items) {
        requireAtMost(MOST_MACHINES, devices.size(), "machines");
        requireAtMost(
                MOST_PHRASES, devices.stream().mapToInt(d -> d.phrases().size()).sum(), "phrases");
        requireAtMost(MOST_ITEMS, items.size(), "items");
        requireAtMost(MOST_CUES, items.stream().mapToInt(i -> i.cues().size()).sum(), "cues");
    }

    private static void requireAtMost(int most, int count, String what) {
        if (count > most) {
            throw new Refusal(
                    "show",
                    "This would be " + count + " " + what + ", and a show holds " + most + "; make it two shows.");
        }
    }

    /** What is looked up by its id or number must be there once. */
    private static void requireDistinct(List<Device> devices, List<Item> items, List<Listener> listeners) {
        Set<Integer> ids = new HashSet<>();
        Set<CueNumber> numbers = new HashSet<>();
        for (Device device : devices) {
            requireNew(ids.add(device.id()), "machine “" + device.name() + "”");
            device.phrases().forEach(p -> requireNew(ids.add(p.id()), "phrase “" + p.name() + "”"));
        }
        for (Item item : items) {
            requireNew(ids.add(item.id()), "item “" + item.name() + "”");
            for (Cue cue : item.cues()) {
                requireNew(ids.add(cue.id()) && numbers.add(cue.number()), "cue " + cue.number());
            }
        }
        listeners.forEach(l -> requireNew(ids.add(l.id()), "listener “" + l.name() + "”"));
    }

    private static void requireNew(boolean isNew, String what) {
        if (!isNew) {
            throw new Refusal("show", "The " + what + " is in the show twice; keep one of them.");
        }
    }
}
