package underbaton.core.file;

import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.function.Consumer;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import underbaton.core.rig.Refusal;

/** Tables with a heading, as RFC 4180 has them; read also when parted by semicolons or tabulators, as spreadsheets do. */
final class Csv {

    private Csv() {}

    static String write(char delimiter, List<String> heading, List<List<String>> rows) {
        StringWriter text = new StringWriter();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(delimiter)
                .setHeader(heading.toArray(String[]::new))
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            printer.printRecords(rows);
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return text.toString();
    }

    /**
     * @param heading gets the names of the columns, before any row
     * @param taken gets each row
     * @throws Refusal when it is no table, has no rows, or more than {@code mostRows}
     */
    static void read(String text, int mostRows, Consumer<List<String>> heading, Consumer<CSVRecord> taken) {
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(delimiter(text))
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreHeaderCase(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        long rows = 0;
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            heading.accept(parser.getHeaderNames());
            for (CSVRecord row : parser) {
                rows = row.getRecordNumber();
                if (rows > mostRows) {
                    throw new Refusal("file", "The table has more than " + mostRows + " rows; split it.");
                }
                taken.accept(row);
            }
        } catch (IllegalArgumentException | UncheckedIOException | IOException notCsv) {
            throw new Refusal("file", "The file cannot be read as a table: " + notCsv.getMessage());
        }
        if (rows == 0) {
            throw new Refusal("file", "The table has a heading but no rows.");
        }
    }

    private static char delimiter(String text) {
        String heading = text.lines().findFirst().orElse("");
        return heading.contains("\t") ? '\t' : heading.contains(";") && !heading.contains(",") ? ';' : ',';
    }

    static String cell(CSVRecord row, String column) {
        return row.isSet(column) ? row.get(column) : "";
    }

    /** The row of a refusal as a spreadsheet counts it, the heading being row 1. */
    static Refusal at(CSVRecord row, Refusal refusal) {
        return at(row.getRecordNumber() + 1, refusal);
    }

    static Refusal at(long row, Refusal refusal) {
        String column = refusal.field().isEmpty() ? "" : ", column " + refusal.field();
        return new Refusal("file", "Row " + row + column + ": " + refusal.getMessage() + " Nothing was taken in.");
    }
}
