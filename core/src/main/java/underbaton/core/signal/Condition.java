package underbaton.core.signal;

import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Refusal;

/**
 * What an argument of an OSC message must be. Numbers are compared as numbers, however they are written.
 *
 * @param place of the argument, from 0
 * @param value a number or a text
 */
public record Condition(int place, Relation relation, String value) {

    private static final List<String> NAMED = List.of("first", "second", "third");

    /** How the argument is compared with the value. */
    public enum Relation {
        IS(""),
        IS_NOT("anything but "),
        AT_LEAST("at least "),
        AT_MOST("at most ");

        private final String words;

        Relation(String words) {
            this.words = words;
        }
    }

    public Condition {
        if (place < 0 || place > 31 || value.length() > 200) {
            throw new Refusal("condition", "A condition is on one of 32 arguments, with at most 200 characters.");
        }
    }

    boolean holds(List<Object> arguments) {
        return place < arguments.size() && holdsFor(arguments.get(place));
    }

    /** Whether it holds for what stands at its place. */
    boolean holdsFor(Object argument) {
        OptionalDouble is = number(argument);
        OptionalDouble wanted = number(value);
        if (is.isPresent() && wanted.isPresent()) {
            int order = Double.compare(is.getAsDouble(), wanted.getAsDouble());
            return switch (relation) {
                case IS -> order == 0;
                case IS_NOT -> order != 0;
                case AT_LEAST -> order >= 0;
                case AT_MOST -> order <= 0;
            };
        }
        boolean same = text(argument).equalsIgnoreCase(value);
        return relation == Relation.IS ? same : relation == Relation.IS_NOT && !same;
    }

    /** Whether it holds, or a number is off by less than one. */
    boolean isClose(List<Object> arguments) {
        if (place >= arguments.size()) {
            return false;
        }
        OptionalDouble is = number(arguments.get(place));
        OptionalDouble wanted = number(value);
        return holds(arguments)
                || is.isPresent() && wanted.isPresent() && Math.abs(is.getAsDouble() - wanted.getAsDouble()) < 1;
    }

    String why(List<Object> arguments) {
        return place >= arguments.size()
                ? "it has no " + nth() + " argument"
                : "its " + nth() + " argument is " + text(arguments.get(place)) + ", listens for " + relation.words
                        + value;
    }

    private String nth() {
        return place < NAMED.size() ? NAMED.get(place) : place + 1 + "th";
    }

    /** {@code first argument at least 0.5}. */
    String words() {
        return nth() + " argument " + relation.words + value;
    }

    /** A number as text, integer, float, or a bare true or false, alike. */
    static OptionalDouble number(Object argument) {
        if (argument instanceof Number number) {
            return OptionalDouble.of(number.doubleValue());
        }
        if (argument instanceof Boolean flag) {
            return OptionalDouble.of(flag ? 1 : 0);
        }
        try {
            return OptionalDouble.of(Double.parseDouble(text(argument).strip()));
        } catch (NumberFormatException noNumber) {
            return OptionalDouble.empty();
        }
    }

    static String text(Object argument) {
        return argument instanceof OscMessage.Symbol symbol
                ? symbol.text()
                : argument instanceof Enum<?> bare ? bare.name().toLowerCase(Locale.ROOT) : argument.toString();
    }
}
