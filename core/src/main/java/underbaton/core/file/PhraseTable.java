package underbaton.core.file;

import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;

/**
 * A phrasebook as CSV (RFC 4180, UTF-8): one row a phrase under the columns name, says, argument, effect, guarded, listed,
 * mark, note, group, in any order; see {@code docs/formats/phrasebook-csv.md}. Rows may be parted by semicolons or
 * tabulators too, as some spreadsheets write them.
 */
public final class PhraseTable {

    private static final List<String> COLUMNS =
            List.of("name", "says", "argument", "effect", "guarded", "listed", "mark", "note", "group");
    private static final int MOST_ROWS = 1000;

    private PhraseTable() {}

    public static String write(Device device) {
        StringWriter text = new StringWriter();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader(COLUMNS.toArray(String[]::new))
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (Phrase phrase : device.phrases()) {
                PhraseText p = PhraseText.of(device, phrase);
                printer.printRecord(
                        p.name(),
                        p.says(),
                        p.argument(),
                        p.effect(),
                        p.guarded(),
                        p.listed(),
                        p.mark(),
                        p.note(),
                        p.group());
            }
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return text.toString();
    }

    /**
     * Takes a table into a phrasebook: phrases whose names are there already are exchanged, so that cues keep them; the
     * others come after them, in the order of the table.
     *
     * @throws Refusal naming the row and the column that cannot be read; nothing has been taken then
     */
    public static Device read(Device device, byte[] file) {
        String text = Utf8.text(file);
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(delimiter(text))
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreHeaderCase(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        Device filled = device;
        Map<String, Long> rows = new HashMap<>();
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            requireColumns(parser.getHeaderNames());
            for (CSVRecord row : parser) {
                if (row.getRecordNumber() > MOST_ROWS) {
                    throw new Refusal("file", "The table has more than " + MOST_ROWS + " rows; split it.");
                }
                filled = take(filled, row, rows);
            }
        } catch (IllegalArgumentException | UncheckedIOException | IOException notCsv) {
            throw new Refusal("file", "The file cannot be read as a table: " + notCsv.getMessage());
        }
        if (rows.isEmpty()) {
            throw new Refusal("file", "The table has a heading but no rows.");
        }
        return filled;
    }

    private static char delimiter(String text) {
        String heading = text.lines().findFirst().orElse("");
        return heading.contains("\t") ? '\t' : heading.contains(";") && !heading.contains(",") ? ';' : ',';
    }

    private static void requireColumns(List<String> names) {
        for (String needed : List.of("name", "says")) {
            if (names.stream().noneMatch(needed::equalsIgnoreCase)) {
                throw new Refusal(
                        "file",
                        "The table has no column “" + needed + "”. Its first row names the columns: "
                                + String.join(", ", COLUMNS) + "; name and says must be there.");
            }
        }
    }

    private static Device take(Device device, CSVRecord row, Map<String, Long> rows) {
        long number = row.getRecordNumber() + 1;
        try {
            PhraseText text = new PhraseText(
                    cell(row, "name"),
                    cell(row, "says"),
                    cell(row, "argument"),
                    cell(row, "effect"),
                    cell(row, "guarded"),
                    cell(row, "listed"),
                    cell(row, "mark"),
                    cell(row, "note"),
                    cell(row, "group"));
            Long earlier = rows.putIfAbsent(text.name().strip().toLowerCase(Locale.ROOT), number);
            if (earlier != null) {
                throw new Refusal("name", "row " + earlier + " has the name “" + text.name() + "” already.");
            }
            Phrase phrase = text.in(device);
            Optional<Phrase> ours = device.phraseNamed(phrase.name());
            return device.withPhrase(ours.map(o -> phrase.withId(o.id())).orElse(phrase));
        } catch (Refusal refusal) {
            String column = refusal.field().isEmpty() ? "" : ", column " + refusal.field();
            throw new Refusal(
                    "file", "Row " + number + column + ": " + refusal.getMessage() + " Nothing was taken in.");
        }
    }

    private static String cell(CSVRecord row, String column) {
        return row.isSet(column) ? row.get(column) : "";
    }
}
