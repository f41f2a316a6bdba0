package underbaton.core.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.cue.PatchBay;
import underbaton.core.follow.Following;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.StepList;
import underbaton.core.signal.Listener;

/** A whole show worked out: its cues in running order with the calls of each. Immutable; any thread may read it. */
public final class Plan {

    public static final Plan EMPTY = new Plan(List.of(), List.of());

    private static final int HOURS = 24;
    private static final int SECONDS_OF_HOUR = 3600;

    private final List<Device> devices;
    private final List<PlannedItem> items;
    private final List<PlannedCue> cues;
    private final Map<Integer, Device> devicesById = new HashMap<>();
    private final Map<Integer, PlannedItem> itemsById = new HashMap<>();
    private final Map<Integer, Integer> firstOfItem = new HashMap<>();
    /** By cue id; worked out when it is first asked for. */
    private volatile Map<Integer, Integer> placesByCue;

    /** By item id, where its cues themselves stand in it; of an item when it is first asked for. */
    private final Map<Integer, Map<Integer, Integer>> ordersByItem = new ConcurrentHashMap<>();

    private final Map<Integer, List<PlannedCall>> stops = new HashMap<>();
    private final Map<Integer, Connection> lines = new HashMap<>();
    private final Map<MoveStart, Double> starts;
    private final OutTonight out;
    private final List<Listener> listeners;
    private final List<Listener> lights;
    private final List<Device> inStep;
    private final Set<Integer> leaders;
    private final Map<Integer, PlannedKey> keys;
    private final int patchBay;
    private final List<Phrase> patchPhrases;
    /** By device id, its phrases by what they say; worked out when it is first asked for. */
    private final Map<Integer, Map<List<Timed>, Phrase>> sayings = new ConcurrentHashMap<>();

    private final Map<Integer, Map<Message, Phrase>> guards = new ConcurrentHashMap<>();

    private final Map<Integer, AnswerBook> answers = new ConcurrentHashMap<>();

    /** A control that a cue sets in motion. @param cue its label */
    public record MoveStart(String cue, Control control) {}

    Plan(List<Device> devices, List<PlannedItem> items) {
        this(devices, items, Map.of(), OutTonight.NONE, List.of(), Map.of());
    }

    Plan(List<Device> devices, List<PlannedItem> items, List<Listener> listeners, Map<Integer, PlannedKey> keys) {
        this(devices, items, Map.of(), OutTonight.NONE, listeners, keys);
    }

    private Plan(
            List<Device> devices,
            List<PlannedItem> items,
            Map<MoveStart, Double> starts,
            OutTonight out,
            List<Listener> listeners,
            Map<Integer, PlannedKey> keys) {
        this.keys = keys;
        this.listeners = listeners;
        this.lights = listeners.stream().filter(l -> l.light().isPresent()).toList();
        this.out = out;
        this.starts = starts;
        this.devices = devices;
        this.inStep = devices.stream()
                .filter(d -> d.inStep().isPresent() && d.connection().carriesMidi() && !PatchBay.is(d))
                .toList();
        this.items = List.copyOf(items);
        this.leaders = items.stream()
                .flatMap(i -> i.item().follows().stream())
                .map(Following::deviceId)
                .collect(Collectors.toUnmodifiableSet());
        Optional<Device> bay = devices.stream().filter(PatchBay::is).findFirst();
        patchBay = bay.map(Device::id).orElse(0);
        patchPhrases = bay.map(Device::phrases).orElse(List.of()).stream()
                .filter(p -> p.patch().isPresent())
                .toList();
        for (Device device : devices) {
            devicesById.put(device.id(), device);
            if (device.connection() instanceof Connection.LocalMidi line) {
                lines.put(device.id(), line);
            }
        }
        int count = items.stream().mapToInt(i -> i.cues().size()).sum();
        List<PlannedCue> all = new ArrayList<>(count);
        for (PlannedItem item : items) {
            itemsById.put(item.item().id(), item);
            firstOfItem.put(item.item().id(), all.size());
            all.addAll(item.cues());
        }
        cues = Collections.unmodifiableList(all);
        devices.forEach(d -> stops.put(
                d.id(),
                d.phrases().stream()
                        .filter(p -> p.effect().kind() == Effect.Kind.STOPS)
                        .map(p -> PlannedCall.of(d, p))
                        .toList()));
    }

