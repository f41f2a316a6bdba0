package underbaton.web.rig;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.util.MultiValueMap;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.ListChange;
import underbaton.core.rig.ListChange.Fate;
import underbaton.core.rig.ListChange.Wanted;
import underbaton.core.rig.PastedList;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wording;
import underbaton.web.kernel.Typed;

/**
 * A list that was pasted, line by line, as it would be taken: each line with its place, its name and what of ours it is, all of
 * which can be changed before anything is.
 *
 * @param rows the lines
 * @param leftOut what of ours would no longer be in the list
 * @param wrong why it cannot be taken as it stands; empty when it can
 */
public record PastedRows(Device device, List<Row> rows, List<Row> leftOut, String wrong, String effect) {

    private static final int MOST_ROWS = 1000;
    /** In the place of a phrase's id. */
    public static final int NEW = 0;

    public static final int LEFT_OUT = -1;

    /**
     * @param place as the machine prints it
     * @param ours the id of the phrase that it is, {@link #NEW} or {@link #LEFT_OUT}
     * @param fate what becomes of it, in words
     * @param cues that call it
     */
    public record Row(String place, String name, int ours, String fate, String cues) {}

    /** What was pasted, matched with ours. */
    static PastedRows of(Show show, Device device, String pasted, String effect) {
        SortedMap<Integer, String> names = new TreeMap<>();
        List<PastedList.Line> lines = PastedList.read(pasted, device.numbering().place(0));
        for (PastedList.Line line : lines) {
            if (!line.heading()) {
                names.putIfAbsent(line.number() - device.numbering().place(0), line.name());
            }
        }
        Map<Integer, Wanted> matched =
                ListChange.matched(device, names).stream().collect(Collectors.toMap(Wanted::place, w -> w));
        List<Row> rows = new ArrayList<>();
        for (PastedList.Line line : lines) {
            Wanted meant = matched.get(line.number() - device.numbering().place(0));
            boolean entry = !line.heading() && meant != null;
            int ours = line.heading() ? LEFT_OUT : entry && meant.name().equals(line.name()) ? meant.phraseId() : NEW;
            rows.add(new Row(line.heading() ? "" : Integer.toString(line.number()), line.name(), ours, "", ""));
        }
        return told(show, device, rows, effect);
    }

    /** As the page gives it back: {@code place}, {@code name} and {@code ours} of each line. */
    static PastedRows of(Show show, Device device, MultiValueMap<String, String> form) {
        return told(
                show,
                device,
                rows(form),
                Optional.ofNullable(form.getFirst("effect")).orElse("holds"));
    }

    private static List<Row> rows(MultiValueMap<String, String> form) {
        List<String> places = form.getOrDefault("place", List.of());
        List<String> names = form.getOrDefault("name", List.of());
        List<String> ours = form.getOrDefault("ours", List.of());
        if (names.size() > MOST_ROWS || places.size() != names.size() || ours.size() != names.size()) {
            throw new Refusal("names", "The list came in pieces; paste it once more.");
        }
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            rows.add(new Row(places.get(i).strip(), names.get(i), Typed.number("names", ours.get(i)), "", ""));
        }
        return rows;
    }

    /** @throws Refusal when it cannot be taken */
    static ListChange change(Device device, MultiValueMap<String, String> form) {
        String effect = Optional.ofNullable(form.getFirst("effect")).orElse("holds");
        return change(device, rows(form), effect);
    }

    private static ListChange change(Device device, List<Row> rows, String effect) {
        List<Wanted> wanted = new ArrayList<>();
        for (Row row : rows) {
            if (row.ours != LEFT_OUT) {
                if (row.place.isEmpty()) {
                    throw new Refusal("place", "“" + row.name + "” has no place; type one, or leave it out.");
                }
                int place = device.numbering().placeFrom(Typed.number("place", row.place));
                wanted.add(new Wanted(place, row.name, row.ours));
            }
        }
        return ListChange.to(device, wanted, Effect.of(effect));
    }

    private static PastedRows told(Show show, Device device, List<Row> rows, String effect) {
        try {
            return told(show, device, rows, change(device, rows, effect), effect);
        } catch (Refusal refused) {
            return new PastedRows(device, rows, List.of(), refused.getMessage(), effect);
        }
    }

    private static PastedRows told(Show show, Device device, List<Row> rows, ListChange change, String effect) {
        Map<Integer, ListChange.Entry> byPlace = new HashMap<>();
        change.entries().stream().filter(e -> e.to() >= 0).forEach(e -> byPlace.put(e.to(), e));
        List<Row> told = rows.stream()
                .map(row -> row.ours == LEFT_OUT
                        ? new Row(row.place, row.name, row.ours, "is left out", "")
                        : told(show, device, row, byPlace))
                .toList();
        List<Row> leftOut = change.entries().stream()
                .filter(e -> e.fate() == Fate.LEFT_OUT)
                .map(e -> new Row(
                        Integer.toString(device.numbering().place(e.from())),
                        e.phrase().name(),
                        e.phrase().id(),
                        meantNow(change.after(), e.phrase()),
                        cues(show, device, e.phrase().id())))
                .toList();
        return new PastedRows(device, told, leftOut, "", effect);
    }

    private static Row told(Show show, Device device, Row row, Map<Integer, ListChange.Entry> byPlace) {
        int place = device.numbering().placeFrom(Typed.number("place", row.place));
        ListChange.Entry entry = byPlace.get(place);
        String number = new Wording(device.numbering())
                .write(device.list().orElseThrow().at(place));
        String fate = entry == null ? "stays" : fate(device, entry);
        return new Row(row.place, row.name, row.ours, fate + ", " + number, cues(show, device, row.ours));
    }

    private static String fate(Device device, ListChange.Entry entry) {
        return switch (entry.fate()) {
            case RENAMED ->
                "was “" + entry.formerName() + "”" + (entry.from() == entry.to() ? "" : moved(device, entry));
            case MOVED -> "stays" + moved(device, entry);
            default -> entry.fate().name().toLowerCase(Locale.ROOT);
        };
    }

    private static String moved(Device device, ListChange.Entry entry) {
        return entry.from() < 0
                ? ", outside the list before"
                : ", moved from " + device.numbering().place(entry.from());
    }

    private static String meantNow(Device after, Phrase leftOut) {
        return after.nowMeant(after.phrase(leftOut.id()).orElse(leftOut))
                .map(other -> "its number calls “" + other.name() + "” then")
                .orElse("keeps its number");
    }

    private static String cues(Show show, Device device, int phraseId) {
        return phraseId <= 0
                ? ""
                : show.cuesUsing(device.id(), phraseId).stream()
                        .map(c -> c.number().toString())
                        .collect(Collectors.joining(", "));
    }

    /** How many of the lines change something. */
    /** {@code 3 changes}. */
    public String summary() {
        long changes = changes();
        return changes == 0 ? "nothing would change" : changes == 1 ? "1 change" : changes + " changes";
    }

    public long changes() {
        return rows.stream()
                        .filter(r -> r.ours != LEFT_OUT && !r.fate.matches("stays, [^,]*"))
                        .count()
                + leftOut.size();
    }
}
