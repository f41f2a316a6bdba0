package underbaton.core.cue;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Listener;
import underbaton.core.signal.RelayLoops;

/**
 * One production's book, whole and immutable. Every edit answers a new show and leaves the old one as it was, which is
 * what makes undo, planning and running beside an editor simple.
 *
 * @param id the show's own
 * @param revision goes up by one with every edit and never back
 * @param nextId the id that the next device, phrase, item or cue gets; goes up, never back
 * @param devices in the order of the Book's columns
 * @param items the running order
 * @param listeners what is done when something comes in
 * @param hands the pages of hand cues
 */
public record Show(
        int id,
        String name,
        int revision,
        int nextId,
        List<Device> devices,
        List<Item> items,
        List<Listener> listeners,
        List<HandPage> hands) {

    public Show {
        name = Refusal.requireName("name", name, 100);
        devices = List.copyOf(devices);
        items = List.copyOf(items);
        listeners = List.copyOf(listeners);
        hands = List.copyOf(hands);
        ShowLimits.require(devices, items, listeners, hands);
    }

    /** A show without hand cues. */
    public Show(
            int id,
            String name,
            int revision,
            int nextId,
            List<Device> devices,
            List<Item> items,
            List<Listener> listeners) {
        this(id, name, revision, nextId, devices, items, listeners, List.of());
    }

    /** A show that listens to nobody. */
    public Show(int id, String name, int revision, int nextId, List<Device> devices, List<Item> items) {
        this(id, name, revision, nextId, devices, items, List.of());
    }

    /** Nothing but a name, at revision 1. */
    public static Show empty(int id, String name) {
        return new Show(id, name, 1, 1, List.of(), List.of());
    }

    // ---- looking things up

    /** All cues, item by item in the running order. */
    public Stream<Cue> cues() {
        return items.stream().flatMap(i -> i.cues().stream());
    }

    /** The machine with this id, if it is in the rig. */
    public Optional<Device> device(int deviceId) {
        return devices.stream().filter(d -> d.id() == deviceId).findFirst();
    }

    /** The item with this id, if it is in the running order. */
    public Optional<Item> item(int itemId) {
        return items.stream().filter(i -> i.id() == itemId).findFirst();
    }

    /** The cue with this id, in whichever item. */
    public Optional<Cue> cue(int cueId) {
        return cues().filter(c -> c.id() == cueId).findFirst();
    }

    /** The cue with this number, in whichever item. */
    public Optional<Cue> cueNumbered(CueNumber number) {
        return cues().filter(c -> c.number().equals(number)).findFirst();
    }

    /** The item in which this cue stands. */
    public Optional<Item> itemOf(int cueId) {
        return items.stream()
                .filter(i -> i.cues().stream().anyMatch(c -> c.id() == cueId))
                .findFirst();
    }

    /** The phrase that a call names; empty when it has been taken out of the phrasebook. */
    public Optional<Phrase> phrase(Call call) {
        return device(call.deviceId()).flatMap(d -> d.phrase(call.phraseId()));
    }

    /** Cues that call anything of this machine, in the running order. */
    public List<Cue> cuesUsing(Device device) {
        return cues().filter(c -> !c.callsFor(device.id()).isEmpty()).toList();
    }

    /** By id of a phrase of that machine, the cues that call it; of all its phrases in one look through the book. */
    public Map<Integer, List<Cue>> cuesByPhrase(int deviceId) {
        Map<Integer, List<Cue>> found = new HashMap<>();
        cues().forEach(cue -> cue.callsFor(deviceId).stream()
                .mapToInt(Call::phraseId)
                .distinct()
                .forEach(p -> found.computeIfAbsent(p, id -> new ArrayList<>()).add(cue)));
        return found;
    }

    /** Cues that call this phrase of this machine, in the running order. It walks all cues: of many phrases ask {@link #cuesByPhrase}. */
    public List<Cue> cuesUsing(int deviceId, int phraseId) {
        return cues().filter(c -> c.calls().stream().anyMatch(call -> call.names(deviceId, phraseId)))
                .toList();
    }

    /** Whether another says the same, whenever it was said. */
    public boolean saysTheSameAs(Show other) {
        boolean same = name.equals(other.name)
                && nextId == other.nextId
                && items.size() == other.items.size()
                && devices.equals(other.devices)
                && listeners.equals(other.listeners)
                && hands.equals(other.hands);
        for (int i = 0; same && i < items.size(); i++) {
            same = saysTheSame(items.get(i), other.items.get(i));
        }
        return same;
    }

    private static boolean saysTheSame(Item one, Item other) {
        if (one.equals(other)) {
            return true;
        }
        boolean same = one.cues().size() == other.cues().size()
                && one.withCues(other.cues()).equals(other);
        for (int i = 0; same && i < one.cues().size(); i++) {
            same = one.cues().get(i).withVersion(0).equals(other.cues().get(i).withVersion(0));
        }
        return same;
    }

    // ---- edits

    /** The same under another name, 1–100 characters. */
    public Show renamed(String newName) {
        return next(newName, nextId, devices, items);
    }

    /**
     * Adds a device at the end (id 0), or exchanges the one with the same id.
     *
     * @throws Refusal when another device has that name
     */
    public Show withDevice(Device device) {
        devices.stream()
                .filter(d -> d.id() != device.id() && d.name().equalsIgnoreCase(device.name()))
                .findFirst()
                .ifPresent(d -> {
                    throw new Refusal("name", "There is a device “" + d.name() + "” already; choose another name.");
                });
        if (device.id() == 0) {
            return next(name, nextId + 1, appended(devices, device.withId(nextId)), items);
        }
        return next(name, nextId, replaced(devices, d -> d.id() == device.id() ? device : d), items);
    }

    /** Takes a device out, with every call to it. */
    public Show withoutDevice(int deviceId) {
        List<Device> left = devices.stream()
                .filter(d -> d.id() != deviceId)
                .map(d -> d.withLinesAmong(id -> id != deviceId))
                .toList();
        return next(name, nextId, left, withEachCue(c -> c.withCallsFor(deviceId, List.of())))
                .withFollowers(id -> id != deviceId)
                .withHandCalls(c -> c.deviceId() != deviceId);
    }

    /** Items go by the time of those machines alone. */
    private Show withFollowers(IntPredicate machines) {
        return next(
                name,
                nextId,
                devices,
                replaced(
                        items,
                        i -> i.withFollows(i.follows().filter(f -> f.deviceId() == 0 || machines.test(f.deviceId())))));
    }

    /** Moves a device's column to another place, 0 being the first. */
    public Show withDeviceAt(int deviceId, int place) {
        Device device = requireDevice(deviceId);
        return next(name, nextId, moved(devices, device, place), items);
    }

    /** Adds a phrase at the end of its device's phrasebook (id 0), or exchanges the one with the same id. */
    public Show withPhrase(int deviceId, Phrase phrase) {
        Device device = requireDevice(deviceId);
        boolean added = phrase.id() == 0;
        Device changed = device.withPhrase(added ? phrase.withId(nextId) : phrase);
        return next(name, added ? nextId + 1 : nextId, replaced(devices, d -> d.id() == deviceId ? changed : d), items)
                .withWordsFound(deviceId);
    }

    /** Exchanges a device's whole phrasebook; its new phrases (id 0) get ids. Calls follow their phrases by id. */
    public Show withPhrasebook(Device changed) {
        requireDevice(changed.id());
        int next = nextId;
        List<Phrase> phrases = new ArrayList<>();
        for (Phrase phrase : changed.phrases()) {
            phrases.add(phrase.id() == 0 ? phrase.withId(next++) : phrase);
        }
        Device numbered = changed.withPhrases(phrases);
        return next(name, next, replaced(devices, d -> d.id() == numbered.id() ? numbered : d), items)
                .withWordsFound(changed.id());
    }

    /** What stood in cells as words becomes the call that it means, as soon as the machine has such a phrase. */
    private Show withWordsFound(int deviceId) {
        Device device = requireDevice(deviceId);
        List<Cue> found = cues().filter(c -> c.calls().stream().anyMatch(k -> k.isWords() && k.deviceId() == deviceId))
                .map(c -> c.withCalls(c.calls().stream()
                        .map(k -> k.deviceId() == deviceId ? k.found(device) : k)
                        .toList()))
                .toList();
        return found.isEmpty() ? this : withCuesExchanged(found);
    }

    /** Takes a phrase out, with every call of it. */
    public Show withoutPhrase(int deviceId, int phraseId) {
        Device changed = requireDevice(deviceId).withoutPhrase(phraseId);
        return next(
                        name,
                        nextId,
                        replaced(devices, d -> d.id() == deviceId ? changed : d),
                        withEachCue(c -> c.withCalls(c.calls().stream()
                                .filter(call -> !call.names(deviceId, phraseId))
                                .toList())))
                .withHandCalls(c -> !c.names(deviceId, phraseId));
    }

    /**
     * Adds an item (id 0) at a place, or exchanges name, kind and length of the one with the same id where it stands.
     *
     * @param place 0 to the number of items; ignored when the item is there already
     */
    public Show withItem(Item item, int place) {
        if (item.id() != 0) {
            return next(name, nextId, devices, replaced(items, i -> i.id() == item.id() ? item.withCues(i.cues()) : i));
        }
        List<Item> changed = new ArrayList<>(items);
        changed.add(
                Math.max(0, Math.min(place, items.size())), item.withId(nextId).withCues(List.of()));
        return next(name, nextId + 1, devices, changed);
    }

    /** With an item moved to a place of the running order, from 0. */
    public Show withItemAt(int itemId, int place) {
        return next(name, nextId, devices, moved(items, requireItem(itemId), place));
    }

    /** Takes an item out, with its cues. */
    public Show withoutItem(int itemId) {
        return next(
                name,
                nextId,
                devices,
                items.stream().filter(i -> i.id() != itemId).toList());
    }

    /**
     * Adds a cue to an item (id 0), or exchanges the one with the same id and puts it into that item.
     *
     * @throws Refusal when another cue has that number
     */
    public Show withCue(int itemId, Cue cue) {
        return new CueEdits(this).put(itemId, cue);
    }

    /**
     * Adds cues to an item, all with ids of their own.
     *
     * @throws Refusal when one of their numbers is taken
     */
    public Show withCues(int itemId, List<Cue> added) {
        return new CueEdits(this).add(itemId, added);
    }

    /**
     * Adds cues to an item, one behind the other, and gives them numbers where their own do not lead there.
     *
     * @param afterCueId 0 to come first in the item
     */
    public Show withCuesAfter(int itemId, int afterCueId, List<Cue> added) {
        return new CueEdits(this).addAfter(itemId, afterCueId, added);
    }

    /** Cues with other numbers, by their ids. */
    Show withNumbers(Map<Integer, CueNumber> numbers) {
        return new CueEdits(this).number(numbers);
    }

    /**
     * Exchanges cues by their ids, all at once and each in its item; one that says what it said stays as it is.
     *
     * @throws Refusal when two cues would have the same number
     */
    public Show withCuesExchanged(Collection<Cue> exchanged) {
        return new CueEdits(this).exchange(exchanged);
    }

    /** Without this cue; as it was when it is not there. */
    public Show withoutCue(int cueId) {
        return withoutCues(List.of(cueId));
    }

    /** Without these cues; those that are not there are passed over. */
    public Show withoutCues(Collection<Integer> cueIds) {
        return new CueEdits(this).remove(Set.copyOf(cueIds));
    }

    /**
     * Moves a cue one place up or down: within its item it exchanges numbers with its neighbour; at the edge it goes
     * over into the next item and gets a number there.
     *
     * @param step −1 up, 1 down
     */
    public Show withCueMoved(int cueId, int step) {
        return new CueEdits(this).move(cueId, step);
    }

    /** This show with the content of an earlier one, or of another: undo. Revision and ids still only go up. */
    public Show withContentOf(Show earlier) {
        int free = Math.max(nextId, earlier.nextId);
        return new Show(
                id, earlier.name, revision + 1, free, earlier.devices, earlier.items, earlier.listeners, earlier.hands);
    }

    /**
     * A number for a new cue of the item after the given one: between its neighbours, or the next whole number.
     *
     * @param afterCueId 0 to come first in the item, or after the last cue before it
     */
    public CueNumber numberAfter(int itemId, int afterCueId) {
        return new CueNumbers(this).after(itemId, afterCueId);
    }

    // ---- listeners

    /** A name like this one that no listener has, at most 60 characters long. */
    public String freeListenerName(String wanted) {
        String name = wanted;
        for (int i = 2; isListenerName(name); i++) {
            name = Cut.before(60, wanted, " " + i);
        }
        return name;
    }

    private boolean isListenerName(String name) {
        return listeners.stream().anyMatch(l -> l.name().equalsIgnoreCase(name));
    }

    /**
     * The machines that a cue may tell something: all but those that have no phrases and only speak, or are only played through the
     * patch.
     */
    public List<Device> told() {
        Set<Integer> heard = listeners.stream().flatMap(l -> l.from().stream()).collect(Collectors.toSet());
        PatchBay.sets(this).stream()
                .flatMap(p -> p.patch().orElseThrow().shown().lines().stream())
                .forEach(l -> heard.addAll(List.of(l.from(), l.to())));
        items.forEach(i -> i.follows().ifPresent(f -> heard.add(f.deviceId())));
        return devices.stream()
                .filter(d -> !d.phrases().isEmpty() || !heard.contains(d.id()))
                .toList();
    }

    /** The listener with this id, if it is there. */
    public Optional<Listener> listener(int listenerId) {
        return listeners.stream().filter(l -> l.id() == listenerId).findFirst();
    }

    /**
     * Adds a listener at the end (id 0), or exchanges the one with the same id.
     *
     * @throws Refusal when it is a relay and what it says would come round to it
     */
    public Show withListener(Listener listener) {
        boolean added = listener.id() == 0;
        List<Listener> changed = added
                ? appended(listeners, listener.withId(nextId))
                : replaced(listeners, l -> l.id() == listener.id() ? listener : l);
        if (listener.isRelay()) {
            Listener relay = added ? changed.get(changed.size() - 1) : listener;
            RelayLoops.require(relay, changed, devices);
        }
        return new Show(id, name, revision + 1, added ? nextId + 1 : nextId, devices, items, changed, hands);
    }

    /** Without this listener, and without what it passed on. */
    public Show withoutListener(int listenerId) {
        List<Listener> left =
                listeners.stream().filter(l -> l.id() != listenerId).toList();
        return new Show(id, name, revision + 1, nextId, devices, items, left, hands);
    }

    /** The same edit goes on: what hand cues call is left where it still is. */
    private Show withHandCalls(Predicate<Call> isThere) {
        List<HandPage> left = replaced(
                hands,
                page -> page.withEachKey(k -> k.calling(
                        k.on().stream().filter(isThere).toList(),
                        k.off().stream().filter(isThere).toList())));
        return new Show(id, name, revision, nextId, devices, items, listeners, left);
    }

    // ---- from elsewhere

    /** The id that is above all those of the parts. */
    public static int nextId(List<Device> devices, List<Item> items, List<Listener> listeners, List<HandPage> hands) {
        IntStream machines = devices.stream()
                .flatMapToInt(d -> IntStream.concat(
                        IntStream.of(d.id()), d.phrases().stream().mapToInt(Phrase::id)));
        IntStream entries = items.stream()
                .flatMapToInt(i ->
                        IntStream.concat(IntStream.of(i.id()), i.cues().stream().mapToInt(Cue::id)));
        IntStream heard = listeners.stream().mapToInt(Listener::id);
        IntStream touched = hands.stream()
                .flatMapToInt(h ->
                        IntStream.concat(IntStream.of(h.id()), h.keys().stream().mapToInt(HandKey::id)));
        return IntStream.concat(IntStream.concat(heard, touched), IntStream.concat(machines, entries))
                        .max()
                        .orElse(0)
                + 1;
    }

    /**
     * The same show with its parts counted from 1 in the order in which they stand, at revision 1: equal for all shows
     * that say the same, wherever they came from. Calls of phrases that are gone are left out.
     */
    public Show numberedAnew() {
        return new NumberedAnew(this, 1).show();
    }

    /**
     * This show with the content of one from elsewhere, whose parts get ids that none of ours ever had; the name stays.
     */
    public Show withContentFrom(Show other) {
        return withContentOf(new NumberedAnew(other, nextId).show()).renamed(name);
    }

    /** This show with the content of an earlier one of itself: its parts are the same ones, so that what plays goes on. The name stays. */
    public Show withContentBackFrom(Show backup) {
        return withContentOf(backup).renamed(name);
    }

    // ---- the small print

    /** One edit further. */
    Show next(String newName, int newNextId, List<Device> newDevices, List<Item> newItems) {
        return new Show(id, newName, revision + 1, newNextId, newDevices, newItems, listeners, hands);
    }

    private List<Item> withEachCue(UnaryOperator<Cue> change) {
        return replaced(
                items,
                i -> i.withCues(i.cues().stream()
                        .map(c -> {
                            Cue changed = change.apply(c);
                            return changed.equals(c) ? c : changed.withVersion(revision + 1);
                        })
                        .toList()));
    }

    private Device requireDevice(int deviceId) {
        return device(deviceId)
                .orElseThrow(() -> new Refusal("device", "That device is no longer in the rig; reload the page."));
    }

    Item requireItem(int itemId) {
        return item(itemId)
                .orElseThrow(() -> new Refusal("item", "That item is no longer in the book; reload the page."));
    }

    static <T> List<T> replaced(List<T> list, UnaryOperator<T> change) {
        return list.stream().map(change).toList();
    }

    private static <T> List<T> appended(List<T> list, T last) {
        return Stream.concat(list.stream(), Stream.of(last)).toList();
    }

    private static <T> List<T> moved(List<T> list, T one, int place) {
        List<T> changed = new ArrayList<>(list);
        changed.remove(one);
        changed.add(Math.max(0, Math.min(place, changed.size())), one);
        return changed;
    }
}
