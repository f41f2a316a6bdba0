package underbaton.web.rig;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;

/** Reads a machine's list as people paste it: a name a line, with or without numbering, or the first column of a table. */
final class PastedNames {

    private static final int LONGEST = 100_000;
    private static final int MOST_LINES = 1000;
    private static final Pattern NUMBERED = Pattern.compile("\\d{1,4}(?:[.):]\\s*|\\t\\s*)(.+)");

    private PastedNames() {}

    /** @throws Refusal when nothing was pasted, or far more than any machine's list */
    static List<String> read(String pasted) {
        if (pasted.length() > LONGEST) {
            throw new Refusal("names", "This is longer than any machine's list; paste the names alone.");
        }
        List<String> names = pasted.lines()
                .map(String::strip)
                .filter(l -> !l.isEmpty())
                .limit(MOST_LINES)
                .map(PastedNames::name)
                .toList();
        if (names.isEmpty()) {
            throw new Refusal("names", "Paste the machine's list first, a name a line.");
        }
        return names;
    }

    /** As spreadsheets quote: up to the next mark that is not doubled. */
    private static String quoted(String line) {
        StringBuilder name = new StringBuilder();
        for (int i = 1; i < line.length(); i++) {
            boolean mark = line.charAt(i) == '"';
            boolean doubled = mark && i + 1 < line.length() && line.charAt(i + 1) == '"';
            if (mark && !doubled) {
                return name.toString();
            }
            name.append(line.charAt(i));
            i += doubled ? 1 : 0;
        }
        return name.toString();
    }

    private static String name(String line) {
        if (line.startsWith("\"") && line.indexOf('"', 1) > 0) {
            return quoted(line).strip();
        }
        Matcher numbered = NUMBERED.matcher(line);
        String plain = numbered.matches() ? numbered.group(1) : line;
        return plain.split("\t")[0].strip();
    }
}