    /** The same plan, which knows where the moves of its cues begin when the book is played straight through, 0–127. */
    public Plan withStarts(Map<MoveStart, Double> known) {
        return new Plan(devices, items, Map.copyOf(known), out, listeners, keys);
    }

    /** The same plan without what does not take part; of this one, nothing is out yet. */
    public Plan tonight(OutTonight without) {
        return without.isNone()
                ? this
                : new Plan(
                        devices,
                        items.stream().map(i -> i.tonight(without)).toList(),
                        starts,
                        without,
                        listeners,
                        keys);
    }

    /** What is done when something comes in. */
    public List<Listener> listeners() {
        return listeners;
    }

    /** Those listeners whose pads have a light. */
    public List<Listener> lights() {
        return lights;
    }

    /** Those machines that are given the time of the music. */
    public List<Device> inStep() {
        return inStep;
    }

    /** Those machines by whose time some item goes. */
    public Set<Integer> leaders() {
        return leaders;
    }

    /**
     * Where an item begins in the day of the time code: as it says itself, or an hour for each item of the running order, from one o'clock
     * on.
     *
     * @return s since midnight; 0 for an item that is not there
     */
    public int codeStart(int itemId) {
        PlannedItem item = itemsById.get(itemId);
        return item == null ? 0 : item.item().codeStart().orElseGet(() -> codeStartByOrder(items.indexOf(item)));
    }

    /** Where an item begins that does not say so itself, s since midnight. @param place in the running order, 0 for the first */
    public static int codeStartByOrder(int place) {
        return (place + 1) % HOURS * SECONDS_OF_HOUR;
    }

    /** Another item during whose time code this one's runs, as far as their lengths are known; the first in the running order. */
    public Optional<PlannedItem> sameCode(int itemId) {
        PlannedItem item = itemsById.get(itemId);
        return item == null
                ? Optional.empty()
                : items.stream().filter(i -> i != item && isSameCode(item, i)).findFirst();
    }

    private boolean isSameCode(PlannedItem one, PlannedItem other) {
        int from = codeStart(one.item().id());
        int otherFrom = codeStart(other.item().id());
        return from == otherFrom || from < otherFrom + other.seconds() && otherFrom < from + one.seconds();
    }

    /** The count of an item's first frame in the day of the time code. */
    public long firstFrame(int itemId, TimeCode.Rate rate) {
        int start = codeStart(itemId);
        return new TimeCode(rate, start / SECONDS_OF_HOUR, start / 60 % 60, start % 60, 0).count();
    }

    /** A hand cue. */
    public Optional<PlannedKey> key(int keyId) {
        return Optional.ofNullable(keys.get(keyId));
    }

    /** The first hand cue of that name, whatever its capitals. */
    public Optional<PlannedKey> keyNamed(String name) {
        return keys.values().stream()
                .filter(k -> k.key().name().equalsIgnoreCase(name))
                .min(Comparator.comparingInt(PlannedKey::id));
    }

    /** The machine whose phrases load patch sets; 0 where the show has none. */
    public int patchBay() {
        return patchBay;
    }

    /** The patch bay, with its sets; empty where a show has none. */
    public Optional<Device> bay() {
        return device(patchBay());
    }

    /** The phrases that load patch sets. */
    public List<Phrase> patchPhrases() {
        return patchPhrases;
    }

    /** All patch sets of the show. */
    public Stream<PatchSet> patchSets() {
        return patchPhrases.stream().flatMap(p -> p.patch().stream());
    }

    /** As {@link PlannedCall#rank} says. */
    public int rank(PlannedCall call) {
        return device(call.deviceId()).map(call::rank).orElse(0);
    }

    /** What does not take part. */
    public OutTonight out() {
        return out;
    }

    /** Where a move begins as far as the book knows, 0–127. */
    public OptionalDouble startOf(String cue, Control control) {
        Double start = starts.isEmpty() ? null : starts.get(new MoveStart(cue, control));
        return start == null ? OptionalDouble.empty() : OptionalDouble.of(start);
    }

