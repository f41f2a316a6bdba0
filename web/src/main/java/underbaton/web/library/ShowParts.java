package underbaton.web.library;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Listener;
import underbaton.core.store.StoredForm;

/**
 * A show taken apart into what its rows hold, and put together again. Shows are values that share what an edit did not
 * touch, so two states are compared part by part at the cost of a look each, and only what differs is written as JSON.
 */
final class ShowParts {

    private static final String DEVICE = "device";
    private static final String PHRASE = "phrase";
    private static final String ITEM = "item";
    private static final String CUE = "cue";
    private static final String LISTENER = "listener";
    private static final String HANDS = "hands";

    /** The parts of nothing: what a new show is compared with. */
    static final ShowParts NONE = new ShowParts();

    record Key(String kind, int id) {}

    /** @param value without its children, which are parts of their own */
    record Part(int parent, int place, int version, Object value) {
        /** What it says, whoever wrote it last. */
        Object plain() {
            return value instanceof Cue cue ? cue.withVersion(0) : value;
        }

        boolean same(Part other) {
            return other != null
                    && parent == other.parent
                    && place == other.place
                    && version == other.version
                    && (value == other.value || value.equals(other.value));
        }
    }

    private final Map<Key, Part> parts = new LinkedHashMap<>();

    private ShowParts() {}

    ShowParts(Show show) {
        for (int d = 0; d < show.devices().size(); d++) {
            Device device = show.devices().get(d);
            put(DEVICE, device.id(), new Part(0, d, 0, device.withPhrases(List.of())));
            for (int p = 0; p < device.phrases().size(); p++) {
                Phrase phrase = device.phrases().get(p);
                put(PHRASE, phrase.id(), new Part(device.id(), p, 0, phrase));
            }
        }
        for (int i = 0; i < show.items().size(); i++) {
            Item item = show.items().get(i);
            put(ITEM, item.id(), new Part(0, i, 0, item.withCues(List.of())));
            item.cues().forEach(c -> put(CUE, c.id(), new Part(item.id(), 0, c.version(), c)));
        }
        for (int l = 0; l < show.listeners().size(); l++) {
            Listener listener = show.listeners().get(l);
            put(LISTENER, listener.id(), new Part(0, l, 0, listener));
        }
        for (int h = 0; h < show.hands().size(); h++) {
            HandPage page = show.hands().get(h);
            put(HANDS, page.id(), new Part(0, h, 0, page));
        }
    }

    Map<Key, Part> parts() {
        return parts;
    }

    /** A show with other parts, in their order. */
    static Show of(Show show, Map<Key, Part> parts) {
        List<Device> devices = values(parts, DEVICE, 0, Device.class).stream()
                .map(d -> d.withPhrases(values(parts, PHRASE, d.id(), Phrase.class)))
                .toList();
        List<Item> items = values(parts, ITEM, 0, Item.class).stream()
                .map(i -> i.withCues(values(parts, CUE, i.id(), Cue.class).stream()
                        .sorted(Comparator.comparing(Cue::number))
                        .toList()))
                .toList();
        return show.withContentOf(new Show(
                show.id(),
                show.name(),
                show.revision(),
                show.nextId(),
                devices,
                items,
                values(parts, LISTENER, 0, Listener.class),
                values(parts, HANDS, 0, HandPage.class)));
    }

    private static <T> List<T> values(Map<Key, Part> parts, String kind, int parent, Class<T> type) {
        return parts.entrySet().stream()
                .filter(e -> e.getKey().kind.equals(kind) && e.getValue().parent == parent)
                .map(e -> type.cast(e.getValue().value))
                .toList();
    }

    private void put(String kind, int id, Part part) {
        parts.put(new Key(kind, id), part);
    }

    /** The rows that have to be written to get here from another state. */
    List<PartRow> changedSince(ShowParts before, int showId) {
        List<PartRow> rows = new ArrayList<>();
        parts.forEach((key, part) -> {
            if (!part.same(before.parts.get(key))) {
                String content = StoredForm.write(part.value);
                rows.add(new PartRow(showId, key.kind, key.id, part.parent, part.place, part.version, content));
            }
        });
        return rows;
    }

    /** The rows of another state that are not here any more; without content. */
    List<PartRow> goneSince(ShowParts before, int showId) {
        return before.parts.keySet().stream()
                .filter(key -> !parts.containsKey(key))
                .map(key -> new PartRow(showId, key.kind, key.id, 0, 0, 0, ""))
                .toList();
    }

    /**
     * Puts a show together.
     *
     * @param rows in the order of their places
     * @throws Refusal naming the part that cannot be read
     */
    static Show show(ShowRow show, List<PartRow> rows) {
        Map<Integer, List<PartRow>> phrases = byParent(rows, PHRASE);
        Map<Integer, List<PartRow>> cues = byParent(rows, CUE);
        List<Device> devices = rows.stream()
                .filter(r -> r.kind().equals(DEVICE))
                .map(r -> read(r, Device.class)
                        .withPhrases(phrases.getOrDefault(r.id(), List.of()).stream()
                                .map(p -> read(p, Phrase.class))
                                .toList()))
                .toList();
        List<Item> items = rows.stream()
                .filter(r -> r.kind().equals(ITEM))
                .map(r -> read(r, Item.class)
                        .withCues(cues.getOrDefault(r.id(), List.of()).stream()
                                .map(c -> read(c, Cue.class).withVersion(c.version()))
                                .toList()))
                .toList();
        List<Listener> listeners = rows.stream()
                .filter(r -> r.kind().equals(LISTENER))
                .map(r -> read(r, Listener.class))
                .toList();
        List<HandPage> hands = rows.stream()
                .filter(r -> r.kind().equals(HANDS))
                .map(r -> read(r, HandPage.class))
                .toList();
        int nextId = Math.max(show.nextId(), Show.nextId(devices, items, listeners, hands));
        return new Show(show.id(), show.name(), show.revision(), nextId, devices, items, listeners, hands);
    }

    private static Map<Integer, List<PartRow>> byParent(List<PartRow> rows, String kind) {
        return rows.stream().filter(r -> r.kind().equals(kind)).collect(Collectors.groupingBy(PartRow::parent));
    }

    private static <T> T read(PartRow row, Class<T> type) {
        try {
            return StoredForm.read(row.content(), type);
        } catch (Refusal refusal) {
            throw new Refusal("show", "Its " + row.kind() + " " + row.id() + ": " + refusal.getMessage());
        }
    }
}
