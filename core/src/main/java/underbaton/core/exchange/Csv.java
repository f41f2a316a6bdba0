package underbaton.core.exchange;

import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.DuplicateHeaderMode;
import underbaton.core.rig.Refusal;

/** Tables with a heading, as RFC 4180 has them; read also when parted by semicolons or tabulators, as spreadsheets do. */
final class Csv {

    /** What spreadsheets take for the beginning of a formula, behind any number of our own apostrophes. */
    private static final Pattern RUN = Pattern.compile("'*[=+\\-@\\t\\r]");

    private static final Pattern SEPARATOR = Pattern.compile("(?i)\"?sep=([,;\\t])\"?\\R");

    private Csv() {}

    static String write(char delimiter, List<String> heading, List<List<String>> rows) {
        StringWriter text = new StringWriter();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(delimiter)
                .setHeader(heading.stream().map(Csv::harmless).toArray(String[]::new))
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (List<String> row : rows) {
                printer.printRecord(row.stream().map(Csv::harmless));
            }
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return text.toString();
    }

    /** A spreadsheet would take it for something to work out: an apostrophe before it makes it a text. */
    private static String harmless(String cell) {
        return RUN.matcher(cell).lookingAt() ? "'" + cell : cell;
    }

    /** The other way round. */
    private static String meant(String cell) {
        return cell.startsWith("'") && RUN.matcher(cell).lookingAt() ? cell.substring(1) : cell;
    }

    /**
     * Rows without anything in them are passed over; so is a first line {@code sep=;}, which some spreadsheets write.
     *
     * @param heading gets the names of the columns, before any row
     * @param taken gets each row
     * @throws Refusal when it is no table, has no rows, or more than {@code mostRows}, two columns with one name, or a
     *     row with something behind the last column
     */
    static void read(String whole, int mostRows, Consumer<List<String>> heading, Consumer<CSVRecord> taken) {
        Matcher says = SEPARATOR.matcher(whole);
        boolean said = says.lookingAt();
        String text = said ? whole.substring(says.end()) : whole;
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(said ? says.group(1).charAt(0) : delimiter(text))
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreHeaderCase(true)
                .setAllowMissingColumnNames(true)
                .setDuplicateHeaderMode(DuplicateHeaderMode.ALLOW_ALL)
                .setTrim(true)
                .setIgnoreEmptyLines(false)
                .get();
        long rows = 0;
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            List<String> names = parser.getHeaderNames();
            requireEachOnce(names);
            heading.accept(names);
            for (CSVRecord row : parser) {
                if (row.stream().allMatch(String::isBlank)) {
                    continue;
                }
                rows++;
                if (rows > mostRows) {
                    throw new Refusal("file", "The table has more than " + mostRows + " rows; split it.");
                }
                requireWithin(row, names.size());
                taken.accept(row);
            }
        } catch (IllegalArgumentException | UncheckedIOException | IOException notCsv) {
            throw new Refusal(
                    "file",
                    "The file cannot be read as a table: a quotation mark is opened and not closed, or something stands "
                            + "behind a closed one. Save it as CSV once more.");
        }
        if (rows == 0) {
            throw new Refusal("file", "The table has a heading but no rows.");
        }
    }

    private static void requireEachOnce(List<String> names) {
        Set<String> seen = new HashSet<>();
        for (String name : names) {
            if (!name.isBlank() && !seen.add(name.strip().toLowerCase(Locale.ROOT))) {
                throw new Refusal(
                        "file", "Two columns are headed “" + name.strip() + "”; rename one of them, or take it out.");
            }
        }
    }

    private static void requireWithin(CSVRecord row, int columns) {
        for (int i = columns; i < row.size(); i++) {
            if (!row.get(i).isBlank()) {
                throw at(
                        row,
                        new Refusal(
                                "",
                                "“" + row.get(i) + "” stands behind the last column, as if a cell had been parted in "
                                        + "two; put it between quotation marks."));
            }
        }
    }

    /** The sign that parts the heading the most often, outside of quotation marks. */
    private static char delimiter(String text) {
        String heading = text.lines().findFirst().orElse("").replaceAll("\"[^\"]*\"", "");
        char most = ',';
        for (char sign : new char[] {'\t', ';'}) {
            most = count(heading, sign) > count(heading, most) ? sign : most;
        }
        return most;
    }

    private static long count(String text, char sign) {
        return text.chars().filter(c -> c == sign).count();
    }

    /** Of the first of these columns that the table has. */
    static String cell(CSVRecord row, String... columns) {
        for (String column : columns) {
            if (row.isSet(column)) {
                return meant(row.get(column));
            }
        }
        return "";
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
