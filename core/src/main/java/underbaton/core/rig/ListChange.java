package underbaton.core.rig;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * What a new order of a machine's list does to its phrases: told before it is applied. Phrases are the same by id, so
 * every cue follows its phrase by name whatever number that gets.
 *
 * @param after the device as it would be
 * @param entries every phrase that is or was in the list and is not the same afterwards
 */
public record ListChange(Device after, List<Entry> entries) {

    /** What happens to a phrase. */
    public enum Fate {
        ADDED,
        MOVED,
        RENAMED,
        /** No longer in the machine's list; it stays in the phrasebook with the number it had. */
        LEFT_OUT
    }

    /**
     * @param phrase as it is afterwards
     * @param formerName its name before; empty when it is new
     * @param from its place before, from 0; −1 for none
     * @param to its place afterwards, from 0; −1 for none
     */
    public record Entry(Phrase phrase, Fate fate, String formerName, int from, int to) {}

    /**
     * Holds a machine's current list against ours.
     *
     * <p>Names are matched without regard to case. Where one name of ours is gone and a new one stands at the same place,
     * the phrase counts as renamed, so that its cues stay.
     *
     * @param names the machine's list in its own order, blank lines left out
     * @param effect what new entries do
     * @throws Refusal when a name stands twice, is too long, or there are more than numbers
     */
    public static ListChange pasted(Device device, List<String> names, Effect effect) {
        PositionList list = requireList(device);
        requireEachOnce(names);
        List<Phrase> before = device.listed();
        List<Phrase> order = new ArrayList<>();
        Map<Integer, Phrase> renamed = renamed(before, names);
        for (int i = 0; i < names.size(); i++) {
            String name = names.get(i).strip();
            Optional<Phrase> ours = device.phraseNamed(name);
            Phrase former = ours.orElse(renamed.get(i));
            order.add(
                    former == null
                            ? new Phrase(0, name, List.of(list.at(i)), effect, false).inList(true)
                            : former.withName(name).inList(true));
        }
        return between(device, device.withListOrder(order));
    }

    /** One entry moved to another place of the list, 0 being the first. */
    public static ListChange moved(Device device, int phraseId, int place) {
        requireList(device);
        List<Phrase> order = new ArrayList<>(device.listed());
        Phrase phrase = order.stream()
                .filter(p -> p.id() == phraseId)
                .findFirst()
                .orElseThrow(() -> new Refusal("place", "That phrase is not in the machine's list."));
        if (place < 0 || place >= order.size()) {
            throw new Refusal("place", "The list has the places 1 to " + order.size() + ".");
        }
        order.remove(phrase);
        order.add(place, phrase);
        return between(device, device.withListOrder(order));
    }

    private static PositionList requireList(Device device) {
        return device.list()
                .orElseThrow(
                        () -> new Refusal("list", device.name() + " has no list; say first how its list is numbered."));
    }

    private static void requireEachOnce(List<String> names) {
        Map<String, Integer> lines = new HashMap<>();
        for (int i = 0; i < names.size(); i++) {
            Refusal.requireName("name", names.get(i), 60);
            Integer earlier = lines.putIfAbsent(names.get(i).strip().toLowerCase(Locale.ROOT), i + 1);
            if (earlier != null) {
                throw new Refusal(
                        "names",
                        "Lines " + earlier + " and " + (i + 1) + " both say “"
                                + names.get(i).strip() + "”; two entries need two names.");
            }
        }
    }

    /** By place: phrases of ours whose name is gone and whose place a new name has taken. */
    private static Map<Integer, Phrase> renamed(List<Phrase> before, List<String> names) {
        Map<Integer, Phrase> renamed = new HashMap<>();
        for (int i = 0; i < Math.min(before.size(), names.size()); i++) {
            String ours = before.get(i).name();
            String theirs = names.get(i).strip();
            boolean oursGone = names.stream().noneMatch(n -> n.strip().equalsIgnoreCase(ours));
            boolean theirsNew = before.stream().noneMatch(p -> p.name().equalsIgnoreCase(theirs));
            if (oursGone && theirsNew) {
                renamed.put(i, before.get(i));
            }
        }
        return renamed;
    }

    private static ListChange between(Device before, Device after) {
        List<Phrase> was = before.listed();
        List<Phrase> is = after.listed();
        List<Entry> entries = new ArrayList<>();
        for (int to = 0; to < is.size(); to++) {
            Phrase phrase = is.get(to);
            int from = place(was, phrase.id());
            Optional<Phrase> former = before.phrase(phrase.id());
            String formerName = former.map(Phrase::name).orElse("");
            if (former.isEmpty()) {
                entries.add(new Entry(phrase, Fate.ADDED, "", -1, to));
            } else if (!formerName.equals(phrase.name())) {
                entries.add(new Entry(phrase, Fate.RENAMED, formerName, from, to));
            } else if (from != to) {
                entries.add(new Entry(phrase, Fate.MOVED, formerName, from, to));
            }
        }
        for (int from = 0; from < was.size(); from++) {
            Phrase phrase = was.get(from);
            if (place(is, phrase.id()) < 0) {
                entries.add(new Entry(phrase, Fate.LEFT_OUT, phrase.name(), from, -1));
            }
        }
        return new ListChange(after, entries);
    }

    private static int place(List<Phrase> phrases, int id) {
        for (int i = 0; i < phrases.size(); i++) {
            if (id != 0 && phrases.get(i).id() == id) {
                return i;
            }
        }
        return -1;
    }
}
