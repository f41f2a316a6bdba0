package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * A machine's list as people have it: a name a line; with bullets, with numbers before the names, as columns of a table parted by tabs,
 * semicolons or commas, with a heading, with empty lines where the machine has empty places.
 */
public final class PastedList {

    private static final int LONGEST = 100_000;
    private static final int MOST_LINES = 1000;

    private static final Pattern BULLET = Pattern.compile("[•·◦‣▪*–—-]\\s+(.+)");
    /** {@code 3 - Warm}, {@code 3. Warm}, {@code 3) Warm}, {@code No. 3: Warm}; not {@code 12.5 Bridge}. */
    private static final Pattern SIGNED =
            Pattern.compile("(?:(?i:no\\.?|#)\\s*)?(\\d{1,4})(?:\\s*[.):](?!\\d)|\\s+[-–—](?=\\s))\\s*(\\S.*)");

    /** {@code #1 Warm}, {@code No. 1 Warm}. */
    private static final Pattern MARKED = Pattern.compile("(?:(?i:no\\.?|nr\\.?)\\s*|#\\s*)(\\d{1,4})\\s+(\\S.*)");
    /** {@code A1. Warm}: the place in a bank. */
    private static final Pattern BANKED = Pattern.compile("[A-Z]\\d{1,3}\\s*[.):]\\s*(\\S.*)");

    private static final Pattern TABBED = Pattern.compile("(\\d{1,4})\\t\\s*(\\S.*)");
    /** {@code 8 Amber}: a number only where every line has one. */
    private static final Pattern BARE = Pattern.compile("(\\d{1,4})\\s+(\\S.*)");

    private static final Pattern DASHED = Pattern.compile("(\\d{1,4})\\s+[-–—]\\s*(\\S.*)");

    private static final Pattern QUOTED = Pattern.compile("\"((?:[^\"]|\"\")*)\"(?:\\t.*)?");

    private PastedList() {}

    /**
     * One line that says something.
     *
     * @param number the place as the machine prints it
     * @param heading whether it looks like a heading and no entry
     */
    public record Line(int number, String name, boolean heading) {}

    private record Read(OptionalInt number, String name, boolean heading) {

        boolean isEmpty() {
            return name.isEmpty();
        }
    }

    /**
     * @param firstPlace what the machine calls its first place
     * @return the lines that say something; an empty line between them is an empty place, unless the places are numbered
     * @throws Refusal when nothing was pasted, or far more than any machine's list
     */
    public static List<Line> read(String pasted, int firstPlace) {
        if (pasted.length() > LONGEST || pasted.lines().count() > MOST_LINES) {
            throw new Refusal("names", "This is longer than any machine's list; paste the names alone.");
        }
        List<String> lines =
                asTable(plain(pasted).strip().lines().map(PastedList::unmarked).toList());
        if (lines.stream().allMatch(String::isEmpty)) {
            throw new Refusal("names", "Paste the machine's list first, a name a line.");
        }
        return placed(read(lines), firstPlace);
    }

    /** With blanks and digits as keyboards have them, and without the mark that some programs begin a file with. */
    private static String plain(String pasted) {
        StringBuilder plain = new StringBuilder(pasted.length());
        pasted.chars().filter(c -> c != 0xFEFF).forEach(c -> {
            boolean wide = c >= 0xFF10 && c <= 0xFF19;
            boolean blank = c != '\t' && Character.getType(c) == Character.SPACE_SEPARATOR;
            plain.append(wide ? (char) (c - 0xFF10 + '0') : blank ? ' ' : (char) c);
        });
        return plain.toString();
    }

    /** The rows of a table parted by semicolons or commas, of which one column counts, as its number, a tab and the name. */
    private static List<String> asTable(List<String> lines) {
        for (String sign : List.of(";", ",")) {
            List<String[]> rows = lines.stream()
                    .filter(l -> !l.isEmpty())
                    .map(l -> l.split(sign, -1))
                    .toList();
            int columns = rows.isEmpty() ? 0 : rows.get(rows.size() - 1).length;
            OptionalInt counts = rows.stream().allMatch(r -> r.length == columns)
                    ? IntStream.range(0, columns)
                            .filter(c -> rows.size() > 1 && rises(rows, c))
                            .findFirst()
                    : OptionalInt.empty();
            if (columns > 1 && counts.isPresent()) {
                int names = counts.getAsInt() == 0 ? 1 : 0;
                return lines.stream()
                        .map(l -> l.isEmpty() ? l : row(l.split(sign, -1), counts.getAsInt(), names))
                        .toList();
            }
        }
        return lines;
    }

