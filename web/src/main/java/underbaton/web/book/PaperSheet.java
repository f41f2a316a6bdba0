package underbaton.web.book;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.StringJoiner;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.exchange.CueTable;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.score.Score;
import underbaton.core.score.Section;

/**
 * An item for paper, as it is played: its cues in their order, the copies of linked sections among them, under the sections in which they
 * come.
 *
 * @param head its kind, length, meter and tempo
 */
public record PaperSheet(Item item, String head, List<Row> rows) {

    /**
     * One line: a section that begins, or a cue.
     *
     * @param section in words; empty for a cue
     * @param number of the cue, with the letter of its copy: {@code 21 in C}
     * @param starts where a copy comes, or how the cue starts
     */
    public record Row(String section, String number, String starts, String what, String note, List<Gets> gets) {}

    /** @param code of the machine's department */
    public record Gets(String code, String machine, String says) {}

    /** @param department whose cues alone are wanted; empty for all */
    static PaperSheet of(Show show, Plan plan, PlannedItem planned, Optional<Department> department) {
        Item item = show.item(planned.item().id()).orElseThrow();
        Optional<Score.Times> times = item.score().map(Score::read);
        List<Row> rows = new ArrayList<>();
        List<Section> sections =
                new ArrayList<>(times.map(t -> t.score().sections()).orElse(List.of()));
        for (PlannedCue cue : planned.cues()) {
            while (!sections.isEmpty()
                    && cue.atNanos().isPresent()
                    && times.orElseThrow().nanosOfBar(sections.get(0).bar())
                            <= cue.atNanos().getAsLong()) {
                rows.add(section(sections.remove(0)));
            }
            Row row = row(show, item, cue, times, department);
            if (department.isEmpty() || !row.gets.isEmpty() || !row.note.isEmpty()) {
                rows.add(row);
            }
        }
        sections.forEach(s -> rows.add(section(s)));
        return new PaperSheet(item, head(item), rows);
    }

    private static Row section(Section section) {
        String again = section.as().map(as -> ", as " + as).orElse("");
        String words = (section.letter() + " " + section.name()).strip() + ", bar " + section.bar() + again;
        return new Row(words, "", "", "", "", List.of());
    }

    /** How many of its lines are cues. */
    long cues() {
        return rows.stream().filter(r -> r.section.isEmpty()).count();
    }

    private static Row row(
            Show show, Item item, PlannedCue planned, Optional<Score.Times> times, Optional<Department> department) {
        Cue cue = item.cues().stream()
                .filter(c -> c.id() == planned.cueId())
                .findFirst()
                .orElseThrow();
        boolean copy = !planned.copy().isEmpty() && planned.atNanos().isPresent();
        String starts = copy
                ? "at "
                        + times.orElseThrow()
                                .bars()
                                .position(times.orElseThrow()
                                        .tempi()
                                        .tick(planned.atNanos().getAsLong()))
                : cue.start().toString();
        String note = department.map(cue::noteFor).orElse(cue.note());
        return new Row("", planned.label(), starts, cue.what(), note, gets(show, cue, department));
    }

    private static String head(Item item) {
        StringJoiner head = new StringJoiner(", ");
        head.add(item.kind().title().toLowerCase(Locale.ROOT));
        String length = PlannedLength.tell(item.plannedSeconds());
        if (!length.isEmpty()) {
            head.add(length);
        }
        item.score().ifPresent(s -> {
            s.meters().forEach(m -> head.add(m.meter() + (m.bar() > 1 ? " from bar " + m.bar() : "")));
            s.tempi().stream().findFirst().ifPresent(t -> head.add(t.tempo().toString()));
            head.add(s.endBar() - s.firstBar() + " bars");
        });
        return head.toString();
    }

    private static boolean isOf(Device device, Optional<Department> department) {
        return department.map(device.department()::equals).orElse(true);
    }

    private static List<Gets> gets(Show show, Cue cue, Optional<Department> department) {
        return show.devices().stream()
                .filter(d -> isOf(d, department))
                .filter(d -> !cue.callsFor(d.id()).isEmpty())
                .map(d -> new Gets(
                        d.department().code(),
                        d.name(),
                        CueTable.cell(cue, d) + (isGuarded(cue, d) ? " (guarded)" : "")))
                .toList();
    }

    private static boolean isGuarded(Cue cue, Device device) {
        return cue.callsFor(device.id()).stream()
                .anyMatch(
                        c -> device.phrase(c.phraseId()).filter(Phrase::guarded).isPresent());
    }

    /** Which machines are told early: {@code FOH lights 40 ms}; empty for none. */
    static String early(Show show, Optional<Department> department) {
        return show.devices().stream()
                .filter(d -> isOf(d, department))
                .filter(d -> d.leadMs() > 0)
                .map(d -> d.name() + " " + d.leadMs() + " ms")
                .collect(Collectors.joining(", "));
    }
}