    /**
     * What becomes of a fade of a cue of which the book does not know where it begins: {@code is at its amount at once};
     * empty for all others.
     */
    public Optional<String> untoldFade(PlannedCue cue, int deviceId) {
        return device(deviceId)
                .filter(d -> cue.calls().stream().anyMatch(c -> c.deviceId() == deviceId && isUntold(cue, c)))
                .map(d -> d.care().untoldFade().words());
    }

    /** Whether a call moves a control of which the book does not know where it stands then. */
    public boolean isUntold(PlannedCue cue, PlannedCall call) {
        return call.motion()
                .filter(m -> startOf(cue.label(), m.control()).isEmpty())
                .isPresent();
    }

    /** Those it was worked out for. */
    public List<Device> devices() {
        return devices;
    }

    /** The machine with this id, if it is in the rig. */
    public Optional<Device> device(int deviceId) {
        return Optional.ofNullable(devicesById.get(deviceId));
    }

    /** Those that a device steps through; none for a device that is not there. */
    public List<StepList> stepLists(int deviceId) {
        Device device = devicesById.get(deviceId);
        return device == null ? List.of() : device.stepLists();
    }

    /** The line of a device that is reached over one which carries a byte after the other; empty for any other. */
    public Optional<Connection> slowLine(int deviceId) {
        return lines.isEmpty() ? Optional.empty() : Optional.ofNullable(lines.get(deviceId));
    }

    /** In running order. */
    public List<PlannedItem> items() {
        return items;
    }

    /** Those of all items, in the order in which GO takes them. */
    public List<PlannedCue> cues() {
        return cues;
    }

    /** The item with this id, if it is in the running order. */
    public Optional<PlannedItem> item(int itemId) {
        return Optional.ofNullable(itemsById.get(itemId));
    }

    /** The place of the first cue of an item, or where it would stand; −1 for an item that is not there. */
    public int firstOf(int itemId) {
        return firstOfItem.getOrDefault(itemId, -1);
    }

    /** Whether a call needs a second, deliberate act outside its own cue. */
    public boolean isGuarded(PlannedCall call) {
        return device(call.deviceId())
                .flatMap(d -> d.phrase(call.phraseId()))
                .filter(Phrase::guarded)
                .isPresent();
    }

    /** Whether a hand cue wants a second touch. */
    public boolean isGuarded(PlannedKey key) {
        return key.key().guarded() || key.all().anyMatch(this::isGuarded);
    }

    /** The calls that stop something on a device, in the order of its phrasebook. */
    public List<PlannedCall> stops(int deviceId) {
        return stops.getOrDefault(deviceId, List.of());
    }

    /**
     * The first phrase of a device that takes no amount and says just this, in its order and at these times. Looked up from the
     * second question on; from any thread.
     */
    public Optional<Phrase> phraseSaying(int deviceId, List<Timed> messages) {
        Map<List<Timed>, Phrase> known = sayings.computeIfAbsent(deviceId, this::sayings);
        return Optional.ofNullable(known.get(messages));
    }

    private Map<List<Timed>, Phrase> sayings(int deviceId) {
        Map<List<Timed>, Phrase> known = new HashMap<>();
        device(deviceId).ifPresent(d -> d.phrases().stream()
                .filter(p -> p.argument().isEmpty())
                .forEach(p -> known.putIfAbsent(d.messagesFor(p, Optional.empty()), p)));
        return known;
    }

    /**
     * The guarded phrase that a message is, or is a part of, by whatever way it comes to be said; a program is meant whatever
     * bank was chosen before it. From any thread.
     */
    public Optional<Phrase> guardedSaying(int deviceId, Message message) {
        return Optional.ofNullable(
                guards.computeIfAbsent(deviceId, this::guardsOf).get(message));
    }

    /** What a machine says when it has done what it was told. From any thread. */
    public AnswerBook answers(int deviceId) {
        return answers.computeIfAbsent(
                deviceId, id -> device(id).map(AnswerBook::of).orElse(AnswerBook.EMPTY));
    }

