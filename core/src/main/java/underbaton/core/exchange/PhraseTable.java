package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVRecord;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.store.PhraseText;
import underbaton.core.store.Utf8;

/**
 * A phrasebook as CSV (RFC 4180, UTF-8): one row a phrase under the columns name, says, argument, effect, guarded, listed,
 * mark, note, group, leaves, answer, in any order; see {@code docs/formats/phrasebook-csv.md}. Rows may be parted by semicolons or
 * tabulators too, as some spreadsheets write them.
 */
public final class PhraseTable {

    private static final List<String> COLUMNS = List.of(
            "name", "says", "argument", "effect", "guarded", "listed", "mark", "note", "group", "leaves", "answer");
    /** As our own pages and sheets head them too. */
    private static final Map<String, String[]> HEADINGS = Map.of(
            "name", new String[] {"name", "phrase"},
            "says", new String[] {"says", "what goes out"},
            "argument", new String[] {"argument", "a call adds", "takes"},
            "group", new String[] {"group", "under"});
    /** Of the printed sheet: they follow from the others. */
    private static final Set<String> PASSED_OVER = Set.of("bytes", "place", "no.");

    private static final int MOST_ROWS = 1000;
    /** In bytes. */
    public static final int LARGEST = 1_000_000;

    private PhraseTable() {}

    /** A phrasebook as a table with a heading (RFC 4180), in the numbers that its machine prints. */
    public static String write(Device device) {
        List<List<String>> rows = device.phrases().stream()
                .map(p -> PhraseText.of(device, p))
                .map(p -> List.of(
                        p.name(),
                        p.says(),
                        p.argument(),
                        p.effect(),
                        p.guarded(),
                        p.listed(),
                        p.mark(),
                        p.note(),
                        p.group(),
                        p.leaves(),
                        p.answer()))
                .toList();
        return Csv.write(',', COLUMNS, rows);
    }

    /**
     * Takes a table into a phrasebook: phrases whose names are there already are exchanged, so that cues keep them; the
     * others come after them, in the order of the table.
     *
     * @throws Refusal naming the row and the column that cannot be read; nothing has been taken then
     */
    public static Device read(Device device, byte[] file) {
        Device[] filled = {device};
        List<PhraseText> texts = new ArrayList<>();
        Map<String, Long> rows = new HashMap<>();
        Csv.read(
                Utf8.table(file, LARGEST),
                MOST_ROWS,
                PhraseTable::requireColumns,
                row -> filled[0] = take(filled[0], row, rows, texts));
        return PhraseText.withLeaves(filled[0], texts);
    }

    private static void requireColumns(List<String> names) {
        for (String name : names) {
            String plain = name.strip().toLowerCase(Locale.ROOT);
            boolean known = plain.isEmpty()
                    || PASSED_OVER.contains(plain)
                    || COLUMNS.stream().anyMatch(c -> List.of(headings(c)).contains(plain));
            if (!known) {
                throw new Refusal(
                        "file",
                        "Nothing is known of a column “" + name.strip() + "”. The columns are "
                                + String.join(", ", COLUMNS)
                                + "; rename it, or take it out, so that nothing of the table is lost without a word.");
            }
        }
        for (String needed : List.of("name", "says")) {
            if (names.stream()
                    .noneMatch(n -> List.of(headings(needed)).contains(n.strip().toLowerCase(Locale.ROOT)))) {
                throw new Refusal(
                        "file",
                        "The table has no column “" + needed + "”. Its first row names the columns: "
                                + String.join(", ", COLUMNS) + "; name and says must be there.");
            }
        }
    }

    private static String[] headings(String column) {
        return HEADINGS.getOrDefault(column, new String[] {column});
    }

    private static Device take(Device device, CSVRecord row, Map<String, Long> rows, List<PhraseText> texts) {
        long number = row.getRecordNumber() + 1;
        try {
            PhraseText text = new PhraseText(
                    Csv.cell(row, headings("name")),
                    Csv.cell(row, headings("says")),
                    Csv.cell(row, headings("argument")),
                    Csv.cell(row, headings("effect")),
                    Csv.cell(row, headings("guarded")),
                    Csv.cell(row, headings("listed")),
                    Csv.cell(row, headings("mark")),
                    Csv.cell(row, headings("note")),
                    Csv.cell(row, headings("group")),
                    Csv.cell(row, headings("leaves")),
                    Csv.cell(row, headings("answer")));
            texts.add(text);
            Long earlier = rows.putIfAbsent(text.name().strip().toLowerCase(Locale.ROOT), number);
            if (earlier != null) {
                throw new Refusal("name", "row " + earlier + " has the name “" + text.name() + "” already.");
            }
            Phrase phrase = text.in(device);
            Optional<Phrase> ours = device.phraseNamed(phrase.name());
            return device.withPhrase(ours.map(o -> phrase.withId(o.id())
                            .withLeaves(o.leaves())
                            .withAnswer(phrase.answer().or(o::answer)))
                    .orElse(phrase));
        } catch (Refusal refusal) {
            throw Csv.at(row, refusal);
        }
    }
}
