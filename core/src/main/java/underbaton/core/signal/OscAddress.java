package underbaton.core.signal;

import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import underbaton.core.rig.Refusal;

/** Address patterns of OSC 1.0: {@code ?}, {@code *}, {@code [a-z]}, {@code [!a]} and {@code {one,two}}, each within its part. */
final class OscAddress {

    private OscAddress() {}

    static boolean matches(String pattern, String address) {
        return pattern.equals(address) || compiled(pattern).matcher(address).matches();
    }

    static void requireReadable(String pattern) {
        try {
            compiled(pattern);
        } catch (PatternSyntaxException unreadable) {
            throw new Refusal("address", "The address " + pattern + " has a bracket that is not closed.");
        }
    }

    private static Pattern compiled(String pattern) {
        StringBuilder regex = new StringBuilder();
        boolean choice = false;
        boolean set = false;
        for (int i = 0; i < pattern.length(); i++) {
            char c = pattern.charAt(i);
            if (set) {
                set = c != ']';
                boolean negates = c == '!' && pattern.charAt(i - 1) == '[';
                regex.append(negates ? "^/" : "\\^[&~".indexOf(c) >= 0 ? "\\" + c : Character.toString(c));
            } else if (c == '[') {
                set = true;
                regex.append(c);
            } else if (c == '{') {
                choice = true;
                regex.append("(?:");
            } else if (c == '}' && choice) {
                choice = false;
                regex.append(')');
            } else if (c == ',' && choice) {
                regex.append('|');
            } else {
                regex.append(c == '*' ? "[^/]*" : c == '?' ? "[^/]" : Pattern.quote(Character.toString(c)));
            }
        }
        return Pattern.compile(regex.toString());
    }
}