    private Map<Message, Phrase> guardsOf(int deviceId) {
        Map<Message, Phrase> found = new HashMap<>();
        device(deviceId).ifPresent(d -> {
            d.phrases().stream().filter(Phrase::guarded).forEach(p -> d.messagesFor(p, Optional.empty())
                    .forEach(t -> found.put(t.message(), p)));
            d.phrases().stream()
                    .filter(p -> !p.guarded())
                    .flatMap(p -> d.messagesFor(p, Optional.empty()).stream())
                    .forEach(t -> found.remove(t.message()));
        });
        Map<Message, Phrase> programs = new HashMap<>(found);
        found.forEach((message, phrase) -> {
            if (message instanceof BankProgram banked) {
                programs.put(new ProgramChange(banked.channel(), banked.program()), phrase);
            }
        });
        return programs;
    }

    /** @return the place of the cue itself, not of its copies, or −1 */
    public int indexOf(int cueId) {
        Map<Integer, Integer> known = placesByCue;
        if (known == null) {
            known = ownPlaces(cues);
            placesByCue = known;
        }
        return known.getOrDefault(cueId, -1);
    }

    /** @return the place of that cue or that copy of it, or −1 */
    public int indexOf(PlannedCue cue) {
        int itemId = cue.item().id();
        PlannedItem item = itemsById.get(itemId);
        if (item == null || cue.copy().isEmpty()) {
            Integer order = item == null ? null : orders(item).get(cue.cueId());
            return order == null ? indexOf(cue.cueId()) : firstOf(itemId) + order;
        }
        for (int i = 0; i < item.cues().size(); i++) {
            PlannedCue other = item.cues().get(i);
            if (other.cueId() == cue.cueId() && other.copy().equals(cue.copy())) {
                return firstOf(itemId) + i;
            }
        }
        return -1;
    }

    private Map<Integer, Integer> orders(PlannedItem item) {
        return ordersByItem.computeIfAbsent(item.item().id(), id -> ownPlaces(item.cues()));
    }

    private static Map<Integer, Integer> ownPlaces(List<PlannedCue> cues) {
        Map<Integer, Integer> places = new HashMap<>(2 * cues.size());
        for (int i = 0; i < cues.size(); i++) {
            if (cues.get(i).copy().isEmpty()) {
                places.put(cues.get(i).cueId(), i);
            }
        }
        return places;
    }

    /** The first cue at or after a place that waits for GO; the number of cues when there is none. */
    public int waitingFrom(int index) {
        int i = Math.max(0, index);
        while (i < cues.size() && !waitsForGo(i)) {
            i++;
        }
        return i;
    }

    /** The last cue before a place that waits for GO; the place itself when there is none. */
    public int waitingBefore(int index) {
        for (int i = Math.min(index, cues.size()) - 1; i >= 0; i--) {
            if (waitsForGo(i)) {
                return i;
            }
        }
        return index;
    }

    /** The very first cue has nothing before it to follow, so it always waits. */
    private boolean waitsForGo(int index) {
        return wouldWait(index) && partakes(index);
    }

    private boolean wouldWait(int index) {
        return index == 0 || cues.get(index).byHand() || beginsItem(index);
    }

    /** A GO of which nothing would come, since all that hangs on it is out tonight, is passed over. */
    private boolean partakes(int index) {
        if (out.isNone() || cues.get(index).armed()) {
            return true;
        }
        PlannedItem item = item(cues.get(index).item().id()).orElseThrow();
        if (isFirst(index) && !item.timed().isEmpty()) {
            return true;
        }
        for (int i = index + 1; i < cues.size() && !wouldWait(i); i++) {
            if (cues.get(i).armed()) {
                return true;
            }
        }
        return false;
    }

    /** Whether GO on a place begins an item whose first cue has a time of its own. */
    public boolean beginsItem(int index) {
        PlannedCue cue = cues.get(index);
        return cue.atNanos().isPresent() && isFirst(index);
    }

    /** Whether a place is that of the first cue of an item. */
    public boolean isFirst(int index) {
        return firstOf(cues.get(index).item().id()) == index;
    }
}
