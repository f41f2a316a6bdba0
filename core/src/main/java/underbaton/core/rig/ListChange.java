package underbaton.core.rig;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import underbaton.core.midi.Message;

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
     * An entry of the machine's list as somebody has it.
     *
     * @param place 0 for the first
     * @param phraseId the phrase of ours that it is; 0 for a new one
     */
    public record Wanted(int place, String name, int phraseId) {}

    /**
     * Holds names against ours: what a list that was pasted means at first, before anybody changes it.
     *
     * <p>Names are matched without regard to case. Where one name of ours is gone and a new one stands at the same place,
     * the phrase counts as renamed, so that its cues stay.
     *
     * @param names by place, 0 for the first
     */
    public static List<Wanted> matched(Device device, SortedMap<Integer, String> names) {
        List<Optional<Phrase>> places = device.places();
        List<Wanted> wanted = new ArrayList<>();
        names.forEach((place, name) -> {
            Optional<Phrase> there = place >= 0 && place < places.size() ? places.get(place) : Optional.empty();
            Optional<Phrase> former = there.filter(p -> isGone(p, names) && isNew(device, name));
            int id = device.phraseNamed(name).or(() -> former).map(Phrase::id).orElse(0);
            wanted.add(new Wanted(place, name, id));
        });
        return wanted;
    }

    private static boolean isGone(Phrase ours, SortedMap<Integer, String> names) {
        return names.values().stream().noneMatch(n -> n.strip().equalsIgnoreCase(ours.name()));
    }

    private static boolean isNew(Device device, String name) {
        return device.listed().stream().noneMatch(p -> p.name().equalsIgnoreCase(name.strip()));
    }

    /**
     * Holds a machine's current list against ours.
     *
     * @param wanted its entries; a place that none has is empty
     * @param effect what new entries do
     * @throws Refusal when a name, a place or a phrase stands twice, a name is too long, or there are more than numbers
     */
    public static ListChange to(Device device, List<Wanted> wanted, Effect effect) {
        PositionList list = requireList(device);
        List<Optional<Phrase>> places = new ArrayList<>();
        Set<Integer> taken = new HashSet<>();
        for (Wanted each :
                wanted.stream().sorted(Comparator.comparingInt(Wanted::place)).toList()) {
            String name = Refusal.requireName("name", each.name, 60);
            if (each.place < places.size()) {
                throw new Refusal(
                        "place",
                        "“" + name + "” and “"
                                + places.get(each.place).map(Phrase::name).orElse("") + "” both have the place "
                                + device.numbering().place(each.place) + "; give one of them another.");
            }
            if (each.phraseId != 0 && !taken.add(each.phraseId)) {
                throw new Refusal("names", "“" + name + "” and another entry are both to be the same phrase of ours.");
            }
            requireOnce(name, places);
            Message says = list.at(each.place);
            while (places.size() < each.place) {
                places.add(Optional.empty());
            }
            places.add(Optional.of(device.phrase(each.phraseId)
                    .map(p -> p.withName(name).inList(true))
                    .orElseGet(() -> new Phrase(0, name, List.of(says), effect, false).inList(true))));
        }
        return between(device, device.withPlaces(places));
    }

    private static void requireOnce(String name, List<Optional<Phrase>> places) {
        if (places.stream().flatMap(Optional::stream).anyMatch(p -> p.name().equalsIgnoreCase(name))) {
            throw new Refusal("names", "Two lines say “" + name + "”; two entries need two names.");
        }
    }

    /** One entry moved to another place of the list, 0 being the first; those between give way. */
    public static ListChange moved(Device device, int phraseId, int place) {
        requireList(device);
        List<Optional<Phrase>> places = new ArrayList<>(device.places());
        Phrase phrase = device.phrase(phraseId)
                .filter(Phrase::listed)
                .orElseThrow(() -> new Refusal("place", "That phrase is not in the machine's list."));
        if (place < 0 || place >= places.size()) {
            throw new Refusal("place", "The list has the places 1 to " + places.size() + ".");
        }
        places.remove(device.placeOf(phrase));
        places.add(place, Optional.of(phrase));
        return between(device, device.withPlaces(places));
    }

    private static PositionList requireList(Device device) {
        return device.list()
                .orElseThrow(
                        () -> new Refusal("list", device.name() + " has no list; say first how its list is numbered."));
    }

    private static ListChange between(Device before, Device after) {
        List<Entry> entries = new ArrayList<>();
        for (Phrase phrase : after.listed()) {
            int to = after.placeOf(phrase);
            Optional<Phrase> former = before.phrase(phrase.id());
            int from = former.map(before::placeOf).orElse(-1);
            String formerName = former.map(Phrase::name).orElse("");
            if (former.isEmpty()) {
                entries.add(new Entry(phrase, Fate.ADDED, "", -1, to));
            } else if (!formerName.equals(phrase.name())) {
                entries.add(new Entry(phrase, Fate.RENAMED, formerName, from, to));
            } else if (from != to) {
                entries.add(new Entry(phrase, Fate.MOVED, formerName, from, to));
            }
        }
        for (Phrase phrase : before.listed()) {
            if (after.phrase(phrase.id()).filter(Phrase::listed).isEmpty()) {
                entries.add(new Entry(phrase, Fate.LEFT_OUT, phrase.name(), before.placeOf(phrase), -1));
            }
        }
        return new ListChange(after, entries);
    }
}
