package underbaton.core.signal;

import dk.brics.automaton.Automaton;
import java.util.ArrayList;
import java.util.List;
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

    /** Whether there is an address that both match. */
    static boolean meet(String one, String other) {
        if (one.equals(other)) {
            return true;
        }
        return !automaton(one).intersection(automaton(other)).isEmpty();
    }

    /** The addresses that a pattern matches, by the same signs as {@link #compiled}. */
    private static Automaton automaton(String pattern) {
        List<Automaton> parts = new ArrayList<>();
        List<List<Automaton>> choices = new ArrayList<>();
        Automaton none = Automaton.makeChar('/').complement().intersection(Automaton.makeAnyChar());
        for (int i = 0; i < pattern.length(); i++) {
            char c = pattern.charAt(i);
            if (c == '[') {
                int end = pattern.indexOf(']', i);
                parts.add(set(pattern.substring(i + 1, end)));
                i = end;
            } else if (c == '{') {
                choices.add(parts);
                parts = new ArrayList<>();
                choices.add(new ArrayList<>());
            } else if (choices.size() > 1 && (c == ',' || c == '}')) {
                List<Automaton> alternatives = choices.get(choices.size() - 1);
                alternatives.add(Automaton.concatenate(parts));
                parts = new ArrayList<>();
                if (c == '}') {
                    choices.remove(choices.size() - 1);
                    parts = choices.remove(choices.size() - 1);
                    parts.add(Automaton.union(alternatives));
                }
            } else {
                parts.add(c == '*' ? none.repeat() : c == '?' ? none : Automaton.makeChar(c));
            }
        }
        return Automaton.concatenate(parts);
    }

    private static Automaton set(String between) {
        boolean negates = between.startsWith("!");
        String signs = negates ? between.substring(1) : between;
        List<Automaton> all = new ArrayList<>(List.of(Automaton.makeEmpty()));
        for (int i = 0; i < signs.length(); i++) {
            boolean range = i + 2 < signs.length() && signs.charAt(i + 1) == '-';
            all.add(
                    range
                            ? Automaton.makeCharRange(signs.charAt(i), signs.charAt(i + 2))
                            : Automaton.makeChar(signs.charAt(i)));
            i += range ? 2 : 0;
        }
        Automaton set = Automaton.union(all);
        Automaton other = Automaton.makeAnyChar().minus(set).minus(Automaton.makeChar('/'));
        return negates ? other : set;
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
