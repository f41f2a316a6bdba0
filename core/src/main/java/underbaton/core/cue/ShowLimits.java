package underbaton.core.cue;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;
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
    private static final int MOST_PAGES = 50;

    /** @throws Refusal with the number that is too large, or the part that is there twice */
    static void require(List<Device> devices, List<Item> items, List<Listener> listeners, List<HandPage> hands) {
        requireMeasure(devices, items);
        requireAtMost(MOST_LISTENERS, listeners.size(), "listeners");
        requireAtMost(MOST_PAGES, hands.size(), "pages of hand cues");
        requireAtMost(1, (int) devices.stream().filter(PatchBay::is).count(), "patch bays");
        requireDistinct(devices, items, listeners, hands);
    }

    private static void requireMeasure(List<Device> devices, List<Item> items) {
        requireAtMost(MOST_MACHINES, devices.size(), "machines");
        requireAtMost(MOST_PHRASES, countOf(devices, d -> d.phrases().size()), "phrases");
        requireAtMost(MOST_ITEMS, items.size(), "items");
        requireAtMost(MOST_CUES, countOf(items, i -> i.cues().size()), "cues");
    }

    private static void requireAtMost(int most, int count, String what) {
        if (count > most) {
            throw new Refusal(
                    "show",
                    "This would be " + count + " " + what + ", and a show holds " + most + "; make it two shows.");
        }
    }

    /** What is looked up by its id or number must be there once. */
    private static void requireDistinct(
            List<Device> devices, List<Item> items, List<Listener> listeners, List<HandPage> hands) {
        int parts = countOf(devices, d -> 1 + d.phrases().size())
                + countOf(items, i -> 1 + i.cues().size())
                + listeners.size()
                + countOf(hands, h -> 1 + h.keys().size());
        Set<Integer> ids = new HashSet<>(2 * parts);
        Set<CueNumber> numbers = new HashSet<>(2 * parts);
        for (Device device : devices) {
            requireNew(ids.add(device.id()), "machine", () -> quoted(device.name()));
            device.phrases().forEach(p -> requireNew(ids.add(p.id()), "phrase", () -> quoted(p.name())));
        }
        for (Item item : items) {
            requireNew(ids.add(item.id()), "item", () -> quoted(item.name()));
            for (Cue cue : item.cues()) {
                requireNew(ids.add(cue.id()) && numbers.add(cue.number()), "cue", cue.number()::toString);
            }
        }
        listeners.forEach(l -> requireNew(ids.add(l.id()), "listener", () -> quoted(l.name())));
        for (HandPage page : hands) {
            requireNew(ids.add(page.id()), "page", () -> quoted(page.name()));
            page.keys().forEach(k -> requireNew(ids.add(k.id()), "key", () -> quoted(k.name())));
        }
    }

    private static <T> int countOf(List<T> all, ToIntFunction<T> partsOf) {
        return all.stream().mapToInt(partsOf).sum();
    }

    /** @param name asked for only when it is needed: each edit comes by here with every part of the show */
    private static void requireNew(boolean isNew, String kind, Supplier<String> name) {
        if (!isNew) {
            throw new Refusal("show", "The " + kind + " " + name.get() + " is in the show twice; keep one of them.");
        }
    }

    private static String quoted(String name) {
        return "“" + name + "”";
    }
}
