package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVRecord;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.store.Utf8;

/**
 * A cue list as a table (RFC 4180, UTF-8): a row a cue, an item without cues being a row too; the columns item, kind,
 * length, cue, starts, what, mark and note, in any order, and one for each machine under its department's code and its
 * name, {@code LX FOH lights}. Cells say what the Book's cells say. See {@code docs/formats/cue-list-csv.md}.
 *
 * @param known which of our own columns it has
 * @param machines the columns of machines, in the order of the cells
 */
public record CueTable(List<String> known, List<Column> machines, List<Row> rows) {

    public static final String ITEM = "item";
    public static final String KIND = "kind";
    public static final String LENGTH = "length";
    public static final String CUE = "cue";
    public static final String STARTS = "starts";
    public static final String WHAT = "what";
    public static final String MARK = "mark";
    public static final String NOTE = "note";
    private static final List<String> COLUMNS = List.of(ITEM, KIND, LENGTH, CUE, STARTS, WHAT, MARK, NOTE);

    /** As the Book heads it. */
    private static final String WHAT_HAPPENS = "what happens";

    private static final int MOST_ROWS = 10_000;
    private static final int MOST_COLUMNS = 200;
    /** In bytes. */
    public static final int LARGEST = 8_000_000;

    /**
     * The column of a machine.
     *
     * @param department empty when the heading is a name alone
     */
    public record Column(Optional<Department> department, String machine) {

        static Column of(String heading) {
            for (Department department : Department.values()) {
                String code = department.code() + " ";
                if (heading.regionMatches(true, 0, code, 0, code.length())) {
                    return new Column(
                            Optional.of(department),
                            heading.substring(code.length()).strip());
                }
            }
            return new Column(Optional.empty(), heading.strip());
        }

        @Override
        public String toString() {
            return department.map(d -> d.code() + " ").orElse("") + machine;
        }
    }

    /**
     * A cue, or an item without any.
     *
     * @param line as a spreadsheet counts it, the heading being row 1
     * @param fields by our own columns, those that the table has
     * @param cells what each machine's column says
     */
    public record Row(long line, Map<String, String> fields, List<String> cells) {

        /** What one of our own columns says; empty also where there is no such column. */
        public String field(String column) {
            return fields.getOrDefault(column, "");
        }

        boolean isCue() {
            return Stream.concat(Stream.of(CUE, STARTS, WHAT, MARK, NOTE).map(this::field), cells.stream())
                    .anyMatch(text -> !text.isEmpty());
        }
    }

    public CueTable {
        known = List.copyOf(known);
        machines = List.copyOf(machines);
        rows = List.copyOf(rows);
    }

    // ---- of a show

    /** The whole cue list. */
    public static CueTable of(Show show) {
        List<Row> rows = new ArrayList<>();
        for (Item item : show.items()) {
            if (item.cues().isEmpty()) {
                rows.add(new Row(
                        0, fields(item), show.devices().stream().map(d -> "").toList()));
            }
            item.cues().forEach(cue -> rows.add(row(show, item, cue)));
        }
        return of(show, rows);
    }

    /** Some of its cues, in the book's order. */
    public static CueTable of(Show show, Collection<Integer> cueIds) {
        List<Row> rows = new ArrayList<>();
        for (Item item : show.items()) {
            item.cues().stream().filter(c -> cueIds.contains(c.id())).forEach(cue -> rows.add(row(show, item, cue)));
        }
        return of(show, rows);
    }

    private static CueTable of(Show show, List<Row> rows) {
        List<Column> machines = show.devices().stream()
                .map(d -> new Column(Optional.of(d.department()), d.name()))
                .toList();
        return new CueTable(COLUMNS, machines, rows);
    }

    private static Row row(Show show, Item item, Cue cue) {
        Map<String, String> fields = fields(item);
        fields.put(CUE, cue.number().toString());
        fields.put(STARTS, cue.start().toString());
        fields.put(WHAT, cue.what());
        fields.put(MARK, cue.mark().word());
        fields.put(NOTE, cue.note());
        return new Row(0, fields, show.devices().stream().map(d -> cell(cue, d)).toList());
    }

