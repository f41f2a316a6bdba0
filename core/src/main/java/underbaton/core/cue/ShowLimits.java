package underbaton.core.cue;

import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
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
    /** Numbers of which no more than one in so many is there are sorted, others ticked off. */
    private static final int DENSE = 1000;

    /** @throws Refusal with the number that is too large, or the part that is there twice */
    static void require(List<Device> devices, List<Item> items, List<Listener> listeners, List<HandPage> hands) {
        requireMeasure(devices, items);
        requireAtMost(MOST_LISTENERS, listeners.size(), "listeners");
        requireAtMost(MOST_PAGES, hands.size(), "pages of hand cues");
        requireAtMost(1, (int) devices.stream().filter(PatchBay::is).count(), "patch bays");
        if (!isDistinct(devices, items, listeners, hands)) {
            refuseDouble(devices, items, listeners, hands);
        }
    }

    private static void requireMeasure(List<Device> devices, List<Item> items) {
        requireAtMost(MOST_MACHINES, devices.size(), "machines");
        requireAtMost(
                MOST_PHRASES,
                countOf(devices, d -> PatchBay.is(d) ? 0 : d.phrases().size()),
                "phrases");
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

    /** What is looked up by its id or number must be there once; each edit asks, so it is numbers alone that are looked through. */
    private static boolean isDistinct(
            List<Device> devices, List<Item> items, List<Listener> listeners, List<HandPage> hands) {
        int cues = countOf(items, i -> i.cues().size());
        int parts = countOf(devices, d -> 1 + d.phrases().size())
                + items.size()
                + cues
                + listeners.size()
                + countOf(hands, h -> 1 + h.keys().size());
        int[] ids = new int[parts];
        int[] numbers = new int[cues];
        int i = 0;
        int n = 0;
        for (Device device : devices) {
            ids[i++] = device.id();
            for (Phrase phrase : device.phrases()) {
                ids[i++] = phrase.id();
            }
        }
        for (Item item : items) {
            ids[i++] = item.id();
            for (Cue cue : item.cues()) {
                ids[i++] = cue.id();
                numbers[n++] = cue.number().thousandths();
            }
        }
        for (Listener listener : listeners) {
            ids[i++] = listener.id();
        }
        for (HandPage page : hands) {
            ids[i++] = page.id();
            for (HandKey key : page.keys()) {
                ids[i++] = key.id();
            }
        }
        return isEachOnce(ids) && isEachOnce(numbers);
    }

    private static boolean isEachOnce(int[] all) {
        int least = 0;
        int most = -1;
        boolean ascending = true;
        for (int each : all) {
            ascending &= each > most;
            least = Math.min(least, each);
            most = Math.max(most, each);
        }
        boolean dense = least == 0 && most / DENSE <= all.length;
        return ascending || (dense ? isEachOnceInBits(all, most) : isEachOnceInOrder(all));
    }

    private static boolean isEachOnceInBits(int[] all, int most) {
        BitSet there = new BitSet(most + 1);
        for (int each : all) {
            if (there.get(each)) {
                return false;
            }
            there.set(each);
        }
        return true;
    }

    private static boolean isEachOnceInOrder(int[] all) {
        Arrays.sort(all);
        for (int i = 1; i < all.length; i++) {
            if (all[i] == all[i - 1]) {
                return false;
            }
        }
        return true;
    }

    /** @throws Refusal that names the first that is there twice */
    private static void refuseDouble(
            List<Device> devices, List<Item> items, List<Listener> listeners, List<HandPage> hands) {
        Set<Integer> ids = new HashSet<>();
        Set<CueNumber> numbers = new HashSet<>();
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

    private static void requireNew(boolean isNew, String kind, Supplier<String> name) {
        if (!isNew) {
            throw new Refusal("show", "The " + kind + " " + name.get() + " is in the show twice; keep one of them.");
        }
    }

    private static String quoted(String name) {
        return "“" + name + "”";
    }
}
