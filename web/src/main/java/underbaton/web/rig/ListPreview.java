package underbaton.web.rig;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.ListChange;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Wording;

/**
 * What a new order of a list would change, for a person to look at before it is applied.
 *
 * @param unchanged how many entries keep name and number
 * @param cues how many different cues call a phrase that changes
 */
public record ListPreview(Device device, List<Line> lines, int unchanged, long cues) {

    /**
     * @param fate what happens, in a word
     * @param before place and number before, as the machine prints them; empty for none
     * @param after the same afterwards
     * @param cues the cues that call it
     */
    public record Line(String name, String formerName, String fate, String before, String after, String cues) {}

    /** {@code 2 cues call those, and will follow by name}. */
    public String called() {
        return cues == 0
                ? "no cue calls those"
                : cues + (cues == 1 ? " cue calls" : " cues call") + " those, and will follow by name";
    }

    static ListPreview of(Show show, Device device, ListChange change) {
        Map<Integer, List<Cue>> using = show.cuesByPhrase(device.id());
        List<Line> lines = change.entries().stream()
                .map(e -> line(device, e, using.getOrDefault(e.phrase().id(), List.of())))
                .toList();
        long cues = change.entries().stream()
                .flatMap(e -> using.getOrDefault(e.phrase().id(), List.of()).stream())
                .map(Cue::id)
                .distinct()
                .count();
        int unchanged = change.after().listed().size()
                - (int) change.entries().stream().filter(e -> e.to() >= 0).count();
        return new ListPreview(device, lines, unchanged, cues);
    }

    private static Line line(Device device, ListChange.Entry e, List<Cue> using) {
        String cues = using.stream().map(c -> c.number().toString()).collect(Collectors.joining(", "));
        boolean renamed = e.fate() == ListChange.Fate.RENAMED;
        return new Line(
                e.phrase().name(),
                renamed ? e.formerName() : "",
                e.fate().name().toLowerCase(Locale.ROOT).replace('_', ' '),
                number(device, e.from()),
                number(device, e.to()),
                cues);
    }

    private static String number(Device device, int place) {
        PositionList list = device.list().orElseThrow();
        return place < 0
                ? ""
                : device.numbering().place(place) + ", " + new Wording(device.numbering()).write(list.at(place));
    }
}