    private static Map<String, String> fields(Item item) {
        Map<String, String> fields = new LinkedHashMap<>();
        fields.put(ITEM, item.name());
        fields.put(KIND, item.kind().title());
        fields.put(LENGTH, PlannedLength.tell(item.plannedSeconds()));
        return fields;
    }

    /** What a cell of the Book says: the phrases that a machine gets at a cue, with {@code +} between. */
    public static String cell(Cue cue, Device device) {
        return cue.callsFor(device.id()).stream()
                .map(c -> c.tell(device))
                .filter(told -> !told.isEmpty())
                .collect(Collectors.joining(" + "));
    }

    // ---- as text

    /** As a file that spreadsheets read, with commas (RFC 4180). */
    public String csv() {
        return text(',');
    }

    /** As programs put tables onto the clipboard: parted by tabulators. */
    public String tabbed() {
        return text('\t');
    }

    private String text(char delimiter) {
        List<String> heading = Stream.concat(known.stream(), machines.stream().map(Column::toString))
                .toList();
        List<List<String>> lines = rows.stream()
                .map(r -> Stream.concat(known.stream().map(r::field), r.cells.stream())
                        .toList())
                .toList();
        return Csv.write(delimiter, heading, lines);
    }

    /** @throws Refusal when the file is larger than 8 MB, no UTF-8, or no such table */
    public static CueTable read(byte[] file) {
        return read(Utf8.table(file, LARGEST));
    }

    /** @throws Refusal when the text is no such table */
    public static CueTable read(String text) {
        List<String> known = new ArrayList<>();
        List<String> headings = new ArrayList<>();
        List<Row> rows = new ArrayList<>();
        Csv.read(text, MOST_ROWS, names -> heading(names, known, headings), row -> {
            Row read = row(row, known, headings);
            rows.add(read);
        });
        return new CueTable(known, headings.stream().map(Column::of).toList(), rows);
    }

    private static void heading(List<String> names, List<String> known, List<String> machines) {
        for (String name : names) {
            String typed = name.strip().toLowerCase(Locale.ROOT);
            String ours = typed.equals(WHAT_HAPPENS) ? WHAT : typed;
            if (COLUMNS.contains(ours)) {
                known.add(ours);
            } else if (!name.isBlank()) {
                machines.add(name);
            }
        }
        if (names.size() > MOST_COLUMNS) {
            throw new Refusal("file", "The table has more than " + MOST_COLUMNS + " columns; is it a cue list?");
        }
        if (!known.contains(CUE) || !known.contains(ITEM) && !known.contains(STARTS)) {
            throw new Refusal(
                    "file",
                    "This is no cue list: its first row must name the columns, item and cue at least. They are "
                            + String.join(", ", COLUMNS) + ", and one for each machine, such as “LX FOH lights”.");
        }
    }

    private static Row row(CSVRecord row, List<String> known, List<String> headings) {
        Map<String, String> fields = new LinkedHashMap<>();
        known.forEach(column ->
                fields.put(column, column.equals(WHAT) ? Csv.cell(row, WHAT, WHAT_HAPPENS) : Csv.cell(row, column)));
        return new Row(
                row.getRecordNumber() + 1,
                fields,
                headings.stream().map(h -> Csv.cell(row, h)).toList());
    }

    // ---- into a show

    /**
     * Adds the cues of the table to an item, behind one of its cues.
     *
     * @param afterCueId 0 to come first in the item
     * @throws Refusal when a row cannot be read; nothing has been taken then
     */
    public Taken into(Show show, int itemId, int afterCueId) {
        Repointing pointing = new Repointing(show, machines, true);
        List<Cue> cues = pointing.cues(this);
        if (cues.isEmpty()) {
            throw new Refusal("file", "There is no cue in what was copied.");
        }
        Show with = show.withCuesAfter(itemId, afterCueId, cues);
        Item item = with.item(itemId).orElseThrow();
        Stream<String> nowhere = Repointing.nowhere(item, c -> show.cue(c.id()).isEmpty());
        return new Taken(
                with,
                cues.size(),
                Stream.concat(pointing.left().stream(), nowhere).toList());
    }
}