    /** A heading has no number. */
    private static String row(String[] row, int number, int name) {
        return isNumber(row[number]) ? row[number].strip() + "\t" + row[name].strip() : row[name].strip() + ":";
    }

    /** Whether a column has a number in each row but the first, which may be a heading, and each is above the one before. */
    private static boolean rises(List<String[]> rows, int column) {
        int before = -1;
        for (int i = 0; i < rows.size(); i++) {
            String cell = rows.get(i)[column];
            if (!isNumber(cell)) {
                if (i > 0) {
                    return false;
                }
                continue;
            }
            int number = Integer.parseInt(cell.strip());
            if (number <= before) {
                return false;
            }
            before = number;
        }
        return true;
    }

    private static boolean isNumber(String cell) {
        return cell.strip().matches("\\d{1,4}");
    }

    private static String unmarked(String line) {
        Matcher bullet = BULLET.matcher(line.strip());
        return bullet.matches() ? bullet.group(1).strip() : line.strip();
    }

    private static List<Read> read(List<String> lines) {
        boolean bare = isNumberedThroughout(lines);
        // A dash behind the number belongs to the number where every line has one: 1 -Warm.
        boolean dashed = bare
                && lines.stream()
                        .allMatch(l ->
                                !BARE.matcher(l).matches() || DASHED.matcher(l).matches());
        List<Read> read = new ArrayList<>();
        for (String line : lines) {
            Matcher quoted = QUOTED.matcher(line);
            Matcher tabbed = TABBED.matcher(line);
            Matcher signed = SIGNED.matcher(line);
            Matcher marked = MARKED.matcher(line);
            Matcher banked = BANKED.matcher(line);
            Matcher plain = (dashed ? DASHED : BARE).matcher(line);
            if (quoted.matches()) {
                read.add(new Read(
                        OptionalInt.empty(),
                        quoted.group(1).replace("\"\"", "\"").strip(),
                        false));
            } else if (tabbed.matches()) {
                read.add(numbered(tabbed));
            } else if (signed.matches()) {
                read.add(numbered(signed));
            } else if (marked.matches()) {
                read.add(numbered(marked));
            } else if (banked.matches()) {
                read.add(new Read(OptionalInt.empty(), column(banked.group(1)), false));
            } else if (bare && plain.matches()) {
                read.add(numbered(plain));
            } else {
                String name = column(line);
                read.add(new Read(OptionalInt.empty(), name, name.endsWith(":")));
            }
        }
        return read;
    }

    private static Read numbered(Matcher m) {
        return new Read(OptionalInt.of(Integer.parseInt(m.group(1))), column(m.group(2)), false);
    }

    /** The first of a table's. */
    private static String column(String line) {
        return line.split("\t")[0].strip();
    }

    /** Whether every line but a heading begins with a number, each above the one before. */
    private static boolean isNumberedThroughout(List<String> lines) {
        int before = -1;
        int numbers = 0;
        boolean first = true;
        for (String line : lines) {
            Matcher m = BARE.matcher(line);
            if (line.isEmpty()) {
                continue;
            }
            int number = m.matches() ? Integer.parseInt(m.group(1)) : -1;
            if (number <= before && !(first && number < 0)) {
                return false;
            }
            numbers += number >= 0 ? 1 : 0;
            before = number;
            first = false;
        }
        return numbers > 1;
    }

    private static List<Line> placed(List<Read> read, int firstPlace) {
        long numbers = read.stream().filter(r -> r.number().isPresent()).count();
        List<Line> lines = new ArrayList<>();
        int next = firstPlace;
        for (Read each : read) {
            boolean heading = each.heading() || numbers > 1 && each.number().isEmpty() && lines.isEmpty();
            if (each.isEmpty()) {
                next += numbers == 0 && !lines.isEmpty() ? 1 : 0;
            } else if (heading) {
                lines.add(new Line(next, each.name(), true));
            } else {
                int number = each.number().orElse(next);
                lines.add(new Line(number, each.name(), false));
                next = number + 1;
            }
        }
        return lines;
    }
}
