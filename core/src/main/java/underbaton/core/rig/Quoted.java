package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;

/**
 * Texts between quotation marks inside of what people type: within them nothing parts, and a backslash stands before a
 * mark or a backslash that is meant itself, and before n for a line end.
 */
public final class Quoted {

    private static final char MARK = '"';
    private static final char ESCAPE = '\\';

    private Quoted() {}

    /** In quotation marks, so that {@link #read} gives the same text again. */
    public static String write(String text) {
        StringBuilder quoted = new StringBuilder().append(MARK);
        for (char c : text.toCharArray()) {
            switch (c) {
                case MARK, ESCAPE -> quoted.append(ESCAPE).append(c);
                case '\n' -> quoted.append(ESCAPE).append('n');
                case '\r' -> quoted.append(ESCAPE).append('r');
                default -> quoted.append(c);
            }
        }
        return quoted.append(MARK).toString();
    }

    /** Whether the whole text is one quoted text. */
    public static boolean is(String text) {
        return text.length() > 1 && text.charAt(0) == MARK && end(text, 0) == text.length() - 1;
    }

    /** The other way round. */
    public static String read(String quoted) {
        StringBuilder text = new StringBuilder();
        for (int i = 1; i < quoted.length() - 1; i++) {
            char c = quoted.charAt(i);
            if (c == ESCAPE && i + 1 < quoted.length() - 1) {
                char next = quoted.charAt(++i);
                c = next == 'n' ? '\n' : next == 'r' ? '\r' : next;
            }
            text.append(c);
        }
        return text.toString();
    }

    /** Where the quoted text that begins at {@code from} ends: the place of its second mark, or −1. */
    static int end(String text, int from) {
        for (int i = from + 1; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == ESCAPE) {
                i++;
            } else if (c == MARK) {
                return i;
            }
        }
        return -1;
    }

    /**
     * Parts a text at each separator that does not stand between quotation marks. A mark without its second one is an
     * ordinary character.
     *
     * @param separators one or more texts, none of them empty
     */
    public static List<String> split(String text, String... separators) {
        List<String> parts = new ArrayList<>();
        int begin = 0;
        int i = 0;
        while (i < text.length()) {
            int end = text.charAt(i) == MARK ? end(text, i) : -1;
            if (end > 0) {
                i = end + 1;
                continue;
            }
            int length = separatorAt(text, i, separators);
            if (length > 0) {
                parts.add(text.substring(begin, i));
                begin = i + length;
                i = begin;
            } else {
                i++;
            }
        }
        parts.add(text.substring(begin));
        return parts;
    }

    private static int separatorAt(String text, int at, String... separators) {
        for (String separator : separators) {
            if (text.startsWith(separator, at)) {
                return separator.length();
            }
        }
        return 0;
    }
}
