package underbaton.core.score;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A name as it stands in the words of a score: plain, or, where it could be read as something else, between quotation marks
 * with a backslash before marks and backslashes and characters of control as their numbers.
 */
final class NameInWords {

    /** How {@link #read} takes a quoted one, as the inside of a pattern. */
    static final String QUOTED = "\"(?:[^\"\\\\]|\\\\.)*\"";

    /** What ends lines, what cannot be seen, and what has a meaning of its own behind a section or a film. */
    private static final Pattern MISREAD =
            Pattern.compile("(?s)(?:\"|at ).*|.*[\\p{Cc}\u2028\u2029].*|(?:.* )?as [A-Z].*");

    private static final Pattern ESCAPED = Pattern.compile("\\\\(u[0-9a-f]{4}|.)");

    private NameInWords() {}

    static String write(String name) {
        if (!MISREAD.matcher(name).matches()) {
            return name;
        }
        StringBuilder quoted = new StringBuilder("\"");
        for (char c : name.toCharArray()) {
            boolean control = Character.isISOControl(c) || c == '\u2028' || c == '\u2029';
            quoted.append(control ? "\\u%04x".formatted((int) c) : c == '"' || c == '\\' ? "\\" + c : "" + c);
        }
        return quoted.append('"').toString();
    }

    /** @param written plain or quoted; null for none */
    static String read(String written) {
        if (written == null || !written.matches(QUOTED)) {
            return written == null ? "" : written;
        }
        return ESCAPED.matcher(written.substring(1, written.length() - 1))
                .replaceAll(m -> Matcher.quoteReplacement(
                        m.group(1).length() == 1
                                ? m.group(1)
                                : Character.toString(Integer.parseInt(m.group(1).substring(1), 16))));
    }
}
